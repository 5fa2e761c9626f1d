"""The other tests of muscle length at the hip, cited as M0: they stand in the rules without a number."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Settle, Strength
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.norms import limits
from northstride.core.rules.hip.length import thigh_size
from northstride.core.rules.hip.modified_thomas import POSITION_SPOILT, RECTUS, TFL_ITB
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import above_or_below, degrees

LIMIT = limits("hip_length_more")

THOMAS, ELY, OBER = "hip.thomas", "hip.ely", "hip.ober"
HAMSTRINGS, RAISE, LUMBAR = "hip.hamstring_90_90", "hip.straight_leg_raise", "lumbar.screen"
ELSEWHERE = "elsewhere.lumbar"
BEHIND = frozenset({"posterior_thigh", "buttock"})


def hip_does_not_straighten(case: Case) -> Iterator[Finding]:
    """M0: Thomas: above the couch is a flexion contracture, sized as M1."""
    for side in SIDES:
        thigh = case.number(THOMAS, "thigh_angle", side)
        if thigh is None or not more_than(thigh.value, 0):
            continue
        because = Reason(thigh.at, "M0", f"Thigh {above_or_below(thigh.value)} with the low back flat.")
        spoilt = (POSITION_SPOILT,) if case.is_flattered(THOMAS, "thigh_angle", side) else ()
        yield Finding(
            "tightness.hip_flexion_contracture",
            side,
            thigh_size(thigh.value),
            because,
            THOMAS,
            "thigh_angle",
            spoilt,
        )


def buttock_rises_early(case: Case) -> Iterator[Finding]:
    """M0: Ely: below 120 possible, below 90 likely."""
    for side in SIDES:
        knee = case.number(ELY, "knee_angle", side)
        if knee is not None and less_than(knee.value, LIMIT["ely_possible_below"]):
            likely = less_than(knee.value, LIMIT["ely_likely_below"])
            because = Reason(knee.at, "M0", f"The buttock rises at {degrees(knee.value)}.")
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            yield Finding(RECTUS, side, strength, because, ELY, "knee_angle")


def thigh_stays_up_side_lying(case: Case) -> Iterator[Finding]:
    """M0: Ober, only where the school uses it: above level possible, never more."""
    if case.schools["ober"] != "use":
        return
    for side in SIDES:
        drop = case.number(OBER, "thigh_drop", side)
        if drop is not None and more_than(drop.value, 0):
            because = Reason(drop.at, "M0", f"Stays {above_or_below(drop.value)} side-lying.")
            yield Finding(TFL_ITB, side, Strength.POSSIBLE, because, OBER, "thigh_drop")


def hamstrings_short(case: Case) -> Iterator[Finding]:
    """M0: 90-90: short of straight by more than about one healthy person in twenty (Youdas 2005).

    Else where the sides differ by what matters, or beyond 30 with a complaint behind that thigh.
    """
    for side in SIDES:
        short = case.number(HAMSTRINGS, "knee_short", side)
        strength = _hamstring_size(case, side, short.value) if short else None
        if short is not None and strength is not None:
            because = Reason(short.at, "M0", f"Knee stops {degrees(short.value)} short of straight.")
            yield Finding(
                "tightness.hamstrings",
                side,
                strength,
                because,
                HAMSTRINGS,
                "knee_short",
                sources=("Youdas 2005",),
            )


def _hamstring_lines(case: Case) -> tuple[float, float]:
    """Beyond which it is possible, and likely. Sex not known: the lines of men, which are further out."""
    if case.exam.athlete.sex == "female":
        return LIMIT["hamstrings_possible_beyond_female"], LIMIT["hamstrings_likely_beyond_female"]
    return LIMIT["hamstrings_possible_beyond_male"], LIMIT["hamstrings_likely_beyond_male"]


def _hamstring_size(case: Case, side: Side, short: float) -> Strength | None:
    possible, likely = _hamstring_lines(case)
    if more_than(short, likely):
        return Strength.LIKELY
    beyond = more_than(short, possible)
    other = case.number(HAMSTRINGS, "knee_short", side.other)
    compared = case.compare(HAMSTRINGS, "knee_short", short, other.value) if other else None
    shorter = compared is not None and compared.matters and compared.difference > 0
    complaint = case.complaint
    behind = (
        complaint is not None
        and bool(BEHIND & {*complaint.sites})
        and side in case.sides_of_complaint
        and more_than(short, LIMIT["hamstrings_complaint_beyond"])
    )
    return Strength.POSSIBLE if beyond or shorter or behind else None


def raised_leg_points_to_the_back(case: Case) -> Iterator[Finding]:
    """M0: straight leg raise, worse with the foot up or with low back pain."""
    settle = (Settle(LUMBAR, "Tells whether the low back gives the pain."),)
    for side in SIDES:
        entry = case.entry(RAISE, side)
        if entry is None:
            continue
        pain = entry.pain
        lumbar = pain is not None and pain.present and pain.site == "lumbar"
        if lumbar or case.on(side).ticked(RAISE, "foot_up_worse"):
            says = "The raised leg gives low back pain." if lumbar else "Worse with the foot drawn up."
            because = Reason(entry.at, "M0", says)
            yield Finding(ELSEWHERE, side, Strength.POSSIBLE, because, RAISE, settle=settle)


def low_back_gives_the_pain(case: Case) -> Iterator[Finding]:
    """M0: the low back screen reproduces it: likely, on the complaint's side where there is one."""
    entry = case.entry(LUMBAR, None)
    if entry is not None and case.on(None).ticked(LUMBAR, "reproduces"):
        for side in case.complaint_sides:
            because = Reason(entry.at, "M0", "Moving or springing the low back gives their own pain.")
            yield Finding(ELSEWHERE, side, Strength.LIKELY, because, LUMBAR)
