"""What a clinic keeps by name and takes out of use: one way to list, find, keep and archive it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, Select, func, insert, select, update

from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.tables import ClinicRoute, LetterTemplate


@dataclass(frozen=True, slots=True)
class ClinicList:
    """`within`: the column a name is unique in, where it is not unique in the whole clinic."""

    table: type[ClinicRoute | LetterTemplate]
    noun: str
    within: str | None = None

    def in_use(self, db: Connection, actor: Actor) -> Sequence[Row[Any]]:
        """By name; those of one `within` beside each other."""
        order = [self.table.__table__.c[name] for name in (self.within, "name") if name is not None]
        return db.execute(self._of(actor).where(self.table.archived_at.is_(None)).order_by(*order)).all()

    def get(self, db: Connection, actor: Actor, item_id: UUID) -> Row[Any]:
        """Raises NotFound, also for one that is out of use."""
        found = db.execute(
            self._of(actor).where(self.table.id == item_id, self.table.archived_at.is_(None))
        ).first()
        if found is None:
            raise NotFound(self.noun, item_id)
        return found

    def keep(self, db: Connection, actor: Actor, item_id: UUID, content: Mapping[str, Any]) -> None:
        """Safe to repeat. Raises Refused for a name in use, Differs for another content under this id."""
        standing = db.execute(self._of(actor).where(self.table.id == item_id)).first()
        if standing is not None:
            if paths := [part for part, value in content.items() if getattr(standing, part) != value]:
                raise Differs(self.noun, item_id, paths)
            return
        alike = [name for name in (self.within, "name") if name is not None]
        for row in self.in_use(db, actor):
            if all(getattr(row, part) == content[part] for part in alike):
                raise Refused([Fault("name", content["name"], f"is the name of another {self.noun}")])
        db.execute(
            insert(self.table).values(
                clinic_id=actor.clinic_id, id=item_id, created_by=actor.user_id, **content
            )
        )
        audit(db, actor, "keep", self.noun, item_id)

    def archive(self, db: Connection, actor: Actor, item_id: UUID) -> None:
        """Out of use. Safe to repeat. Raises NotFound."""
        found = db.execute(
            update(self.table)
            .where(self.table.clinic_id == actor.clinic_id, self.table.id == item_id)
            .values(archived_at=func.coalesce(self.table.archived_at, func.now()))
        )
        if found.rowcount == 0:
            raise NotFound(self.noun, item_id)
        audit(db, actor, "archive", self.noun, item_id)

    def _of(self, actor: Actor) -> Select[Any]:
        return select(self.table.__table__).where(self.table.clinic_id == actor.clinic_id)


CLINIC_ROUTES = ClinicList(ClinicRoute, "route", within="purpose")
LETTER_TEMPLATES = ClinicList(LetterTemplate, "template")
