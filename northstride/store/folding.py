"""Answers, one changed field each, folded into the entries of the open record."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, NamedTuple
from uuid import UUID

VALUES = "values."
FIELDS = ("pain", "seen", "declined", "method", "by_exception", "note")


class AnswerRow(NamedTuple):
    """An answer as the fold sees it; a draft that was never written looks the same."""

    id: UUID
    revision: int
    test: str
    entry_id: UUID
    entry_side: str | None
    key: str
    side: str | None
    field: str
    value: Any
    by_name: str | None
    observed_at: dt.datetime | None
    observed_zone: int | None


Slot = tuple[str | None, str]


@dataclass(slots=True)
class FoldedEntry:
    """One entry with the answer that stands for each of its fields."""

    id: UUID
    test: str
    side: str | None
    key: str
    latest: AnswerRow
    standing: dict[Slot, AnswerRow] = field(default_factory=dict)

    def value(self, name: str, side: str | None = None) -> Any:
        row = self.standing.get((side, name))
        return row.value if row else None

    @property
    def declined(self) -> bool:
        """A value beats a refusal, whoever came last."""
        return self.value("declined", self.side) is not None and not self.has_values

    @property
    def has_values(self) -> bool:
        return any(
            row.value is not None and name.startswith(VALUES) for (_, name), row in self.standing.items()
        )

    @property
    def empty(self) -> bool:
        return all(row.value is None for row in self.standing.values())

    def to_json(self) -> dict[str, Any]:
        entry: dict[str, Any] = {"id": str(self.id)}
        if self.latest.observed_at is not None:
            entry["at"] = _local(self.latest).isoformat()
        entry["test"] = self.test
        if self.side is not None:
            entry["side"] = self.side
        entry["values"] = self._values()
        for name in FIELDS:
            value = self.value(name, self.side)
            if value is not None and not (name == "declined" and not self.declined):
                entry[name] = value
        if self.latest.by_name is not None:
            entry["by"] = self.latest.by_name
        return entry

    def _values(self) -> dict[str, Any]:
        values: dict[str, Any] = {}
        for (side, name), row in self.standing.items():
            if not name.startswith(VALUES) or row.value is None:
                continue
            measure = name.removeprefix(VALUES)
            if side == self.side:
                values[measure] = row.value
            else:
                values.setdefault(measure, {})[side] = row.value
        return values


def _local(row: AnswerRow) -> dt.datetime:
    """The time as it was written, in the offset it was written in."""
    if row.observed_at is None:
        raise ValueError("no time was given")
    return row.observed_at.astimezone(dt.timezone(dt.timedelta(minutes=row.observed_zone or 0)))


def fold(rows: Iterable[AnswerRow]) -> list[FoldedEntry]:
    """Entries in the order they were begun. `rows` in order of revision."""
    entries: dict[UUID, FoldedEntry] = {}
    for row in rows:
        entry = entries.get(row.entry_id)
        if entry is None:
            entry = entries[row.entry_id] = FoldedEntry(row.entry_id, row.test, row.entry_side, row.key, row)
        entry.latest = row
        entry.standing[(row.side, row.field)] = row
    return list(entries.values())


def entries_json(entries: Iterable[FoldedEntry]) -> list[dict[str, Any]]:
    return [entry.to_json() for entry in entries if not entry.empty]


def canonical(document: Any) -> Any:
    """A record without what says nothing: absent, null and empty are the same."""
    if isinstance(document, Mapping):
        kept = {key: canonical(value) for key, value in document.items() if key != "notice"}
        return {key: value for key, value in kept.items() if value not in (None, "", [], {})}
    if isinstance(document, list):
        return [canonical(value) for value in document]
    if isinstance(document, float) and document.is_integer():
        return int(document)
    return document


def differing_paths(left: Any, right: Any, path: str = "") -> list[str]:
    """Where two canonical documents differ."""
    if isinstance(left, Mapping) and isinstance(right, Mapping):
        return [
            place
            for key in dict.fromkeys((*left, *right))
            for place in differing_paths(left.get(key), right.get(key), f"{path}.{key}" if path else key)
        ]
    if isinstance(left, list) and isinstance(right, list) and len(left) == len(right):
        return [
            place
            for number, (one, other) in enumerate(zip(left, right, strict=True))
            for place in differing_paths(one, other, f"{path}[{number}]")
        ]
    return [] if left == right else [path or "$"]
