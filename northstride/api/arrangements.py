"""What is done about the actions of a reading."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from northstride.api.answer_inputs import Code, SideCode
from northstride.api.bodies import Day, Id, Input, ShortText
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.store.days import arrangements as store

router = APIRouter(prefix="/api/screens/{screen_id}", tags=["arrangements"], route_class=StrictJsonRoute)

ClockTime = Annotated[str, Field(pattern=r"^([01][0-9]|2[0-3]):[0-5][0-9]$")]


class ArrangeInput(Input):
    """`on` is the day it is arranged for, or the first of the days of a second look, `until` the last."""

    id: Id
    action: Code
    side: SideCode | None = None
    does: store.Does = "arranged"
    on: Day | None = None
    until: Day | None = None
    at_time: ClockTime | None = None
    whom: ShortText = ""
    note: ShortText = ""


class UndoInput(Input):
    """`id` names the undoing."""

    id: Id


@router.post("/arrangements", operation_id="arrange_action", status_code=204)
def arrange(screen_id: UUID, body: ArrangeInput, work: WorkDep) -> None:
    store.arrange(work.db, work.actor, work.catalogue, screen_id, store.Arranging(**body.model_dump()))
    work.commit()


@router.post("/arrangements/{arrangement_id}/undo", operation_id="undo_arrangement", status_code=204)
def undo(screen_id: UUID, arrangement_id: UUID, body: UndoInput, work: WorkDep) -> None:
    store.undo_arrangement(work.db, work.actor, screen_id, arrangement_id, body.id)
    work.commit()
