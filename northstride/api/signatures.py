"""Signing what was shown, amending it, and each signed version by itself."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Path
from pydantic import Field

from northstride.api.answer_inputs import AnswerInput, SideCode
from northstride.api.bodies import FilledText, Id, Input, Json, Output, Password
from northstride.api.passwords import ask_again
from northstride.api.readings import IdentityOut, Part
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, WorkDep
from northstride.core.terms.errors import Fault
from northstride.interchange.sheets.content import SheetKind
from northstride.interchange.sheets.each import words_faults
from northstride.record.model import Record, Text
from northstride.record.reading_model import AskOut, ReadingOut, UnexaminedOut
from northstride.store.actor import audit
from northstride.store.errors import Refused
from northstride.store.papers import amending, signing
from northstride.store.papers.words import NewWords
from northstride.store.screens.screens import get_screen
from northstride.store.signed.frozen import signature_at
from northstride.store.transfers import moving

router = APIRouter(prefix="/api/screens/{screen_id}", tags=["signatures"], route_class=StrictJsonRoute)


class ShownInput(Input):
    """The identity of the reading that was shown, as it came with it."""

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


class SignInput(Input):
    shown: ShownInput
    password: Password


class AmendedWords(Input):
    """Words of a sheet that are said anew. `value` none gives the field back to ours."""

    sheet: SheetKind
    field: Annotated[str, Field(max_length=40)]
    value: Text | None = None


class AmendInput(Input):
    """`stands_on` is the id of the signature that was seen."""

    id: Id
    stands_on: Id
    reason: FilledText
    late: Annotated[list[Id], Field(max_length=200)] = []
    answers: Annotated[list[AnswerInput], Field(max_length=200)] = []
    words: Annotated[list[AmendedWords], Field(max_length=20)] = []
    password: Password


class MoveInput(Input):
    athlete_id: Id
    reason: FilledText
    password: Password


class DifferenceMade(Output):
    """A flag or action that came (`before` null), went (`after` null) or changed, and what did it."""

    what: Literal["flags", "actions"]
    code: str
    side: SideCode | None
    before: dict[str, str] | None
    after: dict[str, str] | None
    cause: Literal["answers", "rules"]


class SignedOut(Output):
    """One signed version as it was signed. Format 1 kept neither identity nor differences."""

    number: int
    id: UUID
    reason: str | None
    by: str
    at: dt.datetime
    record: Record
    reading: ReadingOut
    identity: IdentityOut | None
    differences: list[DifferenceMade] | None


class TodayOut(Output):
    """A signed record as today's rules read it: which they are, what they ask, what they would change."""

    rules: str
    fingerprint: str
    ask: list[AskOut]
    unexamined: list[UnexaminedOut]
    differences: list[DifferenceMade]


Number = Annotated[int, Path(ge=0, le=2**31 - 1)]


@router.get("/signatures/{number}", operation_id="read_signature", response_model=SignedOut)
def read(screen_id: UUID, number: Number, work: WorkDep) -> Json:
    get_screen(work.db, work.actor, screen_id)
    signed = signature_at(work.db, work.actor, screen_id, number)
    audit(work.db, work.actor, "read", "screen", screen_id, {"signature": number})
    work.commit()
    names = ("number", "id", "reason", "by", "at", "record", "reading", "identity", "differences")
    return Json({name: getattr(signed, name) for name in names})


@router.get("/signatures/{number}/today", operation_id="read_signature_today", response_model=TodayOut)
def read_today(screen_id: UUID, number: Number, work: WorkDep) -> Json:
    """What today's rules would add to what was signed. The signed reading stays as it is."""
    get_screen(work.db, work.actor, screen_id)
    today, differences = amending.read_by_today(work.db, work.actor, work.catalogue, screen_id, number)
    audit(work.db, work.actor, "read", "screen", screen_id, {"signature": number, "by": "today"})
    work.commit()
    return Json(
        {
            "rules": today["rules"],
            "fingerprint": today["fingerprint"],
            "ask": today["ask"],
            "unexamined": today["coverage"]["unexamined"],
            "differences": differences,
        }
    )


@router.post("/sign", operation_id="sign_screen", status_code=204)
async def sign(screen_id: UUID, body: SignInput, context: ContextDep) -> None:
    await ask_again(context, body.password)
    shown = body.shown.model_dump()
    await context.run(lambda work: signing.sign(work.db, work.actor, work.catalogue, screen_id, shown))


@router.post("/amendments", operation_id="amend_screen", status_code=204)
async def amend(screen_id: UUID, body: AmendInput, context: ContextDep) -> None:
    faults = [
        Fault(f"words[{place}].{fault.path}", fault.value, fault.problem)
        for place, each in enumerate(body.words)
        for fault in words_faults(each.sheet, each.field, each.value)
    ]
    if faults:
        raise Refused(faults)
    await ask_again(context, body.password)
    answers = [answer.to_store() for answer in body.answers]
    await context.run(
        lambda work: amending.amend(
            work.db,
            work.actor,
            work.catalogue,
            screen_id,
            body.id,
            body.stands_on,
            body.reason,
            body.late,
            answers,
            [NewWords(each.sheet, each.field, each.value) for each in body.words],
        )
    )


@router.post("/move", operation_id="move_screen", status_code=204)
async def move(screen_id: UUID, body: MoveInput, context: ContextDep) -> None:
    """A screen written for the wrong athlete goes to the right one."""
    await ask_again(context, body.password)
    await context.run(
        lambda work: moving.move_screen(
            work.db, work.actor, work.catalogue, screen_id, body.athlete_id, body.reason
        )
    )
