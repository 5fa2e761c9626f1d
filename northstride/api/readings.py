"""What a screen reads as: kept, and live from an unsaved draft."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import Field

from northstride.api.answer_inputs import AnswerInput
from northstride.api.bodies import Input, Json, Moment, Output, ShortText
from northstride.api.problems import FaultOut
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.record.evidence import EvidenceOut
from northstride.record.reading_model import ReadingOut
from northstride.store.actor import audit, audit_opening_once
from northstride.store.readings import readings as store
from northstride.store.readings.evidence import evidence_of
from northstride.store.screens.screens import get_screen

router = APIRouter(prefix="/api/screens/{screen_id}", tags=["readings"], route_class=StrictJsonRoute)

Part = Annotated[str, Field(pattern=r"^[0-9a-f]{12,16}$")]


class IdentityOut(Output):
    """What a reading was made from, part by part. Two readings are the same where all of it is."""

    answers: Part
    story: Part
    plan: Part
    overrides: Part
    athlete: Part
    schools: Part
    screen: Part
    errors: Part
    earlier: Part
    rules: Part


class DraftInput(Input):
    answers: Annotated[list[AnswerInput], Field(max_length=200)]
    device: ShortText = ""
    clock: Moment | None = None


class PreviewOut(Output):
    revision: int
    reading: ReadingOut
    faults: list[FaultOut]


class KeptReadingOut(Output):
    """Of an open screen with its identity, of a signed one with the number of its signature."""

    revision: int
    reading: ReadingOut
    identity: IdentityOut | None
    signature: int | None


@router.get("/reading", operation_id="read_reading", response_model=KeptReadingOut)
def read(screen_id: UUID, work: WorkDep) -> Json:
    screen = get_screen(work.db, work.actor, screen_id)
    shown = store.reading_of(work.db, work.actor, work.catalogue, screen)
    against = sorted({change["baseline"]["record"] for change in shown.reading["changes"]})
    audit(work.db, work.actor, "read", "screen", screen_id, {"against": against} if against else None)
    work.commit()
    return Json(
        {
            "revision": screen.revision,
            "reading": shown.reading,
            "identity": shown.identity,
            "signature": shown.signature,
        }
    )


Probability = Annotated[float, Query(gt=0, lt=1)]


@router.get("/evidence", operation_id="read_evidence")
def read_evidence(screen_id: UUID, work: WorkDep, start: Probability | None = None) -> EvidenceOut:
    """How much each sign says, and where a starting probability could move by the one that counts."""
    screen = get_screen(work.db, work.actor, screen_id)
    found = evidence_of(work.db, work.actor, work.catalogue, screen, start)
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    work.commit()
    return found


@router.post("/preview", operation_id="preview_reading", response_model=PreviewOut)
def preview(screen_id: UUID, body: DraftInput, work: WorkDep) -> Json:
    """Reads the screen as if the drafts were saved. Writes no answer."""
    screen = get_screen(work.db, work.actor, screen_id)
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    drafts = [answer.to_store() for answer in body.answers]
    found = store.preview(work.db, work.actor, work.catalogue, screen, drafts, body.device, body.clock)
    work.commit()
    faults = [{"path": fault.path, "problem": fault.problem} for fault in found.faults]
    return Json({"revision": screen.revision, "reading": found.reading, "faults": faults})
