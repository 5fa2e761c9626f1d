"""Muscle length at the hip: the modified Thomas test in degrees (M0 to M6).

T thigh_angle, S thigh_angle_knee_straight, K knee_angle (or 90 − shortfall), P the school's
knee_pass; degrees. M0 is what spoils the position.
"""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case, Observed
from northstride.core.findings import Finding, Reason, Settle, Strength
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.rules.hip.length_sides import usual_in_athletes
from northstride.core.rules.hip.modified_thomas import (
    HARVEY,
    HIP_FLEXORS,
    ILIOPSOAS,
    LIMIT,
    RECTUS,
    SARTORIUS,
    TEST,
    TFL_ITB,
    knee,
    school,
    source,
    spoilt,
)
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import above_or_below, degrees


def thigh_size(excess: float) -> Strength:
    """M1: up to 5 possible, up to 15 likely, beyond strong."""
    if not more_than(excess, LIMIT["thigh_possible_up_to"]):
        return Strength.POSSIBLE
    return Strength.LIKELY if not more_than(excess, LIMIT["thigh_likely_up_to"]) else Strength.STRONG


def _thigh_straight(case: Case, side: Side) -> Observed | None:
    """S; a normal one under an arched back counts as not taken."""
    straight = case.number(TEST, "thigh_angle_knee_straight", side)
    if straight is None:
        return None
    normal = not more_than(straight.value, 0)
    return None if normal and case.is_flattered(TEST, "thigh_angle_knee_straight", side) else straight


def back_hurts(case: Case) -> Iterator[Finding]:
    """M0: back pain in the position points at the low back."""
    for side in SIDES:
        entry = case.entry(TEST, side)
        if entry is not None and "back_pain" in entry.seen:
            says = "The low back hurt in the hanging-leg position."
            yield Finding("elsewhere.lumbar", side, Strength.POSSIBLE, Reason(entry.at, "M0", says), TEST)


def which_hip_flexor_is_short(case: Case) -> Iterator[Finding]:
    """M1 how short, M2 which one: straightening the knee takes the rectus out."""
    if school(case) != "degrees":
        return
    for side in SIDES:
        thigh = case.number(TEST, "thigh_angle", side)
        if thigh is not None and more_than(thigh.value, 0):
            yield from _short_flexors(case, side, thigh)


def _short_flexors(case: Case, side: Side, thigh: Observed) -> Iterator[Finding]:
    hangs = f"Thigh {above_or_below(thigh.value)}"
    straight = _thigh_straight(case, side)

    def finding(code: str, excess: float, rule: str, says: str, settle: tuple[Settle, ...] = ()) -> Finding:
        return Finding(
            code,
            side,
            thigh_size(excess),
            Reason(thigh.at, rule, says),
            TEST,
            "thigh_angle",
            against=spoilt(case, side),
            settle=settle,
            sources=source(case, "thigh_angle"),
        )

    if straight is None:
        why = "The thigh with the knee straight tells which muscle stops it."
        yield finding(
            HIP_FLEXORS, thigh.value, "M1", f"{hangs}.", (Settle(TEST, why, "thigh_angle_knee_straight"),)
        )
    elif not more_than(straight.value, 0):
        says = f"{hangs}, {above_or_below(straight.value)} with the knee straight."
        yield finding(RECTUS, thigh.value, "M2", says)
    elif not more_than(thigh.value - straight.value, LIMIT["muscles_apart_beyond"]):
        says = f"{hangs}, still {above_or_below(straight.value)} with the knee straight."
        yield finding(ILIOPSOAS, thigh.value, "M2", says)
    else:
        drop = thigh.value - straight.value
        stays = f"Still {above_or_below(straight.value)} with the knee straight."
        yield finding(ILIOPSOAS, straight.value, "M2", stays)
        yield finding(RECTUS, drop, "M2", f"{hangs}; straightening the knee lets it drop {degrees(drop)}.")


def knee_bends_short(case: Case) -> Iterator[Finding]:
    """M3: the relaxed knee stops short of the school's pass mark: up to 20 possible, more likely.

    The knee angle's own error is 19°, so it is strong only by a step. M8 may cap it or take it away.
    """
    if school(case) != "degrees":
        return
    for side in SIDES:
        bend = knee(case, side)
        short_by = case.schools["knee_pass"] - bend.value if bend else 0
        if bend is None or not more_than(short_by, 0):
            continue
        finding = usual_in_athletes(
            case,
            Finding(
                RECTUS,
                side,
                Strength.LIKELY if more_than(short_by, LIMIT["knee_possible_up_to"]) else Strength.POSSIBLE,
                Reason(bend.at, "M3", f"Knee hangs at {degrees(bend.value)}, {degrees(short_by)} short."),
                TEST,
                "knee_angle",
                sources=source(case, "knee_angle"),
            ),
            {each: knee(case, each) for each in SIDES},
        )
        if finding is not None:
            yield finding


def thigh_drifts_outwards(case: Case) -> Iterator[Finding]:
    """M4: drift outwards names the outer thigh, unless M5 reads it. M8 may cap it or take it away."""
    if school(case) != "degrees":
        return
    for side in SIDES:
        drift = case.number(TEST, "abduction_drift", side)
        if drift is None or _turns_out(case, side) is not None:
            continue
        rotation = case.number(TEST, "rotation_drift", side)
        turned = rotation is not None and not more_than(rotation.value, LIMIT["rotation_confirms_at_most"])
        strength = _drift_size(drift.value, turned=turned)
        if strength is None:
            continue
        says = f"Drifts {degrees(drift.value)} outwards"
        if rotation is not None and turned:
            says += f" and turns {degrees(-rotation.value)} internally"
        drifts = {each: case.number(TEST, "abduction_drift", each) for each in SIDES}
        because = Reason(drift.at, "M4", f"{says}.")
        finding = usual_in_athletes(
            case,
            Finding(TFL_ITB, side, strength, because, TEST, "abduction_drift", sources=(HARVEY,)),
            drifts,
        )
        if finding is not None:
            yield finding


def _drift_size(drift: float, *, turned: bool) -> Strength | None:
    """M4: beyond 15 possible, beyond 25 likely; turned in, possible from 5 on and one step more beyond 15."""
    if not more_than(drift, LIMIT["abduction_possible_beyond"]):
        turned_in = turned and more_than(drift, LIMIT["abduction_turned_beyond"])
        return Strength.POSSIBLE if turned_in else None
    likely = more_than(drift, LIMIT["abduction_likely_beyond"])
    strength = Strength.LIKELY if likely else Strength.POSSIBLE
    return strength.one_step_more() if turned else strength


def thigh_turns(case: Case) -> Iterator[Finding]:
    """M5: turning out names sartorius, turning in without drift the outer thigh."""
    if school(case) != "degrees":
        return
    for side in SIDES:
        outward = _outward_drift(case, side)
        rotation = case.number(TEST, "rotation_drift", side)
        if rotation is None:
            continue
        if _turns_out(case, side) is not None:
            strength = Strength.LIKELY if outward else Strength.POSSIBLE
            says = f"Turns {degrees(rotation.value)} externally"
            says += f" and drifts {degrees(outward.value)} outwards." if outward else "."
            because = Reason(rotation.at, "M5", says)
            yield Finding(SARTORIUS, side, strength, because, TEST, "rotation_drift")
        elif outward is None and not more_than(rotation.value, LIMIT["rotation_internal_at_most"]):
            because = Reason(rotation.at, "M5", f"Turns {degrees(-rotation.value)} internally.")
            yield Finding(TFL_ITB, side, Strength.POSSIBLE, because, TEST, "rotation_drift")


def _outward_drift(case: Case, side: Side) -> Observed | None:
    drift = case.number(TEST, "abduction_drift", side)
    return drift if drift and more_than(drift.value, LIMIT["abduction_turned_beyond"]) else None


def _turns_out(case: Case, side: Side) -> Observed | None:
    turn = case.number(TEST, "rotation_drift", side)
    return turn if turn and not less_than(turn.value, LIMIT["rotation_external_from"]) else None


def thigh_does_not_cross(case: Case) -> Iterator[Finding]:
    """M6: less than 10° across with the hip level. What is only seen counts in every school."""
    for side in SIDES:
        crossing = None
        if school(case) == "degrees" and not case.is_void(TEST, "adduction_available", side):
            crossing = case.number(TEST, "adduction_available", side)
        entry = case.entry(TEST, side)
        rises = (
            entry is not None
            and "thigh_rises_when_crossing" in entry.seen
            and not case.is_void(TEST, "adduction_available", side)
        )
        if crossing and less_than(crossing.value, LIMIT["adduction_passes_from"]):
            likely = less_than(crossing.value, LIMIT["adduction_likely_below"])
            says = f"Crosses {degrees(crossing.value)} with the hip level."
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            because = Reason(crossing.at, "M6", says)
            yield Finding(TFL_ITB, side, strength, because, TEST, "adduction_available")
        elif rises and entry is not None:
            because = Reason(entry.at, "M6", "The thigh rises on the way across.")
            yield Finding(TFL_ITB, side, Strength.POSSIBLE, because, TEST)
