"""The open record in and out: whose file it is comes first, then it is taken."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Depends, Query, Request, Response

from northstride.api.bodies import Json, Name, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import Work, WorkDep
from northstride.core.terms.vocabulary import Purpose, Sex
from northstride.interchange.fhir.to_record import is_bundle, record_of
from northstride.record.json_text import parse_json
from northstride.record.model import Record
from northstride.store.actor import audit
from northstride.store.transfers import record_files as store

router = APIRouter(prefix="/api", tags=["records"], route_class=StrictJsonRoute)


class FileAthlete(Output):
    """As the file says it."""

    ref: str
    birth_date: dt.date | None
    sex: Sex | None
    sport: str | None


class OwnAthlete(Output):
    """The clinic's athlete of the file's reference."""

    id: UUID
    ref: str
    name: str
    birth_date: dt.date | None
    sex: Sex | None
    sport: str | None


class CheckedFileOut(Output):
    """Whose file this is, before anything is taken. `stands`: this very screen is here already."""

    id: UUID
    date: dt.date
    purpose: Purpose
    examiner: str | None
    entries: int
    stands: bool
    file: FileAthlete
    athlete: OwnAthlete | None


class ImportedOut(Output):
    id: UUID
    new: bool


@router.get("/screens/{screen_id}/record", operation_id="export_record", response_model=Record)
def export(screen_id: UUID, work: WorkDep) -> Json:
    record = store.export_record(work.db, work.actor, work.catalogue, screen_id)
    work.commit()
    name = f"north-stride-{record['date']}-{screen_id}.json"
    return Json(record, headers={"Content-Disposition": f'attachment; filename="{name}"'})


async def raw_body(request: Request) -> bytes:
    return await request.body()


# The body is read raw: a file's faults are named with their paths, keys written twice among them.
RECORD_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}}},
    }
}
RawBody = Annotated[bytes, Depends(raw_body)]


def _record_in(work: Work, raw: bytes) -> object:
    """Of a record file what it says, of a bundle the record that it tells. Raises InvalidRecord."""
    found = parse_json(raw)
    base = work.services.settings.code_systems
    return record_of(work.catalogue, found, base) if is_bundle(found) else found


@router.post("/records/check", operation_id="check_record_file", openapi_extra=RECORD_BODY)
def check(work: WorkDep, raw: RawBody) -> CheckedFileOut:
    """Shows the person a file is about. Takes nothing."""
    checked = store.check_file(work.db, work.actor, work.catalogue, _record_in(work, raw))
    record, own = checked.record, checked.athlete
    if own is not None:
        audit(work.db, work.actor, "open", "athlete", own.id)
    work.commit()
    return CheckedFileOut(
        id=record.id,
        date=record.date,
        purpose=record.purpose,
        examiner=record.examiner,
        entries=len(record.entries),
        stands=checked.stands,
        file=FileAthlete.model_validate(record.athlete, from_attributes=True),
        athlete=OwnAthlete.model_validate(own, from_attributes=True) if own is not None else None,
    )


@router.post("/records", operation_id="import_record", openapi_extra=RECORD_BODY)
def import_file(
    work: WorkDep,
    response: Response,
    raw: RawBody,
    athlete: Annotated[UUID | None, Query()] = None,
    name: Annotated[Name | None, Query()] = None,
) -> ImportedOut:
    """Takes a file for the athlete who was shown, or for a new one of that name.

    An identical record does nothing; a different one under the same id is refused with the paths.
    """
    record = _record_in(work, raw)
    screen_id, new = store.import_record(work.db, work.actor, work.catalogue, record, athlete, name)
    work.commit()
    response.status_code = 201 if new else 200
    return ImportedOut(id=screen_id, new=new)
