"""Actions of a reading that somebody saw to."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter

from northstride.api.answer_inputs import Code, SideCode
from northstride.api.bodies import Day, Id, Input, ShortText
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import WorkDep
from northstride.store import arrangements as store

router = APIRouter(prefix="/api/screens/{screen_id}", tags=["arrangements"], route_class=StrictJsonRoute)


class ArrangeInput(Input):
    id: Id
    action: Code
    side: SideCode | None = None
    on: Day
    note: ShortText = ""


@router.post("/arrangements", operation_id="arrange_action", status_code=204)
def arrange(screen_id: UUID, body: ArrangeInput, work: WorkDep) -> None:
    store.arrange(
        work.db,
        work.actor,
        work.catalogue,
        screen_id,
        body.id,
        body.action,
        body.side,
        body.on,
        body.note,
    )
    work.commit()
