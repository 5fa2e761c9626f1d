"""Athletes: add, edit, archive, find."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import ARRAY, Connection, Row, Select, Text, any_, func, insert, literal, select, update

from northstride.core.terms.errors import Fault
from northstride.record.naming import fold, looks
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NewerEdit, NotFound, Refused
from northstride.store.tables import Athlete, Screen, SquadMember

MOST_LISTED = 500


def add_athlete(db: Connection, actor: Actor, athlete_id: UUID, fields: Mapping[str, Any]) -> None:
    """Safe to repeat. Raises Refused where the reference is taken, Differs for another content."""
    standing = _athlete_row(db, actor, athlete_id)
    if standing is not None:
        paths = [name for name, value in fields.items() if getattr(standing, name) != value]
        if paths:
            raise Differs("athlete", athlete_id, paths)
        return
    _check_ref_free(db, actor, fields["ref"], athlete_id)
    keys = ref_keys(fields["ref"])
    db.execute(insert(Athlete).values(clinic_id=actor.clinic_id, id=athlete_id, **fields, **keys))
    audit(db, actor, "add", "athlete", athlete_id)


def edit_athlete(db: Connection, actor: Actor, athlete_id: UUID, seen: int, fields: Mapping[str, Any]) -> int:
    """Changes what differs, and keeps what stood before in the audit. Returns the revision it leads to.

    `seen` is the revision the editor saw: raises NewerEdit where it has moved on, unless all that is
    asked stands already. Raises NotFound, Refused.
    """
    standing = lock_athlete(db, actor, athlete_id)
    changed = {name: value for name, value in fields.items() if getattr(standing, name) != value}
    if not changed:
        return seen
    raise_revision(db, actor, standing, seen)
    keys: dict[str, str] = {}
    if "ref" in changed:
        _check_ref_free(db, actor, changed["ref"], athlete_id)
        keys = ref_keys(changed["ref"])
    if changed.get("birth_date") is not None:
        _check_born_before_screens(db, actor, athlete_id, changed["birth_date"])
    db.execute(
        update(Athlete)
        .where(Athlete.clinic_id == actor.clinic_id, Athlete.id == athlete_id)
        .values(**changed, **keys)
    )
    told = {name: [_told(getattr(standing, name)), _told(value)] for name, value in sorted(changed.items())}
    audit(db, actor, "edit", "athlete", athlete_id, {"changed": told})
    return seen + 1


def raise_revision(db: Connection, actor: Actor, standing: Row[Any], seen: int) -> None:
    """Raises NewerEdit where somebody edited what the editor has not seen. The row is locked."""
    if standing.revision != seen:
        raise NewerEdit("athlete", standing.revision)
    db.execute(
        update(Athlete)
        .where(Athlete.clinic_id == actor.clinic_id, Athlete.id == standing.id)
        .values(revision=seen + 1)
    )


def _told(value: object) -> object:
    """A value as the audit keeps it."""
    return value.isoformat() if isinstance(value, dt.date) else value


def lock_athlete(db: Connection, actor: Actor, athlete_id: UUID) -> Row[Any]:
    row = db.execute(
        select(Athlete.__table__)
        .where(Athlete.clinic_id == actor.clinic_id, Athlete.id == athlete_id)
        .with_for_update()
    ).first()
    if row is None:
        raise NotFound("athlete", athlete_id)
    return row


def _check_born_before_screens(db: Connection, actor: Actor, athlete_id: UUID, birth_date: dt.date) -> None:
    """An open screen is read with the birth date: one after it could not be read at all."""
    first = db.execute(
        select(func.min(Screen.date)).where(
            Screen.clinic_id == actor.clinic_id,
            Screen.athlete_id == athlete_id,
            Screen.signed_at.is_(None),
        )
    ).scalar()
    if first is not None and birth_date > first:
        why = f"{birth_date.isoformat()} is after a screen of this athlete, {first.isoformat()}"
        raise Refused([Fault("birth_date", birth_date.isoformat(), why)])


def ref_keys(ref: str) -> dict[str, str]:
    """What no other athlete of the clinic may share."""
    return {"ref_fold": fold(ref), "ref_looks": looks(ref)}


def _check_ref_free(db: Connection, actor: Actor, ref: str, athlete_id: UUID) -> None:
    keys = ref_keys(ref)
    taken = db.execute(
        select(Athlete.ref).where(
            Athlete.clinic_id == actor.clinic_id,
            Athlete.id != athlete_id,
            (Athlete.ref_fold == keys["ref_fold"]) | (Athlete.ref_looks == keys["ref_looks"]),
        )
    ).first()
    if taken is not None:
        own = "is" if taken.ref == ref else f'looks like "{taken.ref}",'
        raise Refused([Fault("ref", ref, f'"{ref}" {own} another athlete\'s reference')])


def archive_athlete(db: Connection, actor: Actor, athlete_id: UUID, *, archived: bool) -> None:
    standing = get_athlete(db, actor, athlete_id)
    if standing.merged_into is not None and not archived:
        why = "was brought together with another: part them first"
        raise Refused([Fault("archived", archived, why)])
    db.execute(
        update(Athlete)
        .where(Athlete.clinic_id == actor.clinic_id, Athlete.id == athlete_id)
        .values(archived_at=func.now() if archived else None)
    )
    audit(db, actor, "archive" if archived else "restore", "athlete", athlete_id)


def _athlete_row(db: Connection, actor: Actor, athlete_id: UUID) -> Row[Any] | None:
    return db.execute(
        select(Athlete.__table__).where(Athlete.clinic_id == actor.clinic_id, Athlete.id == athlete_id)
    ).first()


def get_athlete(db: Connection, actor: Actor, athlete_id: UUID) -> Row[Any]:
    found = _athlete_row(db, actor, athlete_id)
    if found is None:
        raise NotFound("athlete", athlete_id)
    return found


def athlete_by_ref(db: Connection, actor: Actor, ref: str) -> Row[Any] | None:
    """Whom a reference names; one that was merged names whom it turned out to be."""
    return athletes_by_ref(db, actor, [ref]).get(ref)


def athletes_by_ref(db: Connection, actor: Actor, refs: Iterable[str]) -> dict[str, Row[Any]]:
    """By each of `refs` whom it names, whatever its case."""
    wanted = {ref: fold(ref) for ref in refs}
    # One array, not a placeholder each: a table names thousands.
    keys = literal(list(wanted.values()), ARRAY(Text))
    own, other = Athlete.__table__, Athlete.__table__.alias("own")
    rows = db.execute(
        select(own.c.ref_fold.label("key"), *other.c)
        .join(
            other,
            (other.c.clinic_id == own.c.clinic_id)
            & (other.c.id == func.coalesce(own.c.merged_into, own.c.id)),
        )
        .where(
            own.c.clinic_id == actor.clinic_id,
            own.c.ref_fold == any_(keys),
        )
    ).all()
    by_key = {row.key: row for row in rows}
    return {ref: by_key[key] for ref, key in wanted.items() if key in by_key}


def list_athletes(
    db: Connection,
    actor: Actor,
    *,
    search: str = "",
    squad_id: UUID | None = None,
    archived: bool = False,
    skip: int = 0,
    most: int = MOST_LISTED,
) -> tuple[int, Sequence[Row[Any]]]:
    """How many there are, and a page of them by name.

    Every word of `search` must stand in name, reference or sport.
    """
    query: Select[Any] = select(Athlete.__table__).where(
        Athlete.clinic_id == actor.clinic_id,
        Athlete.archived_at.is_not(None) if archived else Athlete.archived_at.is_(None),
    )
    # Looked through once: a line of all three costs a third of asking each.
    known_by = func.lower(func.concat_ws("\n", Athlete.name, Athlete.ref, Athlete.sport))
    for word in search.split():
        query = query.where(known_by.contains(word.lower(), autoescape=True))
    if squad_id is not None:
        query = query.join(
            SquadMember,
            (SquadMember.clinic_id == Athlete.clinic_id) & (SquadMember.athlete_id == Athlete.id),
        ).where(SquadMember.squad_id == squad_id)
    ordered = query.order_by(Athlete.name, Athlete.ref, Athlete.id).offset(skip).limit(most)
    page = db.execute(ordered.add_columns(func.count().over().label("total"))).all()
    if page or skip == 0:
        return (page[0].total if page else 0), page
    # Past the end no row can say how many there are.
    return db.execute(select(func.count()).select_from(query.subquery())).scalar_one(), page
