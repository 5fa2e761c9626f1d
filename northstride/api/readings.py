"""What a screen reads as: kept, live from an unsaved draft, and what becomes of it."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from northstride.api.bodies import Day, FilledText, Id, Input, Json, Output, Password, ShortText
from northstride.api.problems import FaultOut
from northstride.api.screens import AnswerInput, Code, SideCode
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import WorkDep
from northstride.core.vocabulary import Gate, SideOrBoth
from northstride.record.reading import ReadingOut
from northstride.store import readings as store
from northstride.store import signatures
from northstride.store.actor import audit, audit_opening_once
from northstride.store.errors import WrongPassword
from northstride.store.screens import get_screen
from northstride.store.users import check_throttle, note_failure

router = APIRouter(prefix="/api/screens/{screen_id}", tags=["readings"], route_class=StrictJsonRoute)


class DraftInput(Input):
    answers: Annotated[list[AnswerInput], Field(max_length=200)]


class PreviewOut(Output):
    revision: int
    reading: ReadingOut
    faults: list[FaultOut]


class KeptReadingOut(Output):
    revision: int
    reading: ReadingOut


class SignInput(Input):
    revision: Annotated[int, Field(ge=0, le=2**31 - 1)]
    password: Password


class AmendInput(Input):
    id: Id
    reason: FilledText
    late: Annotated[list[Id], Field(max_length=200)] = []
    answers: Annotated[list[AnswerInput], Field(max_length=200)] = []


class OverrideInput(Input):
    gate: Gate
    side: SideOrBoth
    reason: FilledText


class ArrangeInput(Input):
    id: Id
    action: Code
    side: SideCode | None = None
    on: Day
    note: ShortText = ""


@router.get("/reading", operation_id="read_reading", response_model=KeptReadingOut)
def read(screen_id: UUID, work: WorkDep) -> Json:
    screen = get_screen(work.db, work.actor, screen_id)
    reading = store.reading_of(work.db, work.actor, work.catalogue, screen)
    against = sorted({change["baseline"]["record"] for change in reading["changes"]})
    audit(work.db, work.actor, "read", "screen", screen_id, {"against": against} if against else None)
    work.commit()
    return Json({"revision": screen.revision, "reading": reading})


@router.post("/preview", operation_id="preview_reading", response_model=PreviewOut)
def preview(screen_id: UUID, body: DraftInput, work: WorkDep) -> Json:
    """Reads the screen as if the drafts were saved. Writes no answer."""
    screen = get_screen(work.db, work.actor, screen_id)
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    drafts = [answer.to_store() for answer in body.answers]
    found = store.preview(work.db, work.actor, work.catalogue, screen, drafts)
    work.commit()
    faults = [{"path": fault.path, "problem": fault.problem} for fault in found.faults]
    return Json({"revision": screen.revision, "reading": found.reading, "faults": faults})


@router.post("/sign", operation_id="sign_screen", status_code=204)
def sign(screen_id: UUID, body: SignInput, work: WorkDep) -> None:
    guess = f"sign {work.actor.user_id}"
    check_throttle(work.db, guess, guess)
    try:
        signatures.sign(
            work.db,
            work.actor,
            work.catalogue,
            work.services.passwords,
            screen_id,
            body.revision,
            body.password,
        )
    except WrongPassword:
        work.db.rollback()
        note_failure(work.db, guess, guess)
        work.commit()
        raise
    work.commit()


@router.post("/amendments", operation_id="amend_screen", status_code=204)
def amend(screen_id: UUID, body: AmendInput, work: WorkDep) -> None:
    signatures.amend(
        work.db,
        work.actor,
        work.catalogue,
        screen_id,
        body.id,
        body.reason,
        body.late,
        [answer.to_store() for answer in body.answers],
    )
    work.commit()


@router.post("/overrides", operation_id="override_gate", status_code=204)
def override(screen_id: UUID, body: OverrideInput, work: WorkDep) -> None:
    signatures.override_gate(work.db, work.actor, screen_id, body.gate, body.side, body.reason)
    work.commit()


@router.post("/arrangements", operation_id="arrange_action", status_code=204)
def arrange(screen_id: UUID, body: ArrangeInput, work: WorkDep) -> None:
    signatures.arrange(
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
