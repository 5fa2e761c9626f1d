"""What has changed since an earlier screen."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from northstride.core.examination import Examination
from northstride.core.measuring.measurement import Comparison
from northstride.core.terms.sides import Side


class ChangeVerdict(StrEnum):
    WITHIN_ERROR = "within_error"
    CHANGED = "changed"
    NOT_COMPARABLE = "not_comparable"


@dataclass(frozen=True, slots=True)
class Baseline:
    """The earlier screen a value is held against, and why that one. `own` where it is from before the
    injury, or, without one, a screening.
    """

    exam: Examination
    why: str
    own: bool


@dataclass(frozen=True, slots=True)
class Change:
    """`difference` is now − before, in the measure's unit. `worse` is None where no direction is worse.

    `why` says what keeps two values from being compared; `growing` that the athlete is under 16.
    """

    test: str
    measure: str
    side: Side | None
    verdict: ChangeVerdict
    baseline: Baseline
    at: str
    why: str | None = None
    before: float | None = None
    now: float | None = None
    comparison: Comparison | None = None
    worse: bool | None = None
    same_examiner: bool | None = None
    growing: bool = False
    source: str = ""

    @property
    def difference(self) -> float | None:
        return self.comparison.difference if self.comparison else None
