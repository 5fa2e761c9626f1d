"""Ready to return, by how much: each criterion against the other side and against the own baseline."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from northstride.core.catalogue import Catalogue
from northstride.core.catalogue.polarity import Polarity, side_spoken_of
from northstride.core.course.change import changes
from northstride.core.course.return_criteria import (
    HOP,
    LIMIT,
    LUNGE,
    REACH,
    REACH_DIFFERS,
    RISE,
    SIDE_HOP,
    is_muscle_length,
    return_criteria,
)
from northstride.core.examination import Context, Examination
from northstride.core.examination.case import Case
from northstride.core.findings import Criterion, Difference
from northstride.core.findings.change import Change, ChangeVerdict
from northstride.core.judgement.differences import side_differences
from northstride.core.judgement.judge import judge
from northstride.core.judgement.open_questions import with_questions
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.route import make_route
from northstride.core.rules.hip.function import RESISTED, torque_of
from northstride.core.rules.symmetry import against_uninvolved, involved_side
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import HeldUnit, ReturnCriterion


@dataclass(frozen=True, slots=True)
class HeldAgainst:
    """A value held against another. `by`: percent of the other, or value − other in `unit`.

    `limit` is what `by` is measured with, in the same unit: a percent to reach, or a difference, or points,
    not to pass. `side` is the side the value is of. `since` is the day of an own baseline.
    """

    test: str | None
    measure: str
    side: Side | None
    value: float
    against: float
    by: float
    unit: HeldUnit
    limit: float
    enough: bool
    since: dt.date | None = None


@dataclass(frozen=True, slots=True)
class BoardRow:
    """`own` is held against a screen from before the injury. `tests` would speak about the criterion."""

    criterion: ReturnCriterion
    state: Literal["met", "not_met", "not_tested"]
    other: HeldAgainst | None
    own: HeldAgainst | None
    tests: tuple[str, ...]


def return_board(exam: Examination, catalogue: Catalogue, context: Context) -> tuple[BoardRow, ...]:
    """Every criterion of a return test, in their order; empty for any other purpose."""
    judged, asks = with_questions(judge(exam, catalogue, context))
    case = judged.case
    differences, changed = tuple(side_differences(case)), changes(case)
    planned = list(dict.fromkeys(stop.test for stop in make_route(exam, catalogue, context).stops))
    return tuple(
        _row(case, criterion, differences, changed, planned)
        for criterion in return_criteria(judged, asks, differences, changed)
    )


def _row(
    case: Case,
    found: Criterion,
    differences: Sequence[Difference],
    changed: Sequence[Change],
    planned: Sequence[str],
) -> BoardRow:
    name = found.criterion
    speaks = SPEAKS.get(name)
    own = [
        change
        for change in changed
        if change.baseline.own
        and (name == "own_baseline" or (speaks and speaks(case, change.test, change.measure)))
    ]
    measures = {code: [m.code for m in case.catalogue.tests[code].measures] for code in planned}
    return BoardRow(
        criterion=name,
        state=found.state,
        other=_against_other(case, name, differences),
        own=_worst(_held_against_own(case, own)),
        tests=tuple(
            code for code in planned if speaks and any(speaks(case, code, m) for m in measures[code])
        ),
    )


def _is(test: str, measure: str | None = None) -> Callable[[Case, str, str], bool]:
    return lambda _case, code, own: code == test and measure in (None, own)


# Which tests and measures speak about a criterion. Pain and danger are asked, not measured.
SPEAKS: dict[ReturnCriterion, Callable[[Case, str, str], bool]] = {
    "passive_ranges": lambda _case, _test, measure: measure == "passive",
    "lunge": _is(LUNGE),
    "muscle_length": lambda case, test, _measure: is_muscle_length(case, test),
    "resisted_strength": lambda _case, test, _measure: test in RESISTED,
    "heel_rise": _is(RISE, "count"),
    "hop": _is(HOP, "distance"),
    "side_hop": _is(SIDE_HOP, "count"),
    "reach_anterior": _is(REACH, "anterior"),
}
HOPS = {"heel_rise": (RISE, "count"), "hop": (HOP, "distance"), "side_hop": (SIDE_HOP, "count")}


def _against_other(
    case: Case, name: ReturnCriterion, differences: Sequence[Difference]
) -> HeldAgainst | None:
    if name == "resisted_strength":
        return _worst(filter(None, (_torques(case, test) for test in RESISTED)))
    if name in HOPS:
        return _in_percent(case, *HOPS[name])
    if name == "reach_anterior":
        return _reach(case)
    if name == "pain_now":
        return _pain(case)
    speaks = SPEAKS.get(name)
    if speaks is None:
        return None
    here = (each for each in differences if speaks(case, each.test, each.measure))
    return _worst(_by_difference(case, each) for each in here)


def _worst(held: Iterable[HeldAgainst]) -> HeldAgainst | None:
    """What is not enough comes first, then what is nearest to it, or furthest beyond."""
    return min(held, key=lambda each: (each.enough, -_reached(each)), default=None)


def _reached(held: HeldAgainst) -> float:
    """How much of what is allowed is used up; of a percent how much is missing."""
    if held.unit == "percent":
        return held.limit - held.by
    return abs(held.by) / held.limit if held.limit else 0.0


def _own_side(case: Case, left: float, right: float, polarity: Polarity = "lower") -> Side:
    """The involved side; without one, the side that stands out."""
    return involved_side(case) or side_spoken_of(polarity, left - right) or Side.RIGHT


def _pair(side: Side, left: float, right: float) -> tuple[float, float]:
    return (left, right) if side is Side.LEFT else (right, left)


def _by_difference(case: Case, found: Difference) -> HeldAgainst:
    comparison = found.comparison
    measure = case.catalogue.compared(found.test, found.measure)
    side = _own_side(case, comparison.left, comparison.right, measure.polarity if measure else "lower")
    value, against = _pair(side, comparison.left, comparison.right)
    limit = max(comparison.threshold, comparison.mdc95)
    return HeldAgainst(
        found.test,
        found.measure,
        side,
        value,
        against,
        value - against,
        measure.unit if measure else "1",
        limit,
        not comparison.matters,
    )


def _percent(
    case: Case, test: str, measure: str, left: float | None, right: float | None
) -> HeldAgainst | None:
    index = against_uninvolved(case, left, right)
    if index is None or left is None or right is None:
        return None
    side = _own_side(case, left, right)
    value, against = _pair(side, left, right)
    line = LIMIT["symmetry_from"]
    return HeldAgainst(
        test, measure, side, value, against, index, "percent", line, not less_than(index, line)
    )


def _torques(case: Case, test: str) -> HeldAgainst | None:
    return _percent(case, test, "force", *(torque_of(case, test, side) for side in SIDES))


def _in_percent(case: Case, test: str, measure: str) -> HeldAgainst | None:
    found = [case.number(test, measure, side) for side in SIDES]
    return _percent(case, test, measure, *(each.value if each else None for each in found))


def _reach(case: Case) -> HeldAgainst | None:
    left, right = (case.number(REACH, "anterior", side) for side in SIDES)
    if left is None or right is None:
        return None
    side = _own_side(case, left.value, right.value)
    value, against = _pair(side, left.value, right.value)
    line = REACH_DIFFERS
    enough = less_than(abs(value - against), line)
    return HeldAgainst(REACH, "anterior", side, value, against, value - against, "mm", line, enough)


def _pain(case: Case) -> HeldAgainst | None:
    now, line = case.exam.intake.pain_now, LIMIT["pain_up_to"]
    if now is None:
        return None
    return HeldAgainst(None, "pain_now", None, now, 0, now, "points", line, not more_than(now, line))


def _held_against_own(case: Case, changed: Sequence[Change]) -> Iterable[HeldAgainst]:
    """What can be compared, on the involved side or of no side."""
    involved = involved_side(case)
    for change in changed:
        here = involved is None or change.side in (involved, None)
        if not here or change.comparison is None or change.now is None or change.before is None:
            continue
        measure = case.catalogue.compared(change.test, change.measure)
        yield HeldAgainst(
            change.test,
            change.measure,
            change.side,
            change.now,
            change.before,
            change.comparison.difference,
            measure.unit if measure else "1",
            change.comparison.mdc95,
            not (change.verdict is ChangeVerdict.CHANGED and change.worse is True),
            change.baseline.exam.date,
        )
