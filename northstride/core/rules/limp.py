"""U5: what counts as a limp, and where a child's hip may hurt."""

from __future__ import annotations

from northstride.core.examination.case import Case
from northstride.core.rules.palpation import STEPS
from northstride.core.terms.sides import SIDES

GAIT = "hip.gait"
LIMPING = frozenset({"antalgic", "lurch", "drop", "stiff_hip", "short_leg"})
# A slipped growth plate turns the foot out: counted for the growing hip alone.
TURNED_OUT = "toe_out"
HIP_TO_KNEE = frozenset({"hip", "groin", "thigh", "knee"})
HIP_TO_KNEE_SITES = frozenset(
    {"groin", "lateral_hip", "anterior_thigh", "posterior_thigh", "lateral_thigh", "knee"}
)


def hurts_from_hip_to_knee(case: Case) -> bool:
    return case.complains_of(HIP_TO_KNEE, HIP_TO_KNEE_SITES)


def gait_seen(case: Case) -> frozenset[str]:
    """Every pattern recorded, whichever leg it was seen on."""
    lanes = (case.on(lane).listed(GAIT, "pattern") or () for lane in (*SIDES, None))
    return frozenset(pattern for seen in lanes for pattern in seen)


def cannot_take_steps(case: Case) -> bool:
    """Four steps are not possible now, on either leg."""
    return any(case.on(side).chose(STEPS, "now", "no") for side in SIDES)


def limps(case: Case) -> bool:
    """Told, seen in walking, or not able to take four steps now."""
    told = "limp" in case.exam.intake.symptoms
    return told or bool(LIMPING & gait_seen(case)) or cannot_take_steps(case)


def limps_or_toes_out(case: Case) -> bool:
    return limps(case) or TURNED_OUT in gait_seen(case)
