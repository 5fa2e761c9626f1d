"""Arithmetic of repeated trials, error and side differences. Rounding happens at the edge, not here."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from northstride.core.terms.errors import NotARatioScale, TooFewValues

TrialValue = Literal["mean", "median"]

# Far below any instrument's resolution: keeps 8.3 − 3.3 (5.000000000000001) from passing "more than 5".
TOLERANCE = 1e-9

Z95 = 1.96


def more_than(value: float, limit: float) -> bool:
    return value > limit + TOLERANCE


def less_than(value: float, limit: float) -> bool:
    return value < limit - TOLERANCE


def value_of_trials(trials: Sequence[float], how: TrialValue) -> float:
    """Mean or median of the trials, in their unit. Raises TooFewValues for none."""
    if not trials:
        raise TooFewValues(1, 0)
    if len(trials) == 1:
        return float(trials[0])
    return statistics.fmean(trials) if how == "mean" else float(statistics.median(trials))


def spread(trials: Sequence[float]) -> float:
    """Largest minus smallest trial. Raises TooFewValues for none."""
    if not trials:
        raise TooFewValues(1, 0)
    return max(trials) - min(trials)


def sem_from_agreement(sd: float, icc: float) -> float:
    """Standard error of measurement SD·√(1 − ICC), in the unit of `sd` (Weir 2005)."""
    return sd * math.sqrt(1 - icc)


def smallest_real_change(sem: float) -> float:
    """MDC95 = 1.96·√2·SEM, in the unit of `sem` (Weir 2005)."""
    return Z95 * math.sqrt(2) * sem


def trials_disagree(trials: Sequence[float], sem: float) -> bool:
    """True when the trials of one sitting spread further than error explains."""
    return len(trials) > 1 and more_than(spread(trials), smallest_real_change(sem))


class Verdict(StrEnum):
    WITHIN_ERROR = "within_error"
    REAL_SMALL = "real_small"
    REAL_MATTERS = "real_matters"


@dataclass(frozen=True, slots=True)
class Comparison:
    """Left against right, in the measure's unit. `difference` is left − right."""

    left: float
    right: float
    difference: float
    mdc95: float
    threshold: float
    verdict: Verdict

    @property
    def matters(self) -> bool:
        return self.verdict is Verdict.REAL_MATTERS


def compare_sides(left: float, right: float, sem: float, threshold: float) -> Comparison:
    """Difference left − right: real when beyond MDC95, matters when it also reaches `threshold`."""
    difference = left - right
    mdc95 = smallest_real_change(sem)
    if not more_than(abs(difference), mdc95):
        verdict = Verdict.WITHIN_ERROR
    elif less_than(abs(difference), threshold):
        verdict = Verdict.REAL_SMALL
    else:
        verdict = Verdict.REAL_MATTERS
    return Comparison(left, right, difference, mdc95, threshold, verdict)


def symmetry_index(
    left: float, right: float, *, ratio_scale: bool, measure: str, involved: Literal["left", "right"] | None
) -> float | None:
    """Percent: weaker/stronger when no side is involved, else involved/uninvolved.

    None where the divisor is zero. Raises NotARatioScale for a scale with an arbitrary zero.
    """
    if not ratio_scale:
        raise NotARatioScale(measure)
    if involved is None:
        numerator, divisor = min(left, right), max(left, right)
    else:
        numerator, divisor = (left, right) if involved == "left" else (right, left)
    return None if divisor == 0 else numerator / divisor * 100
