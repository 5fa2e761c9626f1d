"""Has it really changed: each measure against the athlete's own earlier screens, beyond error or not."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Literal

from northstride.core.course.over_time import (
    Taken,
    followed_measures,
    kept_apart,
    oldest_first,
    way_of,
    worse_now,
    worth,
)
from northstride.core.examination import LOOKS_FULL, Entry, Examination, Trials
from northstride.core.examination.case import Case, Observed
from northstride.core.examination.derived import DERIVED
from northstride.core.findings.change import Baseline, Change, ChangeVerdict
from northstride.core.judgement.differences import error_source
from northstride.core.measuring.measurement import Verdict, value_of_trials
from northstride.core.norms import limits
from northstride.core.terms.sides import SIDES, Side

GROWN_AGE = limits("hip_joint")["torsion_grown_age"]
# For whom the baseline is the last screen before the injury, not the last one there is.
RETURN = "return_to_sport"


def changes(case: Case) -> tuple[Change, ...]:
    """Every measure that was taken now and before, in catalogue order."""
    earlier = _earlier(case)
    if not earlier:
        return ()
    recorded = {entry.test for entry in case.exam.entries}
    return tuple(
        change
        for code in case.catalogue.tests
        if code in recorded
        for measure in followed_measures(case.catalogue.tests[code])
        for change in _changes_of(case, earlier, code, measure)
    )


def _earlier(case: Case) -> list[Case]:
    """Earlier screens as cases of their own, the latest first. A later screen is no baseline.

    Of one day the one begun last comes first.
    """
    exams = [exam for exam in case.context.earlier if exam.date <= case.exam.date and exam.id != case.exam.id]
    # Read by today's school for trials: the same raw values must not differ by how they are averaged.
    school = case.schools["trial_value"]
    ordered = oldest_first(exams, lambda exam: exam.date)
    return [Case(_read_alike(exam, school), case.catalogue, case.context) for exam in reversed(ordered)]


def _read_alike(exam: Examination, trial_value: Literal["mean", "median"]) -> Examination:
    return replace(exam, schools={**exam.schools, "trial_value": trial_value})


def _changes_of(case: Case, earlier: Sequence[Case], test: str, measure: str) -> Iterator[Change]:
    for lane in (*SIDES, None):
        for entry in case.entries(test, lane):
            if not _has(case, entry, measure, lane):
                continue
            found = _baseline(case, earlier, entry, measure, lane)
            if found is not None:
                yield _change(case, found[0], entry, found[1], found[2], measure, lane)


def _has(case: Case, entry: Entry, measure: str, lane: Side | None) -> bool:
    if (entry.test, measure) in DERIVED:
        return lane is not None and DERIVED[(entry.test, measure)](case, lane) is not None
    return entry.value(measure, lane) is not None


def _baseline(
    case: Case, earlier: Sequence[Case], now: Entry, measure: str, lane: Side | None
) -> tuple[Case, Entry, Baseline] | None:
    """The earlier entry of the same test, side and key to hold against, and why this one."""
    with_it = [
        (before, then)
        for before in earlier
        for then in (before.entry(now.test, lane, now.key),)
        if then is not None and _has(before, then, measure, lane)
    ]
    if not with_it:
        return None
    if case.exam.purpose == RETURN:
        own = next(((before, then) for before, then in with_it if _is_own_baseline(case, before)), None)
        if own is not None:
            return (*own, Baseline(own[0].exam, "The last screen before the injury that has it.", own=True))
        last = with_it[0]
        return (*last, Baseline(last[0].exam, "No screen before the injury has it: the last one.", own=False))
    last = with_it[0]
    return (*last, Baseline(last[0].exam, "The last screen that has it.", own=False))


def _is_own_baseline(case: Case, before: Case) -> bool:
    """From before the injury; where nobody knows when that was, a squad screen."""
    onset = case.exam.intake.onset
    if onset is not None and onset.date is not None:
        return before.exam.date < onset.date
    return before.exam.purpose == "squad_screen"


def _change(
    case: Case, before: Case, now: Entry, then: Entry, baseline: Baseline, measure: str, lane: Side | None
) -> Change:
    why = _not_comparable(case, before, now, then, measure, lane)
    values = [_value(each, entry, measure, lane) for each, entry in ((case, now), (before, then))]
    if why is None and None in values:
        why = "Seen, not measured."
    growing = case.age is not None and case.age < GROWN_AGE
    by = [each.by or of.exam.examiner for each, of in ((now, case), (then, before))]
    same = None if None in by else by[0] == by[1]
    if why is not None or values[0] is None or values[1] is None:
        verdict = ChangeVerdict.NOT_COMPARABLE
        return Change(
            now.test, measure, lane, verdict, baseline, now.at, why, same_examiner=same, growing=growing
        )
    compared = case.compare(now.test, measure, values[0].value, values[1].value)
    if compared is None:
        why, verdict = "No error figure is known.", ChangeVerdict.NOT_COMPARABLE
    elif compared.verdict is Verdict.WITHIN_ERROR:
        verdict = ChangeVerdict.WITHIN_ERROR
    else:
        verdict = ChangeVerdict.CHANGED
    return Change(
        now.test,
        measure,
        lane,
        verdict,
        baseline,
        now.at,
        why,
        values[1].value,
        values[0].value,
        compared,
        worse_now(case.catalogue, now.test, measure, compared.difference if compared else None),
        same,
        growing,
        error_source(case, now.test, measure),
    )


def _value(case: Case, entry: Entry, measure: str, lane: Side | None) -> Observed | None:
    if (entry.test, measure) in DERIVED:
        return DERIVED[(entry.test, measure)](case, lane) if lane is not None else None
    value = entry.value(measure, lane)
    if not isinstance(value, Trials):
        return None
    return Observed(value_of_trials(value.values, case.schools["trial_value"]), entry.at)


def _not_comparable(
    case: Case, before: Case, now: Entry, then: Entry, measure: str, lane: Side | None
) -> str | None:
    """What keeps two values of the same measure and side apart; None where nothing does."""
    for entry, when in ((now, "now"), (then, "then")):
        if entry.value(measure, lane) == LOOKS_FULL:
            return f"Seen, not measured, {when}."
    was, is_now = _taken(before, then, measure, lane), _taken(case, now, measure, lane)
    match kept_apart(was, is_now):
        case "now_spoilt":
            return "What was seen now spoils the value."
        case "then_spoilt":
            return "What was seen then spoils the value."
        case "another_way":
            return f"Done by {was.method} then, by {is_now.method} now.".replace("_", " ")
        case None:
            return None


def _taken(case: Case, entry: Entry, measure: str, lane: Side | None) -> Taken:
    worn = "valid" if lane is None else worth(case.catalogue, entry.test, measure, entry.seen)
    return Taken(worn, way_of(case.catalogue, entry.test, entry.method, {**case.schools}))
