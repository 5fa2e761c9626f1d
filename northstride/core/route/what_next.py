"""The most useful tests to do next: at most three, never one that is held or can change nothing."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterable, Iterator
from itertools import islice

from northstride.core.evidence.signs import Result, as_if
from northstride.core.evidence.weights import ratio_of, says
from northstride.core.examination import Entry, Examination
from northstride.core.examination.case import Case
from northstride.core.findings import Flag, Next, Strength
from northstride.core.judgement.judge import Judgement, judge
from northstride.core.judgement.merge import lane_of
from northstride.core.norms import limits
from northstride.core.norms.accuracy import AccuracyFigure, accuracy_figures
from northstride.core.route.offered import may_be_offered
from northstride.core.terms.sides import SIDES, Side

MOST = 3
TURN_SECONDS = limits("route")["turn_seconds"]
RESULTS: tuple[Result, ...] = ("positive", "negative")


def what_next(judged: Judgement) -> tuple[Next, ...]:
    """What rules ask first, then what would settle the strongest and most urgent flags, then untested
    signs of flagged structures by what they could change per second and turn.
    """
    case = judged.case
    wanted = (*judged.asked, *_settling(case, judged.flags))
    # One test is asked once, for the first reason there is.
    first = {(item.test, item.side): item for item in reversed(wanted)}
    offered = [item for item in wanted if first[(item.test, item.side)] is item]
    offered = [item for item in offered if _is_open(judged, item.test, item.side)]
    kept = [item for asked in offered if (item := _lying_well(case, asked)) is not None]
    if len(kept) < MOST:
        named = {(item.test, item.side) for item in kept}
        kept += islice((item for item in _telling(judged) if (item.test, item.side) not in named), MOST)
    return tuple(kept[:MOST])


def _settling(case: Case, flags: Iterable[Flag]) -> Iterator[Next]:
    for flag in flags:
        for settle in flag.settle:
            yield Next(settle.test, lane_of(case, settle.test, flag.side), settle.why)


def _lying_well(case: Case, item: Next) -> Next | None:
    """For the pregnant a prone test is left out, or named with the position it can be done in."""
    test = case.catalogue.tests[item.test]
    if "pregnant" not in case.exam.intake.confounders or test.position != "prone":
        return item
    other = test.instead_of_prone
    return None if other is None else dataclasses.replace(item, why=f"{item.why} {other}")


def _telling(judged: Judgement) -> Iterator[Next]:
    """Untested signs of flagged structures, the most telling for their cost first."""
    case = judged.case
    flagged = {(flag.code, flag.side) for flag in judged.flags}
    here = _position_now(case)
    candidates = [
        (figure, side)
        for figure in accuracy_figures()
        for side in SIDES
        if any((code, side) in flagged for code in figure.codes) and _untested(judged, figure, side)
    ]
    candidates.sort(key=lambda pair: (-_worth(case, pair[0], here), pair[0].test, pair[1]))
    for figure, side in candidates:
        item = Next(figure.test, side, f"{figure.sign}: {_why(figure)}")
        placed = _lying_well(case, item)
        if placed is not None and _changes_something(judged, figure, side):
            yield placed


def _untested(judged: Judgement, figure: AccuracyFigure, side: Side) -> bool:
    case = judged.case
    if figure.test not in case.catalogue.tests or figure.no_use_shown:
        return False
    if figure.reads.kind in ("rule", "together"):
        return False
    return not case.entries(figure.test, side) and _is_open(judged, figure.test, side)


def _is_open(judged: Judgement, test: str, side: Side | None) -> bool:
    """Neither held nor beside something urgent that it would only delay."""
    return not judged.holds(test, side) and may_be_offered(judged, test, side)


def _position_now(case: Case) -> str | None:
    done = [entry for entry in case.exam.entries if entry.done]
    return case.catalogue.tests[done[-1].test].position if done else None


def _worth(case: Case, figure: AccuracyFigure, here: str | None) -> float:
    """The larger |log LR|, least favourable, for each second and turn it costs."""
    test = case.catalogue.tests[figure.test]
    cost = test.seconds + (TURN_SECONDS if test.position != here else 0)
    return max(says(ratio_of(figure, result).least, result) for result in RESULTS) / cost


def _why(figure: AccuracyFigure) -> str:
    finds = says(ratio_of(figure, "positive").least, "positive")
    clears = says(ratio_of(figure, "negative").least, "negative")
    return "a positive one would say more." if finds >= clears else "a negative one would say more."


def _changes_something(judged: Judgement, figure: AccuracyFigure, side: Side) -> bool:
    """Whether either result would change a flag, an action or what is cleared."""
    exam = judged.case.exam
    before = _told(judged)
    for result in RESULTS:
        entry = as_if(figure, result, side)
        if entry is not None and _told(_with(judged.case, exam, entry)) != before:
            return True
    return False


def _with(case: Case, exam: Examination, entry: Entry) -> Judgement:
    more = dataclasses.replace(exam, entries=(*exam.entries, entry))
    return judge(more, case.catalogue, case.context)


def _told(
    judged: Judgement,
) -> tuple[frozenset[tuple[str, Side | None, Strength]], frozenset[str], frozenset[str]]:
    return (
        frozenset((flag.code, flag.side, flag.strength) for flag in judged.flags),
        frozenset(f"{action.code} {action.side}" for action in judged.actions),
        frozenset(f"{item.code} {item.side}" for item in judged.ruled_down),
    )
