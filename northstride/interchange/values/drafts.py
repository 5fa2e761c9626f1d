"""Entries of a record as they grow from cells, each part knowing where it came from."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import Any

from northstride.core.catalogue import Measure, Test
from northstride.interchange.values.cells import NotAValue, truth_of
from northstride.interchange.values.table import Place

BESIDE = frozenset({"pain", "pain.nrs", "pain.site", "pain.familiar", "seen", "declined", "note"})
TWICE = "stands twice in its entry"


@dataclass(slots=True)
class EntryDraft:
    """`places` tells, for a path within the entry, the cell that said it."""

    test: Test
    side: str | None
    first: Place
    values: dict[str, Any] = field(default_factory=dict)
    beside: dict[str, Any] = field(default_factory=dict)
    places: dict[str, Place] = field(default_factory=dict)

    def has(self, code: str, side: str | None) -> bool:
        """Whether a value of it stands, so that another begins another entry."""
        value = self.values.get(code)
        return side in value if self._apart(side) and isinstance(value, dict) else value is not None

    def _apart(self, side: str | None) -> bool:
        """The entry is of both sides, and this value of one."""
        return self.side is None and side is not None

    def _path(self, measure: Measure, side: str | None) -> str:
        return f"values.{measure.code}" + (f".{side}" if self._apart(side) else "")

    def put(self, measure: Measure, side: str | None, value: Any, at: Place) -> None:
        """A whole value. Raises NotAValue where one stands already."""
        if self.has(measure.code, side):
            raise NotAValue(TWICE)
        if self._apart(side):
            self.values.setdefault(measure.code, {})[side] = value
        else:
            self.values[measure.code] = value
        self.places[self._path(measure, side)] = at

    def open_list(self, measure: Measure, side: str | None, at: Place) -> list[Any]:
        """The list of its trials or choices, there from now on. Raises NotAValue where one value stands."""
        if not self.has(measure.code, side):
            self.put(measure, side, [], at)
        value = self.values[measure.code]
        items = value[side] if self._apart(side) else value
        if not isinstance(items, list):
            raise NotAValue(TWICE)
        return items

    def add(self, measure: Measure, side: str | None, item: Any, at: Place) -> None:
        """One more trial, or one more of a list."""
        items = self.open_list(measure, side, at)
        self.places[f"{self._path(measure, side)}[{len(items)}]"] = at
        items.append(item)

    def put_beside(self, name: str, cell: str, at: Place) -> None:
        """Pain, what was seen, why it was declined, a note. Raises NotAValue."""
        whole, _, part = name.partition(".")
        self.places.setdefault(whole, at)
        if whole == "seen":
            seen = self.beside.setdefault("seen", [])
            self.places[f"seen[{len(seen)}]"] = at
            seen.append(cell)
        elif whole == "pain":
            part = part or "present"
            self.beside.setdefault("pain", {})[part] = _pain_value(part, cell)
            self.places[f"pain.{part}"] = at
        else:
            self.beside[name] = cell

    def raw(self) -> dict[str, Any]:
        side = {"side": self.side} if self.side else {}
        return {"test": self.test.code, **side, "values": self.values, **self.beside}

    def place_of(self, path: str) -> Place:
        """The cell that said the nearest part of this path."""
        while path:
            if path in self.places:
                return self.places[path]
            path = re.sub(r"(\[\d+\]|\.?[^.\[\]]+)$", "", path)
        return self.first


def _pain_value(part: str, cell: str) -> Any:
    if part == "site":
        return cell
    if part == "nrs":
        if not cell.isdecimal():
            raise NotAValue("is not a whole number from 0 to 10")
        return int(cell)
    return truth_of(cell)
