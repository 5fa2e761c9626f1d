"""An examination with everything needed to read it: the rules ask, this looks up."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

from northstride.core.catalogue import Catalogue, ErrorFigure, Measure, Seen
from northstride.core.examination import Complaint, Context, Entry, Examination, Lane, Trials, Value
from northstride.core.examination.comparison import compare_values, error_of, own_sem
from northstride.core.measuring.measurement import Comparison, value_of_trials
from northstride.core.terms.age import age_on
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS, REGION_FAMILY, Schools


def complaint_of(exam: Examination) -> Complaint | None:
    """As told. An ankle injury without one is an ankle complaint, its side unknown if not said (U2)."""
    told = exam.intake.complaint
    if exam.purpose != "ankle_injury" or (told is not None and told.region != "none"):
        return told
    return Complaint("ankle", told.side if told else None, told.sites if told else ())


@dataclass(frozen=True, slots=True)
class Observed:
    """One number as the rules use it, in its unit, and where it stands in the record."""

    value: float
    at: str


@dataclass(frozen=True)
class Case:
    """`entries` are those a rule may read; `Case` never changes the examination itself."""

    exam: Examination
    catalogue: Catalogue
    context: Context
    # Tests a gate holds on a side: they stay in the record and no rule reads them.
    held: frozenset[tuple[str, Side]] = frozenset()

    def without(self, held: frozenset[tuple[str, Side]]) -> Case:
        """The same case with some tests held."""
        case = replace(self, held=held)
        # Which entries stand, and their numbers, do not depend on what is held and are dear to find twice.
        case.__dict__["_current"] = self._current
        case.__dict__["_numbers"] = self._numbers
        return case

    @cached_property
    def schools(self) -> Schools:
        return {**DEFAULT_SCHOOLS, **self.exam.schools}

    @cached_property
    def _current(self) -> dict[tuple[str, Lane, Value | None], Entry]:
        """Later entries replace earlier ones; one that records nothing, or declines, replaces no value."""
        current: dict[tuple[str, Lane, Value | None], Entry] = {}
        for entry in self.exam.entries:
            for lane in entry.lanes:
                place = (entry.test, lane, entry.key)
                standing = current.get(place)
                if standing is not None and standing.done and not entry.done:
                    continue
                current[place] = entry
        return current

    @cached_property
    def current_entries(self) -> tuple[Entry, ...]:
        """Entries that still stand, and are not held, for at least one lane; in the record's order."""
        standing = {
            entry.at for (test, lane, _key), entry in self._current.items() if (test, lane) not in self._shut
        }
        return tuple(entry for entry in self.exam.entries if entry.at in standing)

    @cached_property
    def _open(self) -> dict[tuple[str, Lane, Value | None], Entry]:
        """What stands, was done, and is not held: all that rules may read."""
        return {
            place: entry
            for place, entry in self._current.items()
            if entry.done and place[:2] not in self._shut
        }

    @cached_property
    def _shut(self) -> frozenset[tuple[str, Lane]]:
        """What belongs to no side was done with both, so a gate on one of them holds it too."""
        return self.held.union((test, None) for test, _ in self.held)

    def on(self, lane: Lane) -> SideView:
        """One side, or what belongs to none, asked in a rule's words."""
        return SideView(self, lane)

    def entry(self, test: str, lane: Lane, key: Value | None = None) -> Entry | None:
        return self._open.get((test, lane, key))

    @cached_property
    def _standing(self) -> dict[tuple[str, Lane], list[Entry]]:
        found: dict[tuple[str, Lane], list[Entry]] = {}
        for (test, lane, _key), entry in self._open.items():
            found.setdefault((test, lane), []).append(entry)
        return found

    def entries(self, test: str, lane: Lane) -> tuple[Entry, ...]:
        """All that stands of a test on a side, whatever key tells it apart."""
        return tuple(self._standing.get((test, lane), ()))

    @cached_property
    def age(self) -> int | None:
        """Whole years on the day of the screen; None where the birth date is not known."""
        return age_on(self.exam.athlete.birth_date, self.exam.date)

    @cached_property
    def told(self) -> dict[str, bool]:
        """What rules found out of the story once, by name: many ask the same."""
        return {}

    @cached_property
    def complaint(self) -> Complaint | None:
        return complaint_of(self.exam)

    @cached_property
    def complaint_sides(self) -> tuple[Side | None, ...]:
        """Where the complaint is; (None,) where no side was said."""
        return self.complaint.sides if self.complaint is not None else (None,)

    @cached_property
    def sides_of_complaint(self) -> tuple[Side, ...]:
        """The same for gates and zones: a complaint without a side stands for both (U2)."""
        return tuple(side for side in self.complaint_sides if side is not None) or SIDES

    def answered(self, item: str) -> bool:
        """Whether a symptom, red flag or confounder was asked, whatever the answer."""
        intake = self.exam.intake
        return item in intake.asked or item in intake.symptoms | intake.red_flags | intake.confounders

    def complains_of(self, regions: frozenset[str], sites: frozenset[str]) -> bool:
        complaint = self.complaint
        return complaint is not None and (complaint.region in regions or bool(sites & set(complaint.sites)))

    def alike(self, first: str, second: str, side: Side, other: Side) -> tuple[Observed, Observed] | None:
        """Two ranges taken in the same way, both passive or else both active."""
        for way in ("passive", "active"):
            one, two = self.number(first, way, side), self.number(second, way, other)
            if one is not None and two is not None:
                return one, two
        return None

    def range_of(self, test: str, side: Side) -> Observed | None:
        """Passive range; where only the active one was taken, that."""
        passive = self.number(test, "passive", side)
        return passive if passive is not None else self.number(test, "active", side)

    def value(self, test: str, measure: str, lane: Lane) -> Value | None:
        entry = self.entry(test, lane)
        return entry.value(measure, lane) if entry else None

    def number(self, test: str, measure: str, lane: Lane, key: Value | None = None) -> Observed | None:
        """Mean or median of the trials, by the screen's school. None where nothing was measured."""
        entry = self.entry(test, lane, key)
        if entry is None:
            return None
        place = (test, measure, lane, key)
        if place not in self._numbers:
            self._numbers[place] = self._measured(entry, measure, lane)
        return self._numbers[place]

    @cached_property
    def _numbers(self) -> dict[tuple[str, str, Lane, Value | None], Observed | None]:
        """Numbers already looked up: many rules ask for the same ones."""
        return {}

    def _measured(self, entry: Entry, measure: str, lane: Lane) -> Observed | None:
        value = entry.value(measure, lane)
        if not isinstance(value, Trials):
            return None
        return Observed(value_of_trials(value.values, self.schools["trial_value"]), entry.at)

    def seen(self, test: str, side: Side) -> frozenset[str]:
        entry = self.entry(test, side)
        return entry.seen if entry else frozenset()

    def is_flattered(self, test: str, measure: str, side: Side) -> bool:
        """Something seen makes the value look better than it is."""
        return any(measure in item.flatters for item in self._seen_items(test, side))

    def is_void(self, test: str, measure: str, side: Side) -> bool:
        """Something seen makes the value worthless."""
        return any(measure in item.voids for item in self._seen_items(test, side))

    def _seen_items(self, test: str, side: Side) -> Iterator[Seen]:
        for code in self.seen(test, side):
            item = self.catalogue.seen(test, code)
            if item is not None:
                yield item

    def measure(self, test: str, measure: str) -> Measure:
        found = self.catalogue.measure(test, measure)
        if found is None:
            raise KeyError(f"{test}.{measure}")
        return found

    def sem(self, test: str, measure: str) -> float | None:
        """The clinic's own error figure where it has one, else the catalogue's."""
        own = self.own_sem(test, measure)
        if own is not None:
            return own
        error = self.measure(test, measure).error
        return error.sem if error else None

    def own_sem(self, test: str, measure: str) -> float | None:
        return own_sem(self.context, test, measure)

    def error_of(self, test: str, measure: str) -> ErrorFigure | None:
        return error_of(self.catalogue, test, measure)

    def compare(self, test: str, measure: str, left: float, right: float) -> Comparison | None:
        return compare_values(self.catalogue, self.context, test, measure, left, right)

    @property
    def has_complaint(self) -> bool:
        return self.complaint is not None and self.complaint.hurts

    def both_sides_hurt(self, test: str) -> bool:
        """Complaint or old injuries on both sides of this test's region: no side is a normal."""
        family = REGION_FAMILY[self.catalogue.tests[test].region]
        intake = self.exam.intake
        sides: set[Side] = set()
        spoken = [(item.region, item.side) for item in intake.history]
        if self.complaint is not None and self.complaint.region != "none":
            spoken.append((self.complaint.region, self.complaint.side))
        for region, side in spoken:
            if REGION_FAMILY[region] == family:
                sides |= set(SIDES) if side == "both" else {Side(side)} if side else set()
        return len(sides) == 2


@dataclass(frozen=True, slots=True)
class SideView:
    """What stands, was done, and is not held on one lane. What was not recorded answers no question."""

    case: Case
    lane: Lane

    def entry(self, test: str) -> Entry | None:
        return self.case.entry(test, self.lane)

    def value(self, test: str, measure: str) -> Value | None:
        return self.case.value(test, measure, self.lane)

    def ticked(self, test: str, measure: str) -> bool:
        """Recorded as there. What was not looked at is not."""
        return self.value(test, measure) is True

    def chose(self, test: str, measure: str, *codes: str) -> bool:
        """Recorded as one of these."""
        found = self.value(test, measure)
        return isinstance(found, str) and found in codes

    def positive(self, test: str) -> bool:
        """The test's own result."""
        return self.chose(test, "result", "positive")

    def grade(self, test: str, measure: str = "grade") -> int | None:
        """A whole-number grade; None where none was given."""
        found = self.value(test, measure)
        return found if isinstance(found, int) and not isinstance(found, bool) else None

    def listed(self, test: str, measure: str) -> tuple[str, ...] | None:
        """What was ticked of a list; empty is an answer, None is none."""
        found = self.value(test, measure)
        return found if isinstance(found, tuple) else None
