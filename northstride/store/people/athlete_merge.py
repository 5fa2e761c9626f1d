"""Two athletes who are one person: their screens come together, and can be parted again."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, case, func, insert, select, update

from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.people.athletes import get_athlete, lock_athlete
from northstride.store.tables import Athlete, AthleteMerge, Measurement, Screen, SquadMember

# What says who somebody is: two that say otherwise are two people.
WHO = ("birth_date", "sex")
FILLED = ("birth_date", "sex", "sport", "dominant_side", "body_mass_kg", "height_cm")


@dataclass(frozen=True, slots=True)
class MergePlan:
    """What a merge would do. With faults it is not done."""

    kept: Row[Any]
    gone: Row[Any]
    screens: list[UUID]
    squads: list[UUID]
    filled: dict[str, Any]
    faults: list[Fault]


def plan_merge(db: Connection, actor: Actor, kept_id: UUID, gone_id: UUID) -> MergePlan:
    """Changes nothing. Raises NotFound."""
    kept, gone = get_athlete(db, actor, kept_id), get_athlete(db, actor, gone_id)
    filled = {name: getattr(gone, name) for name in FILLED if getattr(kept, name) is None}
    return MergePlan(
        kept,
        gone,
        _screens(db, actor, gone_id),
        sorted(set(_squads(db, actor, gone_id)) - set(_squads(db, actor, kept_id))),
        {name: value for name, value in filled.items() if value is not None},
        _faults(kept, gone),
    )


def _faults(kept: Row[Any], gone: Row[Any]) -> list[Fault]:
    if kept.id == gone.id:
        return [Fault("gone", str(gone.id), "is the same athlete")]
    if kept.merged_into is not None or gone.merged_into is not None:
        return [Fault("gone", str(gone.id), "is merged already")]
    return [
        Fault(name, str(theirs), f"{theirs} and {own}: put right which of them is wrong first")
        for name in WHO
        if (own := getattr(kept, name)) is not None
        and (theirs := getattr(gone, name)) is not None
        and own != theirs
    ]


def _screens(db: Connection, actor: Actor, athlete_id: UUID) -> list[UUID]:
    return list(
        db.execute(
            select(Screen.id)
            .where(Screen.clinic_id == actor.clinic_id, Screen.athlete_id == athlete_id)
            .order_by(Screen.date, Screen.id)
        ).scalars()
    )


def _squads(db: Connection, actor: Actor, athlete_id: UUID) -> list[UUID]:
    return list(
        db.execute(
            select(SquadMember.squad_id).where(
                SquadMember.clinic_id == actor.clinic_id, SquadMember.athlete_id == athlete_id
            )
        ).scalars()
    )


def merge(db: Connection, actor: Actor, merge_id: UUID, kept_id: UUID, gone_id: UUID) -> None:
    """Safe to repeat. The password was asked before.

    What was signed stays as it was signed, under the reference it was signed with. Raises Refused, Differs.
    """
    if _stands(db, actor, merge_id, kept_id, gone_id):
        return
    for athlete_id in sorted({kept_id, gone_id}):
        lock_athlete(db, actor, athlete_id)
    plan = plan_merge(db, actor, kept_id, gone_id)
    if plan.faults:
        raise Refused(plan.faults)
    _point(db, actor, plan.screens, kept_id)
    for squad_id in plan.squads:
        member = {"clinic_id": actor.clinic_id, "squad_id": squad_id, "athlete_id": kept_id}
        db.execute(insert(SquadMember).values(**member))
    _change(db, actor, kept_id, **plan.filled)
    _change(
        db, actor, gone_id, merged_into=kept_id, archived_at=func.coalesce(Athlete.archived_at, func.now())
    )
    moved = {
        "screens": [str(each) for each in plan.screens],
        "squads": [str(each) for each in plan.squads],
        "filled": {name: str(value) for name, value in plan.filled.items()},
        "was_archived": plan.gone.archived_at is not None,
    }
    db.execute(
        insert(AthleteMerge).values(
            clinic_id=actor.clinic_id,
            id=merge_id,
            kept=kept_id,
            gone=gone_id,
            moved=moved,
            user_id=actor.user_id,
        )
    )
    for athlete_id in (kept_id, gone_id):
        audit(db, actor, "merge", "athlete", athlete_id, {"merge": str(merge_id), **moved})


def undo_merge(db: Connection, actor: Actor, kept_id: UUID, merge_id: UUID) -> None:
    """Safe to repeat. Screens that came since stay with whom they were begun for. Raises NotFound."""
    row = db.execute(
        select(AthleteMerge.__table__)
        .where(AthleteMerge.clinic_id == actor.clinic_id, AthleteMerge.id == merge_id)
        .with_for_update()
    ).first()
    if row is None or row.kept != kept_id:
        raise NotFound("merge", merge_id)
    if row.undone_at is not None:
        return
    kept = lock_athlete(db, actor, row.kept)
    moved = row.moved
    still = set(_screens(db, actor, row.kept))
    _point(db, actor, [each for each in map(UUID, moved["screens"]) if each in still], row.gone)
    for squad_id in map(UUID, moved["squads"]):
        db.execute(
            SquadMember.__table__.delete().where(  # type: ignore[attr-defined]
                SquadMember.clinic_id == actor.clinic_id,
                SquadMember.squad_id == squad_id,
                SquadMember.athlete_id == row.kept,
            )
        )
    # What was put right since stays.
    unchanged = [name for name, value in moved["filled"].items() if str(getattr(kept, name)) == value]
    _change(db, actor, row.kept, **dict.fromkeys(unchanged))
    again = {} if moved["was_archived"] else {"archived_at": None}
    _change(db, actor, row.gone, merged_into=None, **again)
    db.execute(
        update(AthleteMerge)
        .where(AthleteMerge.clinic_id == actor.clinic_id, AthleteMerge.id == merge_id)
        .values(undone_at=func.now())
    )
    for athlete_id in (row.kept, row.gone):
        audit(db, actor, "undo merge", "athlete", athlete_id, {"merge": str(merge_id)})


def merges_of(db: Connection, actor: Actor, athlete_id: UUID) -> Sequence[Row[UUID, dt.datetime, str, str]]:
    """Those that brought somebody to this athlete and stand, the newest first. Raises NotFound."""
    get_athlete(db, actor, athlete_id)
    query = (
        select(AthleteMerge.id, AthleteMerge.at, Athlete.ref, Athlete.name)
        .join(Athlete, (Athlete.clinic_id == AthleteMerge.clinic_id) & (Athlete.id == AthleteMerge.gone))
        .where(
            AthleteMerge.clinic_id == actor.clinic_id,
            AthleteMerge.kept == athlete_id,
            AthleteMerge.undone_at.is_(None),
        )
    )
    return db.execute(query.order_by(AthleteMerge.at.desc())).all()


def _stands(db: Connection, actor: Actor, merge_id: UUID, kept: UUID, gone: UUID) -> bool:
    row = db.execute(
        select(AthleteMerge.kept, AthleteMerge.gone).where(
            AthleteMerge.clinic_id == actor.clinic_id, AthleteMerge.id == merge_id
        )
    ).first()
    if row is not None and (row.kept, row.gone) != (kept, gone):
        raise Differs("merge", merge_id, ["kept", "gone"])
    return row is not None


def _point(db: Connection, actor: Actor, screens: list[UUID], athlete_id: UUID) -> None:
    """Lists and trends of both are right at once; what is open is read anew."""
    raised = case((Screen.signed_at.is_(None), Screen.revision + 1), else_=Screen.revision)
    db.execute(
        update(Screen)
        .where(Screen.clinic_id == actor.clinic_id, Screen.id.in_(screens))
        .values(athlete_id=athlete_id, revision=raised)
    )
    db.execute(
        update(Measurement)
        .where(Measurement.clinic_id == actor.clinic_id, Measurement.screen_id.in_(screens))
        .values(athlete_id=athlete_id)
    )


def _change(db: Connection, actor: Actor, athlete_id: UUID, **values: Any) -> None:
    """Readings are made again: whose earlier screens they are held against has changed."""
    db.execute(
        update(Athlete)
        .where(Athlete.clinic_id == actor.clinic_id, Athlete.id == athlete_id)
        .values(revision=Athlete.revision + 1, **values)
    )
