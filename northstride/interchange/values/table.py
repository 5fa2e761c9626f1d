"""A table as it was typed: headings, rows, and where each cell stands."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import TypeVar

from northstride.interchange.values.cells import NotAValue
from northstride.interchange.values.formulas import unguarded

# What a person can look through afterwards, and a machine tries while they wait. More is several tables.
MOST_ROWS = 10_000
# Filled or not: what takes time is what there is to read.
MOST_CELLS = 1_000_000
MOST_COLUMNS = 2_000
DELIMITERS = ",;\t"
T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Place:
    """A cell: its line as an editor counts it, its column by the heading; no heading means the line."""

    line: int
    column: str


@dataclass(frozen=True, slots=True)
class Table:
    """`lines` holds, for each row, the line it begins on."""

    heads: list[str]
    rows: list[list[str]]
    lines: list[int]


class AtColumn(NotAValue):
    """A fault of the cell that has this role in its row."""

    def __init__(self, role: str, says: str) -> None:
        super().__init__(says)
        self.role = role


@dataclass(frozen=True, slots=True)
class Row:
    """A row whose cells are asked for by their role. `columns`: the place of each role."""

    cells: list[str]
    line: int
    heads: list[str]
    columns: Mapping[str, int]

    def cell(self, role: str) -> str:
        place = self.columns.get(role)
        return self.cells[place].strip() if place is not None and place < len(self.cells) else ""

    def at(self, role: str) -> Place:
        place = self.columns.get(role)
        return Place(self.line, self.heads[place] if place is not None else "")

    def read(self, role: str, how: Callable[[str], T]) -> T:
        """Raises AtColumn for what `how` refuses."""
        cell = self.cell(role)
        try:
            return how(cell)
        except AtColumn:
            raise
        except NotAValue as error:
            raise AtColumn(role, f"{cell!r} {error}") from error


def table_of(text: str) -> Table:
    """Raises NotAValue for what is no table, or too large."""
    text = text.removeprefix("\ufeff")
    first = text.partition("\n")[0]
    delimiter = max(DELIMITERS, key=first.count)
    table = Table([], [], [])
    try:
        for begins, cells in _filled(
            csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
        ):
            if not table.heads:
                table.heads.extend(cell.strip() for cell in cells)
            else:
                table.rows.append([unguarded(cell) for cell in cells])
                table.lines.append(begins)
            if len(table.rows) > MOST_ROWS or len(table.heads) > MOST_COLUMNS:
                raise NotAValue(f"This is larger than {MOST_ROWS} rows or {MOST_COLUMNS} columns.")
            if len(table.rows) * len(table.heads) > MOST_CELLS:
                raise NotAValue(f"This is larger than {MOST_CELLS} cells: take it in parts.")
    except csv.Error as error:
        raise NotAValue(f"This is no table: {error}.") from error
    if not table.heads:
        raise NotAValue("This is empty.")
    return table


def _filled(reader: Iterator[list[str]]) -> Iterator[tuple[int, list[str]]]:
    """Rows that say something, each with the line it begins on."""
    begins = 1
    for cells in reader:
        if any(cell.strip() for cell in cells):
            yield begins, cells
        begins = reader.line_num + 1  # type: ignore[attr-defined]
