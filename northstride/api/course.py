"""One athlete over time: screens, what happened, change lines, what is to be done."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import Annotated, Any, Literal
from uuid import UUID

import orjson
from anyio import to_thread
from fastapi import APIRouter, Query, Response
from sqlalchemy import Row

from northstride.api.answer_inputs import Code, SideCode
from northstride.api.bodies import Json, Output
from northstride.api.catalogue import drawn_as
from northstride.api.day import DueActionOut, due_out
from northstride.api.screen_outputs import ScreenLine
from northstride.api.screens import screen_line
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, Work, WorkDep
from northstride.interchange.archive import file_name
from northstride.interchange.paper.figures import Figures
from northstride.interchange.paper.pdf import picture_job
from northstride.interchange.paper.setting import set_in_type
from northstride.record.board import BoardRowOut, board_row_out
from northstride.record.lines import LineOut, line_out
from northstride.record.model import HistoryPart
from northstride.store.actor import audit
from northstride.store.days.day import due_of_athlete
from northstride.store.errors import NotFound
from northstride.store.people.clinic_day import today_of
from northstride.store.readings.lines import Course, course_of
from northstride.store.readings.returning import return_tests
from northstride.store.screens.screens import list_screens
from northstride.store.transfers.exports import went_out

router = APIRouter(prefix="/api/athletes/{athlete_id}", tags=["athletes"], route_class=StrictJsonRoute)


class EventOut(Output):
    """What happened on a side, or to no side anybody said: an injury, a test for the return, an amendment."""

    kind: Literal["injury", "return", "amended"]
    date: dt.date
    side: SideCode
    region: str | None


class CourseOut(Output):
    screens: list[ScreenLine]
    events: list[EventOut]
    history: list[HistoryPart]
    lines: list[LineOut]
    actions: list[DueActionOut]


@router.get("/course", operation_id="read_course", response_model=CourseOut)
def read(athlete_id: UUID, work: WorkDep) -> Json:
    told = course_told(work, athlete_id)
    actions = due_of_athlete(work.db, work.actor, athlete_id)
    audit(work.db, work.actor, "read", "athlete", athlete_id, {"screens": len(told["screens"])})
    work.commit()
    return Json({**told, "actions": [due_out(item) for item in actions]})


def course_told(work: Work, athlete_id: UUID, until: dt.date = dt.date.max) -> dict[str, Any]:
    """Screens, events, history and lines of an athlete up to a day. Raises NotFound."""
    every = list_screens(work.db, work.actor, athlete_id)
    screens = [screen for screen in every if screen.date <= until]
    course = course_of(work.db, work.actor, work.catalogue, screens)
    return {
        "screens": [screen_line(row).model_dump(mode="json") for row in screens],
        "events": list(_events(course)),
        "history": list(_history(course, screens)),
        "lines": [line_out(line).model_dump(mode="json") for line in course.lines],
    }


@router.get(
    "/lines",
    operation_id="export_line",
    response_class=Response,
    responses={200: {"content": {"image/svg+xml": {}, "image/png": {}}}},
)
async def export_line(
    athlete_id: UUID,
    context: ContextDep,
    test: Code,
    measure: Code,
    key: Annotated[str, Query(max_length=100)] = "",
    form: Literal["svg", "png"] = "svg",
) -> Response:
    """A change line by itself. Raises NotFound where nothing was taken twice there."""

    def ask(work: Work) -> tuple[dict[str, Any], Figures, str]:
        told = course_told(work, athlete_id)
        return _as_json(told), drawn_as(work.catalogue), str(today_of(work.actor))

    told, draws, today = await context.run(ask)
    lines = await to_thread.run_sync(draws.lines, told, today)
    found = [each for each in lines if (each["test"], each["measure"], each["which"]) == (test, measure, key)]
    if not found:
        raise NotFound("athlete", athlete_id)
    drawing = str(found[0]["svg"]).encode()
    if form == "png":
        drawing = b"".join(await context.services.papers.run(set_in_type, picture_job(found[0]["svg"])))
    what = f"change line, {form.upper()}"
    await context.run(lambda work: went_out(work.db, work.actor, "athlete", athlete_id, what, test=test))
    name = f"north-stride-{file_name(test)}-{file_name(measure)}.{form}"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(drawing, media_type=PICTURES[form], headers=headers)


PICTURES = {"svg": "image/svg+xml", "png": "image/png"}


def _as_json(told: dict[str, Any]) -> dict[str, Any]:
    """As the web part has it: days as text."""
    plain: dict[str, Any] = orjson.loads(orjson.dumps(told))
    return plain


def course_until(work: Work, athlete_id: UUID, until: dt.date) -> dict[str, Any]:
    """All that was taken up to a day, as the web part draws change lines from it."""
    return _as_json(course_told(work, athlete_id, until))


class ReturnTestOut(Output):
    """`rows` none: the record cannot be read as it stands."""

    screen: UUID
    date: dt.date
    state: Literal["open", "signed"]
    rows: list[BoardRowOut] | None


@router.get("/return-tests", operation_id="read_return_tests")
def read_return_tests(athlete_id: UUID, work: WorkDep) -> list[ReturnTestOut]:
    """Each test for the return, the oldest first, with every criterion and by how much."""
    screens = list_screens(work.db, work.actor, athlete_id)
    found = [
        ReturnTestOut(
            screen=each.screen.id,
            date=each.screen.date,
            state="open" if each.screen.signed_at is None else "signed",
            rows=None if each.rows is None else [board_row_out(row) for row in each.rows],
        )
        for each in return_tests(work.db, work.actor, work.catalogue, screens)
    ]
    audit(work.db, work.actor, "read", "athlete", athlete_id, {"return tests": len(found)})
    work.commit()
    return found


def _events(course: Course) -> Iterator[dict[str, Any]]:
    """Each injury once, however many screens tell of it; newest first."""
    told: set[tuple[str, str | None]] = set()
    for screen in course.screens:
        complaint = course.complaints[screen.id]
        onset = course.intakes[screen.id].get("onset") or {}
        sides = complaint.sides if complaint else (None,)
        region = complaint.region if complaint else None
        if screen.id in course.amended:
            yield {"kind": "amended", "date": screen.date, "side": None, "region": None}
        if screen.purpose == "return_to_sport":
            yield from (
                {"kind": "return", "date": screen.date, "side": side, "region": region} for side in sides
            )
        if onset.get("kind") != "sudden" or not onset.get("date"):
            continue
        for side in sides:
            if (onset["date"], side) not in told:
                told.add((onset["date"], side))
                yield {"kind": "injury", "date": onset["date"], "side": side, "region": region}


def _history(course: Course, screens: Sequence[Row[Any]]) -> Iterator[dict[str, Any]]:
    """What was told of earlier injuries, each once as it was told last."""
    told: set[tuple[Any, ...]] = set()
    for screen in screens:
        for line in course.intakes[screen.id].get("history") or ():
            what = (line["region"], line.get("side"), line["kind"])
            if what not in told:
                told.add(what)
                yield line
