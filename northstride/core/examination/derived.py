"""What follows from measured values by arithmetic. Each returns None where a part is missing."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from northstride.core.examination.case import Case, Observed
from northstride.core.examination.scoring import scored
from northstride.core.terms.sides import Side

DROP, INDEX, THOMAS = "foot.navicular_drop", "foot.posture_index", "hip.modified_thomas"
REACH = "ankle.reach"


def navicular_drop(case: Case, side: Side) -> Observed | None:
    """Height in neutral minus height in standing, mm."""
    neutral, standing = (case.number(DROP, f"height_{name}", side) for name in ("neutral", "standing"))
    if neutral is None or standing is None:
        return None
    return Observed(neutral.value - standing.value, standing.at)


def posture_total(case: Case, side: Side) -> Observed | None:
    """The six items added up, −12 to +12; None unless all six were scored."""
    entry = case.entry(INDEX, side)
    score = case.catalogue.score(INDEX)
    if entry is None or score is None:
        return None
    found = scored(score, lambda item: entry.value(item, side))
    return None if found.open else Observed(found.total, entry.at)


def rotation_arc(case: Case, side: Side, hip: str) -> Observed | None:
    """Internal plus external rotation at the same hip position ("0" or "90"), degrees."""
    both = case.alike(f"hip.rom.internal_rotation_{hip}", f"hip.rom.external_rotation_{hip}", side, side)
    return Observed(both[0].value + both[1].value, both[0].at) if both else None


def active_lag(case: Case, test: str, side: Side) -> Observed | None:
    """Passive minus active range of one test, degrees."""
    passive, active = case.number(test, "passive", side), case.number(test, "active", side)
    return Observed(passive.value - active.value, active.at) if passive and active else None


def bent_minus_straight(case: Case, side: Side) -> Observed | None:
    """Dorsiflexion with the knee bent minus with the knee straight, both taken alike, degrees."""
    straight, bent = "ankle.rom.dorsiflexion_knee_straight", "ankle.rom.dorsiflexion_knee_bent"
    both = case.alike(straight, bent, side, side)
    return Observed(both[1].value - both[0].value, both[0].at) if both else None


def thigh_drop(case: Case, side: Side) -> Observed | None:
    """How far the thigh drops when the hanging knee is straightened, degrees."""
    bent = case.number(THOMAS, "thigh_angle", side)
    straight = case.number(THOMAS, "thigh_angle_knee_straight", side)
    return Observed(bent.value - straight.value, straight.at) if bent and straight else None


def torque(case: Case, test: str, side: Side) -> Observed | None:
    """Force times lever arm, N·m."""
    force, arm = case.number(test, "force", side), case.number(test, "lever_arm", side)
    return Observed(force.value * arm.value / 1000, force.at) if force and arm else None


def torque_per_mass(case: Case, test: str, side: Side) -> Observed | None:
    """Torque per body mass, N·m/kg."""
    found, mass = torque(case, test, side), case.exam.athlete.body_mass_kg
    return Observed(found.value / mass, found.at) if found and mass else None


def adductor_ratio(case: Case, side: Side) -> Observed | None:
    """Adductor torque over abductor torque. Shown; no flag comes of it."""
    adductors, abductors = (torque(case, f"hip.resisted.{way}", side) for way in ("adduction", "abduction"))
    if adductors is None or abductors is None or abductors.value == 0:
        return None
    return Observed(adductors.value / abductors.value, adductors.at)


def reach_composite(case: Case, side: Side) -> Observed | None:
    """The three reaches over three times the true leg length, percent."""
    reaches = [case.number(REACH, way, side) for way in ("anterior", "posteromedial", "posterolateral")]
    leg = case.number("hip.leg_length", "true_length", side)
    known = [reach for reach in reaches if reach is not None]
    if len(known) < len(reaches) or leg is None or leg.value <= 0:
        return None
    total = sum(reach.value for reach in known)
    return Observed(total / (len(known) * leg.value) * 100, known[0].at)


# What the catalogue names as derived, by test and code.
DERIVED: Mapping[tuple[str, str], Callable[[Case, Side], Observed | None]] = {(DROP, "drop"): navicular_drop}
