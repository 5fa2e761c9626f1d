"""Which of two answers to one question stands: the one that was seen later, whenever it arrived.

What was seen earlier and arrives later is kept beside it. Where the two differ somebody is asked; until
then the more careful of two answers about a danger holds.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple
from uuid import UUID

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.record.fact_fields import STORY
from northstride.store.answers.folding import VALUES, AnswerRow
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.answers.same_answer import same
from northstride.store.errors import Refused

# A slow line looks like a slow clock: what is less is taken for the line.
SMALLEST_SKEW = dt.timedelta(seconds=5)
# From here on it is said.
TOLD_SKEW = dt.timedelta(minutes=2)
BEFORE_BEGIN = dt.timedelta(days=30)
AHEAD = dt.timedelta(minutes=10)
# Of the story: a yes to one of these is a danger, or keeps one from being ruled down.
DANGER_FACTS = ("red_flags.", "confounders.")
LICENSED = ("owner", "practitioner")


@dataclass(frozen=True, slots=True)
class Arrival:
    """Whose hand brings answers, on which device, and how far its clock is from ours."""

    by: str
    device: str
    now: dt.datetime
    skew: dt.timedelta = dt.timedelta(0)

    @classmethod
    def told(cls, by: str, device: str, clock: dt.datetime | None) -> Arrival:
        """`clock` is the device's own time at sending."""
        now = dt.datetime.now(dt.UTC)
        skew = now - clock if clock is not None else dt.timedelta(0)
        return cls(by, device, now, skew if abs(skew) >= SMALLEST_SKEW else dt.timedelta(0))

    def seen_at(self, answer: NewAnswer) -> dt.datetime:
        """When it was seen by our clock; what says no time was seen as it came."""
        return self.now if answer.observed_at is None else answer.observed_at + self.skew

    @property
    def told_skew(self) -> int | None:
        """In seconds, where it is worth saying; positive where the device is behind."""
        return round(self.skew.total_seconds()) if abs(self.skew) > TOLD_SKEW else None


def check_times(begun: dt.datetime, day: dt.date, arrival: Arrival, answers: Sequence[NewAnswer]) -> None:
    """Raises Refused for what was seen long before the screen began, or is still to come."""
    first = min(begun, dt.datetime.combine(day, dt.time(), dt.UTC)) - BEFORE_BEGIN
    last = arrival.now + AHEAD
    faults = []
    for place, answer in enumerate(answers):
        seen = arrival.seen_at(answer)
        if not first <= seen <= last:
            told = answer.observed_at.isoformat() if answer.observed_at else None
            why = "lies more than 30 days before this screen" if seen < first else "is still to come"
            faults.append(Fault(f"answers[{place}].at", told, f"{told} {why}"))
    if faults:
        raise Refused(faults)


Slot = tuple[UUID, str | None, str]


def slot_of(row: AnswerRow) -> Slot:
    return (row.entry_id, row.side, row.field)


def in_order(
    catalogue: Catalogue, standing: Iterable[AnswerRow], rows: Iterable[AnswerRow]
) -> list[AnswerRow]:
    """New rows, each with whether it takes its place or stays beside what stands there."""
    at = {slot_of(row): row for row in standing if not row.beside}
    found = []
    for row in rows:
        settled = _settled(catalogue, at.get(slot_of(row)), row)
        if not settled.beside:
            at[slot_of(row)] = settled
        found.append(settled)
    return found


def _settled(catalogue: Catalogue, stands: AnswerRow | None, row: AnswerRow) -> AnswerRow:
    if stands is None or stands.seen_at is None or row.seen_at is None or row.seen_at >= stands.seen_at:
        return row
    if (stands.by_name, stands.device) == (row.by_name, row.device):
        # One hand sends in the order it wrote, also with its clock set back.
        return row
    if same(stands.value, row.value):
        return row._replace(beside=True)
    holds = is_danger(catalogue, row.test, row.field) and _more_careful(catalogue, row, stands)
    return row._replace(beside=not holds, clash=stands.id)


def is_danger(catalogue: Catalogue, test: str, field: str) -> bool:
    """Whether danger hangs on this question."""
    if test == STORY:
        return field.startswith(DANGER_FACTS)
    found = catalogue.tests.get(test)
    return found is not None and found.own_stop


def _more_careful(catalogue: Catalogue, row: AnswerRow, than: AnswerRow) -> bool:
    """A yes beside a no, a finding beside what is normal."""
    if row.test == STORY:
        return row.value is True and than.value is not True
    if row.field == "pain":
        return _hurts(row.value) and not _hurts(than.value)
    measure = catalogue.measure(row.test, row.field.removeprefix(VALUES))
    if measure is None or row.value is None or than.value is None:
        return measure is not None and than.value is None
    if measure.kind == "choices":
        found, other = set(row.value), set(than.value)
        # The fewer points were pressed, the fewer are cleared; the more are sore, the more is open.
        return found < other if measure.code in _pressed(catalogue, row.test) else found > other
    normal = measure.normal
    return normal is not None and same(than.value, normal) and not same(row.value, normal)


def _pressed(catalogue: Catalogue, test: str) -> set[str]:
    """Measures that say where was looked, not what was found."""
    return {each.map.pressed for each in catalogue.tests[test].measures if each.map and each.map.pressed}


def _hurts(value: Any) -> bool:
    return isinstance(value, dict) and value.get("present") is True


class Clash(NamedTuple):
    """Two answers to one question, seen by two: the one that holds meanwhile, and the one beside it."""

    holds: AnswerRow
    beside: AnswerRow


def open_clashes(rows: Sequence[AnswerRow]) -> list[Clash]:
    """Those that nobody has decided: no answer was given at that place since. `rows` in order of revision."""
    by_id = {row.id: row for row in rows}
    last: dict[Slot, AnswerRow] = {}
    for row in rows:
        # What is beside and agrees decides nothing.
        if row.clash is not None or not row.beside:
            last[slot_of(row)] = row
    found = []
    for row in last.values():
        other = by_id.get(row.clash) if row.clash is not None else None
        if other is not None:
            found.append(Clash(other, row) if row.beside else Clash(row, other))
    return found


def check_may_decide(
    catalogue: Catalogue, role: str, clashes: Sequence[Clash], rows: Sequence[AnswerRow]
) -> None:
    """Raises Refused where two answers about a danger stand and nobody licensed decides."""
    if role in LICENSED:
        return
    dangerous = {slot_of(each.holds) for each in clashes if is_danger(catalogue, *_question(each.holds))}
    faults = [
        Fault(f"answers[{place}].value", row.value, "two answers stand here: somebody licensed decides")
        for place, row in enumerate(rows)
        if slot_of(row) in dangerous and not row.beside
    ]
    if faults:
        raise Refused(faults)


def _question(row: AnswerRow) -> tuple[str, str]:
    return (row.test, row.field)
