"""When the shape of bone or foot is referred: H9, H10, F1 and F2."""

from __future__ import annotations

from northstride.core.examination.case import Case
from northstride.core.findings import Strength, Urgency
from northstride.core.norms import limits
from northstride.core.rules.limp import hurts_from_hip_to_knee
from northstride.core.terms.sides import Side

LIMIT = limits("hip_joint")


def referred_for_shape(
    case: Case, side: Side, strength: Strength, *, hip_to_knee: bool = False
) -> Urgency | None:
    """H9: from 16 a likely one is referred only with a complaint on that side, on both or of unknown side.

    `hip_to_knee` narrows where the complaint must be; else anywhere from the low back to the foot.
    Age not known: read as grown.
    """
    if strength < Strength.LIKELY:
        return None
    if case.age is not None and case.age < LIMIT["torsion_grown_age"]:
        return Urgency.REFER
    complains = hurts_from_hip_to_knee(case) if hip_to_knee else case.has_complaint
    return Urgency.REFER if complains and side in case.sides_of_complaint else None
