"""The open record in and out."""

from __future__ import annotations

from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Depends, Request, Response

from northstride.api.bodies import Json, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import WorkDep
from northstride.record.model import Record
from northstride.record.read import parse_json
from northstride.store import record_files as store

router = APIRouter(prefix="/api", tags=["records"], route_class=StrictJsonRoute)


class ImportedOut(Output):
    id: UUID
    new: bool


@router.get("/screens/{screen_id}/record", operation_id="export_record", response_model=Record)
def export(screen_id: UUID, work: WorkDep) -> Json:
    record = store.export_record(work.db, work.actor, screen_id)
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


@router.post("/records", operation_id="import_record", openapi_extra=RECORD_BODY)
def import_file(
    work: WorkDep,
    response: Response,
    raw: Annotated[bytes, Depends(raw_body)],
) -> ImportedOut:
    """An identical record does nothing; a different one under the same id is refused with the paths."""
    screen_id, new = store.import_record(work.db, work.actor, work.catalogue, parse_json(raw))
    work.commit()
    response.status_code = 201 if new else 200
    return ImportedOut(id=screen_id, new=new)
