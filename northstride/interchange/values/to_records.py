"""A table of values as records, with every fault by its line and column. Nothing is written here."""

from __future__ import annotations

import datetime as dt
import hashlib
import json
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID, uuid5

from northstride.core.catalogue import Catalogue
from northstride.interchange.values import columns
from northstride.interchange.values.cells import NotAValue
from northstride.interchange.values.drafts import EntryDraft
from northstride.interchange.values.rows import read_long, read_wide
from northstride.interchange.values.table import AtColumn, Place, Row, Table
from northstride.record.json_text import InvalidRecord
from northstride.record.model import FORMAT, VERSION
from northstride.record.naming import fold, looks, tidy
from northstride.record.read import check_record

MOST_FAULTS = 500
NAMESPACE = UUID("6f1d8f0e-3f0c-5c52-9a53-0a6f4d1b7c11")


@dataclass(frozen=True, slots=True)
class CellFault:
    """`column` is a heading, empty where the line as a whole is meant."""

    line: int
    column: str
    problem: str


@dataclass(slots=True)
class ScreenDraft:
    """A screen that the table would make. `name`: what an athlete nobody here knows would be called."""

    ref: str
    date: str
    purpose: str
    first: Row
    own_id: str = ""
    name: str = ""
    birth_date: str = ""
    entries: list[EntryDraft] = field(default_factory=list)
    numbered: dict[str, EntryDraft] = field(default_factory=dict)

    def raw(self) -> dict[str, Any]:
        entries = [entry.raw() for entry in self.entries]
        return {
            "format": FORMAT,
            "version": VERSION,
            "id": self.own_id or str(self._made_id(entries)),
            "date": self.date,
            "purpose": self.purpose,
            "athlete": {"ref": self.ref, **({"birth_date": self.birth_date} if self.birth_date else {})},
            "entries": entries,
        }

    def _made_id(self, entries: list[dict[str, Any]]) -> UUID:
        """From what it says: the same table twice makes the same screen once."""
        said = json.dumps([self.ref, self.date, self.purpose, entries], sort_keys=True)
        return uuid5(NAMESPACE, hashlib.sha256(said.encode()).hexdigest())

    def place_of(self, path: str) -> Place:
        """The cell that said what stands at this path of the record."""
        if path.startswith("entries["):
            number, _, within = path.removeprefix("entries[").partition("]")
            return self.entries[int(number)].place_of(within.removeprefix("."))
        role = {"id": "screen", "athlete.ref": "athlete", "athlete.birth_date": "birth_date"}.get(path, path)
        return self.first.at(role)


@dataclass(slots=True)
class DraftTable:
    screens: list[ScreenDraft]
    faults: list[CellFault]


def screen_faults(catalogue: Catalogue, screens: Iterable[ScreenDraft], most: int) -> list[CellFault]:
    """What only whole records show, of as many screens as it takes."""
    found: list[CellFault] = []
    for screen in screens:
        if len(found) >= most:
            break
        found += _record_faults(catalogue, screen)
    return found


def read_rows(catalogue: Catalogue, table: Table, roles: Sequence[str], purpose: str) -> DraftTable:
    """The screens that grow from the rows, and the faults of single cells. Records are not checked yet."""
    wrong = list(columns.mapping_faults(catalogue, table.heads, roles))
    if wrong:
        heads = [*table.heads, ""]
        return DraftTable([], [CellFault(1, heads[place], says) for place, says in wrong])
    places = {role: place for place, role in enumerate(roles) if role != columns.IGNORE}
    taking = _TableReader(catalogue, places, purpose)
    for cells, line in zip(table.rows, table.lines, strict=True):
        taking.take(Row(cells, line, table.heads, places))
    return taking.done()


class _TableReader:
    def __init__(self, catalogue: Catalogue, places: dict[str, int], purpose: str) -> None:
        self.catalogue = catalogue
        self.purpose = purpose
        self.long = columns.form_of([*places]) == "long"
        found = ((role, columns.value_column(catalogue, role)) for role in places)
        self.values = [(role, column) for role, column in found if column is not None]
        self.screens: dict[tuple[str, ...], ScreenDraft] = {}
        self.people = _People()
        self.faults: list[CellFault] = []

    def take(self, row: Row) -> None:
        if len(self.faults) >= MOST_FAULTS:
            return
        if len(row.cells) > len(row.heads):
            self.faults.append(CellFault(row.line, "", "has more cells than there are headings"))
            return
        problems = [*_screen_problems(row), *self.people.problems(row)]
        self.faults += problems
        if problems:
            return
        screen = self._screen(row)
        if self.long:
            self.faults += _faults_of(row, lambda: read_long(self.catalogue, screen, row))
            return
        for role, column in self.values:
            if row.cell(role):
                self.faults += _faults_of(row, lambda r=role, c=column: read_wide(screen, c, row, r))

    def _screen(self, row: Row) -> ScreenDraft:
        told = {role: row.cell(role) for role in columns.OF_SCREEN}
        told["athlete"] = self.people.ref(row)
        # In a wide table every row is a screen of its own.
        own = () if self.long else (str(row.line),)
        key = (told["screen"], told["athlete"], told["date"], told["purpose"], *own)
        if key not in self.screens:
            purpose = told["purpose"] or self.purpose
            self.screens[key] = ScreenDraft(told["athlete"], told["date"], purpose, row, told["screen"])
        screen = self.screens[key]
        screen.name = screen.name or tidy(told["name"])
        screen.birth_date = screen.birth_date or told["birth_date"]
        return screen

    def done(self) -> DraftTable:
        return DraftTable(list(self.screens.values()), self.faults)


class _People:
    """Who each reference names in this table: one name, one day of birth, one way to write it."""

    def __init__(self) -> None:
        self._written: dict[str, str] = {}
        self._looks: dict[str, str] = {}
        self._told: dict[tuple[str, str], Row] = {}

    def ref(self, row: Row) -> str:
        """As the table wrote it first."""
        written = tidy(row.cell("athlete"))
        return self._written.setdefault(fold(written), written)

    def problems(self, row: Row) -> Iterator[CellFault]:
        ref = self.ref(row)
        other = self._looks.setdefault(looks(ref), ref)
        if fold(other) != fold(ref):
            yield CellFault(
                row.line, row.at("athlete").column, f"{ref!r} looks like {other!r}, another row's"
            )
        for role in ("name", "birth_date"):
            cell = row.cell(role)
            first = self._told.setdefault((fold(ref), role), row) if cell else row
            if fold(first.cell(role)) != fold(cell):
                says = f"{cell!r}, and {ref} is {first.cell(role)!r} on line {first.line}"
                yield CellFault(row.line, row.at(role).column, says)


def _faults_of(row: Row, read: Any) -> Iterator[CellFault]:
    try:
        read()
    except AtColumn as error:
        yield CellFault(row.line, row.at(error.role).column, str(error))
    except NotAValue as error:
        yield CellFault(row.line, "", str(error))


def _record_faults(catalogue: Catalogue, screen: ScreenDraft) -> Iterator[CellFault]:
    """What only the whole record shows, led back to the cell that said it."""
    try:
        check_record(screen.raw(), catalogue)
    except InvalidRecord as error:
        for fault in error.faults:
            place = screen.place_of(fault.path)
            yield CellFault(place.line, place.column, fault.problem)


def _screen_problems(row: Row) -> Iterator[CellFault]:
    def fault(role: str, says: str) -> CellFault:
        return CellFault(row.line, row.at(role).column, says)

    if not row.cell("athlete"):
        yield fault("athlete", "needs the athlete's reference")
    try:
        dt.date.fromisoformat(row.cell("date"))
    except ValueError:
        yield fault("date", f"{row.cell('date')!r} is not a day written YYYY-MM-DD")
    if own := row.cell("screen"):
        try:
            UUID(own)
        except ValueError:
            yield fault("screen", f"{own!r} is not the id of a screen")
