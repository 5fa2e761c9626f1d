"""When and how it began: what many rules of ankle, leg and foot depend on."""

from __future__ import annotations

from northstride.core.examination.case import Case
from northstride.core.norms import limits
from northstride.core.sides import SIDES, Side

LIMIT = limits("bone_and_blood")

LOWER_LEG = frozenset({"ankle", "foot", "leg"})


def sudden(case: Case) -> bool:
    onset = case.exam.intake.onset
    return onset is not None and onset.kind == "sudden"


def days_since_onset(case: Case) -> int | None:
    """Whole days by the dates, day 0 is the day of onset; None where no date was said."""
    onset = case.exam.intake.onset
    return (case.exam.date - onset.date).days if onset is not None and onset.date is not None else None


def fresh(case: Case) -> bool:
    """A sudden injury of the last ten days, or without a date."""
    days = days_since_onset(case)
    return sudden(case) and (days is None or days <= LIMIT["fresh_days_up_to"])


def injured_sides(case: Case) -> tuple[Side, ...]:
    """Sides a sudden injury below the knee may be on: both where nothing was said."""
    complaint = case.exam.intake.complaint
    if not sudden(case) or (complaint is not None and complaint.region not in (*LOWER_LEG, "none")):
        return ()
    return tuple(side for side in case.complaint_sides if side is not None) or SIDES
