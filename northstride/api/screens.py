"""Screens and their answers: begin, open, write one field at a time, follow what others write."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import Field
from sqlalchemy import Row

from northstride.api.answer_inputs import AnswersInput, Code, SideCode
from northstride.api.bodies import Day, Id, Input, Json
from northstride.api.screen_outputs import (
    AnswerOut,
    ChangesOut,
    ScreenLine,
    ScreenOut,
    WrittenOut,
    arrangement_out,
)
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import Work, WorkDep
from northstride.core.examination.first_side import first_side_of
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS, Purpose
from northstride.record.complaint import complaint_in, complaint_out
from northstride.record.model import StrictSchools
from northstride.store.actor import audit, audit_opening_once
from northstride.store.answers.folding import IMPORTED, AnswerRow
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.answers.order import is_danger
from northstride.store.days.arrangements import arrangements_of, standing_of
from northstride.store.papers.amending import waiting_late_answers
from northstride.store.screens import presence
from northstride.store.screens import screens as store
from northstride.store.screens.facts import facts_told
from northstride.store.screens.presence import Step, others_at
from northstride.store.screens.writing import clashes_of, history_of, write_answers
from northstride.store.signed.frozen import signatures_of
from northstride.store.signed.records import current_record

router = APIRouter(prefix="/api/screens", tags=["screens"], route_class=StrictJsonRoute)


class ScreenInput(Input):
    id: Id
    athlete_id: Id
    date: Day
    purpose: Purpose
    schools: StrictSchools = StrictSchools()
    # The tests to be done; empty for what the purpose asks for.
    planned: Annotated[list[Code], Field(max_length=200)] = []


@router.get("", operation_id="list_screens")
def list_all(work: WorkDep, athlete: UUID) -> list[ScreenLine]:
    found = [screen_line(row) for row in store.list_screens(work.db, work.actor, athlete)]
    audit(work.db, work.actor, "list screens", "athlete", athlete)
    work.commit()
    return found


def screen_line(row: Row[Any]) -> ScreenLine:
    return ScreenLine(
        id=row.id,
        date=row.date,
        purpose=row.purpose,
        state=_state(row),
        examiner=row.examiner,
        from_file=row.from_file,
    )


def _state(row: Row[Any]) -> Literal["open", "signed"]:
    return "open" if row.signed_at is None else "signed"


@router.post("", operation_id="begin_screen", status_code=201)
def begin(body: ScreenInput, work: WorkDep) -> ScreenLine:
    asked = (body.id, body.athlete_id, body.date, body.purpose, body.schools, body.planned)
    store.begin_screen(work.db, work.actor, work.catalogue, *asked)
    row = store.get_screen(work.db, work.actor, body.id)
    work.commit()
    return screen_line(row)


@router.get("/{screen_id}", operation_id="read_screen", response_model=ScreenOut)
def read(screen_id: UUID, work: WorkDep) -> Json:
    row = store.get_screen(work.db, work.actor, screen_id)
    record = current_record(work.db, work.actor, work.catalogue, row)
    document = {
        "record": record,
        "facts": facts_told(work.db, work.actor, screen_id, record),
        "revision": row.revision,
        "state": _state(row),
        "from_file": row.from_file,
        "athlete": {
            "id": row.athlete_id,
            "ref": row.athlete_ref,
            "name": row.athlete_name,
            "birth_date": row.athlete_birth_date,
            "sport": row.athlete_sport,
        },
        **_of_story(work, row),
        **_after_signing(work, row),
        "clashes": _clashes(work, row),
        "arrangements": [
            arrangement_out(of, standing)
            for of, standing in standing_of(arrangements_of(work.db, work.actor, screen_id)).items()
        ],
    }
    audit(work.db, work.actor, "open", "screen", screen_id)
    work.commit()
    return Json(document)


def _after_signing(work: Work, row: Row[Any]) -> dict[str, Any]:
    if row.signed_at is None:
        return {"signatures": [], "late": []}
    return {
        "signatures": [
            {"number": s.number, "id": s.id, "reason": s.reason, "by": s.by, "at": s.at}
            for s in signatures_of(work.db, work.actor, row.id)
        ],
        "late": [_late(late.body) for late in waiting_late_answers(work.db, work.actor, row.id)],
    }


def _late(body: dict[str, Any]) -> dict[str, Any]:
    return {"at": body["observed_at"], **{key: body[key] for key in body if key != "observed_at"}}


@router.get("/{screen_id}/changes", operation_id="read_changes", response_model=ChangesOut)
def read_changes(
    screen_id: UUID,
    work: WorkDep,
    after: Annotated[int, Query(ge=0, le=2**31 - 1)],
    device: Annotated[str, Query(max_length=200, pattern=r"^[^\x00-\x1f\x7f]*$")] = "",
) -> Json:
    """What others wrote since, and where they are. `device` is the one that asks."""
    row = store.get_screen(work.db, work.actor, screen_id)
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    changes = store.answers_of(work.db, work.actor, screen_id, after=after) if row.revision > after else []
    # What was read may be newer than the row: nobody is to ask for it again.
    revision = max([row.revision, *(change.revision for change in changes)])
    head = _head(work, row, store.record_json(row, [])) if revision > after else None
    others = others_at(work.db, work.actor, screen_id, device)
    work.commit()
    return Json(
        {
            "revision": revision,
            "state": _state(row),
            "answers": [_answer(change) for change in changes if not change.beside],
            "clashes": _clashes(work, row),
            "head": head,
            "others": [_other(other) for other in others],
        }
    )


class WhereInput(Input):
    """Where a device is: it says so again every few seconds, and is forgotten soon after."""

    device: Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[A-Za-z0-9-]+$")]
    step: Step
    test: Code | None = None
    side: SideCode | None = None


@router.post("/{screen_id}/presence", operation_id="say_where", status_code=204)
def say_where(screen_id: UUID, body: WhereInput, work: WorkDep) -> None:
    presence.say_where(work.db, work.actor, screen_id, presence.Whereabouts(**body.model_dump()))
    work.commit()


def _other(row: Row[Any]) -> dict[str, Any]:
    return {name: getattr(row, name) for name in ("name", "device", "step", "test", "side")}


def _clashes(work: Work, row: Row[Any]) -> list[dict[str, Any]]:
    """Of a signed screen none: what arrives then is a draft of an amendment."""
    if row.signed_at is not None:
        return []
    return [
        {
            "holds": _answer(clash.holds),
            "beside": _answer(clash.beside),
            "danger": is_danger(work.catalogue, clash.holds.test, clash.holds.field),
        }
        for clash in clashes_of(work.db, work.actor, row.id)
    ]


def _head(work: Work, row: Row[Any], record: dict[str, Any]) -> dict[str, Any]:
    return {
        "record": {name: part for name, part in record.items() if name != "entries"},
        **_of_story(work, row),
    }


def _of_story(work: Work, row: Row[Any]) -> dict[str, Any]:
    """Schools, the complaint as told, and the side that comes first by both."""
    schools = {**DEFAULT_SCHOOLS, **row.schools}
    complaint = complaint_in(row.intake, row.purpose, work.catalogue)
    told = complaint_out(complaint)
    return {
        "schools": schools,
        "complaint": told.model_dump() if told else None,
        "first_side": first_side_of(complaint, schools["first_side"]),
    }


def _answer(row: AnswerRow) -> dict[str, Any]:
    return {
        "id": row.id,
        "revision": row.revision,
        "test": row.test,
        "side": row.side,
        "key": row.key,
        "field": row.field,
        "value": row.value,
        "by": row.by_name,
        "from_file": row.device == IMPORTED,
        "at": row.observed_at,
    }


@router.get("/{screen_id}/history", operation_id="read_history", response_model=list[AnswerOut])
def read_history(
    screen_id: UUID,
    work: WorkDep,
    test: Annotated[str, Query(max_length=120, pattern=r"^[a-z0-9_.]+$")],
    field: Annotated[str, Query(max_length=120, pattern=r"^[a-z0-9_.]+$")],
    side: SideCode | None = None,
    key: Annotated[str, Query(max_length=80, pattern=r"^[A-Za-z0-9_]*$")] = "",
) -> Json:
    """Everything a place has held, newest first."""
    store.get_screen(work.db, work.actor, screen_id)
    asked = NewAnswer(screen_id, test, side, field, None, key)
    rows = history_of(work.db, work.actor, work.catalogue, screen_id, asked)
    audit(work.db, work.actor, "read history", "screen", screen_id)
    work.commit()
    return Json([_answer(row) for row in rows])


@router.post("/{screen_id}/answers", operation_id="write_answers")
def write(screen_id: UUID, body: AnswersInput, work: WorkDep) -> WrittenOut:
    written = write_answers(
        work.db,
        work.actor,
        work.catalogue,
        screen_id,
        [answer.to_store() for answer in body.answers],
        body.device,
        body.clock,
    )
    work.commit()
    return WrittenOut(
        revision=written.revision,
        late=list(written.late),
        beside=list(written.beside),
        skew_seconds=written.skew,
    )
