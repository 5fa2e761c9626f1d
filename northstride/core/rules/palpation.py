"""What was pressed and hurt at ankle, leg and foot."""

from __future__ import annotations

from northstride.core.case import Case
from northstride.core.sides import Side

PALPATION, STEPS = "ankle.palpation", "ankle.weight_bearing"


def tender_points(case: Case, side: Side) -> frozenset[str]:
    tender = case.value(PALPATION, "tender", side)
    return frozenset(tender) if isinstance(tender, tuple) else frozenset()


def palpated_at(case: Case, side: Side) -> str:
    entry = case.entry(PALPATION, side) or case.entry(STEPS, side)
    return entry.at if entry else "intake.complaint"
