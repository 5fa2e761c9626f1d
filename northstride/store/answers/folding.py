"""Answers, one changed field each, folded into the entries of the open record."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, NamedTuple
from uuid import UUID

from northstride.core.catalogue import Catalogue, Measure
from northstride.record.fact_fields import is_fact

VALUES = "values."
# The device of answers that came in a file.
IMPORTED = "import"
FIELDS = ("pain", "seen", "declined", "method", "by_exception", "note")
SAYS_NOTHING: tuple[object, ...] = (None, "", [], {})


# Of rows that know no time: then the order of writing decides.
NEVER = dt.datetime.min.replace(tzinfo=dt.UTC)


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
    device: str = ""
    seen_at: dt.datetime | None = None
    beside: bool = False
    clash: UUID | None = None

    @property
    def order(self) -> tuple[dt.datetime, int]:
        """Later is what was seen later; of what knows no time, what was written later."""
        return (self.seen_at or NEVER, self.revision)


Slot = tuple[str | None, str]
# Where an entry stands in a screen: test, side, key. With a field it is the place of one answer.
EntryPlace = tuple[str, str | None, str]


@dataclass(slots=True)
class FoldedEntry:
    """One entry with the answer that stands for each of its fields.

    `key_measure` is the measure that tells this test's entries apart; its value is the key.
    """

    id: UUID
    test: str
    side: str | None
    own_key: str
    key_measure: Measure | None
    latest: AnswerRow
    standing: dict[Slot, AnswerRow] = field(default_factory=dict)

    @property
    def key(self) -> str:
        """As the place has it; else as an answer to the key's own question says it."""
        if self.own_key or self.key_measure is None:
            return self.own_key
        return key_text(self.value(f"{VALUES}{self.key_measure.code}", self.side))

    @property
    def place(self) -> EntryPlace:
        return (self.test, self.side, self.key)

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
    def done(self) -> bool:
        """Something was recorded in it: values, what was seen, or pain asked."""
        told = self.value("seen", self.side) or self.value("pain", self.side) is not None
        return self.has_values or (bool(told) and not self.declined)

    @property
    def empty(self) -> bool:
        """Nothing stands in it: an empty list among the values is an answer, elsewhere it says nothing."""
        return not any(
            row.value is not None if name.startswith(VALUES) else row.value not in SAYS_NOTHING
            for (_, name), row in self.standing.items()
        )

    def to_json(self) -> dict[str, Any]:
        entry: dict[str, Any] = {"id": str(self.id)}
        if self.latest.observed_at is not None:
            entry["at"] = _local(self.latest.observed_at, self.latest.observed_zone).isoformat()
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
        # The format lets no value stand beside a refusal, not even the key.
        if self.key_measure is not None and self.own_key and not self.declined:
            values[self.key_measure.code] = key_value(self.key_measure, self.own_key)
        for (side, name), row in self.standing.items():
            if not name.startswith(VALUES) or row.value is None or self._overtaken(side, name):
                continue
            measure = name.removeprefix(VALUES)
            if side == self.side:
                values[measure] = row.value
            else:
                values.setdefault(measure, {})[side] = row.value
        return values

    def _overtaken(self, side: str | None, name: str) -> bool:
        """A value of both sides at once and one of a side exclude each other: what came last stands."""
        if self.side is not None:
            return False
        whole = self.standing.get((None, name))
        sides = [row for lane in ("left", "right") if (row := self.standing.get((lane, name)))]
        held = [row.order for row in sides if row.value is not None]
        if whole is None or whole.value is None or not held:
            return False
        return (max(held) >= whole.order) == (side is None)


def _local(at: dt.datetime, zone: int | None) -> dt.datetime:
    """The time in the offset it was written in."""
    try:
        return at.astimezone(dt.timezone(dt.timedelta(minutes=zone or 0)))
    except (OverflowError, ValueError):
        # Kept before times had bounds: at the edge of the calendar no offset fits.
        return at


def key_text(value: object) -> str:
    """A key as it stands in a place: codes as they are, numbers in digits, anything else is no key."""
    if isinstance(value, str):
        return value
    return str(value) if isinstance(value, int) and not isinstance(value, bool) else ""


def key_value(measure: Measure, key: str) -> str | int:
    """The value the key's own measure has in an entry of this key."""
    return int(key) if measure.kind == "grade" and key.isdecimal() else key


def fold(rows: Iterable[AnswerRow], catalogue: Catalogue) -> list[FoldedEntry]:
    """Entries in the order they were begun. `rows` in order of revision; facts are no entries."""
    entries: dict[UUID, FoldedEntry] = {}
    for row in rows:
        if is_fact(row.test) or row.beside:
            continue
        entry = entries.get(row.entry_id)
        if entry is None:
            key_measure = catalogue.key_measure(row.test)
            entry = FoldedEntry(row.entry_id, row.test, row.entry_side, row.key, key_measure, row)
            entries[row.entry_id] = entry
        entry.latest = row
        entry.standing[(row.side, row.field)] = row
    return list(entries.values())


def entries_json(entries: Iterable[FoldedEntry]) -> list[dict[str, Any]]:
    return [entry.to_json() for entry in entries if not entry.empty]


def canonical(document: Any) -> Any:
    """A record without what says nothing: absent, null and empty are the same.

    Not so among an entry's values: there an empty list says that all was looked at and nothing found.
    """
    if isinstance(document, Mapping):
        kept = {
            key: _canonical_values(value) if key == "values" else canonical(value)
            for key, value in document.items()
            if key != "notice"
        }
        return {key: value for key, value in kept.items() if value not in SAYS_NOTHING}
    if isinstance(document, list):
        return [canonical(value) for value in document]
    if isinstance(document, float) and document.is_integer():
        return int(document)
    return document


def _canonical_values(values: Any) -> Any:
    """Measures with what they hold: nulls gone, lists kept even when empty."""
    if isinstance(values, Mapping):
        kept = {key: _canonical_values(value) for key, value in values.items()}
        return {key: value for key, value in kept.items() if value not in (None, "", {})}
    return canonical(values)


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
