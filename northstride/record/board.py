"""The board of a return test as it is told."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from northstride.core.course.return_board import BoardRow, HeldAgainst
from northstride.core.terms.vocabulary import HeldUnit
from northstride.record.reading_model import Out, SideCode


class HeldAgainstOut(Out):
    """`by`: percent of the other, or value − other in `unit`, held against `limit`."""

    test: str | None
    measure: str
    side: SideCode
    value: float
    against: float
    by: float
    unit: HeldUnit
    limit: float
    enough: bool
    since: dt.date | None


class BoardRowOut(Out):
    criterion: str
    state: Literal["met", "not_met", "not_tested"]
    other: HeldAgainstOut | None
    own: HeldAgainstOut | None
    tests: list[str]


def board_row_out(row: BoardRow) -> BoardRowOut:
    return BoardRowOut(
        criterion=row.criterion,
        state=row.state,
        other=_held(row.other),
        own=_held(row.own),
        tests=list(row.tests),
    )


def _held(held: HeldAgainst | None) -> HeldAgainstOut | None:
    if held is None:
        return None
    rounded = {name: round(getattr(held, name), 1) for name in ("value", "against", "by", "limit")}
    return HeldAgainstOut(
        test=held.test,
        measure=held.measure,
        side=held.side,
        unit=held.unit,
        enough=held.enough,
        since=held.since,
        **rounded,
    )
