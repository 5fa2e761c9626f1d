"""When and how it began, and what is made of it where nobody said (U1): what many rules depend on."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.findings import Question
from northstride.core.measuring.measurement import more_than
from northstride.core.norms import limits
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("bone_and_blood")

LOWER_LEG = frozenset({"ankle", "foot", "leg"})
LOOK, PULSES = "ankle.look", "ankle.pulses"
PULSE_NAMES = ("dorsalis_pedis", "posterior_tibial")
# A mechanism that is no injury leaves the kind open.
NO_INJURY = frozenset({"overload", "none"})
SUDDEN_OR_GRADUAL = "Sudden or gradual decides whether a bone or the blood must be cleared first."


def _kind(case: Case) -> str | None:
    """As said; without a word for it, an injury's mechanism is sudden (U1)."""
    onset = case.exam.intake.onset
    if onset is None:
        return None
    if onset.kind is None and onset.mechanism is not None and onset.mechanism not in NO_INJURY:
        return "sudden"
    return onset.kind


def known_sudden(case: Case) -> bool:
    """Said to be sudden, or by its mechanism; never only read so."""
    return _kind(case) == "sudden"


def kind_unknown(case: Case) -> bool:
    return _kind(case) is None


def gradual(case: Case) -> bool:
    return _kind(case) == "gradual"


def sudden(case: Case) -> bool:
    """U1: known, or read so where taking it for gradual could miss a break or a foot without blood."""
    if "sudden" not in case.told:
        case.told["sudden"] = known_sudden(case) or (kind_unknown(case) and _read_as_sudden(case))
    return case.told["sudden"]


def _read_as_sudden(case: Case) -> bool:
    if case.exam.purpose == "ankle_injury":
        return True
    told = {"obvious_deformity", "open_fracture"} & case.exam.intake.red_flags
    return bool(told) or any(looks_broken(case, side) or weak_and_cold(case, side) for side in SIDES)


def looks_broken(case: Case, side: Side) -> bool:
    return any(case.on(side).ticked(LOOK, measure) for measure in ("deformity", "open_wound"))


def pulses(case: Case, side: Side) -> tuple[object, ...]:
    return tuple(case.value(PULSES, name, side) for name in PULSE_NAMES)


def cold(case: Case, side: Side) -> bool:
    return case.on(side).chose(PULSES, "skin", "cool", "pale")


def slow_to_refill(case: Case, side: Side) -> bool:
    refill = case.number(PULSES, "refill", side)
    return refill is not None and more_than(refill.value, LIMIT["refill_beyond"])


def weak_and_cold(case: Case, side: Side) -> bool:
    return "weak" in pulses(case, side) and (cold(case, side) or slow_to_refill(case, side))


def short_of_blood_if_injured(case: Case, side: Side) -> bool:
    """A13: what would be too little blood after a fresh injury."""
    chilled = cold(case, side) and slow_to_refill(case, side)
    return "absent" in pulses(case, side) or weak_and_cold(case, side) or chilled


def kind_decides_the_urgent(case: Case) -> Iterator[Question]:
    """U1: asked in an ankle injury, and elsewhere with signs that an injury would make an emergency."""
    signs = any(short_of_blood_if_injured(case, side) for side in SIDES)
    if kind_unknown(case) and (_read_as_sudden(case) or signs):
        yield Question("onset.kind", SUDDEN_OR_GRADUAL)


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
    complaint = case.complaint
    if not sudden(case) or (complaint is not None and complaint.region not in (*LOWER_LEG, "none")):
        return ()
    return case.sides_of_complaint
