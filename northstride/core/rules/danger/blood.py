"""A12 and A13: clot, circulation and compartment. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import History
from northstride.core.examination.case import Case
from northstride.core.examination.scoring import scored
from northstride.core.findings import Finding, GateRaised, Next, Reason, Strength, Urgency
from northstride.core.measuring.measurement import less_than
from northstride.core.norms import limits
from northstride.core.rules.onset import (
    LOOK,
    PULSES,
    cold,
    fresh,
    pulses,
    short_of_blood_if_injured,
    slow_to_refill,
)
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("bone_and_blood")

CLOT, COMPARTMENT = "leg.clot", "leg.compartment"
SIGN, CALF_ITEMS = "dorsiflexion_calf_pain", ("calf_hot_or_red", "whole_leg_swollen")
CALF_SITES = frozenset({"calf", "posterior_thigh"})
WEAKER = "A pulse is weaker than on the other side."
THROMBOSIS, PERFUSION = "vascular.deep_vein_thrombosis", "vascular.perfusion"


def _item(case: Case, item: str, side: Side) -> object:
    """An item as recorded; a history that says yes is not undone by a recorded no."""
    history = case.exam.intake.history
    if item == "previous_clot" and _clot_before(case):
        return True
    if item == "bedridden_or_surgery" and any(_recent_surgery(case, entry) for entry in history):
        return True
    number = case.number(CLOT, item, side)
    return number.value if number else case.value(CLOT, item, side)


def _clot_before(case: Case) -> bool:
    return any(entry.kind == "clot" for entry in case.exam.intake.history)


def _recent_surgery(case: Case, item: History) -> bool:
    weeks = item.weeks_ago
    if weeks is None and item.date is not None:
        weeks = (case.exam.date - item.date).days / 7
    recent = weeks is not None and weeks <= LIMIT["clot_surgery_weeks_up_to"]
    return item.kind in ("surgery", "hip_replacement") and recent


def clot_points(case: Case, side: Side) -> tuple[float, list[str]]:
    """The score (Wells 2003) and what was not answered; unanswered counts 0."""
    score = case.catalogue.score(CLOT)
    if score is None:
        return 0.0, []
    found = scored(score, lambda item: _item(case, item, side))
    return found.total, [item.replace("_", " ") for item in found.open]


def clot(case: Case) -> Iterator[Finding]:
    """A12: 2 points or more likely; 1, or the dorsiflexion sign with a swollen or hot calf, possible."""
    for side in SIDES:
        entry = case.entry(CLOT, side)
        if entry is None:
            continue
        score, open_ = clot_points(case, side)
        likely = score >= LIMIT["clot_likely_from"]
        if not (likely or score == 1 or _sign_with_calf(case, side)):
            continue
        route = Urgency.SAME_DAY if case.schools["clot_route"] == "same_day" else Urgency.EMERGENCY
        against = (f"Not answered: {', '.join(open_)}.",) if open_ else ()
        yield Finding(
            THROMBOSIS,
            side,
            Strength.LIKELY if likely else Strength.POSSIBLE,
            Reason(entry.at, "A12", f"Clot score {score:g}."),
            CLOT,
            None,
            against,
            (),
            ("Wells 2003",),
            route if likely else Urgency.SAME_DAY,
        )


def _sign_with_calf(case: Case, side: Side) -> bool:
    return case.on(side).ticked(CLOT, SIGN) and _calf_shows(case, side)


def _calf_shows(case: Case, side: Side) -> bool:
    leg = case.on(side)
    return (
        any(leg.ticked(CLOT, item) for item in CALF_ITEMS)
        or "calf" in (leg.listed(LOOK, "swelling_site") or ())
        or any(not less_than(by, LIMIT["calf_larger_with_sign_from"]) for by in _larger_by(case, side))
    )


def _sign_is_open(case: Case, side: Side) -> bool:
    """One half of the sign with the calf is there, and the other was not answered: it may still be a clot."""
    signed = case.value(CLOT, SIGN, side)
    if signed is None:
        return _calf_shows(case, side)
    return signed is True and any(case.value(CLOT, item, side) is None for item in CALF_ITEMS)


def _larger_by(case: Case, side: Side) -> Iterator[float]:
    """How much larger this leg is, in mm: from the clot check, and from the girths of both sides."""
    told = case.number(CLOT, "calf_girth_difference", side)
    here, there = case.number(LOOK, "girth", side), case.number(LOOK, "girth", side.other)
    if told is not None:
        yield told.value
    if here is not None and there is not None:
        yield here.value - there.value


def clot_gate(case: Case) -> Iterator[GateRaised | Next]:
    """A12: any clot flag holds the calf; where a clot is thinkable the check is asked before all else."""
    for finding in clot(case):
        if finding.side is not None:
            yield GateRaised("clot_doubt", finding.side)
    for side in SIDES:
        if case.entry(CLOT, side) is not None:
            sign_open = _sign_is_open(case, side)
            if sign_open:
                yield GateRaised("clot_doubt", side, until_answered=True)
            if sign_open or clot_points(case, side)[1]:
                yield Next(CLOT, side, "Items of the clot check are not answered.", "A12")
        elif _clot_before(case) and side in case.sides_of_complaint and case.has_complaint:
            # It would be a flag, had the check been begun.
            yield GateRaised("clot_doubt", side, until_answered=True)
            yield Next(CLOT, side, "There was a clot before: the clot check comes first.", "A12")
        elif _clot_is_thinkable(case, side):
            yield Next(CLOT, side, "A clot is thinkable here: the clot check comes first.", "A12")


def _clot_is_thinkable(case: Case, side: Side) -> bool:
    """A complaint of leg, calf or back of the thigh; a swollen calf; anything in a leg lately operated."""
    complaint = case.complaint
    here = complaint is not None and case.has_complaint and side in case.sides_of_complaint
    told = complaint is not None and (complaint.region == "leg" or bool(CALF_SITES & {*complaint.sites}))
    sites = case.on(side).listed(LOOK, "swelling_site") or ()
    amount = case.on(side).grade(LOOK, "swelling")
    swollen = bool(sites) or bool(amount) or (here and "swelling" in case.exam.intake.symptoms)
    return (here and told) or "calf" in sites or ((here or swollen) and _operated(case, side))


def _operated(case: Case, side: Side) -> bool:
    """Surgery or replacement within twelve weeks, or nobody knows when, on this leg or nobody knows which."""
    lately = (
        item
        for item in case.exam.intake.history
        if item.side in (side, "both", None) and item.kind in ("surgery", "hip_replacement")
    )
    return any(
        (item.weeks_ago is None and item.date is None) or _recent_surgery(case, item) for item in lately
    )


def no_blood(case: Case) -> Iterator[Finding]:
    """A13: no pulse in a cold foot at any time; pulse, skin and refill after a fresh injury."""
    for side in SIDES:
        entry = case.entry(PULSES, side)
        if entry is None:
            continue
        missing = "absent" in pulses(case, side)
        if missing and (cold(case, side) or slow_to_refill(case, side)):
            because = Reason(entry.at, "A13", "No pulse, and the foot is cold, pale or slow to refill.")
            yield Finding(PERFUSION, side, Strength.STRONG, because, PULSES, urgency=Urgency.EMERGENCY)
        elif fresh(case) and short_of_blood_if_injured(case, side):
            because = Reason(entry.at, "A13", "Too little blood reaches the foot after this injury.")
            yield Finding(PERFUSION, side, Strength.STRONG, because, PULSES, urgency=Urgency.EMERGENCY)
        elif missing or _weaker_than_other(case, side):
            says = "A pulse is missing in a foot that is not cold." if missing else WEAKER
            because = Reason(entry.at, "A13", says)
            yield Finding(PERFUSION, side, Strength.POSSIBLE, because, PULSES, urgency=Urgency.REFER)


def _weaker_than_other(case: Case, side: Side) -> bool:
    return any(
        pair == ("weak", "strong") for pair in zip(pulses(case, side), pulses(case, side.other), strict=True)
    )


def skin_and_refill_asked(case: Case) -> Iterator[Next]:
    """A13: a missing pulse says how much only beside skin and refill."""
    for side in SIDES:
        known = case.value(PULSES, "skin", side) is not None and case.number(PULSES, "refill", side)
        if "absent" in pulses(case, side) and not known and not cold(case, side):
            yield Next(PULSES, side, "A pulse is missing: write skin and refill.", "A13")


def tense_leg(case: Case) -> Iterator[Finding]:
    """A13: a tense leg or pain on stretching the toes, whenever."""
    for side in SIDES:
        entry = case.entry(COMPARTMENT, side)
        signs = [case.value(COMPARTMENT, sign, side) for sign in ("tense", "stretch_pain")]
        if entry is not None and True in signs:
            because = Reason(entry.at, "A13", "A tense leg, or stretching the toes hurts out of proportion.")
            yield Finding(
                "vascular.compartment",
                side,
                Strength.LIKELY,
                because,
                COMPARTMENT,
                urgency=Urgency.EMERGENCY,
            )
