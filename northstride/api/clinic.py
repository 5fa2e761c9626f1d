"""What a clinic settles for itself, what a change would alter, and the audit of a record."""

from __future__ import annotations

import datetime as dt
import zoneinfo
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import AfterValidator, Field, JsonValue

from northstride.api.bodies import Input, Json, Name, Output, ShortText
from northstride.api.day import AthleteName
from northstride.api.signatures import DifferenceMade
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.core.terms.schools import schools
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS, Schools
from northstride.record.model import StrictSchools
from northstride.store.access import audit_trail
from northstride.store.actor import audit
from northstride.store.people import clinic as store
from northstride.store.readings.schools_preview import altered_by

router = APIRouter(prefix="/api", tags=["clinic"], route_class=StrictJsonRoute)


def known_zone(name: str) -> str:
    if name not in zoneinfo.available_timezones():
        raise ValueError("is not a time zone such as Europe/Helsinki")
    return name


TimeZone = Annotated[str, AfterValidator(known_zone)]


# As it is dialled and read aloud; empty where there is none.
PhoneNumber = Annotated[str, Field(max_length=40, pattern=r"^[0-9+() /.-]*$")]


class SchoolOptionOut(Output):
    value: str | int
    label: str


class SchoolOut(Output):
    code: str
    name: str
    why: str
    default: str | int
    options: list[SchoolOptionOut]


class ClinicOut(Output):
    """`schools` as they are in force; `asked` what can be chosen, and why the default is the default."""

    name: str
    time_zone: str
    idle_minutes: int
    # What stands on sheets that leave.
    address: str
    phone: str
    night_phone: str
    emergency_number: str
    schools: Schools
    asked: list[SchoolOut]


class ClinicEdit(Input):
    """Only what is sent changes. `to_open` also reads the open screens by the new schools."""

    name: Name | None = None
    time_zone: TimeZone | None = None
    idle_minutes: Annotated[int, Field(ge=1, le=120)] | None = None
    address: ShortText | None = None
    phone: PhoneNumber | None = None
    night_phone: PhoneNumber | None = None
    emergency_number: PhoneNumber | None = None
    schools: StrictSchools = StrictSchools()
    to_open: bool = False


class SchoolsInput(Input):
    schools: StrictSchools


class AlteredOut(Output):
    """`differences` is null where the screen cannot be read at all."""

    screen: UUID
    athlete: AthleteName
    date: dt.date
    differences: list[DifferenceMade] | None


class PreviewedOut(Output):
    looked_at: int
    altered: list[AlteredOut]


class AuditRow(Output):
    id: int
    at: dt.datetime
    by: str | None
    verb: str
    noun: str
    noun_id: UUID | None
    detail: JsonValue


@router.get("/clinic", operation_id="read_clinic", response_model=ClinicOut)
def read(work: WorkDep) -> Json:
    row = store.get_clinic(work.db, work.actor)
    work.commit()
    return Json(
        {
            "name": row.name,
            "time_zone": row.time_zone,
            "idle_minutes": row.idle_minutes,
            **{name: getattr(row, name) for name in store.ON_SHEETS},
            "schools": {**DEFAULT_SCHOOLS, **row.schools},
            "asked": [_school(school) for school in schools()],
        }
    )


def _school(school: Any) -> dict[str, Any]:
    names = ("code", "name", "why", "default")
    options = [{"value": option.value, "label": option.label} for option in school.options]
    return {**{name: getattr(school, name) for name in names}, "options": options}


@router.patch("/clinic", operation_id="edit_clinic", status_code=204)
def edit(body: ClinicEdit, work: WorkDep) -> None:
    fields = body.model_dump(exclude_unset=True, exclude={"to_open"}, exclude_none=True)
    store.edit_clinic(work.db, work.actor, fields, to_open=body.to_open)
    work.commit()


@router.post("/clinic/preview", operation_id="preview_schools", response_model=PreviewedOut)
def preview(body: SchoolsInput, work: WorkDep) -> Json:
    """What other schools would alter in the screens that are open now. Writes nothing but the audit."""
    looked_at, altered = altered_by(work.db, work.actor, work.catalogue, {**body.schools})
    audit(work.db, work.actor, "list", "screen", None, {"screens": looked_at, "for": "schools"})
    work.commit()
    return Json(
        {
            "looked_at": looked_at,
            "altered": [
                {
                    "screen": item.screen.id,
                    "athlete": {"id": item.screen.athlete_id, "name": item.screen.athlete_name},
                    "date": item.screen.date,
                    "differences": item.differences,
                }
                for item in altered
            ],
        }
    )


@router.get("/audit", operation_id="read_audit", response_model=list[AuditRow])
def read_audit(
    work: WorkDep,
    noun: audit_trail.Noun,
    key: UUID,
    before: Annotated[int, Query(ge=1, le=2**63 - 1)] = 2**63 - 1,
) -> Json:
    rows = audit_trail.trail_of(work.db, work.actor, noun, key, before)
    audit(work.db, work.actor, "read audit", noun, key)
    work.commit()
    names = ("id", "at", "verb", "noun", "noun_id", "detail")
    return Json([{**{name: getattr(row, name) for name in names}, "by": row.by_name} for row in rows])
