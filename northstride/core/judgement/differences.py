"""Left against right for every measure that has an error figure, and what has to be taken again."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Trials
from northstride.core.examination.case import Case
from northstride.core.examination.derived import DERIVED
from northstride.core.findings import Difference, Retake
from northstride.core.measuring.measurement import symmetry_index, trials_disagree, value_of_trials
from northstride.core.terms.sides import SIDES, Side

TAPES = frozenset({"true_length", "apparent_length"})


def side_differences(case: Case) -> Iterator[Difference]:
    """Every measure taken on both sides, in catalogue order. A void or flattering value is left out."""
    recorded = {entry.test for entry in case.exam.entries}
    for code, test in case.catalogue.tests.items():
        for measure in test.measures if code in recorded else ():
            if measure.numeric and measure.error is not None:
                difference = _difference(case, code, measure.code)
                if difference is not None:
                    yield difference
        for derived in test.derived if code in recorded else ():
            yield from _derived_difference(case, code, derived.code)


def _difference(case: Case, test: str, code: str) -> Difference | None:
    left, right = (case.number(test, code, side) for side in SIDES)
    if left is None or right is None or any(_worthless(case, test, code, side) for side in SIDES):
        return None
    measure = case.measure(test, code)
    comparison = case.compare(test, code, left.value, right.value)
    if comparison is None or measure.error is None:
        return None
    symmetry = None
    if measure.ratio_scale:
        symmetry = symmetry_index(left.value, right.value, ratio_scale=True, measure=code, involved=None)
    return Difference(test, code, comparison, symmetry, error_source(case, test, code))


def _derived_difference(case: Case, test: str, code: str) -> Iterator[Difference]:
    left, right = (DERIVED[(test, code)](case, side) for side in SIDES)
    compared = case.compare(test, code, left.value, right.value) if left and right else None
    if compared is not None:
        yield Difference(test, code, compared, None, error_source(case, test, code))


def error_source(case: Case, test: str, measure: str) -> str:
    """Who says how large the error is: the clinic itself, or whom the catalogue cites."""
    if case.own_sem(test, measure) is not None:
        return "the clinic's own study"
    error = case.error_of(test, measure)
    return error.source if error else ""


def _worthless(case: Case, test: str, measure: str, side: Side) -> bool:
    """Void, or so flattered that it looks normal: a difference from it would mislead."""
    if case.is_void(test, measure, side):
        return True
    number = case.number(test, measure, side)
    usual = case.measure(test, measure).usual
    if number is None or usual is None or not case.is_flattered(test, measure, side):
        return False
    high = case.measure(test, measure).polarity == "higher"
    return number.value <= usual[1] if high else number.value >= usual[0]


def retakes(case: Case) -> Iterator[Retake]:
    """What was seen to spoil a test, and trials of one sitting that disagree beyond error."""
    given: set[Retake] = set()
    looked_at: set[str] = set()
    for entry in case.current_entries:
        if not entry.done:
            continue
        disagreeing = () if entry.test in looked_at else _disagreeing(case, entry.test)
        looked_at.add(entry.test)
        for retake in (*_spoilt(case, entry.test, entry.side, entry.seen), *disagreeing):
            if retake not in given:
                given.add(retake)
                yield retake


def _spoilt(case: Case, test: str, side: Side | None, seen: frozenset[str]) -> Iterator[Retake]:
    for code in sorted(seen):
        item = case.catalogue.seen(test, code)
        if item is not None and item.retake is not None:
            yield Retake(test, side, item.retake)


def _disagreeing(case: Case, test: str) -> Iterator[Retake]:
    for lane in (*SIDES, None):
        entry = case.entry(test, lane)
        for measure in case.catalogue.tests[test].measures if entry else ():
            value = entry.value(measure.code, lane) if entry else None
            # Tapes that differ have a rule and a word of their own.
            if measure.code in TAPES:
                continue
            if isinstance(value, Trials) and _disagree(case, test, measure.code, value):
                yield Retake(test, lane, "trials_disagree")


def _disagree(case: Case, test: str, measure: str, trials: Trials) -> bool:
    sem = case.sem(test, measure)
    error = case.measure(test, measure).error
    if sem is None:
        return False
    if error is not None and error.percent == "both" and case.own_sem(test, measure) is None:
        sem *= value_of_trials(trials.values, "mean") / 100
    return trials_disagree(trials.values, sem)
