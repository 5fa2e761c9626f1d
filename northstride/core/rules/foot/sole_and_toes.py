"""F4, F6 to F10, F12: toes, sole and heel."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Question, Reason, Strength, Urgency
from northstride.core.rules.ankle.laxity import by_grade
from northstride.core.rules.ankle.nerve import FIELDS, TUNNEL_FIELDS
from northstride.core.rules.danger.bone_stress import SESAMOID, sesamoid_is_stressed
from northstride.core.rules.pain import answers, hurts
from northstride.core.rules.palpation import tender_points
from northstride.core.terms.sides import SIDES, Side

SHEAR, PLATE, GRIND = "foot.metatarsal_shear", "foot.plantar_plate", "foot.mtp_grind"
FASCIA, WINDLASS = "foot.plantar_fascia", "foot.windlass"
HEEL_SQUEEZE, SINUS, SPRING, SOLES = (
    "foot.calcaneal_squeeze",
    "foot.sinus_tarsi",
    "foot.spring_ligament",
    "foot.soles",
)
PALPATION, SENSATION = "ankle.palpation", "ankle.sensation"
PLANTAR_FASCIA = "tendon.plantar_fascia"
MORE_THAN_HEEL = frozenset(
    {"several_insertions", "psoriasis", "night_back_stiffness", "not_better_after_care"}
)


def metatarsals_shear(case: Case) -> Iterator[Finding]:
    """F4: neighbouring heads that move too much, by grade."""
    yield from by_grade(case, "instability.intermetatarsal", "F4", SHEAR)


def plantar_plate_gives(case: Case) -> Iterator[Finding]:
    """F6: a toe that is drawn up too far, by grade."""
    yield from by_grade(case, "instability.plantar_plate", "F6", PLATE)


def toe_joint_grinds(case: Case) -> Iterator[Finding]:
    """F7: grinding a toe joint is positive."""
    for side in SIDES:
        for entry in case.entries(GRIND, side):
            if entry.value("result", side) == "positive":
                because = Reason(entry.at, "F7", "Grinding the toe joint is positive.")
                yield Finding("mobility.mtp_joint", side, Strength.POSSIBLE, because, GRIND, key=entry.key)


def sesamoid_sore(case: Case) -> Iterator[Finding]:
    """F8: a sesamoid hurts when pressed; with load and night pain A1c reads it instead."""
    for side in SIDES if not sesamoid_is_stressed(case) else ():
        for entry in case.entries(SESAMOID, side):
            if hurts(entry):
                because = Reason(entry.at, "F8", "A sesamoid hurts when pressed.")
                yield Finding("tendon.sesamoid", side, Strength.POSSIBLE, because, SESAMOID, key=entry.key)


def _tender_heel(case: Case, side: Side) -> Entry | None:
    """The inner front of the heel, pressed by itself or in the palpation."""
    entry = case.entry(FASCIA, side)
    pressed = entry.pain if entry else None
    if pressed is not None and pressed.present and pressed.site in (None, "heel_medial", "heel"):
        return entry
    found = "plantar_fascia_medial" in tender_points(case, side)
    return case.entry(PALPATION, side) if found else None


def heel_in_the_morning(case: Case) -> Iterator[Finding]:
    """F9: tender inner heel and first-step pain likely; one of them, or windlass pain, possible."""
    first_step = "first_step_pain" in case.exam.intake.symptoms
    tender = {side: _tender_heel(case, side) for side in SIDES}
    both = case.complaint_sides == SIDES or None not in tender.values()
    further = both or bool(MORE_THAN_HEEL & case.exam.intake.symptoms)
    urgency = Urgency.REFER if further else None
    for side in SIDES:
        heel, windlass = tender[side], case.entry(WINDLASS, side)
        against = _heel_bone_instead(case, side)
        if heel is not None:
            strength = Strength.LIKELY if first_step else Strength.POSSIBLE
            says = "The inner heel is tender" + (", and the first steps hurt." if first_step else ".")
            yield _fascia(side, strength, heel.at, says, heel.test, against, urgency)
        if windlass is not None and (hurts(windlass) or windlass.value("result", side) == "positive"):
            says = "Drawing the big toe up in standing hurts."
            yield _fascia(side, Strength.POSSIBLE, windlass.at, says, WINDLASS, against, urgency)
    if first_step:
        yield from _first_steps(case, tender, urgency)


def _first_steps(case: Case, tender: dict[Side, Entry | None], urgency: Urgency | None) -> Iterator[Finding]:
    """The story alone, on the complaint's side; without a side only where no heel was tender."""
    for side in case.complaint_sides:
        if side is not None or not any(tender.values()):
            against = _heel_bone_instead(case, side) if side else ()
            says = "The first steps hurt."
            yield _fascia(side, Strength.POSSIBLE, "intake.symptoms", says, None, against, urgency)


def _fascia(
    side: Side | None,
    strength: Strength,
    at: str,
    says: str,
    test: str | None,
    against: tuple[str, ...],
    urgency: Urgency | None,
) -> Finding:
    because = Reason(at, "F9", says)
    return Finding(PLANTAR_FASCIA, side, strength, because, test, None, against, urgency=urgency)


def _heel_bone_instead(case: Case, side: Side) -> tuple[str, ...]:
    sore = answers(case, HEEL_SQUEEZE, side)
    return ("Pressing the heel bone from both sides hurts: think of the bone.",) if sore else ()


def sinus_tarsi_sore(case: Case) -> Iterator[Finding]:
    """F10: the hollow in front of the outer ankle is tender."""
    for side in SIDES:
        entry = _pressed_sore(case, SINUS, "sinus_tarsi", side)
        if entry is not None:
            because = Reason(entry.at, "F10", "The sinus tarsi is tender.")
            yield Finding("impingement.sinus_tarsi", side, Strength.POSSIBLE, because, entry.test)


def spring_ligament_sore(case: Case) -> Iterator[Finding]:
    """F10: the spring ligament is tender."""
    for side in SIDES:
        entry = _pressed_sore(case, SPRING, "spring_ligament", side)
        if entry is not None:
            because = Reason(entry.at, "F10", "The spring ligament is tender.")
            yield Finding("sprain.spring_ligament", side, Strength.POSSIBLE, because, entry.test)


def _pressed_sore(case: Case, test: str, point: str, side: Side) -> Entry | None:
    own = case.entry(test, side)
    if hurts(own):
        return own
    return case.entry(PALPATION, side) if point in tender_points(case, side) else None


def sole_is_open(case: Case) -> Iterator[Finding]:
    """F12: skin break or infection of the sole; in a numb foot the same day."""
    for side in SIDES:
        entry = case.entry(SOLES, side)
        found = [
            name.replace("_", " ")
            for name in ("skin_break", "infection")
            if case.on(side).ticked(SOLES, name)
        ]
        if entry is not None and found:
            numb = _numb(case, side)
            says = f"The sole shows {' and '.join(found)}" + (", in a numb foot." if numb else ".")
            because = Reason(entry.at, "F12", says)
            urgency = Urgency.SAME_DAY if numb else Urgency.REFER
            yield Finding("danger.foot_skin", side, Strength.LIKELY, because, SOLES, urgency=urgency)


def numbness_question(case: Case) -> Iterator[Question]:
    """F12: an open sole in a numb foot is seen the same day."""
    for finding in sole_is_open(case):
        known = case.answered("numbness") or (
            finding.side is not None and case.entry(SENSATION, finding.side) is not None
        )
        if finding.urgency is Urgency.REFER and not known:
            yield Question("symptoms.numbness", "In a numb foot an open sole is seen the same day.")


def _numb(case: Case, side: Side) -> bool:
    """Told, or found in any field or with the monofilament on this side."""
    if "numbness" in case.exam.intake.symptoms or "lost_sensation" in case.exam.intake.confounders:
        return True
    fields = (*FIELDS, *TUNNEL_FIELDS)
    less = any(case.on(side).chose(SENSATION, field, "less", "absent") for field in fields)
    return less or case.on(side).chose(SENSATION, "monofilament", "not_felt")
