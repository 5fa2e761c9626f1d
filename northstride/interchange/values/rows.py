"""What one row says: of a long table one value, of a wide one a cell at a time."""

from __future__ import annotations

from typing import Any, Protocol

from northstride.core.catalogue import Catalogue, Measure, Test
from northstride.interchange.values.cells import (
    NotAValue,
    factor_of,
    item_of,
    number_of,
    side_of,
    truth_of,
    value_of,
)
from northstride.interchange.values.columns import ValueColumn
from northstride.interchange.values.drafts import BESIDE, EntryDraft
from northstride.interchange.values.out import NOTHING
from northstride.interchange.values.table import AtColumn, Row


class Entries(Protocol):
    """The entries of a screen: in their order, and by what tells them apart."""

    entries: list[EntryDraft]
    numbered: dict[str, EntryDraft]


def read_long(catalogue: Catalogue, screen: Entries, row: Row) -> None:
    """Raises NotAValue."""
    test = row.read("test", lambda cell: _test(catalogue, cell))
    side = row.read("side", side_of)
    name = row.cell("measure")
    if name in BESIDE:
        entry = _entry(screen, test, side, row, None)
        row.read("value", lambda cell: entry.put_beside(name, cell, row.at("value")))
    else:
        entry = _value(screen, test, side, row.read("measure", lambda cell: _measure(test, cell)), row)
    _take_of_entry(entry, row)


def _test(catalogue: Catalogue, cell: str) -> Test:
    """By its code, or by any of its names where only one test has it."""
    if cell in catalogue.tests:
        return catalogue.tests[cell]
    said = cell.casefold()
    named = [
        test
        for test in catalogue.tests.values()
        if said in (name.casefold() for name in (test.name, *test.other_names))
    ]
    if len(named) != 1:
        raise NotAValue("is not a test in the catalogue" if not named else "could be several tests")
    return named[0]


def _measure(test: Test, cell: str) -> Measure:
    named = (measure for measure in test.measures if measure.label.casefold() == cell.casefold())
    measure = test.measure(cell) or next(named, None)
    if measure is None:
        raise NotAValue(f"is no measure of {test.name}")
    return measure


def _value(screen: Entries, test: Test, side: str | None, measure: Measure, row: Row) -> EntryDraft:
    if test.sides == "both" and not measure.per_side:
        side = None
    trial = row.cell("trial")
    listed = bool(trial) or measure.kind == "choices"
    # A first trial, or a whole value, begins another entry where one stands already.
    begins = measure.code if not listed or trial == "1" else None
    entry = _entry(screen, test, side, row, begins)
    factor = row.read("unit", lambda cell: factor_of(measure, cell))
    role = "reading" if row.cell("reading") else "value"

    def take(cell: str) -> None:
        dial = _dial(row) if role == "reading" else None
        if listed and dial is None and cell == NOTHING:
            entry.open_list(measure, side, row.at(role))
            return
        item = dial if dial is not None else item_of(measure, cell, factor)
        (entry.add if listed else entry.put)(measure, side, item, row.at(role))

    row.read(role, take)
    return entry


def _dial(row: Row) -> dict[str, Any]:
    direction = row.read("direction", number_of)
    return {"reading": row.read("reading", number_of), "dial": row.cell("dial"), "direction": direction}


def _entry(screen: Entries, test: Test, side: str | None, row: Row, begins: str | None) -> EntryDraft:
    """The entry a row belongs to: by its number, or the last of its place that has room for it."""
    own = side if test.sides == "each" else None
    if test.sides == "each" and own is None:
        raise AtColumn("side", f"{test.name} needs left or right")
    number = row.cell("entry")
    if number:
        found = screen.numbered.get(number)
        if found is not None and (found.test.code, found.side) != (test.code, own):
            raise AtColumn("entry", f"entry {number} is of another test or side")
    else:
        like = [each for each in screen.entries if (each.test.code, each.side) == (test.code, own)]
        found = like[-1] if like and not (begins and like[-1].has(begins, side)) else None
    if found is None:
        found = EntryDraft(test, own, row.at("test"))
        screen.entries.append(found)
        if number:
            screen.numbered[number] = found
    return found


def _take_of_entry(entry: EntryDraft, row: Row) -> None:
    """What is said of the whole entry, on any of its rows."""
    for role in ("method", "by", "at"):
        if cell := row.cell(role):
            entry.beside[role] = cell
            entry.places[role] = row.at(role)
    if row.cell("by_exception"):
        entry.beside["by_exception"] = row.read("by_exception", truth_of)


def read_wide(screen: Entries, column: ValueColumn, row: Row, role: str) -> None:
    """Raises NotAValue."""
    test, at = column.test, row.at(role)
    own = column.side if test.sides == "each" else None
    apart = f"{test.code} {own} {column.key}"
    entry = screen.numbered.get(apart)
    if entry is None:
        entry = screen.numbered[apart] = EntryDraft(test, own, at)
        screen.entries.append(entry)
        key = test.measure(test.key) if test.key else None
        if key is not None and column.key is not None:
            entry.put(key, None, column.key, at)
    measure = column.measure
    if measure is None:
        row.read(role, lambda cell: entry.put_beside(column.name, cell, at))
    else:
        row.read(role, lambda cell: entry.put(measure, column.side, value_of(measure, cell), at))
