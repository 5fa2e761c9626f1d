"""How much each recorded sign says for a flag, and what a starting probability could move to.

Ratios come from published sensitivity and specificity. Signs that load the same structure count
once, the one that says most; nothing is ever multiplied with anything else.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from northstride.core.evidence.signs import Result, sign_in
from northstride.core.examination.case import Case
from northstride.core.findings import Reading, Reason
from northstride.core.measuring.measurement import less_than
from northstride.core.norms.accuracy import AccuracyFigure, accuracy_figures
from northstride.core.terms.errors import NotAProbability
from northstride.core.terms.sides import SIDES, Side

Word = Literal["a lot", "some", "a little", "hardly", "no use shown"]
NO_USE: Word = "no use shown"
# From how many times on a ratio is said to say so much.
WORDS: tuple[tuple[float, Word], ...] = ((10, "a lot"), (5, "some"), (2, "a little"))


@dataclass(frozen=True, slots=True)
class Ratio:
    """A likelihood ratio, least and most favourable. `most` is infinite where a study leaves no bound."""

    least: float
    most: float


@dataclass(frozen=True, slots=True)
class Evidence:
    """What one sign says for one code on one side. `counts` marks the strongest of its family.

    No ratio where no use was shown: such a sign moves nothing.
    """

    code: str
    side: Side
    sign: str
    test: str
    at: str
    result: Result
    ratio: Ratio | None
    least: Word
    most: Word
    family: str
    source: str
    counts: bool = False


def ratio_of(figure: AccuracyFigure, result: Result) -> Ratio:
    """LR+ = sens/(1−spec), LR− = (1−sens)/spec, or the pooled one; least and most favourable."""
    (sens_low, sens_high), (spec_low, spec_high) = figure.sensitivity, figure.specificity
    if result == "positive":
        return Ratio(_divide(sens_low, 1 - spec_low), _divide(sens_high, 1 - spec_high))
    if figure.pooled_negative is not None:
        most, least = figure.pooled_negative
        return Ratio(least, most)
    return Ratio(_divide(1 - sens_low, spec_low), _divide(1 - sens_high, spec_high))


def _divide(numerator: float, divisor: float) -> float:
    return math.inf if divisor == 0 else numerator / divisor


def word(ratio: float, result: Result) -> Word:
    """How much a ratio says in the direction of its result; what points the other way says hardly."""
    said = says(ratio, result)
    return next((word for times, word in WORDS if not less_than(said, math.log(times))), "hardly")


def probability_range(start: float, ratio: Ratio) -> tuple[float, float]:
    """Where a probability could move by one sign, lowest first; shares of 1.

    Raises NotAProbability unless 0 < start < 1: what is certain cannot move.
    """
    if not 0 < start < 1:
        raise NotAProbability(start)
    low, high = sorted(_moved(start, end) for end in (ratio.least, ratio.most))
    return low, high


def _moved(start: float, ratio: float) -> float:
    if math.isinf(ratio):
        return 1.0
    odds = start / (1 - start) * ratio
    return odds / (1 + odds)


def evidence(case: Case, reading: Reading) -> tuple[Evidence, ...]:
    """Every answered sign with a published figure, in the order of the figures.

    `case` holds what the reading held: a held entry says nothing.
    """
    found = [
        item
        for figure in accuracy_figures()
        for side in SIDES
        for item in _evidence_of(case, reading, figure, side)
    ]
    return tuple(_mark_the_strongest(found))


def _evidence_of(case: Case, reading: Reading, figure: AccuracyFigure, side: Side) -> Iterator[Evidence]:
    found = sign_in(case, figure, side)
    for code in figure.codes:
        answer = (found[0], found[1].at) if found else _answer_by_rule(reading, figure, code, side)
        if answer is None:
            continue
        result, at = answer
        ratio = None if figure.no_use_shown else ratio_of(figure, result)
        yield Evidence(
            code,
            side,
            figure.sign,
            figure.test,
            at,
            result,
            ratio,
            word(ratio.least, result) if ratio else NO_USE,
            word(ratio.most, result) if ratio else NO_USE,
            figure.family,
            figure.source,
        )


def _answer_by_rule(
    reading: Reading, figure: AccuracyFigure, code: str, side: Side
) -> tuple[Result, str] | None:
    """A published cluster is positive where its rule flagged what was examined, negative where it cleared."""
    rule = figure.reads.rule
    if rule is None:
        return None
    flagged = _reason(rule, [f.because for f in reading.flags if (f.code, f.side) == (code, side)])
    if flagged is not None:
        return "positive", flagged.at
    cleared = _reason(rule, [c.because for c in reading.ruled_down if (c.code, c.side) == (code, side)])
    return None if cleared is None else ("negative", cleared.at)


def _reason(rule: str, because: Sequence[tuple[Reason, ...]]) -> Reason | None:
    reasons = (reason for group in because for reason in group)
    return next((r for r in reasons if r.rule == rule and r.at.startswith("entries")), None)


def _mark_the_strongest(found: Sequence[Evidence]) -> Iterator[Evidence]:
    strongest: dict[tuple[str, Side, str], Evidence] = {}
    for item in found:
        place = (item.code, item.side, item.family)
        if item.ratio is not None and (place not in strongest or _weight(item) > _weight(strongest[place])):
            strongest[place] = item
    chosen = {id(item) for item in strongest.values()}
    return (replace(item, counts=id(item) in chosen) for item in found)


def _weight(item: Evidence) -> tuple[float, float]:
    if item.ratio is None:
        return -math.inf, -math.inf
    return says(item.ratio.least, item.result), says(item.ratio.most, item.result)


def says(ratio: float, result: Result) -> float:
    """How much a ratio says in the direction of its result, as a logarithm; below 0 the other way."""
    if ratio == 0:
        return -math.inf if result == "positive" else math.inf
    return math.log(ratio) if result == "positive" else -math.log(ratio)
