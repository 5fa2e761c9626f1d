"""A table of values coming in: what each column becomes, a dry run, and then all of it or nothing."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from typing import Annotated, Any, Literal

import orjson
from fastapi import APIRouter, Response
from fastapi.responses import StreamingResponse
from pydantic import Field

from northstride.api.bodies import Input, Output
from northstride.api.problems import HANDLED, Problem, from_error, unexpected
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, RequestContext, Work, WorkDep
from northstride.api.values_checked import CheckedTableOut, ReadTable, look_up
from northstride.core.catalogue import default_catalogue
from northstride.core.terms.errors import Fault
from northstride.core.terms.vocabulary import Purpose
from northstride.interchange.values.cells import NotAValue
from northstride.interchange.values.columns import IGNORE, ROLE_WORDS, ROLES, guess, value_column
from northstride.interchange.values.steps import (
    SCREENS_A_STEP,
    Checked,
    TableRequest,
    first_step,
    next_step,
    records_step,
)
from northstride.interchange.values.table import MOST_COLUMNS, Table, table_of
from northstride.interchange.values.to_records import MOST_FAULTS
from northstride.store.errors import Refused
from northstride.store.transfers import value_tables as store

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
async def check(body: MappedInput, context: ContextDep) -> Response:
    """The dry run: what it would make, and every fault. Takes nothing."""
    await context.check_may()
    return _stream(context, _checked(context, body))


async def _checked(context: RequestContext, body: MappedInput) -> AsyncIterator[StepOut]:
    reading = _Reading(context, body)
    async for step in reading.steps():
        yield step
    result = await context.run(lambda work: look_up(work, reading.table))
    yield _step("done", reading.whole, reading.whole, checked=result)


class _Reading:
    """Outside any transaction, in a process of its own: whoever types beside it is not held up."""

    def __init__(self, context: RequestContext, body: MappedInput) -> None:
        catalogue = context.services.catalogue
        other = None if catalogue is default_catalogue() else catalogue
        self._beside = context.services.tables
        self._request = TableRequest(body.text, tuple(body.roles), body.purpose, other)
        self.table = ReadTable([], [], {})
        self.whole = 0

    async def steps(self) -> AsyncIterator[StepOut]:
        yield _step("reading", 0, 0)
        try:
            begun = await self._beside.run(first_step, self._request)
        except NotAValue as error:
            raise Refused([Fault("text", None, str(error))]) from error
        self.whole = begun.screens
        self.table = ReadTable([], begun.faults, begun.headings)
        for first in range(0, self.whole, SCREENS_A_STEP):
            yield _step("checking", first, self.whole)
            if len(self.table.faults) < MOST_FAULTS:
                self._add(await self._beside.run(next_step, self._request, first))
        yield _step("checking", self.whole, self.whole)

    def _add(self, checked: Checked) -> None:
        """Faults by line, up to the limit."""
        faults = sorted([*self.table.faults, *checked.faults], key=lambda fault: fault.line)
        screens = [*self.table.screens, *checked.screens]
        self.table = ReadTable(screens, faults[:MOST_FAULTS], self.table.headings)

    async def records(self) -> list[tuple[dict[str, Any], str]]:
        """Of each screen its record, and the name of whom it is about."""
        raws: list[dict[str, Any]] = []
        for first in range(0, self.whole, SCREENS_A_STEP):
            raws += await self._beside.run(records_step, self._request, first)
        return list(zip(raws, (screen.name for screen in self.table.screens), strict=True))


def _step(step: StepName, done: int, of: int, **more: Any) -> StepOut:
    return StepOut(step=step, done=done, of=of, **more)


def _stream(context: RequestContext, steps: AsyncIterator[StepOut]) -> Steps:
    """What goes wrong once it has begun is its last line, in the words of any other refusal."""

    async def lines() -> AsyncIterator[bytes]:
        try:
            async for step in steps:
                yield orjson.dumps(step.model_dump(mode="json")) + b"\n"
        except Exception as error:
            answer = from_error(error) if isinstance(error, HANDLED) else unexpected(context.request, error)
            problem = Problem.model_validate_json(bytes(answer.body))
            refused = _step("refused", 0, 0, problem=problem)
            yield orjson.dumps(refused.model_dump(mode="json")) + b"\n"

    return Steps(lines())


@router.post("", operation_id="import_values", response_class=Steps, responses=LINES)
async def take(body: MappedInput, context: ContextDep) -> Response:
    """All of it or nothing; a repeat of the same table does nothing."""
    await context.check_may()
    return _stream(context, _taken(context, body))


async def _taken(context: RequestContext, body: MappedInput) -> AsyncIterator[StepOut]:
    reading = _Reading(context, body)
    async for step in reading.steps():
        yield step
    looked = await context.run(lambda work: look_up(work, reading.table))
    faults = [Fault(f"line {each.line}, {each.column}", None, each.problem) for each in looked.faults]
    if faults:
        raise Refused(faults)
    whole = reading.whole
    yield _step("writing", 0, whole)
    taking = store.TableImport(await reading.records())
    writing = asyncio.ensure_future(context.run(lambda work: taking.run(work.db, work.actor, work.catalogue)))
    try:
        while not (await asyncio.wait({writing}, timeout=TOLD_EVERY_SECONDS))[0]:
            yield _step("writing", taking.done, whole)
    finally:
        # Nobody waits any more: what was written of it is taken back.
        taking.stop()
        await asyncio.wait({writing})
    screens, athletes = await writing
    yield _step("done", whole, whole, taken=TakenTableOut(screens=screens, new_athletes=athletes))
