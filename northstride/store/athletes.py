"""Athletes and squads."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, Select, delete, func, insert, or_, select, update

from northstride.core.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.tables import Athlete, Squad, SquadMember

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
    db.execute(insert(Athlete).values(clinic_id=actor.clinic_id, id=athlete_id, **fields))
    audit(db, actor, "add", "athlete", athlete_id)


def edit_athlete(db: Connection, actor: Actor, athlete_id: UUID, fields: Mapping[str, Any]) -> None:
    get_athlete(db, actor, athlete_id)
    if "ref" in fields:
        _check_ref_free(db, actor, fields["ref"], athlete_id)
    if fields:
        db.execute(
            update(Athlete)
            .where(Athlete.clinic_id == actor.clinic_id, Athlete.id == athlete_id)
            .values(**fields)
        )
    audit(db, actor, "edit", "athlete", athlete_id, {"fields": sorted(fields)})


def _check_ref_free(db: Connection, actor: Actor, ref: str, athlete_id: UUID) -> None:
    taken = db.execute(
        select(Athlete.id).where(
            Athlete.clinic_id == actor.clinic_id, Athlete.ref == ref, Athlete.id != athlete_id
        )
    ).first()
    if taken is not None:
        raise Refused([Fault("ref", ref, f'"{ref}" is another athlete\'s reference')])


def archive_athlete(db: Connection, actor: Actor, athlete_id: UUID, *, archived: bool) -> None:
    get_athlete(db, actor, athlete_id)
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
    return db.execute(
        select(Athlete.__table__).where(Athlete.clinic_id == actor.clinic_id, Athlete.ref == ref)
    ).first()


def list_athletes(
    db: Connection, actor: Actor, *, search: str = "", squad_id: UUID | None = None, archived: bool = False
) -> Sequence[Row[Any]]:
    """By name. Every word of `search` must stand in name, reference or sport."""
    query: Select[Any] = select(Athlete.__table__).where(
        Athlete.clinic_id == actor.clinic_id,
        Athlete.archived_at.is_not(None) if archived else Athlete.archived_at.is_(None),
    )
    for word in search.split():
        query = query.where(
            or_(
                *(
                    column.icontains(word, autoescape=True)
                    for column in (Athlete.name, Athlete.ref, Athlete.sport)
                )
            )
        )
    if squad_id is not None:
        query = query.join(
            SquadMember,
            (SquadMember.clinic_id == Athlete.clinic_id) & (SquadMember.athlete_id == Athlete.id),
        ).where(SquadMember.squad_id == squad_id)
    return db.execute(query.order_by(Athlete.name, Athlete.ref).limit(MOST_LISTED)).all()


def squads_of(db: Connection, actor: Actor, athlete_ids: Sequence[UUID]) -> dict[UUID, list[UUID]]:
    rows = db.execute(
        select(SquadMember.athlete_id, SquadMember.squad_id).where(
            SquadMember.clinic_id == actor.clinic_id, SquadMember.athlete_id.in_(athlete_ids)
        )
    )
    found: dict[UUID, list[UUID]] = {}
    for row in rows:
        found.setdefault(row.athlete_id, []).append(row.squad_id)
    return found


def put_in_squads(db: Connection, actor: Actor, athlete_id: UUID, squad_ids: Sequence[UUID]) -> None:
    """The squads of an athlete, as a whole. Raises NotFound for a squad of no such clinic."""
    get_athlete(db, actor, athlete_id)
    wanted = list(dict.fromkeys(squad_ids))
    for squad_id in wanted:
        get_squad(db, actor, squad_id)
    db.execute(
        delete(SquadMember).where(
            SquadMember.clinic_id == actor.clinic_id, SquadMember.athlete_id == athlete_id
        )
    )
    if wanted:
        rows = [
            {"clinic_id": actor.clinic_id, "squad_id": squad_id, "athlete_id": athlete_id}
            for squad_id in wanted
        ]
        db.execute(insert(SquadMember), rows)


def get_squad(db: Connection, actor: Actor, squad_id: UUID) -> Row[Any]:
    found = db.execute(
        select(Squad.__table__).where(Squad.clinic_id == actor.clinic_id, Squad.id == squad_id)
    ).first()
    if found is None:
        raise NotFound("squad", squad_id)
    return found


def list_squads(db: Connection, actor: Actor) -> Sequence[Row[Any]]:
    """Every squad, archived ones too, with the number of its athletes who are not archived."""
    members = (
        select(SquadMember.squad_id, func.count().label("members"))
        .join(Athlete, (Athlete.clinic_id == SquadMember.clinic_id) & (Athlete.id == SquadMember.athlete_id))
        .where(SquadMember.clinic_id == actor.clinic_id, Athlete.archived_at.is_(None))
        .group_by(SquadMember.squad_id)
        .subquery()
    )
    return db.execute(
        select(Squad.__table__, func.coalesce(members.c.members, 0).label("members"))
        .outerjoin(members, members.c.squad_id == Squad.id)
        .where(Squad.clinic_id == actor.clinic_id)
        .order_by(Squad.name)
    ).all()


def add_squad(db: Connection, actor: Actor, squad_id: UUID, name: str) -> None:
    """Safe to repeat. Raises Refused where the name is taken."""
    standing = db.execute(
        select(Squad.name).where(Squad.clinic_id == actor.clinic_id, Squad.id == squad_id)
    ).first()
    if standing is not None:
        if standing.name != name:
            raise Differs("squad", squad_id, ["name"])
        return
    _check_squad_name(db, actor, name, squad_id)
    db.execute(insert(Squad).values(clinic_id=actor.clinic_id, id=squad_id, name=name))
    audit(db, actor, "add", "squad", squad_id)


def edit_squad(
    db: Connection, actor: Actor, squad_id: UUID, *, name: str | None, archived: bool | None
) -> None:
    get_squad(db, actor, squad_id)
    values: dict[str, Any] = {}
    if name is not None:
        _check_squad_name(db, actor, name, squad_id)
        values["name"] = name
    if archived is not None:
        values["archived_at"] = func.now() if archived else None
    if values:
        db.execute(
            update(Squad).where(Squad.clinic_id == actor.clinic_id, Squad.id == squad_id).values(**values)
        )
    audit(db, actor, "edit", "squad", squad_id, {"fields": sorted(values)})


def _check_squad_name(db: Connection, actor: Actor, name: str, squad_id: UUID) -> None:
    taken = db.execute(
        select(Squad.id).where(Squad.clinic_id == actor.clinic_id, Squad.name == name, Squad.id != squad_id)
    ).first()
    if taken is not None:
        raise Refused([Fault("name", name, f'"{name}" is another squad\'s name')])
