"""Change lines: one measure on one side over all screens, each value against the first that counts."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from northstride.core.catalogue import Catalogue
from northstride.core.course.over_time import (
    Taken,
    Validity,
    another_way,
    kept_apart,
    oldest_first,
    worse_now,
)
from northstride.core.examination import Context
from northstride.core.examination.comparison import compare_values
from northstride.core.findings.change import ChangeVerdict
from northstride.core.terms.sides import Side

Apart = Literal["gap", "method", "school", "examiner"]
# Longer without the measure, and nobody knows how it went in between: a season.
GAP = dt.timedelta(days=365)


@dataclass(frozen=True, slots=True)
class Measured:
    """A value as it was taken in a screen, in the measure's unit.

    `method` as the entry says, or as the screen's school does it; `school` how its trials were put together.
    """

    screen: str
    date: dt.date
    value: float
    validity: Validity = "valid"
    method: str | None = None
    school: str | None = None
    examiner: str | None = None

    @property
    def taken(self) -> Taken:
        return Taken(self.validity, self.method)


@dataclass(frozen=True, slots=True)
class Point:
    """`beyond` the error of the first value that counts; None where the two are not compared.

    `apart`: what keeps it from being joined to the value before it that counts.
    """

    measured: Measured
    beyond: bool | None
    apart: tuple[Apart, ...] = ()


@dataclass(frozen=True, slots=True)
class Line:
    """One measure on one side, oldest first.

    `mdc95` is the band around the first value that counts, in the measure's unit; None without an error
    figure. `verdict` holds the last value against that first one; `worse` is None where no direction is.
    """

    test: str
    measure: str
    key: str
    side: Side | None
    points: tuple[Point, ...]
    first: float | None
    mdc95: float | None
    verdict: ChangeVerdict
    difference: float | None
    worse: bool | None


def line_of(
    catalogue: Catalogue,
    context: Context,
    test: str,
    measure: str,
    key: str,
    side: Side | None,
    taken: Sequence[Measured],
) -> Line:
    """What does not count, or was done another way, is shown and not compared.

    `taken` in any order of days; of one day in the order the screens were begun.
    """
    ordered = oldest_first(taken, lambda each: each.date)
    first = next((each for each in ordered if each.validity == "valid"), None)
    points, last, before = [], None, None
    for each in ordered:
        compared = None
        if first is not None and each is not first and kept_apart(first.taken, each.taken) is None:
            compared = compare_values(catalogue, context, test, measure, each.value, first.value)
        beyond = None if compared is None else compared.verdict != "within_error"
        counts = each.validity == "valid"
        points.append(Point(each, beyond, _apart(before, each) if before is not None and counts else ()))
        last, before = compared, each if counts else before
    start = first.value if first else None
    band = None if start is None else compare_values(catalogue, context, test, measure, start, start)
    return Line(
        test=test,
        measure=measure,
        key=key,
        side=side,
        points=tuple(points),
        first=start,
        mdc95=band.mdc95 if band else None,
        verdict=_verdict(points[-1] if points else None),
        difference=last.difference if last else None,
        worse=worse_now(catalogue, test, measure, last.difference if last else None),
    )


def _apart(before: Measured, each: Measured) -> tuple[Apart, ...]:
    """Every reason there is. What is unknown of either is no other."""
    told: dict[Apart, tuple[str | None, str | None]] = {
        "method": (before.method, each.method),
        "school": (before.school, each.school),
        "examiner": (before.examiner, each.examiner),
    }
    reasons = [reason for reason, (was, now) in told.items() if another_way(was, now)]
    return (*(("gap",) if each.date - before.date > GAP else ()), *reasons)


def _verdict(last: Point | None) -> ChangeVerdict:
    if last is None or last.beyond is None:
        return ChangeVerdict.NOT_COMPARABLE
    return ChangeVerdict.CHANGED if last.beyond else ChangeVerdict.WITHIN_ERROR
