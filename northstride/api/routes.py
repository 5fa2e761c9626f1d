"""The route of a screen, and the routes a clinic keeps for a purpose."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from northstride.api.bodies import Id, Input, Name, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.core.terms.vocabulary import Purpose
from northstride.record.model import MOST_LISTED
from northstride.record.route import RouteOut
from northstride.store.actor import audit_opening_once
from northstride.store.clinic_list import CLINIC_ROUTES
from northstride.store.readings.routes import keep_route, route_of
from northstride.store.screens.screens import get_screen

router = APIRouter(prefix="/api", tags=["routes"], route_class=StrictJsonRoute)


class ClinicRouteInput(Input):
    """`reasons_after` hides why a test is there until it is done: for learning."""

    id: Id
    purpose: Purpose
    name: Name
    tests: Annotated[list[str], Field(min_length=1, max_length=MOST_LISTED)]
    reasons_after: bool = False


class ClinicRouteOut(Output):
    id: UUID
    purpose: Purpose
    name: str
    tests: list[str]
    reasons_after: bool


@router.get("/screens/{screen_id}/route", operation_id="read_route")
def read(screen_id: UUID, work: WorkDep) -> RouteOut:
    row = get_screen(work.db, work.actor, screen_id)
    route = route_of(work.db, work.actor, work.catalogue, row)
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    work.commit()
    return route


@router.get("/routes", operation_id="list_clinic_routes")
def list_all(work: WorkDep) -> list[ClinicRouteOut]:
    found = [
        ClinicRouteOut(
            id=row.id, purpose=row.purpose, name=row.name, tests=row.tests, reasons_after=row.reasons_after
        )
        for row in CLINIC_ROUTES.in_use(work.db, work.actor)
    ]
    work.commit()
    return found


@router.post("/routes", operation_id="keep_clinic_route", status_code=204)
def keep(body: ClinicRouteInput, work: WorkDep) -> None:
    keep_route(
        work.db,
        work.actor,
        work.catalogue,
        body.id,
        purpose=body.purpose,
        name=body.name,
        tests=body.tests,
        reasons_after=body.reasons_after,
    )
    work.commit()


@router.post("/routes/{route_id}/archive", operation_id="archive_clinic_route", status_code=204)
def archive(route_id: UUID, work: WorkDep) -> None:
    CLINIC_ROUTES.archive(work.db, work.actor, route_id)
    work.commit()
