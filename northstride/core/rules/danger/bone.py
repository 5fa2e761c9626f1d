"""A1 to A1d: which bone answers to being shaken, pressed or loaded. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Next, Reason, Strength, Urgency
from northstride.core.norms import limits
from northstride.core.rules.danger.fracture_rule import fracture_questions, fracture_rule
from northstride.core.rules.onset import sudden
from northstride.core.rules.pain import HOPS, answers, hurts, hurts_at
from northstride.core.rules.palpation import STEPS, palpated_at, tender_points
from northstride.core.sides import SIDES, Side

LIMIT = limits("bone_and_blood")
SQUEEZE = "ankle.squeeze"
PERCUSSION = "ankle.percussion"
SHAKING = (PERCUSSION, "ankle.tuning_fork", "ankle.bump")
SPRING = "ankle.fibula_spring"
UPPER_LEG = frozenset({"hip", "groin", "thigh"})


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
# A tap along the tibia is a tap on its shaft.
RISKY_BONES = frozenset({"femur", "femoral_neck", "navicular", "tibia"})
# Places of pain that lie on one bone.
BONE_OF_SITE = {
    "fibula_shaft": "fibula",
    "fibular_head": "fibula",
    "tibia_shaft": "tibia",
    "heel": "calcaneus",
    "navicular": "navicular",
    "fifth_metatarsal_base": "metatarsal",
    "groin": "femoral_neck",
}
NIGHT = "night_pain"
NIGHT_UNRELIEVED = "night_pain_unrelieved"


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
            if entry is not None and _is_positive(entry, side):
                yield GateRaised("fracture_doubt", side, until_answered=True)
                yield Next(test, side, "A bone answered: write which one.")


def _injured_bone(
    case: Case, bone: str, side: Side, strength: Strength, rule: str, says: str, urgency: Urgency
) -> Finding:
    return Finding(
        f"fracture.{bone}", side, strength, Reason(palpated_at(case, side), rule, says), urgency=urgency
    )


def _medial_or_high_signs(case: Case, side: Side) -> bool:
    """Medial pain or tenderness, or a sign of the syndesmosis: the break may be high."""
    points = tender_points(case, side)
    complaint = case.exam.intake.complaint
    here = side in case.complaint_sides or case.complaint_sides == (None,)
    told = complaint is not None and "medial" in complaint.sites and here
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
        if case.on(side).chose(STEPS, "now", "no"):
            says = "A sudden injury, and four steps are not possible."
            yield _injured_bone(case, "femur", side, Strength.POSSIBLE, "A1d", says, Urgency.SAME_DAY)


def bone_stress(case: Case) -> Iterator[Finding]:
    """A1c: gradual onset, a load change, and a bone that hurts; night or hop pain says more."""
    onset = case.exam.intake.onset
    if onset is None or onset.kind != "gradual" or not case.exam.intake.load_change:
        return
    for side in SIDES:
        worse = _hurts_at_night(case) or any(hurts(case.entry(hop, side)) for hop in HOPS)
        strength = Strength.LIKELY if worse else Strength.POSSIBLE
        for bone, risky in _sore_bones(case, side).items():
            urgency = Urgency.SAME_DAY if risky else Urgency.REFER
            says = f"Load went up, and the {bone.replace('_', ' ')} hurts."
            yield _injured_bone(case, bone, side, strength, "A1c", says, urgency)


def _hurts_at_night(case: Case) -> bool:
    intake = case.exam.intake
    return NIGHT in intake.symptoms or NIGHT_UNRELIEVED in intake.red_flags


def _sore_bones(case: Case, side: Side) -> dict[str, bool]:
    """Bones that hurt, and whether the place is a risky one."""
    sore: dict[str, bool] = {}

    def hurting(bone: str | None, *, risky: bool) -> None:
        if bone is not None:
            sore[bone] = sore.get(bone, False) or risky

    for point in sorted(tender_points(case, side)):
        hurting(BONE_OF_POINT.get(point), risky=point in RISKY_POINTS)
    for bone in _sore_when_tapped(case, side):
        if bone not in sore:
            hurting(bone, risky=bone in RISKY_BONES)
    if answers(case, "foot.calcaneal_squeeze", side):
        hurting("calcaneus", risky=False)
    if answers(case, "hip.fulcrum", side):
        hurting("femur", risky=True)
    for hop in HOPS:
        entry = case.entry(hop, side)
        site = entry.pain.site if entry and entry.pain and entry.pain.present else None
        hurting(BONE_OF_SITE.get(site or ""), risky=site in RISKY_POINTS or site == "groin")
    return sore


def _sore_when_tapped(case: Case, side: Side) -> Iterator[str]:
    for entry in case.entries(PERCUSSION, side):
        bone = entry.value("bone", side)
        if isinstance(bone, str) and (hurts(entry) or _is_positive(entry, side)):
            yield bone


def bone_clear(case: Case, side: Side) -> bool:
    """No sign of a break on this side, and in a fresh injury every question answered."""
    signs = (fracture_rule, bone_shaken, tender_after_injury, bone_stress)
    flagged = any(finding.side is side for rule in signs for finding in rule(case))
    asked = any(isinstance(item, GateRaised) and item.side is side for item in fracture_questions(case))
    return not flagged and not asked
