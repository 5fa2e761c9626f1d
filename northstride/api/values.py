"""A table of values coming in: what each column becomes, a dry run, and then all of it or nothing."""

from __future__ import annotations

import asyncio
import datetime as dt
from collections.abc import AsyncIterator, Mapping
from typing import Annotated, Any, Literal
from uuid import UUID

import orjson
from fastapi import APIRouter, Response
from fastapi.responses import StreamingResponse
from pydantic import Field
from sqlalchemy import Row

from northstride.api.bodies import Input, Output
from northstride.api.problems import HANDLED, Problem, from_error, unexpected
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import Desk, DeskDep, Work, WorkDep
from northstride.core.catalogue import default_catalogue
from northstride.core.errors import Fault
from northstride.core.vocabulary import Purpose
from northstride.interchange.values.cells import NotAValue
from northstride.interchange.values.columns import IGNORE, ROLE_WORDS, ROLES, guess, value_column
from northstride.interchange.values.steps import SCREENS_A_STEP, first_step, next_step
from northstride.interchange.values.table import MOST_COLUMNS, Table, table_of
from northstride.interchange.values.taken import (
    MOST_FAULTS,
    ScreenDraft,
    TakenTable,
    not_this_person,
    with_faults,
)
from northstride.store import value_tables as store
from northstride.store.athletes import athletes_by_ref
from northstride.store.errors import Refused

router = APIRouter(prefix="/api/values", tags=["values"], route_class=StrictJsonRoute)

MOST_SHOWN = 3
TOLD_EVERY_SECONDS = 0.3
StepName = Literal["reading", "checking", "writing", "done", "refused"]
Text = Annotated[str, Field(max_length=1_900_000)]


class TableInput(Input):
    text: Text


class MappedInput(TableInput):
    """`roles`: what each column becomes, in the table's order."""

    roles: Annotated[list[Annotated[str, Field(max_length=200)]], Field(max_length=MOST_COLUMNS)]
    purpose: Purpose = "squad_screen"


class ColumnOut(Output):
    """`says`: what its role means, in words. `shown`: the first cells under it."""

    head: str
    role: str
    says: str
    shown: list[str]


class RoleOut(Output):
    role: str
    says: str


class ColumnsOut(Output):
    rows: int
    columns: list[ColumnOut]
    # What a column can become besides a value of a test.
    roles: list[RoleOut]


class CellFaultOut(Output):
    """`column` is a heading; empty where the line as a whole is meant."""

    line: int
    column: str
    problem: str


class TableScreenOut(Output):
    """`stands`: made of this table before, so nothing is done. `athlete` none where a new one is made."""

    id: UUID
    date: dt.date
    purpose: Purpose
    ref: str
    name: str
    athlete: UUID | None
    stands: bool
    entries: int


class CheckedTableOut(Output):
    faults: list[CellFaultOut]
    screens: list[TableScreenOut]


class TakenTableOut(Output):
    screens: int
    new_athletes: int


@router.post("/columns", operation_id="read_table_columns")
def columns(body: TableInput, work: WorkDep) -> ColumnsOut:
    """Nothing is kept of it."""
    table = _table(body.text)
    told = [
        ColumnOut(
            head=head,
            role=role,
            says=_says(work, role),
            shown=[row[at] for row in table.rows[:MOST_SHOWN] if at < len(row)],
        )
        for at, (head, role) in enumerate(zip(table.heads, guess(work.catalogue, table.heads), strict=True))
    ]
    work.commit()
    roles = [RoleOut(role=IGNORE, says="left out")] + [RoleOut(role=r, says=ROLE_WORDS[r]) for r in ROLES]
    return ColumnsOut(rows=len(table.rows), columns=told, roles=roles)


def _table(text: str) -> Table:
    try:
        return table_of(text)
    except NotAValue as error:
        raise Refused([Fault("text", None, str(error))]) from error


def _says(work: Work, role: str) -> str:
    if role == IGNORE:
        return "left out"
    found = value_column(work.catalogue, role)
    if found is None:
        return ROLE_WORDS.get(role, role)
    label = found.measure.label if found.measure else found.name
    return ", ".join(part for part in (found.test.name, label, found.key, found.side) if part)


class StepOut(Output):
    """One line of the answer, which is a stream: how far it is, and at its end what came of it or why not."""

    step: StepName
    done: int
    of: int
    checked: CheckedTableOut | None = None
    taken: TakenTableOut | None = None
    problem: Problem | None = None


class Steps(StreamingResponse):
    """JSON, a line a step. Closing it stops the work, and nothing is kept."""

    media_type = "application/x-ndjson"


LINES: dict[int | str, dict[str, Any]] = {200: {"model": StepOut, "description": Steps.__doc__}}


@router.post("/check", operation_id="check_table", response_class=Steps, responses=LINES)
async def check(body: MappedInput, desk: DeskDep) -> Response:
    """The dry run: what it would make, and every fault. Takes nothing."""
    await desk.check_may()
    return _stream(desk, _checked(desk, body))


async def _checked(desk: Desk, body: MappedInput) -> AsyncIterator[StepOut]:
    taken = TakenTable([], [])
    async for step, found in _read(desk, body):
        taken = found
        yield step
    result = await desk.run(lambda work: _look_up(work, taken))
    yield _step("done", len(taken.screens), len(taken.screens), checked=result)


async def _read(desk: Desk, body: MappedInput) -> AsyncIterator[tuple[StepOut, TakenTable]]:
    """Outside any transaction, in a process of its own: whoever types beside it is not held up."""
    beside, catalogue = desk.services.tables, desk.services.catalogue
    other = None if catalogue is default_catalogue() else catalogue
    yield _step("reading", 0, 0), TakenTable([], [])
    try:
        taken = await beside.run(first_step, body.text, list(body.roles), body.purpose, other)
    except NotAValue as error:
        raise Refused([Fault("text", None, str(error))]) from error
    whole = len(taken.screens)
    for first in range(0, whole, SCREENS_A_STEP):
        yield _step("checking", first, whole), taken
        most = MOST_FAULTS - len(taken.faults)
        if most > 0:
            some = taken.screens[first : first + SCREENS_A_STEP]
            taken = with_faults(taken, await beside.run(next_step, some, most, other))
    yield _step("checking", whole, whole), taken


def _step(step: StepName, done: int, of: int, **more: Any) -> StepOut:
    return StepOut(step=step, done=done, of=of, **more)


def _stream(desk: Desk, steps: AsyncIterator[StepOut]) -> Steps:
    """What goes wrong once it has begun is its last line, in the words of any other refusal."""

    async def lines() -> AsyncIterator[bytes]:
        try:
            async for step in steps:
                yield orjson.dumps(step.model_dump(mode="json")) + b"\n"
        except Exception as error:
            answer = from_error(error) if isinstance(error, HANDLED) else unexpected(desk.request, error)
            problem = Problem.model_validate_json(bytes(answer.body))
            refused = _step("refused", 0, 0, problem=problem)
            yield orjson.dumps(refused.model_dump(mode="json")) + b"\n"

    return Steps(lines())


def _look_up(work: Work, taken: TakenTable) -> CheckedTableOut:
    faults = [CellFaultOut.model_validate(fault, from_attributes=True) for fault in taken.faults]
    if faults:
        # They come first: whose it is stands on what a table says.
        return CheckedTableOut(faults=faults, screens=[])
    athletes = athletes_by_ref(work.db, work.actor, {draft.ref for draft in taken.screens})
    screens = _screens(work, taken, athletes)
    return CheckedTableOut(faults=[*_nameless(taken, screens), *_others(taken, athletes)], screens=screens)


def _screens(work: Work, taken: TakenTable, athletes: Mapping[str, Row[Any]]) -> list[TableScreenOut]:
    raws = [draft.raw() for draft in taken.screens]
    standing = store.standing(work.db, work.actor, [UUID(str(raw["id"])) for raw in raws])
    found = []
    for draft, raw in zip(taken.screens, raws, strict=True):
        own = athletes.get(draft.ref)
        found.append(
            TableScreenOut(
                id=raw["id"],
                date=draft.date,
                purpose=raw["purpose"],
                ref=draft.ref,
                name=own.name if own else draft.name,
                athlete=own.id if own else None,
                stands=UUID(raw["id"]) in standing,
                entries=len(draft.entries),
            )
        )
    return found


def _nameless(taken: TakenTable, screens: list[TableScreenOut]) -> list[CellFaultOut]:
    """Whoever nobody here knows needs a name before they are made."""
    named = {screen.ref for screen in screens if screen.name}
    nameless = {draft.ref: draft for draft in taken.screens if draft.ref not in named}
    return [_fault(draft) for draft in nameless.values()]


def _others(taken: TakenTable, athletes: Mapping[str, Row[Any]]) -> list[CellFaultOut]:
    """Whom a reference names here, and the table calls otherwise."""
    return [
        CellFaultOut.model_validate(fault, from_attributes=True)
        for draft in taken.screens
        if (own := athletes.get(draft.ref)) is not None
        for fault in not_this_person(draft, own.name, own.birth_date)
    ]


def _fault(draft: ScreenDraft) -> CellFaultOut:
    place = draft.first.at("athlete")
    says = f"nobody here has the reference {draft.ref!r}: a column with the name is needed to make them"
    return CellFaultOut(line=place.line, column=place.column, problem=says)


@router.post("", operation_id="import_values", response_class=Steps, responses=LINES)
async def take(body: MappedInput, desk: DeskDep) -> Response:
    """All of it or nothing; a repeat of the same table does nothing."""
    await desk.check_may()
    return _stream(desk, _taken(desk, body))


async def _taken(desk: Desk, body: MappedInput) -> AsyncIterator[StepOut]:
    taken = TakenTable([], [])
    async for step, found in _read(desk, body):
        taken = found
        yield step
    looked = await desk.run(lambda work: _look_up(work, taken))
    faults = [Fault(f"line {each.line}, {each.column}", None, each.problem) for each in looked.faults]
    if faults:
        raise Refused(faults)
    whole = len(taken.screens)
    yield _step("writing", 0, whole)
    taking = store.Taking([(draft.raw(), draft.name) for draft in taken.screens])
    writing = asyncio.ensure_future(desk.run(lambda work: taking.run(work.db, work.actor, work.catalogue)))
    try:
        while not (await asyncio.wait({writing}, timeout=TOLD_EVERY_SECONDS))[0]:
            yield _step("writing", taking.done, whole)
    finally:
        # Nobody waits any more: what was written of it is taken back.
        taking.stop()
        await asyncio.wait({writing})
    screens, athletes = await writing
    yield _step("done", whole, whole, taken=TakenTableOut(screens=screens, new_athletes=athletes))
