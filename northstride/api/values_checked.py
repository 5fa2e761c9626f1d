"""A table held against who is here: whom each row means, what stands already, what does not fit."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Row

from northstride.api.bodies import Output
from northstride.api.unit_of_work import Work
from northstride.core.terms.vocabulary import Purpose
from northstride.interchange.values.steps import Outline, not_this_person
from northstride.interchange.values.to_records import CellFault
from northstride.store.people.athletes import athletes_by_ref
from northstride.store.transfers import value_tables as store


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


@dataclass(frozen=True, slots=True)
class ReadTable:
    """Read, and held against nobody yet. `headings`: what stands over the column of each role."""

    screens: list[Outline]
    faults: list[CellFault]
    headings: Mapping[str, str]


def look_up(work: Work, table: ReadTable) -> CheckedTableOut:
    if table.faults:
        # They come first: whose it is stands on what a table says.
        return CheckedTableOut(faults=_told(table.faults), screens=[])
    athletes = athletes_by_ref(work.db, work.actor, {screen.ref for screen in table.screens})
    screens = _screens(work, table, athletes)
    faults = [*_nameless(table, screens), *_others(table, athletes)]
    return CheckedTableOut(faults=_told(faults), screens=screens)


def _told(faults: list[CellFault]) -> list[CellFaultOut]:
    return [CellFaultOut.model_validate(fault, from_attributes=True) for fault in faults]


def _screens(work: Work, table: ReadTable, athletes: Mapping[str, Row[Any]]) -> list[TableScreenOut]:
    standing = store.standing(work.db, work.actor, [UUID(screen.id) for screen in table.screens])
    found = []
    for screen in table.screens:
        own, key = athletes.get(screen.ref), UUID(screen.id)
        found.append(
            TableScreenOut(
                id=key,
                date=dt.date.fromisoformat(screen.date),
                purpose=screen.purpose,
                ref=screen.ref,
                name=own.name if own else screen.name,
                athlete=own.id if own else None,
                stands=key in standing,
                entries=screen.entries,
            )
        )
    return found


def _nameless(table: ReadTable, screens: list[TableScreenOut]) -> list[CellFault]:
    """Whoever nobody here knows needs a name before they are made."""
    named = {screen.ref for screen in screens if screen.name}
    nameless = {screen.ref: screen for screen in table.screens if screen.ref not in named}
    return [_without_name(screen, table.headings) for screen in nameless.values()]


def _without_name(screen: Outline, headings: Mapping[str, str]) -> CellFault:
    says = f"nobody here has the reference {screen.ref!r}: a column with the name is needed to make them"
    return CellFault(screen.line, headings.get("athlete", ""), says)


def _others(table: ReadTable, athletes: Mapping[str, Row[Any]]) -> list[CellFault]:
    """Whom a reference names here, and the table calls otherwise."""
    return [
        fault
        for screen in table.screens
        if (own := athletes.get(screen.ref)) is not None
        for fault in not_this_person(screen, table.headings, own.name, own.birth_date)
    ]
