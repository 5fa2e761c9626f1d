"""Gates opened with a reason."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter

from northstride.api.bodies import FilledText, Input
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.core.terms.vocabulary import Gate, SideOrBoth
from northstride.store.screens.overrides import override_gate

router = APIRouter(prefix="/api/screens/{screen_id}", tags=["overrides"], route_class=StrictJsonRoute)


class OverrideInput(Input):
    gate: Gate
    side: SideOrBoth
    reason: FilledText


@router.post("/overrides", operation_id="override_gate", status_code=204)
def override(screen_id: UUID, body: OverrideInput, work: WorkDep) -> None:
    override_gate(work.db, work.actor, screen_id, body.gate, body.side, body.reason)
    work.commit()
