"""One examination as the rules see it: plain, frozen, already checked. Units as in the catalogue."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from typing import Literal, NamedTuple

from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import (
    ComplaintRegion,
    Confounder,
    Gate,
    HistoryKind,
    Mechanism,
    OnsetKind,
    Purpose,
    RedFlag,
    Region,
    Schools,
    Sex,
    SideOrBoth,
    Symptom,
)

# An angle seen but not measured: no norm, difference or trend may use it.
LOOKS_FULL = "looks_full"


@dataclass(frozen=True, slots=True)
class Trials:
    """A numeric measure: one or more trials in the measure's unit, in the order taken."""

    values: tuple[float, ...]


Value = Trials | str | bool | int | tuple[str, ...]
# None is the lane of what belongs to no side.
Lane = Side | None


@dataclass(frozen=True, slots=True)
class Pain:
    """`present` False is a tested and painless position; no Pain at all was not asked."""

    present: bool
    nrs: int | None = None
    site: str | None = None
    familiar: bool | None = None


@dataclass(frozen=True)
class Entry:
    """One test on one side, or on both at once where `side` is None.

    `at` is its place in the record ("entries[3]"). `values` is keyed by measure and lane.
    """

    at: str
    test: str
    side: Lane
    values: Mapping[tuple[str, Lane], Value] = field(default_factory=dict)
    pain: Pain | None = None
    seen: frozenset[str] = frozenset()
    declined: str | None = None
    method: str | None = None
    key: Value | None = None
    by: str | None = None

    def covers(self, lane: Lane) -> bool:
        """Whether this entry says anything about a lane."""
        if self.side is not None:
            return lane is self.side or (lane is None and self._says_something_of_both)
        if lane is None:
            return True
        sided = {own for _, own in self.values if own is not None}
        return lane in sided or not sided

    @property
    def _says_something_of_both(self) -> bool:
        return any(lane is None for _, lane in self.values)

    def value(self, measure: str, lane: Lane) -> Value | None:
        return self.values.get((measure, lane))

    @property
    def done(self) -> bool:
        return self.declined is None and bool(self.values or self.seen or self.pain)

    @cached_property
    def lanes(self) -> tuple[Lane, ...]:
        """What it says something about: its side, or both, and what belongs to no side."""
        if self.side is not None:
            return (self.side, None) if self._says_something_of_both else (self.side,)
        return (*(side for side in SIDES if self.covers(side)), None)


@dataclass(frozen=True, slots=True)
class Athlete:
    ref: str
    birth_date: date | None = None
    sex: Sex | None = None
    sport: str | None = None
    dominant_side: SideOrBoth | None = None
    body_mass_kg: float | None = None
    height_cm: float | None = None


class SorePlace(NamedTuple):
    """A place told with its side, and how much it hurts, 0 to 10."""

    site: str
    side: Side
    now: int | None = None
    worst: int | None = None


@dataclass(frozen=True, slots=True)
class Complaint:
    """As told, put together once. `now` and `worst`: the most that was said of any of it, 0 to 10."""

    region: ComplaintRegion
    side: SideOrBoth | None = None
    sites: tuple[str, ...] = ()
    # Which of the sites were told with their side.
    places: tuple[SorePlace, ...] = ()
    now: int | None = None
    worst: int | None = None

    @property
    def hurts(self) -> bool:
        return self.region != "none"

    @property
    def sides(self) -> tuple[Side | None, ...]:
        """Where it is; (None,) where no side was said."""
        if self.side is None:
            return (None,)
        return SIDES if self.side == "both" else (Side(self.side),)


@dataclass(frozen=True, slots=True)
class Onset:
    date: date | None = None
    kind: OnsetKind | None = None
    mechanism: Mechanism | None = None


@dataclass(frozen=True, slots=True)
class History:
    at: str
    region: Region
    kind: HistoryKind
    side: SideOrBoth | None = None
    count: int | None = None
    weeks_ago: float | None = None
    date: date | None = None


@dataclass(frozen=True, slots=True)
class Intake:
    """`asked` lists what was asked and answered no: anything in no list was not asked."""

    complaint: Complaint | None = None
    onset: Onset | None = None
    pain_now: int | None = None
    pain_worst: int | None = None
    pain_at_onset: int | None = None
    symptoms: frozenset[Symptom] = frozenset()
    morning_stiffness_min: float | None = None
    load_change: bool | None = None
    red_flags: frozenset[RedFlag] = frozenset()
    confounders: frozenset[Confounder] = frozenset()
    asked: frozenset[str] = frozenset()
    history: tuple[History, ...] = ()


@dataclass(frozen=True, slots=True)
class Override:
    gate: Gate
    side: Literal["left", "right", "both"]
    reason: str
    by: str


@dataclass(frozen=True, slots=True)
class Examination:
    id: str
    date: date
    purpose: Purpose
    athlete: Athlete
    schools: Schools
    intake: Intake
    planned: tuple[str, ...]
    # Left out of this screen by somebody, each with its reason.
    left_out: Mapping[str, str]
    entries: tuple[Entry, ...]
    overrides: tuple[Override, ...]
    examiner: str | None = None


@dataclass(frozen=True, slots=True)
class Context:
    """What stands outside the record: earlier screens of the athlete, a clinic's own error figures.

    `sem` maps a measure ("thigh_angle") or one test's measure ("hip.modified_thomas.thigh_angle")
    to the clinic's own standard error of measurement, in the measure's unit.
    """

    earlier: tuple[Examination, ...] = ()
    sem: Mapping[str, float] = field(default_factory=dict)
