"""People: athletes and squads, with the flags of each athlete's newest screen."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Annotated, Any, Literal, Self
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import Field, model_validator
from sqlalchemy import Row

from northstride.api.bodies import Day, Id, Input, Name, Output, ShortText
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import Work, WorkDep
from northstride.core.terms.vocabulary import Purpose, Sex, SideOrBoth
from northstride.record.reading_model import SideCode, StrengthCode, UrgencyCode
from northstride.store.actor import audit
from northstride.store.people import athletes as store
from northstride.store.people.squads import put_in_squads, squads_of
from northstride.store.screens.newest import NewestScreen, newest_screens

router = APIRouter(prefix="/api/athletes", tags=["athletes"], route_class=StrictJsonRoute)

Search = Annotated[str, Query(max_length=100, pattern=r"^[^\x00-\x1f\x7f]*$")]


class AthleteInput(Input):
    id: Id
    ref: Name
    name: Name
    birth_date: Day | None = None
    sex: Sex | None = None
    sport: ShortText | None = None
    dominant_side: SideOrBoth | None = None
    body_mass_kg: Annotated[float, Field(gt=0, le=400)] | None = None
    height_cm: Annotated[float, Field(gt=0, le=280)] | None = None
    squads: Annotated[list[Id], Field(max_length=50)] = []


class AthleteEdit(Input):
    """Only what is sent changes. `seen` is the revision the editor saw."""

    seen: Annotated[int, Field(ge=1, le=2**31 - 1)]
    ref: Name | None = None
    name: Name | None = None
    birth_date: Day | None = None
    sex: Sex | None = None
    sport: ShortText | None = None
    dominant_side: SideOrBoth | None = None
    body_mass_kg: Annotated[float, Field(gt=0, le=400)] | None = None
    height_cm: Annotated[float, Field(gt=0, le=280)] | None = None
    squads: Annotated[list[Id], Field(max_length=50)] | None = None
    archived: bool | None = None

    @model_validator(mode="after")
    def name_and_ref_are_never_empty(self) -> Self:
        for name in ("ref", "name"):
            if name in self.model_fields_set and getattr(self, name) is None:
                raise ValueError(f"{name} cannot be emptied")
        return self


class FlagTally(Output):
    code: str
    side: SideCode
    strength: StrengthCode
    urgency: UrgencyCode | None


class LastScreen(Output):
    id: UUID
    date: dt.date
    purpose: Purpose
    state: Literal["open", "signed"]
    flags: list[FlagTally]
    # `waiting`: the flags are as last known and are being read again. `unreadable`: nothing is known.
    reading: Literal["current", "waiting", "unreadable"]


class AthleteOut(Output):
    id: UUID
    ref: str
    name: str
    birth_date: dt.date | None
    sex: Sex | None
    sport: str | None
    dominant_side: SideOrBoth | None
    body_mass_kg: float | None
    height_cm: float | None
    archived: bool
    revision: int
    squads: list[UUID]
    last_screen: LastScreen | None


class AthletesOut(Output):
    """A page of all there are."""

    total: int
    athletes: list[AthleteOut]


def _out(row: Row[Any], squads: list[UUID], latest: NewestScreen | None) -> AthleteOut:
    return AthleteOut(
        id=row.id,
        ref=row.ref,
        name=row.name,
        birth_date=row.birth_date,
        sex=row.sex,
        sport=row.sport,
        dominant_side=row.dominant_side,
        body_mass_kg=row.body_mass_kg,
        height_cm=row.height_cm,
        archived=row.archived_at is not None,
        revision=row.revision,
        squads=squads,
        last_screen=_last(latest) if latest else None,
    )


def _last(latest: NewestScreen) -> LastScreen:
    screen = latest.screen
    return LastScreen(
        id=screen.id,
        date=screen.date,
        purpose=screen.purpose,
        state="open" if screen.signed_at is None else "signed",
        flags=[FlagTally(**flag) for flag in latest.flags],
        reading=latest.state,
    )


def _with_screens(work: Work, rows: Sequence[Row[Any]]) -> list[AthleteOut]:
    ids = [row.id for row in rows]
    squads = squads_of(work.db, work.actor, ids)
    latest = newest_screens(work.db, work.actor, work.catalogue, ids)
    return [_out(row, squads.get(row.id, []), latest.get(row.id)) for row in rows]


@router.get("", operation_id="list_athletes")
def list_all(
    work: WorkDep,
    search: Search = "",
    squad: UUID | None = None,
    archived: bool = False,
    skip: Annotated[int, Query(ge=0, le=1_000_000)] = 0,
    most: Annotated[int, Query(ge=1, le=store.MOST_LISTED)] = store.MOST_LISTED,
) -> AthletesOut:
    total, rows = store.list_athletes(
        work.db, work.actor, search=search, squad_id=squad, archived=archived, skip=skip, most=most
    )
    found = _with_screens(work, rows)
    audit(work.db, work.actor, "list", "athlete", None, {"athletes": len(found)})
    work.commit()
    return AthletesOut(total=total, athletes=found)


@router.get("/{athlete_id}", operation_id="read_athlete")
def read(athlete_id: UUID, work: WorkDep) -> AthleteOut:
    row = store.get_athlete(work.db, work.actor, athlete_id)
    found = _with_screens(work, [row])[0]
    audit(work.db, work.actor, "open", "athlete", athlete_id)
    work.commit()
    return found


@router.post("", operation_id="add_athlete", status_code=201)
def add(body: AthleteInput, work: WorkDep) -> AthleteOut:
    store.add_athlete(work.db, work.actor, body.id, body.model_dump(exclude={"id", "squads"}))
    put_in_squads(work.db, work.actor, body.id, body.squads, seen=1)
    found = _with_screens(work, [store.get_athlete(work.db, work.actor, body.id)])[0]
    work.commit()
    return found


@router.patch("/{athlete_id}", operation_id="edit_athlete")
def edit(athlete_id: UUID, body: AthleteEdit, work: WorkDep) -> AthleteOut:
    fields = body.model_dump(exclude_unset=True, exclude={"seen", "squads", "archived"})
    seen = store.edit_athlete(work.db, work.actor, athlete_id, body.seen, fields)
    if body.squads is not None:
        put_in_squads(work.db, work.actor, athlete_id, body.squads, seen)
    if body.archived is not None:
        store.archive_athlete(work.db, work.actor, athlete_id, archived=body.archived)
    found = _with_screens(work, [store.get_athlete(work.db, work.actor, athlete_id)])[0]
    work.commit()
    return found
