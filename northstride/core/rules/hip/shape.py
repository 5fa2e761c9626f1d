"""H9 and H10: torsion of the thigh bone and length of the leg."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator

from northstride.core.examination import Trials
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Next, Reason, Retake, Settle, Strength, Urgency
from northstride.core.measuring.measurement import less_than, more_than, smallest_real_change, spread
from northstride.core.norms import limits
from northstride.core.rules.alignment import referred_for_shape
from northstride.core.rules.limp import GAIT, gait_seen
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import degrees, plain, whole_degrees

LIMIT = limits("hip_joint")

CRAIG, LENGTH = "hip.craig", "hip.leg_length"
INTERNAL, EXTERNAL = "hip.rom.internal_rotation_0", "hip.rom.external_rotation_0"
TRUE, APPARENT = "alignment.leg_length_true", "alignment.leg_length_apparent"
DAYS_A_YEAR = 365.25


def torsion_out_of_line(case: Case) -> Iterator[Finding]:
    """H9: beyond the usual range of a grown thigh bone, or off the line of a growing one."""
    for side in SIDES:
        found = case.number(CRAIG, "torsion", side)
        if found is None:
            continue
        growing = case.age is not None and case.age < LIMIT["torsion_grown_age"]
        make = _growing if growing else _grown
        finding = make(case, side, found.value, found.at)
        if finding is not None:
            yield finding


def _code(torsion: float, middle: float) -> str:
    return "alignment.femoral_anteversion" if torsion > middle else "alignment.femoral_retroversion"


def _grown(case: Case, side: Side, torsion: float, at: str) -> Finding | None:
    low, high = (float(part) for part in case.schools["torsion_normal"].split("-"))
    outside = max(low - torsion, torsion - high)
    if not more_than(outside, 0):
        return None
    sem = case.sem(CRAIG, "torsion")
    far = sem is not None and more_than(outside, smallest_real_change(sem))
    agrees = _rotation_agrees(case, side, torsion > high)
    says = f"{degrees(torsion)} against {plain(low)} to {plain(high)}"
    if agrees:
        says += ", and rotation agrees"
    against = () if case.age is not None else ("Age is not known: read as grown.",)
    strength = Strength.LIKELY if far or agrees else Strength.POSSIBLE
    return Finding(
        _code(torsion, high),
        side,
        strength,
        Reason(at, "H9", f"{says}."),
        CRAIG,
        "torsion",
        against=against,
        urgency=referred_for_shape(case, side, strength, hip_to_knee=True),
        settle=() if far or agrees else (Settle(INTERNAL, "Rotation lying prone would agree or not."),),
        sources=("Souza & Powers 2009",),
    )


def _rotation_agrees(case: Case, side: Side, inwards: bool) -> bool:
    internal, external = case.range_of(INTERNAL, side), case.range_of(EXTERNAL, side)
    if internal is None or external is None:
        return False
    lead = internal.value - external.value
    return not less_than(lead if inwards else -lead, LIMIT["rotation_agrees_from"])


def _growing(case: Case, side: Side, torsion: float, at: str) -> Finding | None:
    """The usual angle falls in a line from birth to 16; further than 10 off it is possible."""
    usual = _usual_at(case)
    if usual is None or not more_than(abs(torsion - usual), LIMIT["torsion_off_line"]):
        return None
    because = Reason(at, "H9", f"{degrees(torsion)} against about {whole_degrees(usual)} at this age.")
    return Finding(
        _code(torsion, usual),
        side,
        Strength.POSSIBLE,
        because,
        CRAIG,
        "torsion",
        urgency=Urgency.REFER,
    )


def _usual_at(case: Case) -> float | None:
    born: dt.date | None = case.exam.athlete.birth_date
    if born is None:
        return None
    years = (case.exam.date - born).days / DAYS_A_YEAR
    birth, grown = float(case.schools["torsion_birth"]), LIMIT["torsion_at_sixteen"]
    return birth + (grown - birth) * years / LIMIT["torsion_grown_age"]


def torsion_external(case: Case) -> Iterator[Retake]:
    """H9: a torsion in external rotation is so rare that somebody else repeats it."""
    for side in SIDES:
        found = case.number(CRAIG, "torsion", side)
        if found is not None and less_than(found.value, 0):
            yield Retake(CRAIG, side, "second_examiner")


def knees_squint(case: Case) -> Iterator[Next]:
    """H9: squinting patellae or toe-in without the angle ask for it."""
    for side in SIDES:
        seen = (case.on(lane).listed(GAIT, "pattern") or () for lane in (side, None))
        toes_in = any("toe_in" in pattern for pattern in seen)
        squints = case.on(side).chose("hip.standing", "patella", "squinting")
        if (squints or toes_in) and case.number(CRAIG, "torsion", side) is None:
            yield Next(CRAIG, side, "Knees or toes turn in: bone or control?")


def legs_differ(case: Case) -> Iterator[Finding]:
    """H10: true length first; only where that agrees does the apparent one speak."""
    lengths = {
        m: [case.number(LENGTH, m, side) for side in SIDES] for m in ("true_length", "apparent_length")
    }
    left, right = lengths["true_length"]
    if left is None or right is None:
        return
    difference = left.value - right.value
    shorter = Side.LEFT if difference < 0 else Side.RIGHT
    settle = (Settle(LENGTH, "Blocks under the shorter side show what levels the crests.", "block"),)
    if not less_than(abs(difference), LIMIT["leg_length_possible_from"]):
        matters = not less_than(abs(difference), case.schools["leg_length_matters"])
        strength = Strength.LIKELY if matters else Strength.POSSIBLE
        says = f"{plain(abs(difference))} mm shorter from pelvis to ankle{_galeazzi(case)}."
        because = Reason(left.at, "H10", says)
        urgency = referred_for_shape(case, shorter, strength)
        yield Finding(TRUE, shorter, strength, because, LENGTH, "true_length", settle=settle, urgency=urgency)
        return
    left, right = lengths["apparent_length"]
    if left is None or right is None:
        return
    difference = left.value - right.value
    if not less_than(abs(difference), LIMIT["apparent_from"]):
        shorter = Side.LEFT if difference < 0 else Side.RIGHT
        says = f"Measures {plain(abs(difference))} mm shorter from the navel, not in the bone."
        because, urgency = Reason(left.at, "H10", says), referred_for_shape(case, shorter, Strength.LIKELY)
        yield Finding(
            APPARENT,
            shorter,
            Strength.LIKELY,
            because,
            LENGTH,
            "apparent_length",
            settle=settle,
            urgency=urgency,
        )


def _galeazzi(case: Case) -> str:
    """Femur or tibia, where the knees at 90 showed it."""
    found = {bone: case.number(LENGTH, f"galeazzi_{bone}", None) for bone in ("femur", "tibia")}
    named = [bone for bone, value in found.items() if value is not None and value.value != 0]
    return f", in the {' and '.join(named)}" if named else ""


def tapes_disagree(case: Case) -> Iterator[Retake]:
    """H10: tapes of one side further than 7 mm apart."""
    for side in SIDES:
        for measure in ("true_length", "apparent_length"):
            tapes = case.value(LENGTH, measure, side)
            if isinstance(tapes, Trials) and more_than(spread(tapes.values), LIMIT["tapes_differ_beyond"]):
                yield Retake(LENGTH, side, "tapes_disagree")


def crests_uneven(case: Case) -> Iterator[Next]:
    """H10: uneven crests or a short-leg gait ask for the tape."""
    short = "short_leg" in gait_seen(case)
    uneven = short or case.on(None).chose("hip.standing", "crests_level", "left_high", "right_high")
    measured = any(case.number(LENGTH, "true_length", side) for side in SIDES)
    if uneven and not measured:
        yield Next(LENGTH, None, "Crests uneven or a short-leg gait: bone or posture?")
