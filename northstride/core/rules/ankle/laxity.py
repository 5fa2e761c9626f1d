"""Laxity by grade, and what the other side and the first days take away from it.

Laxity: 0 as expected, 1 slightly more, 2 clearly more, 3 gross; the stop is written apart.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Cap, Finding, Reason, Recheck, Strength
from northstride.core.norms import limits
from northstride.core.rules.onset import days_since_onset, injured_sides, sudden
from northstride.core.rules.pain import hurts
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import SideOrBoth

LIMIT = limits("ankle")

LAXITY = "laxity"
AMOUNT = {1: "slightly more movement", 2: "clearly more movement", 3: "gross movement"}
EARLY_CODES = ("instability.atfl", "instability.cfl", "instability.ptfl", "instability.deltoid")
SYNDESMOSIS_TESTS = ("ankle.cotton", "ankle.fibular_glide")
HYPERMOBILITY = "general.hypermobility"
SECOND_LOOK = "Ligaments again, when the swelling is down."
EARLY_SOURCE = ("van Dijk 1996",)


def grade_of(entry: Entry | None, side: Side) -> int | None:
    """Laxity 0 to 3; None where it was not graded."""
    found = entry.value(LAXITY, side) if entry else None
    return found if isinstance(found, int) and not isinstance(found, bool) else None


def lax(
    case: Case, code: str, rule: str, entry: Entry, side: Side, sources: tuple[str, ...] = (), band: str = ""
) -> Finding | None:
    """Laxity 1 possible, 2 likely, 3 strong; None at 0 and where it was not graded."""
    grade = grade_of(entry, side)
    if not grade:
        return None
    says = f"{case.catalogue.tests[entry.test].name}{band}: {AMOUNT[grade]}."
    because = Reason(entry.at, rule, says)
    against = early_words(case, side) if code in EARLY_CODES else ()
    return Finding(
        code,
        side,
        Strength(grade),
        because,
        entry.test,
        LAXITY,
        against,
        sources=sources,
        key=entry.key,
    )


def sore(case: Case, code: str, rule: str, entry: Entry, side: Side, band: str = "") -> Finding | None:
    """Pain without laxity, or with laxity not graded: possible."""
    if not hurts(entry) or grade_of(entry, side):
        return None
    says = f"{case.catalogue.tests[entry.test].name}{band} hurts."
    return Finding(code, side, Strength.POSSIBLE, Reason(entry.at, rule, says), entry.test, key=entry.key)


def by_grade(case: Case, code: str, rule: str, test: str) -> Iterator[Finding]:
    """Every entry of one test, by grade alone."""
    for side in SIDES:
        for entry in case.entries(test, side):
            finding = lax(case, code, rule, entry, side)
            if finding is not None:
                yield finding


def is_early(case: Case) -> bool:
    """Day 0, 1 or 2 after a sudden injury, by the dates."""
    days = days_since_onset(case)
    return sudden(case) and days is not None and days <= LIMIT["early_days_up_to"]


def early_words(case: Case, side: Side) -> tuple[str, ...]:
    if not is_early(case) or side not in injured_sides(case):
        return ()
    return (f"Day {days_since_onset(case)} after the injury: swelling and guarding mislead.",)


def early_cap(case: Case, _findings: Sequence[Finding]) -> Iterator[Cap]:
    """A4: on day 0, 1 or 2 no ligament of the injured side is more than likely."""
    if is_early(case):
        for side in injured_sides(case):
            for code in EARLY_CODES:
                yield Cap(code, side, Strength.LIKELY, early_words(case, side)[0], EARLY_SOURCE)


def second_look(case: Case) -> Iterator[Recheck]:
    """A4: a ligament tested on day 0, 1 or 2 is tested again from day 4 to 7, flagged or not."""
    onset = case.exam.intake.onset
    if not is_early(case) or onset is None or onset.date is None:
        return
    start = onset.date + dt.timedelta(days=LIMIT["recheck_from_day"])
    end = onset.date + dt.timedelta(days=LIMIT["recheck_to_day"])
    for side in injured_sides(case):
        for test in case.catalogue.tests.values():
            ligament_test = test.family == "ligament" or test.code in SYNDESMOSIS_TESTS
            if ligament_test and case.entries(test.code, side):
                for ligament in test.loads:
                    yield Recheck(f"instability.{ligament}", side, "A4", start, end, SECOND_LOOK, test.code)


def same_on_both_sides(case: Case, findings: Sequence[Finding]) -> Iterator[Cap]:
    """A3: the same or more laxity on the other side leaves it possible, unless something else says more.

    Where both ankles were sprained before, neither is a normal and nothing is capped. H14: in a
    loose-jointed athlete it is called constitutional.
    """
    if both_ankles_sprained(case):
        return
    places = dict.fromkeys((finding.code, finding.side) for finding in findings if finding.measure == LAXITY)
    for code, side in places:
        here = [finding for finding in findings if (finding.code, finding.side) == (code, side)]
        speaking = [f for f in here if f.measure == LAXITY or f.strength > Strength.POSSIBLE]
        if side is not None and all(_equalled(case, finding, side) for finding in speaking):
            yield Cap(code, side, Strength.POSSIBLE, _same(case))


def _equalled(case: Case, finding: Finding, side: Side) -> bool:
    if finding.measure != LAXITY or finding.test is None:
        return False
    own = grade_of(case.entry(finding.test, side, finding.key), side)
    other = grade_of(case.entry(finding.test, side.other, finding.key), side.other)
    return own is not None and other is not None and other >= own


def _same(case: Case) -> str:
    return "The same on both sides: constitutional." if _loose_jointed(case) else "The same on both sides."


def _loose_jointed(case: Case) -> bool:
    """H14: the nine-point score by age (Malfait 2017); age not known: as for adults up to 50."""
    score = case.on(None).grade(HYPERMOBILITY, "score")
    if score is None:
        return False
    if case.age is not None and case.age < LIMIT["loose_jointed_child_below"]:
        return score >= LIMIT["loose_jointed_child_from"]
    older = case.age is not None and case.age > LIMIT["loose_jointed_older_beyond"]
    return score >= LIMIT["loose_jointed_older_from" if older else "loose_jointed_from"]


def sprains_before(case: Case, side: Side) -> tuple[int, str]:
    """How often this ankle was sprained, and where the record says so. No side said counts for both."""
    counts: tuple[SideOrBoth | None, ...] = (None, "both", side.value)
    told = [
        item
        for item in case.exam.intake.history
        if item.kind == "sprain" and item.region == "ankle" and item.side in counts
    ]
    return sum(1 if item.count is None else item.count for item in told), told[0].at if told else ""


def both_ankles_sprained(case: Case) -> bool:
    return all(sprains_before(case, side)[0] for side in SIDES)
