"""A table of values coming in: what each column becomes, a dry run, and then all of it or nothing."""

from __future__ import annotations

import datetime as dt
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from northstride.api.bodies import Input, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import Work, WorkDep
from northstride.core.errors import Fault
from northstride.core.vocabulary import Purpose
from northstride.interchange.values.cells import NotAValue
from northstride.interchange.values.columns import IGNORE, ROLE_WORDS, ROLES, guess, value_column
from northstride.interchange.values.table import MOST_COLUMNS, Table, table_of
from northstride.interchange.values.taken import ScreenDraft, TakenTable, not_this_person, take_table
from northstride.store import value_tables as store
from northstride.store.athletes import athletes_by_ref
from northstride.store.errors import Refused

router = APIRouter(prefix="/api/values", tags=["values"], route_class=StrictJsonRoute)

MOST_SHOWN = 3
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


@router.post("/check", operation_id="check_table")
def check(body: MappedInput, work: WorkDep) -> CheckedTableOut:
    """The dry run: what it would make, and every fault. Takes nothing."""
    taken = _taken(work, body)
    faults = [CellFaultOut.model_validate(fault, from_attributes=True) for fault in taken.faults]
    screens = [] if faults else _screens(work, taken)
    faults += [*_nameless(taken, screens), *_others(work, taken, screens)]
    work.commit()
    return CheckedTableOut(faults=faults, screens=screens)


def _taken(work: Work, body: MappedInput) -> TakenTable:
    return take_table(work.catalogue, _table(body.text), body.roles, body.purpose)


def _screens(work: Work, taken: TakenTable) -> list[TableScreenOut]:
    standing = store.standing(work.db, work.actor, [UUID(str(each.raw()["id"])) for each in taken.screens])
    athletes = athletes_by_ref(work.db, work.actor, {each.ref for each in taken.screens})
    found = []
    for draft in taken.screens:
        raw = draft.raw()
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
    # Without screens there are faults that come first.
    nameless = {draft.ref: draft for draft in taken.screens if screens and draft.ref not in named}
    return [_fault(draft) for draft in nameless.values()]


def _others(work: Work, taken: TakenTable, screens: list[TableScreenOut]) -> list[CellFaultOut]:
    """Whom a reference names here, and the table calls otherwise."""
    drafts = taken.screens if screens else []
    athletes = athletes_by_ref(work.db, work.actor, {draft.ref for draft in drafts})
    return [
        CellFaultOut.model_validate(fault, from_attributes=True)
        for draft in drafts
        if (own := athletes.get(draft.ref)) is not None
        for fault in not_this_person(draft, own.name, own.birth_date)
    ]


def _fault(draft: ScreenDraft) -> CellFaultOut:
    place = draft.first.at("athlete")
    says = f"nobody here has the reference {draft.ref!r}: a column with the name is needed to make them"
    return CellFaultOut(line=place.line, column=place.column, problem=says)


@router.post("", operation_id="import_values")
def take(body: MappedInput, work: WorkDep) -> TakenTableOut:
    """All of it or nothing; a repeat of the same table does nothing."""
    taken = _taken(work, body)
    found = [(each.line, each.column, each.problem) for each in taken.faults]
    if not found:
        others = _others(work, taken, _screens(work, taken))
        found = [(each.line, each.column, each.problem) for each in others]
    faults = [Fault(f"line {line}, {column}", None, problem) for line, column, problem in found]
    if faults:
        raise Refused(faults)
    drafts = [(draft.raw(), draft.name) for draft in taken.screens]
    screens, athletes = store.take(work.db, work.actor, work.catalogue, drafts)
    work.commit()
    return TakenTableOut(screens=screens, new_athletes=athletes)
