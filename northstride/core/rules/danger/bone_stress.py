"""A1c and H15: a bone that hurts from load, and a growing bone at a tendon's end. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Question, Reason, Strength, Urgency
from northstride.core.norms import limits
from northstride.core.norms.limit import with_limits
from northstride.core.rules.danger.bone import (
    BONE_OF_POINT,
    PERCUSSION,
    answers_when_shaken,
    bone_shaken,
    knee_after_injury,
    tender_after_injury,
    unable_after_injury,
)
from northstride.core.rules.danger.fracture_rule import fracture_questions, fracture_rule
from northstride.core.rules.danger.story import FULCRUM, GROIN, ROTATIONS
from northstride.core.rules.load import as_if_load_went_up, at_most_possible_unasked, load_unknown
from northstride.core.rules.onset import SUDDEN_OR_GRADUAL, gradual, kind_unknown, sudden
from northstride.core.rules.pain import HOPS, answers, hurts, hurts_at
from northstride.core.rules.palpation import palpated_at, tender_hip, tender_points
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("bone_and_blood")
SESAMOID = "foot.sesamoid"
INNER_EDGE, SHAFT = "tibia_inner_edge", "tibia_shaft"
# Places where a stress fracture may not heal (after Boden & Osbahr 2000): seen the same day.
RISKY_POINTS = frozenset({"navicular", "medial_malleolus_posterior", "talar_dome", "fifth_metatarsal_base"})
RISKY_BONES = frozenset({"navicular", "talus", "femur", "femoral_neck"})
BODEN = ("Boden & Osbahr 2000",)
MAY_BE_PULLED_OFF = with_limits(
    "From {bone_and_blood.apophysis_age_from} to {bone_and_blood.apophysis_age_to} the tendon may have pulled"
    " off a piece of bone."
)
THIGH_SITES = ("anterior_thigh", "lateral_thigh")
# Places of pain that lie on one bone.
BONE_OF_SITE = {
    "fibula_shaft": "fibula",
    "fibular_head": "fibula",
    "tibia_shaft": "tibia",
    "heel": "calcaneus",
    "navicular": "navicular",
    "fifth_metatarsal_base": "metatarsal",
    "groin": "femoral_neck",
    **dict.fromkeys(THIGH_SITES, "femur"),
}
RISKY_SITES = frozenset({"navicular", "fifth_metatarsal_base", "groin", *THIGH_SITES})
NIGHT, NIGHT_UNRELIEVED = "night_pain", "night_pain_unrelieved"
# Where a tendon pulls at a growing bone.
APOPHYSES = ("asis", "iliac_crest", "lesser_trochanter", "ischial_tuberosity")
APOPHYSIS = "fracture.apophysis"
EVERYTHING = ("*",)


@dataclass(frozen=True, slots=True)
class Sore:
    """A bone that hurts. Stress is seen the same day at a `risky` place, at the tibia's `shaft` if likely."""

    risky: bool = False
    shaft: bool = False

    def also(self, other: Sore) -> Sore:
        return Sore(self.risky or other.risky, self.shaft or other.shaft)


def bone_stress(case: Case) -> Iterator[Finding]:
    """A1c: gradual onset, a load change, and a bone that hurts; night or hop pain says more."""
    if not gradual(case) or not as_if_load_went_up(case):
        return
    for side in SIDES:
        worse = _hurts_at_night(case) or any(hurts(case.entry(hop, side)) for hop in HOPS)
        strength = Strength.LIKELY if worse else Strength.POSSIBLE
        for bone, sore in _sore_bones(case, side).items():
            urgent = sore.risky or (sore.shaft and worse)
            named = bone.replace("_", " ")
            asked = "Load went up" if not load_unknown(case) else "Nobody asked whether load went up"
            yield Finding(
                f"fracture.{bone}",
                side,
                at_most_possible_unasked(case, strength),
                Reason(_sore_at(case, side), "A1c", f"{asked}, and the {named} hurts."),
                sources=BODEN,
                urgency=Urgency.SAME_DAY if urgent else Urgency.REFER,
                within_days=int(LIMIT["stress_days"]) if sore.shaft and not urgent else None,
            )


def _hurts_at_night(case: Case) -> bool:
    intake = case.exam.intake
    return NIGHT in intake.symptoms or NIGHT_UNRELIEVED in intake.red_flags


def _sore_at(case: Case, side: Side) -> str:
    """Where it stands: the palpation, else the first test that showed it."""
    shown = (PERCUSSION, "foot.calcaneal_squeeze", FULCRUM, *HOPS, *ROTATIONS)
    entries = [entry for test in shown for entry in case.entries(test, side)]
    if tender_points(case, side) or not entries:
        return palpated_at(case, side)
    return entries[0].at


def _sore_bones(case: Case, side: Side) -> dict[str, Sore]:
    """Bones that hurt. What only a tap shows counts where no point of that bone was tender."""
    sore: dict[str, Sore] = {}

    def hurting(bone: str | None, found: Sore) -> None:
        if bone is not None:
            sore[bone] = sore.get(bone, Sore()).also(found)

    for point in sorted(tender_points(case, side)):
        hurting(BONE_OF_POINT.get(point), Sore(point in RISKY_POINTS, point == SHAFT))
    for bone in _sore_when_tapped(case, side):
        if bone not in sore:
            # A tap along the tibia is a tap on its shaft.
            hurting(bone, Sore(bone in RISKY_BONES, bone == "tibia"))
    if answers(case, "foot.calcaneal_squeeze", side):
        hurting("calcaneus", Sore())
    if answers(case, FULCRUM, side) or _thigh_hurts_when_turned(case, side):
        hurting("femur", Sore(risky=True))
    for hop in HOPS:
        entry = case.entry(hop, side)
        site = entry.pain.site if entry and entry.pain and entry.pain.present else None
        hurting(BONE_OF_SITE.get(site or ""), Sore(site in RISKY_SITES, site == SHAFT))
    return sore


def _sore_when_tapped(case: Case, side: Side) -> Iterator[str]:
    for entry in case.entries(PERCUSSION, side):
        bone = entry.value("bone", side)
        if isinstance(bone, str) and (hurts(entry) or answers_when_shaken(entry, side)):
            yield bone


def _thigh_hurts_when_turned(case: Case, side: Side) -> bool:
    """Passive rotation that hurts at the front or outside of the thigh, with a complaint there."""
    complaint = case.complaint
    told = complaint is not None and bool(set(THIGH_SITES) & set(complaint.sites))
    return told and any(hurts_at(case.entry(test, side), *THIGH_SITES) for test in ROTATIONS)


def sesamoid_stress(case: Case) -> Iterator[Finding]:
    """A1c: a sore sesamoid with a load change and night pain, in place of F8."""
    for side in SIDES:
        for entry in case.entries(SESAMOID, side):
            if sesamoid_is_stressed(case) and hurts(entry):
                because = Reason(entry.at, "A1c", "A sesamoid hurts, at night too, with more load.")
                yield Finding(
                    "fracture.sesamoid",
                    side,
                    Strength.POSSIBLE,
                    because,
                    SESAMOID,
                    urgency=Urgency.REFER,
                    within_days=int(LIMIT["stress_days"]),
                    key=entry.key,
                )


def sesamoid_is_stressed(case: Case) -> bool:
    return as_if_load_went_up(case) and _hurts_at_night(case)


def shin_inner_edge(case: Case) -> Iterator[Finding]:
    """A1c: tender along the inner edge of the shin and not on its shaft (Winters 2018)."""
    for side in SIDES if gradual(case) else ():
        points = tender_points(case, side)
        if INNER_EDGE in points and SHAFT not in points:
            likely = case.exam.intake.load_change is True
            because = Reason(palpated_at(case, side), "A1c", "Tender along the inner edge of the shin.")
            yield Finding(
                "tendon.medial_tibia",
                side,
                Strength.LIKELY if likely else Strength.POSSIBLE,
                because,
                sources=("Winters 2018",),
            )


def _may_be_growing(case: Case) -> bool:
    return case.age is None or LIMIT["apophysis_age_from"] <= case.age <= LIMIT["apophysis_age_to"]


def _tender_apophyses(case: Case, side: Side) -> list[str]:
    return [point for point in APOPHYSES if tender_hip(case, point, side)]


def apophysis_pulled(case: Case) -> Iterator[Finding]:
    """H15: age 10 to 20, a tendon's bony origin tender: after an injury, or with more load."""
    if case.age is None or not _may_be_growing(case):
        return
    popped = "heard_pop" in case.exam.intake.symptoms
    for side in SIDES:
        for point in _tender_apophyses(case, side):
            entry = tender_hip(case, point, side)
            named = point.replace("_", " ")
            if entry is None:
                continue
            if sudden(case):
                says = f"The {named} is tender after an injury" + (" with a pop." if popped else ".")
                strength = Strength.LIKELY if popped else Strength.POSSIBLE
                urgency, days = Urgency.REFER, int(LIMIT["apophysis_days"])
                if popped:
                    urgency = Urgency.SAME_DAY
            elif gradual(case) and as_if_load_went_up(case):
                says, strength = f"The {named} of a growing bone is tender with more load.", Strength.POSSIBLE
                urgency, days = Urgency.REFER, 0
            else:
                continue
            yield Finding(
                APOPHYSIS,
                side,
                strength,
                Reason(entry.at, "H15", says),
                entry.test,
                urgency=urgency,
                within_days=days if days and urgency is Urgency.REFER else None,
                no_training_for=EVERYTHING,
            )


def sore_bone_questions(case: Case) -> Iterator[Question]:
    """U3: what the story lacks where a bone hurts: kind, load, night pain, age, a pop."""
    sore = (item for side in SIDES for item in _sore_bones(case, side).items())
    # With a groin complaint the neck of the femur is read whatever the kind (S5).
    bones = [bone for name, bone in sore if name != "femoral_neck" or not case.complains_of(GROIN, GROIN)]
    tender = bool([True for side in SIDES if _tender_apophyses(case, side)]) and _may_be_growing(case)
    if (bones or tender) and kind_unknown(case) and not sudden(case):
        yield Question("onset.kind", SUDDEN_OR_GRADUAL)
    inner_edge = any(True for _ in shin_inner_edge(case))
    if gradual(case) and (bones or tender or inner_edge) and load_unknown(case):
        yield Question("load_change", "With more load than before, a sore bone may be a stress fracture.")
    shaft = any(bone.shaft for bone in bones) and not _hurts_at_night(case)
    if gradual(case) and as_if_load_went_up(case) and shaft and not case.answered(NIGHT):
        yield Question(f"symptoms.{NIGHT}", "With night pain a sore shin is seen the same day.")
    sesamoid = any(hurts(entry) for side in SIDES for entry in case.entries(SESAMOID, side))
    if sesamoid and load_unknown(case) and _hurts_at_night(case):
        yield Question("load_change", "With more load and night pain it may be a stress fracture.")
    if tender and case.age is None and not (gradual(case) and case.exam.intake.load_change is False):
        yield Question("birth_date", MAY_BE_PULLED_OFF)
    if tender and sudden(case) and not case.answered("heard_pop"):
        yield Question("symptoms.heard_pop", "With a pop a growing bone is seen the same day.")


def bone_clear(case: Case, side: Side) -> bool:
    """No sign of a break on this side, and in a fresh injury every question answered."""
    signs = (
        *(fracture_rule, bone_shaken, tender_after_injury, unable_after_injury, knee_after_injury),
        *(bone_stress, apophysis_pulled),
    )
    flagged = any(finding.side in (side, None) for rule in signs for finding in rule(case))
    asked = any(isinstance(item, GateRaised) and item.side is side for item in fracture_questions(case))
    return not flagged and not asked
