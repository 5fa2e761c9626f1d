"""A table read step by step, each small enough to be waited for and to be stopped between two.

Each is called in a process of its own, which knows the catalogue as shipped unless it is handed another, and
keeps the table between two steps: handing it to and fro would take longer than reading it.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.interchange.values.table import table_of
from northstride.interchange.values.to_records import (
    MOST_FAULTS,
    CellFault,
    DraftTable,
    ScreenDraft,
    read_rows,
    screen_faults,
)
from northstride.record.naming import fold

SCREENS_A_STEP = 250
# As many as are likely to be read at once: what is request for again is read again.
TABLES_KEPT = 4


@dataclass(frozen=True, slots=True)
class TableRequest:
    """A table as it came: its text, what each column becomes, and the purpose where no column says it."""

    text: str
    roles: tuple[str, ...]
    purpose: str
    # None is the catalogue as shipped.
    other: Catalogue | None = None


@dataclass(frozen=True, slots=True)
class Outline:
    """Whose screen a table would make, and when; without what was found."""

    id: str
    ref: str
    name: str
    birth_date: str
    date: str
    purpose: str
    entries: int
    # Where the table says so.
    line: int


@dataclass(frozen=True, slots=True)
class Begun:
    """`headings`: what stands over the column of each role."""

    screens: int
    faults: list[CellFault]
    headings: Mapping[str, str]


@dataclass(frozen=True, slots=True)
class Checked:
    screens: list[Outline]
    faults: list[CellFault]


def first_step(request: TableRequest) -> Begun:
    """Raises NotAValue for what is no table, or too large."""
    table = _read(request)
    columns = table.screens[0].first if table.screens else None
    headings = {role: columns.at(role).column for role in columns.columns} if columns else {}
    return Begun(len(table.screens), table.faults, headings)


def next_step(request: TableRequest, first: int) -> Checked:
    """So many screens from `first` on, and what only their whole records show."""
    table = _read(request)
    some = table.screens[first : first + SCREENS_A_STEP]
    faults = screen_faults(request.other or default_catalogue(), some, MOST_FAULTS)
    return Checked([_outline(draft) for draft in some], faults)


def records_step(request: TableRequest, first: int) -> list[dict[str, Any]]:
    """The records of so many screens from `first` on."""
    return [draft.raw() for draft in _read(request).screens[first : first + SCREENS_A_STEP]]


def _read(request: TableRequest) -> DraftTable:
    if request.other is not None:
        return read_rows(request.other, table_of(request.text), request.roles, request.purpose)
    return _kept(request.text, request.roles, request.purpose)


@lru_cache(maxsize=TABLES_KEPT)
def _kept(text: str, roles: tuple[str, ...], purpose: str) -> DraftTable:
    return read_rows(default_catalogue(), table_of(text), roles, purpose)


def _outline(draft: ScreenDraft) -> Outline:
    raw = draft.raw()
    return Outline(
        id=raw["id"],
        ref=draft.ref,
        name=draft.name,
        birth_date=draft.birth_date,
        date=draft.date,
        purpose=draft.purpose,
        entries=len(draft.entries),
        line=draft.first.line,
    )


def not_this_person(
    screen: Outline, headings: Mapping[str, str], name: str, birth_date: dt.date | None
) -> Iterator[CellFault]:
    """Where a table calls somebody otherwise than they are called here: a value of one under another."""
    here = {"name": name, "birth_date": birth_date.isoformat() if birth_date else ""}
    told = {"name": screen.name, "birth_date": screen.birth_date}
    for role, said in told.items():
        if said and here[role] and fold(said) != fold(here[role]):
            says = f"{said!r}, and {screen.ref} is {here[role]!r} here"
            yield CellFault(screen.line, headings.get(role, ""), says)
