"""A0 to A1d: what may be broken, asked before anything is loaded. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from northstride.core.case import Case
from northstride.core.examination import Entry
from northstride.core.findings import Finding, GateRaised, Next, Reason, RuledDown, Strength, Urgency
from northstride.core.norms import limits
from northstride.core.rules.onset import days_since_onset, fresh, sudden
from northstride.core.rules.pain import hurts, hurts_at
from northstride.core.sides import SIDES, Side

LIMIT = limits("bone_and_blood")

PALPATION, STEPS, SQUEEZE = "ankle.palpation", "ankle.weight_bearing", "ankle.squeeze"
PERCUSSION = "ankle.percussion"
SHAKING = (PERCUSSION, "ankle.tuning_fork", "ankle.bump")
SPRING, HOP = "ankle.fibula_spring", "ankle.hop"
LOWER_LEG = frozenset({"ankle", "foot", "leg"})
UPPER_LEG = frozenset({"hip", "groin", "thigh"})
CONFOUNDERS = frozenset({"lost_sensation", "intoxication", "other_painful_injury"})
LATE = "More than ten days after the injury: the rule was made for fresh ones."
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
# Bone stress at these places is seen the same day, elsewhere it is referred.
RISKY_POINTS = frozenset({"navicular", "tibia_shaft", "fifth_metatarsal_base"})
RISKY_BONES = frozenset({"femur", "femoral_neck", "navicular"})
# Places of pain that lie on one bone.
BONE_OF_SITE = {
    "fibula_shaft": "fibula",
    "fibular_head": "fibula",
    "tibia_shaft": "tibia",
    "heel": "calcaneus",
    "navicular": "navicular",
    "fifth_metatarsal_base": "metatarsal",
}


def tender_points(case: Case, side: Side) -> frozenset[str]:
    tender = case.value(PALPATION, "tender", side)
    return frozenset(tender) if isinstance(tender, tuple) else frozenset()


def _pressed(case: Case, side: Side, points: frozenset[str]) -> bool:
    """Whether all these points were pressed and the answer was written down."""
    tender, pressed = case.value(PALPATION, "tender", side), case.value(PALPATION, "pressed", side)
    if not isinstance(tender, tuple):
        return False
    return pressed is None or (isinstance(pressed, tuple) and points <= {*pressed, *tender})


def _steps(case: Case, side: Side) -> tuple[object, object]:
    return case.value(STEPS, "after_injury", side), case.value(STEPS, "now", side)


def _in_pain(case: Case, zone: Zone, side: Side) -> bool:
    complaint = case.exam.intake.complaint
    told = complaint is not None and (
        complaint.region == zone.region or bool(zone.sites & {*complaint.sites})
    )
    here = side in case.complaint_sides or case.complaint_sides == (None,)
    return (told and here) or bool(zone.points & tender_points(case, side))


def _positive(case: Case, zone: Zone, side: Side) -> str | None:
    """Why the rule is positive, or None."""
    if not _in_pain(case, zone, side):
        return None
    tender = zone.points & tender_points(case, side)
    if tender:
        return f"Tender at the {' and '.join(sorted(tender)).replace('_', ' ')}."
    return "Could not take four steps then or now." if _steps(case, side) == ("no", "no") else None


def _uncertain(case: Case) -> bool:
    young = case.age is not None and case.age < LIMIT["rule_age_from"]
    return young or bool(CONFOUNDERS & case.exam.intake.confounders)


def _at(case: Case, side: Side) -> str:
    entry = case.entry(PALPATION, side) or case.entry(STEPS, side)
    return entry.at if entry else "intake.complaint"


def fracture_rule(case: Case) -> Iterator[Finding]:
    """A0: the fracture rule of ankle and midfoot (Bachmann 2003)."""
    days = days_since_onset(case)
    against = (LATE,) if days is not None and days > LIMIT["fresh_days_up_to"] else ()
    for zone in ZONES:
        for side in SIDES:
            why = _positive(case, zone, side)
            strength = Strength.LIKELY
            if why is None and _uncertain(case) and _in_pain(case, zone, side):
                strength, why = Strength.POSSIBLE, "Pain here, and the rule cannot be trusted in this case."
            if why is not None:
                because = Reason(_at(case, side), "A0", why)
                yield Finding(
                    zone.code, side, strength, because, None, None, against, (), SOURCE, Urgency.SAME_DAY
                )


def fracture_cleared(case: Case) -> Iterator[RuledDown]:
    """A0: all questions answered, none positive, nothing that makes the rule unsafe."""
    for zone in ZONES:
        for side in SIDES:
            answered = None not in _steps(case, side) and _pressed(case, side, zone.points)
            if answered and not _uncertain(case) and _positive(case, zone, side) is None:
                says = "Bone not tender and four steps taken."
                yield RuledDown(zone.code, side, (Reason(_at(case, side), "A0", says),))


def fracture_questions(case: Case) -> Iterator[GateRaised | Next]:
    """A0: a fresh injury of ankle, foot or leg holds until every question is answered."""
    complaint = case.exam.intake.complaint
    if complaint is None or complaint.region not in LOWER_LEG or not fresh(case):
        return
    points = frozenset().union(*(zone.points for zone in ZONES))
    for side in [side for side in case.complaint_sides if side] or SIDES:
        steps, pressed = None not in _steps(case, side), _pressed(case, side, points)
        if not steps:
            yield Next(STEPS, side, "Fresh injury: four steps then and now come first.")
        if not pressed:
            yield Next(PALPATION, side, "Fresh injury: press the bone before anything is loaded.")
        if not (steps and pressed):
            yield GateRaised("fracture_doubt", side, until_answered=True)


def _shaken(case: Case, side: Side) -> dict[str, list[Entry]]:
    """Positive percussion, fork, bump and spring by bone."""
    found: dict[str, list[Entry]] = {}
    for test in (*SHAKING, SPRING):
        for entry in case.entries(test, side):
            bone = "fibula" if test == SPRING else entry.value("bone", side)
            if _is_positive(entry, side) and isinstance(bone, str):
                found.setdefault(bone, []).append(entry)
    return found


def _is_positive(entry: Entry, side: Side) -> bool:
    """Positive as written, or a bone that grates or gives when sprung."""
    if entry.value("result", side) == "positive":
        return True
    signs = ("crepitus", "excess_motion") if entry.test == SPRING else ()
    return any(entry.value(sign, side) is True for sign in signs)


def bone_shaken(case: Case) -> Iterator[Finding]:
    """A1: one positive possible; two, or one with squeeze pain under the hand, likely."""
    for side in SIDES:
        for bone, entries in _shaken(case, side).items():
            two = len(entries) >= 2 or hurts_at(case.entry(SQUEEZE, side), "under_hand")
            strength = Strength.LIKELY if two else Strength.POSSIBLE
            says = f"The {bone.replace('_', ' ')} answers to being shaken."
            because = Reason(entries[0].at, "A1", says)
            test = entries[0].test
            yield Finding(f"fracture.{bone}", side, strength, because, test, urgency=Urgency.SAME_DAY)


def _injured_bone(
    case: Case, bone: str, side: Side, strength: Strength, rule: str, says: str, urgency: Urgency
) -> Finding:
    return Finding(f"fracture.{bone}", side, strength, Reason(_at(case, side), rule, says), urgency=urgency)


def _medial_or_high_signs(case: Case, side: Side) -> bool:
    """Medial pain or tenderness, or a sign of the syndesmosis: the break may be high."""
    points = tender_points(case, side)
    complaint = case.exam.intake.complaint
    told = complaint is not None and "medial" in complaint.sites and side in case.complaint_sides
    pains = {e.pain.site for e in case.current_entries if e.side is side and e.pain and e.pain.present}
    loose = any(
        isinstance(grade := case.value(test, measure, side), int) and grade >= limit
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
    same_day, refer = Urgency.SAME_DAY, Urgency.REFER
    for side in SIDES:
        points = tender_points(case, side)
        if points & {"fibular_head", "fibula_shaft"}:
            high = _medial_or_high_signs(case, side)
            strength = Strength.LIKELY if high else Strength.POSSIBLE
            says = "The fibula is tender high up: look at the whole leg."
            yield _injured_bone(case, "fibula", side, strength, "A1b", says, same_day)
        for point in sorted(points & {"anterior_process", "talar_dome"}):
            says = f"The {point.replace('_', ' ')} is tender after a sudden injury."
            yield _injured_bone(case, BONE_OF_POINT[point], side, Strength.POSSIBLE, "A1b", says, refer)
        for point in sorted(points & {"calcaneus", "tibia_shaft", "metatarsal_shaft"}):
            says = f"The {point.replace('_', ' ')} is tender after a sudden injury."
            yield _injured_bone(case, BONE_OF_POINT[point], side, Strength.POSSIBLE, "A1d", says, same_day)


def femur_after_injury(case: Case) -> Iterator[Finding]:
    """A1d: a sudden hip, groin or thigh injury, and four steps are not possible now."""
    complaint = case.exam.intake.complaint
    if not sudden(case) or complaint is None or complaint.region not in UPPER_LEG:
        return
    for side in SIDES:
        if case.value(STEPS, "now", side) == "no":
            says = "A sudden injury, and four steps are not possible."
            yield _injured_bone(case, "femur", side, Strength.POSSIBLE, "A1d", says, Urgency.SAME_DAY)


def bone_stress(case: Case) -> Iterator[Finding]:
    """A1c: gradual onset, a load change, and a bone that hurts; night or hop pain says more."""
    onset = case.exam.intake.onset
    if onset is None or onset.kind != "gradual" or not case.exam.intake.load_change:
        return
    for side in SIDES:
        worse = hurts(case.entry(HOP, side)) or "night_pain" in case.exam.intake.symptoms
        strength = Strength.LIKELY if worse else Strength.POSSIBLE
        for bone, risky in _sore_bones(case, side).items():
            urgency = Urgency.SAME_DAY if risky else Urgency.REFER
            says = f"Load went up, and the {bone.replace('_', ' ')} hurts."
            yield _injured_bone(case, bone, side, strength, "A1c", says, urgency)


def _sore_bones(case: Case, side: Side) -> dict[str, bool]:
    """Bones that hurt, and whether the place is a risky one."""
    sore: dict[str, bool] = {}
    for point in sorted(tender_points(case, side)):
        bone = BONE_OF_POINT.get(point)
        if bone is not None:
            sore[bone] = sore.get(bone, False) or point in RISKY_POINTS
    for bone in (*_shaken(case, side), *_sore_when_tapped(case, side)):
        sore.setdefault(bone, bone in RISKY_BONES)
    if _answers(case, "foot.calcaneal_squeeze", side):
        sore.setdefault("calcaneus", False)
    if _answers(case, "hip.fulcrum", side):
        sore["femur"] = True
    hop = case.entry(HOP, side)
    site = hop.pain.site if hop and hop.pain and hop.pain.present else None
    if site in BONE_OF_SITE:
        sore[BONE_OF_SITE[site]] = sore.get(BONE_OF_SITE[site], False) or site in RISKY_POINTS
    return sore


def _answers(case: Case, test: str, side: Side) -> bool:
    return case.value(test, "result", side) == "positive" or hurts(case.entry(test, side))


def _sore_when_tapped(case: Case, side: Side) -> Iterator[str]:
    for entry in case.entries(PERCUSSION, side):
        bone = entry.value("bone", side)
        if hurts(entry) and isinstance(bone, str):
            yield bone


def bone_clear(case: Case, side: Side) -> bool:
    """No sign of a break on this side, and in a fresh injury every question answered."""
    signs = (fracture_rule, bone_shaken, tender_after_injury, bone_stress)
    flagged = any(finding.side is side for rule in signs for finding in rule(case))
    asked = any(isinstance(item, GateRaised) and item.side is side for item in fracture_questions(case))
    return not flagged and not asked
