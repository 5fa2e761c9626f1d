"""Templates of letters that a clinic keeps."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, func, insert, select, update

from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.tables import LetterTemplate


def list_templates(db: Connection, actor: Actor) -> Sequence[Row[Any]]:
    """Those in use, by name."""
    return db.execute(
        select(LetterTemplate.__table__)
        .where(LetterTemplate.clinic_id == actor.clinic_id, LetterTemplate.archived_at.is_(None))
        .order_by(LetterTemplate.name)
    ).all()


def get_template(db: Connection, actor: Actor, template_id: UUID) -> Row[Any]:
    """Raises NotFound, also for one that is out of use."""
    found = db.execute(
        select(LetterTemplate.__table__).where(
            LetterTemplate.clinic_id == actor.clinic_id,
            LetterTemplate.id == template_id,
            LetterTemplate.archived_at.is_(None),
        )
    ).first()
    if found is None:
        raise NotFound("template", template_id)
    return found


def keep_template(
    db: Connection, actor: Actor, template_id: UUID, name: str, lines: Mapping[str, str]
) -> None:
    """Safe to repeat. Raises Refused for a name in use, Differs for another content under this id."""
    content = {"name": name, "lines": dict(lines)}
    standing = db.execute(
        select(LetterTemplate.__table__).where(
            LetterTemplate.clinic_id == actor.clinic_id, LetterTemplate.id == template_id
        )
    ).first()
    if standing is not None:
        if paths := [part for part, value in content.items() if getattr(standing, part) != value]:
            raise Differs("template", template_id, paths)
        return
    if any(row.name == name for row in list_templates(db, actor)):
        raise Refused([Fault("name", name, "is the name of another template")])
    db.execute(
        insert(LetterTemplate).values(
            clinic_id=actor.clinic_id, id=template_id, created_by=actor.user_id, **content
        )
    )
    audit(db, actor, "keep", "template", template_id)


def archive_template(db: Connection, actor: Actor, template_id: UUID) -> None:
    """Out of use. Safe to repeat. Raises NotFound."""
    found = db.execute(
        update(LetterTemplate)
        .where(LetterTemplate.clinic_id == actor.clinic_id, LetterTemplate.id == template_id)
        .values(archived_at=func.coalesce(LetterTemplate.archived_at, func.now()))
        .returning(LetterTemplate.id)
    ).first()
    if found is None:
        raise NotFound("template", template_id)
    audit(db, actor, "archive", "template", template_id)
