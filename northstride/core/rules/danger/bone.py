"""A1, A1b and A1d: which bone answers to being shaken, or hurts after an injury. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Next, Question, Reason, Strength, Urgency
from northstride.core.norms import limits
from northstride.core.norms.limit import with_limits
from northstride.core.rules.onset import SUDDEN_OR_GRADUAL, kind_unknown, sudden
from northstride.core.rules.pain import hurts_at
from northstride.core.rules.palpation import STEPS, palpated_at, tender_points
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("bone_and_blood")
SQUEEZE = "ankle.squeeze"
PERCUSSION = "ankle.percussion"
SHAKING = (PERCUSSION, "ankle.tuning_fork", "ankle.bump")
SPRING = "ankle.fibula_spring"
UPPER_LEG = frozenset({"hip", "groin", "thigh"})
STIELL = ("Stiell 1995",)
KNEE_SAME_DAY = with_limits("From {bone_and_blood.knee_age_from} on a knee injury is seen the same day.")
NO_STEPS = with_limits("A sudden injury, and {danger.steps_to_take:word} steps are not possible.")

BONE_OF_POINT = {
    "lateral_malleolus_posterior": "fibula",
    "fibular_head": "fibula",
    "fibula_shaft": "fibula",
    "medial_malleolus_posterior": "tibia",
    "tibia_shaft": "tibia",
    "calcaneus": "calcaneus",
    "anterior_process": "calcaneus",
    "talar_dome": "talus",
    "fifth_metatarsal_base": "metatarsal",
    "metatarsal_shaft": "metatarsal",
    "navicular": "navicular",
}


def _shaken(case: Case, side: Side) -> dict[str, list[Entry]]:
    """Positive percussion, fork, bump and spring by bone."""
    found: dict[str, list[Entry]] = {}
    for test in (*SHAKING, SPRING):
        for entry in case.entries(test, side):
            bone = "fibula" if test == SPRING else entry.value("bone", side)
            if answers_when_shaken(entry, side) and isinstance(bone, str):
                found.setdefault(bone, []).append(entry)
    return found


def answers_when_shaken(entry: Entry, side: Side) -> bool:
    """Positive as written, or a bone that grates or gives when sprung."""
    if entry.value("result", side) == "positive":
        return True
    signs = ("crepitus", "excess_motion") if entry.test == SPRING else ()
    return any(entry.value(sign, side) is True for sign in signs)


def bone_shaken(case: Case) -> Iterator[Finding]:
    """A1: one positive possible; two, or one with squeeze pain under the hand, likely."""
    for side in SIDES:
        for bone, entries in _shaken(case, side).items():
            two = len(entries) >= LIMIT["shaken_likely_from"] or hurts_at(
                case.entry(SQUEEZE, side), "under_hand"
            )
            strength = Strength.LIKELY if two else Strength.POSSIBLE
            says = f"The {bone.replace('_', ' ')} answers to being shaken."
            because = Reason(entries[0].at, "A1", says)
            test = entries[0].test
            yield Finding(f"fracture.{bone}", side, strength, because, test, urgency=Urgency.SAME_DAY)


def bone_not_named(case: Case) -> Iterator[GateRaised | Next]:
    """A1: a bone answered and nobody wrote which: held until it is named."""
    for side in SIDES:
        for test in SHAKING:
            entry = case.entry(test, side)
            if entry is not None and answers_when_shaken(entry, side):
                yield GateRaised("fracture_doubt", side, until_answered=True)
                yield Next(test, side, "A bone answered: write which one.", "A1")


def injured_bone(
    bone: str, side: Side | None, strength: Strength, because: Reason, urgency: Urgency
) -> Finding:
    return Finding(f"fracture.{bone}", side, strength, because, urgency=urgency)


def _medial_or_high_signs(case: Case, side: Side) -> bool:
    """Medial pain or tenderness, or a sign of the syndesmosis: the break may be high."""
    points = tender_points(case, side)
    complaint = case.complaint
    told = complaint is not None and "medial" in complaint.sites and side in case.sides_of_complaint
    pains = {e.pain.site for e in case.current_entries if e.side is side and e.pain and e.pain.present}
    loose = any(
        (grade := case.on(side).grade(test, measure)) is not None and grade >= limit
        for test, measure, limit in (
            ("ankle.cotton", "laxity", 1),
            ("ankle.fibular_glide", "laxity", 1),
            ("ankle.play.fibula", "grade", 4),
        )
    )
    sore = {"medial", "above_lateral_malleolus"} & pains
    return bool(told or sore or loose or points & {"deltoid", "medial_malleolus_posterior", "syndesmosis"})


def tender_after_injury(case: Case) -> Iterator[Finding]:
    """A1b and A1d: bony points tender after a sudden injury."""
    if not sudden(case):
        return
    possible = Strength.POSSIBLE
    for side in SIDES:
        points, at = tender_points(case, side), palpated_at(case, side)
        if points & {"fibular_head", "fibula_shaft"}:
            strength = Strength.LIKELY if _medial_or_high_signs(case, side) else possible
            because = Reason(at, "A1b", "The fibula is tender high up: look at the whole leg.")
            yield injured_bone("fibula", side, strength, because, Urgency.SAME_DAY)
        for point in sorted(points & {"anterior_process", "talar_dome"}):
            because = Reason(at, "A1b", f"The {point.replace('_', ' ')} is tender after a sudden injury.")
            yield injured_bone(BONE_OF_POINT[point], side, possible, because, Urgency.REFER)
        for point in sorted(points & {"calcaneus", "tibia_shaft", "metatarsal_shaft"}):
            because = Reason(at, "A1d", f"The {point.replace('_', ' ')} is tender after a sudden injury.")
            yield injured_bone(BONE_OF_POINT[point], side, possible, because, Urgency.SAME_DAY)


def _cannot_step(case: Case, side: Side, *, then_too: bool) -> bool:
    leg = case.on(side)
    return leg.chose(STEPS, "now", "no") and (not then_too or leg.chose(STEPS, "after_injury", "no"))


def unable_after_injury(case: Case) -> Iterator[Finding]:
    """A1d: four steps not possible after a sudden injury of hip, groin, thigh or leg."""
    complaint = case.complaint
    if not sudden(case) or complaint is None:
        return
    for side in SIDES:
        if complaint.region in UPPER_LEG and _cannot_step(case, side, then_too=False):
            because = Reason(palpated_at(case, side), "A1d", NO_STEPS)
            yield injured_bone("femur", side, Strength.POSSIBLE, because, Urgency.SAME_DAY)
        if complaint.region == "leg" and _cannot_step(case, side, then_too=True):
            because = Reason(palpated_at(case, side), "A1d", "Four steps were not possible then or now.")
            yield injured_bone("tibia", side, Strength.POSSIBLE, because, Urgency.SAME_DAY)


def knee_after_injury(case: Case) -> Iterator[Finding]:
    """A1d: the knee rule (Stiell 1995): no steps, a tender fibular head, or 55 and older."""
    if not sudden(case) or not _knee_complaint(case):
        return
    found: list[tuple[Side | None, str, str]] = []
    for side in SIDES:
        if _cannot_step(case, side, then_too=True):
            found.append((side, palpated_at(case, side), "Four steps were not possible then or now."))
        if "fibular_head" in tender_points(case, side):
            found.append((side, palpated_at(case, side), "The fibular head is tender."))
    if case.age is not None and case.age >= LIMIT["knee_age_from"]:
        found += [
            (side, "intake.complaint", f"A knee injury at {case.age}.") for side in case.complaint_sides
        ]
    for place, at, says in found:
        yield Finding(
            "fracture.knee",
            place,
            Strength.POSSIBLE,
            Reason(at, "A1d", says),
            sources=STIELL,
            urgency=Urgency.SAME_DAY,
        )


def _knee_complaint(case: Case) -> bool:
    return case.complaint is not None and case.complaint.region == "knee"


def injury_questions(case: Case) -> Iterator[Question]:
    """U1, A1d: what the story lacks where an injury would mean a break."""
    if sudden(case) and _knee_complaint(case) and case.age is None:
        yield Question("birth_date", KNEE_SAME_DAY)
    if kind_unknown(case) and not sudden(case) and _an_injury_would_show(case):
        yield Question("onset.kind", SUDDEN_OR_GRADUAL)


def _an_injury_would_show(case: Case) -> bool:
    """Whether A1d would read a break, had it begun suddenly."""
    if case.complaint is None:
        return False
    region = case.complaint.region
    if region == "knee" and (case.age is None or case.age >= LIMIT["knee_age_from"]):
        return True
    then_too = region not in UPPER_LEG
    known = region in (*UPPER_LEG, "leg", "knee")
    return known and any(_cannot_step(case, side, then_too=then_too) for side in SIDES)
