"""A0: the fracture rule of ankle and midfoot, asked before anything is loaded. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from northstride.core.examination.case import Case
from northstride.core.findings import (
    Finding,
    GateRaised,
    Next,
    Question,
    Reason,
    RuledDown,
    Strength,
    Urgency,
)
from northstride.core.norms import limits
from northstride.core.norms.limit import with_limits
from northstride.core.rules.onset import LOWER_LEG, days_since_onset, fresh, known_sudden
from northstride.core.rules.palpation import PALPATION, STEPS, palpated_at, tender_points
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("bone_and_blood")

CONFOUNDERS = frozenset({"lost_sensation", "intoxication", "other_painful_injury"})
LATE = with_limits(
    "More than {bone_and_blood.fresh_days_up_to:word} days after the injury:"
    " the rule was made for fresh ones."
)
NO_STEPS = with_limits("Could not take {danger.steps_to_take:word} steps then or now.")
STEPS_TAKEN = with_limits("Bone pressed and not tender, {danger.steps_to_take:word} steps taken")
TOO_YOUNG = with_limits("Under {bone_and_blood.rule_age_from} the fracture rule clears nothing.")
STEPS_FIRST = with_limits("Fresh injury: {danger.steps_to_take:word} steps then and now come first.")
SOURCE = ("Bachmann 2003",)


@dataclass(frozen=True, slots=True)
class Zone:
    code: str
    region: str
    sites: frozenset[str]
    points: frozenset[str]


ZONES = (
    Zone(
        "fracture.ankle",
        "ankle",
        frozenset(),
        frozenset({"lateral_malleolus_posterior", "medial_malleolus_posterior"}),
    ),
    Zone(
        "fracture.midfoot",
        "foot",
        frozenset({"midfoot", "navicular", "fifth_metatarsal_base"}),
        frozenset({"fifth_metatarsal_base", "navicular"}),
    ),
)


def _pressed(case: Case, side: Side, points: frozenset[str]) -> bool:
    """Whether all these points were pressed and the answer was written down."""
    tender, pressed = case.value(PALPATION, "tender", side), case.value(PALPATION, "pressed", side)
    if not isinstance(tender, tuple):
        return False
    return pressed is None or (isinstance(pressed, tuple) and points <= {*pressed, *tender})


def _steps(case: Case, side: Side) -> tuple[object, object]:
    return case.value(STEPS, "after_injury", side), case.value(STEPS, "now", side)


def _in_pain(case: Case, zone: Zone, side: Side) -> bool:
    complaint = case.complaint
    told = complaint is not None and (
        complaint.region == zone.region or bool(zone.sites & {*complaint.sites})
    )
    return (told and side in case.sides_of_complaint) or bool(zone.points & tender_points(case, side))


def _positive(case: Case, zone: Zone, side: Side) -> str | None:
    """Why the rule is positive, or None."""
    if not _in_pain(case, zone, side):
        return None
    tender = zone.points & tender_points(case, side)
    if tender:
        return f"Tender at the {' and '.join(sorted(tender)).replace('_', ' ')}."
    return NO_STEPS if _steps(case, side) == ("no", "no") else None


def _too_young(case: Case) -> bool:
    return case.age is not None and case.age < LIMIT["rule_age_from"]


def _uncertain(case: Case) -> bool:
    return _too_young(case) or bool(CONFOUNDERS & case.exam.intake.confounders)


def fracture_rule(case: Case) -> Iterator[Finding]:
    """A0: the fracture rule of ankle and midfoot (Bachmann 2003)."""
    days = days_since_onset(case)
    against = (LATE,) if days is not None and days > LIMIT["fresh_days_up_to"] else ()
    sources = (*SOURCE, "Dowling 2009") if _too_young(case) else SOURCE
    for zone in ZONES:
        for side in SIDES:
            why = _positive(case, zone, side)
            strength = Strength.LIKELY
            if why is None and _uncertain(case) and _in_pain(case, zone, side):
                strength, why = Strength.POSSIBLE, "Pain here, and the rule cannot be trusted in this case."
            if why is not None:
                because = Reason(palpated_at(case, side), "A0", why)
                yield Finding(
                    zone.code, side, strength, because, None, None, against, (), sources, Urgency.SAME_DAY
                )


def fracture_cleared(case: Case) -> Iterator[RuledDown]:
    """A0: only after a sudden injury, every question answered, steps taken then or now, and no tender bone.

    Not able both times clears nothing, in whatever zone the pain is.
    """
    if not known_sudden(case) or _uncertain(case):
        return
    for zone in ZONES:
        for side in SIDES:
            steps = _steps(case, side)
            stepped = None not in steps and "yes" in steps
            pressed = _pressed(case, side, zone.points)
            if stepped and pressed and _positive(case, zone, side) is None:
                taken = "then and now" if steps == ("yes", "yes") else "then" if steps[0] == "yes" else "now"
                says = f"{STEPS_TAKEN} {taken}."
                yield RuledDown(zone.code, side, (Reason(palpated_at(case, side), "A0", says),))


def small_child_question(case: Case) -> Iterator[Question]:
    """A0: under 6 the rule does not hold (Dowling 2009), so where the age is unknown it is asked."""
    sore = any(_in_pain(case, zone, side) for zone in ZONES for side in SIDES)
    if case.age is None and sore:
        yield Question("birth_date", TOO_YOUNG)


def fracture_questions(case: Case) -> Iterator[GateRaised | Next]:
    """A0: a fresh injury of ankle, foot or leg holds until every question is answered."""
    complaint = case.complaint
    if complaint is None or complaint.region not in LOWER_LEG or not fresh(case):
        return
    points = frozenset().union(*(zone.points for zone in ZONES))
    for side in case.sides_of_complaint:
        steps, pressed = None not in _steps(case, side), _pressed(case, side, points)
        if not steps:
            yield Next(STEPS, side, STEPS_FIRST, "A0")
        if not pressed:
            yield Next(PALPATION, side, "Fresh injury: press the bone before anything is loaded.", "A0")
        if not (steps and pressed):
            yield GateRaised("fracture_doubt", side, until_answered=True)
