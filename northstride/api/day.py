"""The day of a clinic: what is open, what nobody has in hand, what opens and runs out."""

from __future__ import annotations

import datetime as dt
from typing import Any
from uuid import UUID

from fastapi import APIRouter
from sqlalchemy import Row

from northstride.api.bodies import Json, Output
from northstride.api.screen_outputs import ArrangementOut, arrangement_out
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.core.terms.vocabulary import Purpose
from northstride.record.reading_model import UrgencyCode
from northstride.store.actor import audit
from northstride.store.days import day as store
from northstride.store.people.clinic_day import today_of

router = APIRouter(prefix="/api/day", tags=["day"], route_class=StrictJsonRoute)


class AthleteName(Output):
    id: UUID
    name: str


class OpenScreenOut(Output):
    """Counts are null while the screen is being read.

    A test is done once anything of it was recorded: `unexamined` says how much nothing speaks about yet.
    """

    id: UUID
    athlete: AthleteName
    date: dt.date
    purpose: Purpose
    planned: int | None
    done: int | None
    open: int | None
    unexamined: int | None
    last_by: str | None
    last_at: dt.datetime | None


class DueActionOut(Output):
    screen: UUID
    athlete: AthleteName
    # The day of the screen that found it.
    found: dt.date
    urgency: UrgencyCode
    start: dt.date | None
    end: dt.date | None
    says: str | None
    standing: ArrangementOut


class UnseenOut(Output):
    """Nobody looked at them for a season."""

    total: int
    athletes: list[AthleteName]


class DayOut(Output):
    """`older` counts actions too far back to list; `being_read` screens that nobody can speak of yet."""

    day: dt.date
    open: list[OpenScreenOut]
    open_total: int
    actions: list[DueActionOut]
    older: int
    being_read: int
    unseen: UnseenOut


class UrgentCountOut(Output):
    count: int


@router.get("", operation_id="read_day", response_model=DayOut)
def read(work: WorkDep) -> Json:
    found = store.day_of(work.db, work.actor, work.catalogue, today_of(work.actor))
    audit(work.db, work.actor, "list", "day", None, {"actions": len(found.actions), "open": len(found.open)})
    work.commit()
    return Json(
        {
            "day": found.day,
            "open": [_open(row) for row in found.open],
            "open_total": found.open_total,
            "actions": [due_out(item) for item in found.actions],
            "older": found.older,
            "being_read": found.being_read,
            "unseen": {
                "total": found.unseen[0].total if found.unseen else 0,
                "athletes": [{"id": row.id, "name": row.name} for row in found.unseen],
            },
        }
    )


@router.get("/urgent", operation_id="count_urgent")
def count_urgent(work: WorkDep) -> UrgentCountOut:
    """Asked from every place while it stands open: a number, nobody's record."""
    return UrgentCountOut(count=store.urgent_count(work.db, work.actor))


def _athlete(row: Row[Any]) -> dict[str, Any]:
    return {"id": row.athlete_id, "name": row.athlete_name}


def _open(row: Row[Any]) -> dict[str, Any]:
    coverage = row.coverage
    return {
        "id": row.id,
        "athlete": _athlete(row),
        "date": row.date,
        "purpose": row.purpose,
        "planned": coverage and coverage["planned"],
        "done": coverage and coverage["done"],
        "open": coverage and len(coverage["open"]),
        "unexamined": coverage and len(coverage["unexamined"]),
        "last_by": row.last_by,
        "last_at": row.last_at,
    }


def due_out(item: store.DueAction) -> dict[str, Any]:
    row = item.row
    return {
        "screen": row.screen_id,
        "athlete": _athlete(row),
        "found": row.date,
        "urgency": row.urgency,
        "start": row.start,
        "end": row.end,
        "says": row.says,
        "standing": arrangement_out((row.code, row.side), item.standing),
    }
