"""Athletes who stand twice: shown side by side first, brought together, parted again. For owners."""

from __future__ import annotations

import datetime as dt
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query

from northstride.api.bodies import Id, Input, Output, Password
from northstride.api.passwords import ask_again
from northstride.api.problems import FaultOut
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, Work, WorkDep
from northstride.store.actor import audit
from northstride.store.people import athlete_merge as store

router = APIRouter(prefix="/api/athletes/{athlete_id}", tags=["merges"], route_class=StrictJsonRoute)


class PersonOut(Output):
    id: UUID
    ref: str
    name: str
    birth_date: dt.date | None


class MergePreview(Output):
    """`kept` stays and takes the screens of `gone`; `filled`: what it learns. With faults it is not done."""

    kept: PersonOut
    gone: PersonOut
    screens: int
    squads: int
    filled: list[str]
    faults: list[FaultOut]


class MergedOut(Output):
    """Somebody who was brought to this athlete. `id` is the merge's, for undoing it."""

    id: UUID
    at: dt.datetime
    ref: str
    name: str


class MergeInput(Input):
    id: Id
    gone: Id
    password: Password


class UndoMergeInput(Input):
    merge: Id
    password: Password


@router.get("/merge", operation_id="preview_merge")
def preview(athlete_id: UUID, gone: Annotated[UUID, Query()], work: WorkDep) -> MergePreview:
    """Changes nothing."""
    plan = store.plan_merge(work.db, work.actor, athlete_id, gone)
    for each in (athlete_id, gone):
        audit(work.db, work.actor, "open", "athlete", each)
    work.commit()
    return MergePreview(
        kept=PersonOut.model_validate(plan.kept, from_attributes=True),
        gone=PersonOut.model_validate(plan.gone, from_attributes=True),
        screens=len(plan.screens),
        squads=len(plan.squads),
        filled=sorted(plan.filled),
        faults=[FaultOut(path=fault.path, problem=fault.problem) for fault in plan.faults],
    )


@router.get("/merges", operation_id="list_merges")
def list_all(athlete_id: UUID, work: WorkDep) -> list[MergedOut]:
    rows = store.merges_of(work.db, work.actor, athlete_id)
    work.commit()
    return [MergedOut.model_validate(row, from_attributes=True) for row in rows]


@router.post("/merge", operation_id="merge_athletes", status_code=204)
async def merge(athlete_id: UUID, body: MergeInput, context: ContextDep) -> None:
    await ask_again(context, body.password)

    def do(work: Work) -> None:
        store.merge(work.db, work.actor, body.id, athlete_id, body.gone)

    await context.run(do)


@router.post("/merge/undo", operation_id="undo_merge", status_code=204)
async def undo(athlete_id: UUID, body: UndoMergeInput, context: ContextDep) -> None:
    """`athlete_id` is whom they were brought to."""
    await ask_again(context, body.password)
    await context.run(lambda work: store.undo_merge(work.db, work.actor, athlete_id, body.merge))
