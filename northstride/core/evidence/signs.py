"""What a record says of a sign with a published figure: positive, negative, or nothing."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Literal, assert_never

from northstride.core.examination import Entry, Lane, Pain, Trials, Value
from northstride.core.examination.case import Case
from northstride.core.measuring.measurement import less_than
from northstride.core.norms.accuracy import AccuracyFigure, Reads
from northstride.core.rules.onset import LOOK, days_since_onset
from northstride.core.rules.palpation import PALPATION
from northstride.core.terms.sides import Side

Result = Literal["positive", "negative"]
HYPOTHETICAL = "entries"


def sign_in(case: Case, figure: AccuracyFigure, side: Side) -> tuple[Result, Entry] | None:
    """The result and the entry that shows it. A sign that only a rule can read says None."""
    reads = figure.reads
    if reads.kind == "together":
        return _together(case, figure, side)
    entry = case.entry(figure.test, side, reads.key)
    if entry is None or reads.kind not in _READ:
        return None
    if reads.needs is not None and entry.value(reads.needs, side) is not True:
        return None
    result = _READ[reads.kind](entry, reads, side)
    return None if result is None else (result, entry)


def _together(case: Case, figure: AccuracyFigure, side: Side) -> tuple[Result, Entry] | None:
    """Three signs on the days they were studied; one missing says nothing, one absent is negative."""
    days, entry = days_since_onset(case), case.entry(figure.test, side)
    first, last = figure.reads.days or (0, 0)
    if entry is None or days is None or not first <= days <= last:
        return None
    bruising, tender = case.value(LOOK, "bruising", side), case.value(PALPATION, "tender", side)
    grade = entry.value("laxity", side)
    if not (isinstance(bruising, tuple) and isinstance(tender, tuple) and isinstance(grade, int)):
        return None
    all_there = bool(bruising) and "atfl" in tender and grade >= 1
    return ("positive" if all_there else "negative"), entry


def _by_result(entry: Entry, _reads: Reads, side: Side) -> Result | None:
    found = entry.value("result", side)
    return _one_of(found == "positive", found == "negative")


def _by_pain(entry: Entry, reads: Reads, side: Side) -> Result | None:
    """Painless is negative only where the position was held long enough."""
    if entry.pain is None:
        return None
    hold = entry.value("hold", side)
    let_go = (
        reads.held_for is not None and isinstance(hold, Trials) and less_than(hold.values[0], reads.held_for)
    )
    return _one_of(
        entry.pain.present and entry.pain.site == reads.site, not entry.pain.present and not let_go
    )


def _by_tenderness(entry: Entry, reads: Reads, side: Side) -> Result | None:
    tender, pressed = entry.value("tender", side), entry.value("pressed", side)
    if not isinstance(tender, tuple):
        return None
    reached = pressed is None or (isinstance(pressed, tuple) and reads.site in pressed)
    return _one_of(reads.site in tender, reads.site not in tender and reached)


def _by_laxity(entry: Entry, _reads: Reads, side: Side) -> Result | None:
    grade = entry.value("laxity", side)
    return _one_of(isinstance(grade, int) and grade >= 1, grade == 0)


def _by_choice(entry: Entry, reads: Reads, side: Side) -> Result | None:
    found = entry.value(reads.measure or "", side)
    return _one_of(found in reads.positive, found in reads.negative)


def _by_tick(entry: Entry, reads: Reads, side: Side) -> Result | None:
    found = entry.value(reads.measure or "", side)
    return _one_of(found is True, found is False)


def _one_of(positive: bool, negative: bool) -> Result | None:
    if positive:
        return "positive"
    return "negative" if negative else None


_READ: Mapping[str, Callable[[Entry, Reads, Side], Result | None]] = {
    "result": _by_result,
    "pain": _by_pain,
    "tender": _by_tenderness,
    "laxity": _by_laxity,
    "choice": _by_choice,
    "flag": _by_tick,
}


def as_if(figure: AccuracyFigure, result: Result, side: Side) -> Entry | None:
    """The entry that would show this result, to ask what it would change. None where only a rule reads it."""
    reads, positive = figure.reads, result == "positive"
    values: dict[str, Value] = {}
    pain: Pain | None = None
    match reads.kind:
        case "result":
            values, pain = {"result": result}, Pain(positive)
        case "pain":
            pain = Pain(present=positive, site=reads.site if positive else None, familiar=positive or None)
            values = {} if reads.held_for is None else {"hold": Trials((reads.held_for,))}
        case "tender":
            values = {"tender": (str(reads.site),) if positive else ()}
        case "laxity":
            values = {"laxity": 2 if positive else 0}
        case "choice":
            values = {str(reads.measure): (reads.positive if positive else reads.negative)[0]}
        case "flag":
            values = {str(reads.measure): positive}
        case "rule" | "together":
            return None
        case _:
            assert_never(reads.kind)
    if reads.needs is not None:
        values[reads.needs] = True
    placed: dict[tuple[str, Lane], Value] = {(measure, side): value for measure, value in values.items()}
    return Entry(HYPOTHETICAL, figure.test, side, placed, pain, key=reads.key)
