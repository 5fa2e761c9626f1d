"""Values going out: long, one row a value; wide, one row a screen."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from northstride.core.catalogue import Catalogue, Test
from northstride.core.measuring.angles import Dial, DialReading, told_angle
from northstride.interchange.by_side import values_by_side
from northstride.interchange.sheets.content import Status
from northstride.interchange.values.formulas import guarded
from northstride.record.model import EntryPart, Record

# The columns of the long form, in their order, and what stands in each.
COLUMNS: Mapping[str, str] = {
    "screen": "id of the screen",
    "date": "day of the screen, YYYY-MM-DD",
    "athlete": "the clinic's reference of the athlete",
    "name": "the athlete's name; empty unless names were asked for",
    "purpose": "what the screen is for, a code",
    "state": "draft, signed or amended",
    "entry": "number of the entry within its screen, from 1",
    "test": "code of the test",
    "side": "the athlete's left or right; empty where it belongs to no side",
    "measure": "code of the measure, or pain, pain.nrs, pain.site, pain.familiar, seen, declined or note",
    "trial": "number of the trial, from 1; empty where there is one value",
    "value": "the value: a number in the unit, a code, true or false; [] for a list with nothing in it",
    "unit": "deg, mm, s, N, kg; empty where it has none",
    "reading": "what the dial showed, where a dial was read",
    "dial": "where that dial stands at neutral, a code",
    "direction": "which way the limb went from there, 1 or -1",
    "method": "the way it was done, a code or in words",
    "by": "who recorded it",
    "at": "when it was recorded, with its offset",
    "by_exception": "true where it was written as the rest, which was as expected",
    "test_name": "the test in words",
    "measure_name": "the measure in words",
}
NOTHING = "[]"
WIDE_HEAD = ("screen", "date", "athlete", "name", "purpose", "state")


@dataclass(frozen=True, slots=True)
class ScreenValues:
    """A screen whose values go out. `name` only where names were asked for."""

    record: Record
    status: Status
    name: str = ""


def text_of(rows: Iterable[Iterable[str]]) -> str:
    """Rows as CSV: commas, quotes doubled, lines by CR LF, each cell safe."""
    out = io.StringIO()
    csv.writer(out).writerows([guarded(cell) for cell in row] for row in rows)
    return out.getvalue()


def long_rows(
    catalogue: Catalogue, screens: Iterable[ScreenValues], *, head: bool = True
) -> Iterator[list[str]]:
    if head:
        yield [*COLUMNS]
    for told in screens:
        first = _screen_cells(told)
        for place, part in enumerate(told.record.entries):
            test = catalogue.tests[part.test]
            for cells in _entry_cells(test, part):
                row = {**first, "entry": str(place + 1), "test": test.code, "test_name": test.name, **cells}
                yield [row.get(column, "") for column in COLUMNS]


def _screen_cells(told: ScreenValues) -> dict[str, str]:
    record = told.record
    return {
        "screen": str(record.id),
        "date": record.date.isoformat(),
        "athlete": record.athlete.ref,
        "name": told.name,
        "purpose": record.purpose,
        "state": told.status,
    }


def _entry_cells(test: Test, part: EntryPart) -> Iterator[dict[str, str]]:
    of_all = {
        "side": part.side or "",
        "method": part.method or "",
        "by": part.by or "",
        "at": part.at.isoformat() if part.at else "",
        "by_exception": "" if part.by_exception is None else _said(part.by_exception),
    }
    for measure, side, raw in values_by_side(test, part):
        own = {**of_all, "side": side or "", "measure": measure.code, "measure_name": measure.label}
        unit = measure.unit if measure.unit != "1" else ""
        trials = raw if isinstance(raw, list) else [raw]
        if not trials:
            yield {**own, "value": NOTHING}
        for place, item in enumerate(trials):
            trial = str(place + 1) if isinstance(raw, list) else ""
            yield {**own, "trial": trial, "unit": unit, **_value_cells(item)}
    for name, value in _beside(part):
        yield {**of_all, "measure": name, "value": value}


def _value_cells(raw: Any) -> dict[str, str]:
    if not isinstance(raw, dict):
        return {"value": _said(raw)}
    found = told_angle(DialReading(float(raw["reading"]), Dial(raw["dial"]), raw["direction"]))
    return {"value": _said(found), **{name: _said(raw[name]) for name in ("reading", "dial", "direction")}}


def _said(value: Any) -> str:
    if isinstance(value, bool):
        return str(value).lower()
    return repr(value).removesuffix(".0") if isinstance(value, float) else str(value)


def _beside(part: EntryPart) -> Iterator[tuple[str, str]]:
    if part.pain is not None:
        for name, value in part.pain.model_dump(exclude_none=True).items():
            yield ("pain" if name == "present" else f"pain.{name}"), _said(value)
    yield from (("seen", code) for code in part.seen)
    if part.declined is not None:
        yield "declined", part.declined
    if part.note:
        yield "note", part.note


def wide_rows(catalogue: Catalogue, screens: Iterable[ScreenValues]) -> Iterator[list[str]]:
    """A column a value: `test/measure/side`. Several trials stand in one cell, a semicolon between them.

    The last entry of a place counts; where a test has a key, the key stands in the column's name.
    """
    rows = [({**_screen_cells(told)}, _wide_cells(catalogue, told.record)) for told in screens]
    order = [code for test in catalogue.tests.values() for code in _columns_of(test)]
    places = {code: place for place, code in enumerate(order)}
    used = sorted({column for _, cells in rows for column in cells}, key=lambda c: (places[_base(c)], c))
    yield [*WIDE_HEAD, *used]
    for first, cells in rows:
        yield [first[column] for column in WIDE_HEAD] + [cells.get(column, "") for column in used]


def _columns_of(test: Test) -> Iterator[str]:
    for measure in test.measures:
        yield f"{test.code}/{measure.code}"
    yield from (f"{test.code}/{name}" for name in ("pain", "declined"))


def _base(column: str) -> str:
    return "/".join(column.partition("[")[0].split("/")[:2])


def _wide_cells(catalogue: Catalogue, record: Record) -> dict[str, str]:
    cells: dict[str, str] = {}
    for part in record.entries:
        test = catalogue.tests[part.test]
        for measure, side, raw in values_by_side(test, part):
            if measure.code == test.key:
                continue
            cells[_column(test, measure.code, side, part)] = _wide_value(raw)
        if part.pain is not None:
            cells[_column(test, "pain", part.side, part)] = _said(part.pain.present)
        if part.declined is not None:
            cells[_column(test, "declined", part.side, part)] = part.declined
    return cells


def _column(test: Test, measure: str, side: str | None, part: EntryPart) -> str:
    key = part.values.get(test.key) if test.key else None
    of = f"[{key}]" if isinstance(key, str) else ""
    return f"{test.code}/{measure}{of}" + (f"/{side}" if side else "")


def _wide_value(raw: Any) -> str:
    trials = raw if isinstance(raw, list) else [raw]
    return "; ".join(_value_cells(item)["value"] for item in trials) or NOTHING
