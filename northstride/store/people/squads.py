"""Squads, and which athletes are in them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, delete, func, insert, select, update

from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.people.athletes import lock_athlete, raise_revision
from northstride.store.tables import Athlete, Squad, SquadMember


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


def put_in_squads(
    db: Connection, actor: Actor, athlete_id: UUID, squad_ids: Sequence[UUID], seen: int
) -> None:
    """The squads of an athlete, as a whole: an edit of the athlete like any other.

    Raises NotFound for a squad of no such clinic, NewerEdit for an unseen change.
    """
    standing = lock_athlete(db, actor, athlete_id)
    wanted = list(dict.fromkeys(squad_ids))
    for squad_id in wanted:
        get_squad(db, actor, squad_id)
    before = squads_of(db, actor, [athlete_id]).get(athlete_id, [])
    if set(before) == set(wanted):
        return
    raise_revision(db, actor, standing, seen)
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
    told = [sorted(map(str, before)), sorted(map(str, wanted))]
    audit(db, actor, "edit", "athlete", athlete_id, {"changed": {"squads": told}})


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
