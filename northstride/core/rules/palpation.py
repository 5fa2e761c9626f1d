"""What was pressed and hurt."""

from __future__ import annotations

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.terms.sides import Side

HIP_PALPATION = "hip.palpation"
PALPATION, STEPS = "ankle.palpation", "ankle.weight_bearing"


def tender_points(case: Case, side: Side) -> frozenset[str]:
    return frozenset(case.on(side).listed(PALPATION, "tender") or ())


def palpated_at(case: Case, side: Side) -> str:
    entry = case.entry(PALPATION, side) or case.entry(STEPS, side)
    return entry.at if entry else "intake.complaint"


def tender_hip(case: Case, point: str, side: Side) -> Entry | None:
    """The entry in which a point of hip or pelvis was tender."""
    entry = case.entry(HIP_PALPATION, side)
    return entry if point in (case.on(side).listed(HIP_PALPATION, "tender") or ()) else None
