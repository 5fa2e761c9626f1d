"""Change lines as they leave the core: rounded here and only here."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from northstride.core.course.lines import Apart, Line
from northstride.core.course.over_time import Validity
from northstride.record.reading import DECIMALS
from northstride.record.reading_model import Out, SideCode


class PointOut(Out):
    screen: str
    date: dt.date
    value: float
    validity: Validity
    method: str | None
    # Beyond the error of the first value that counts; null where the two are not compared.
    beyond: bool | None
    # What keeps it from being joined to the value before it.
    apart: list[Apart]


class LineOut(Out):
    """One measure on one side, oldest first. `mdc95` is the band around `first`, in the measure's unit."""

    test: str
    measure: str
    key: str
    side: SideCode
    points: list[PointOut]
    first: float | None
    mdc95: float | None
    verdict: Literal["within_error", "changed", "not_comparable"]
    difference: float | None
    worse: bool | None


def line_out(line: Line) -> LineOut:
    return LineOut(
        test=line.test,
        measure=line.measure,
        key=line.key,
        side=line.side.value if line.side else None,
        points=[
            PointOut(
                screen=point.measured.screen,
                date=point.measured.date,
                value=round(point.measured.value, DECIMALS),
                validity=point.measured.validity,
                method=point.measured.method,
                beyond=point.beyond,
                apart=list(point.apart),
            )
            for point in line.points
        ],
        first=_rounded(line.first),
        mdc95=_rounded(line.mdc95),
        verdict=line.verdict.value,
        difference=_rounded(line.difference),
        worse=line.worse,
    )


def _rounded(value: float | None) -> float | None:
    return None if value is None else round(value, DECIMALS)
