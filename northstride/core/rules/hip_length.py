"""Muscle length at the hip: the modified Thomas test (M0 to M9).

T thigh_angle, S thigh_angle_knee_straight, K knee_angle (or 90 − shortfall), P the school's
knee_pass; degrees. M0 is what spoils the position.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from northstride.core.case import Case, Observed
from northstride.core.findings import Finding, Reason, Settle, Step, Strength
from northstride.core.measurement import less_than, more_than
from northstride.core.norms import limits
from northstride.core.sides import SIDES, Side
from northstride.core.wording import above_or_below, degrees, whole_degrees

TEST = "hip.modified_thomas"
LIMIT = limits("hip_length")

ILIOPSOAS = "tightness.iliopsoas"
RECTUS = "tightness.rectus_femoris"
HIP_FLEXORS = "tightness.hip_flexors"
TFL_ITB = "tightness.tfl_itb"
SARTORIUS = "tightness.sartorius"

HARVEY = "Harvey 1998"
POSITION_SPOILT = "The low back was not flat: the true value is tighter still."
SIZES = (Strength.POSSIBLE, Strength.LIKELY, Strength.STRONG)


def _size(excess: float, possible_up_to: float, likely_up_to: float) -> Strength:
    if not more_than(excess, possible_up_to):
        return Strength.POSSIBLE
    return Strength.LIKELY if not more_than(excess, likely_up_to) else Strength.STRONG


def _thigh_size(excess: float) -> Strength:
    """M1: up to 5 possible, up to 15 likely, beyond strong."""
    return _size(excess, LIMIT["thigh_possible_up_to"], LIMIT["thigh_likely_up_to"])


def _school(case: Case) -> str:
    return case.schools["thomas"]


def _source(case: Case, measure: str) -> tuple[str, ...]:
    error = case.measure(TEST, measure).error
    return (error.source,) if error else ()


def _knee(case: Case, side: Side) -> Observed | None:
    bend = case.number(TEST, "knee_angle", side)
    if bend is not None:
        return bend
    short = case.number(TEST, "knee_shortfall", side)
    return Observed(LIMIT["shortfall_zero"] - short.value, short.at) if short else None


def _thigh_straight(case: Case, side: Side) -> Observed | None:
    """S; a normal one under an arched back counts as not taken."""
    straight = case.number(TEST, "thigh_angle_knee_straight", side)
    if straight is None:
        return None
    normal = not more_than(straight.value, 0)
    return None if normal and case.is_flattered(TEST, "thigh_angle_knee_straight", side) else straight


def _spoilt(case: Case, side: Side) -> tuple[str, ...]:
    return (POSITION_SPOILT,) if case.is_flattered(TEST, "thigh_angle", side) else ()


def back_hurts(case: Case) -> Iterator[Finding]:
    """M0: back pain in the position points at the low back."""
    for side in SIDES:
        entry = case.entry(TEST, side)
        if entry is not None and "back_pain" in entry.seen:
            says = "The low back hurt in the hanging-leg position."
            yield Finding("elsewhere.lumbar", side, Strength.POSSIBLE, Reason(entry.at, "M0", says), TEST)


def which_hip_flexor_is_short(case: Case) -> Iterator[Finding]:
    """M1 how short, M2 which one: straightening the knee takes the rectus out."""
    if _school(case) != "degrees":
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
            _thigh_size(excess),
            Reason(thigh.at, rule, says),
            TEST,
            "thigh_angle",
            against=_spoilt(case, side),
            settle=settle,
            sources=_source(case, "thigh_angle"),
        )

    if straight is None:
        why = "The thigh with the knee straight tells which muscle stops it."
        yield finding(HIP_FLEXORS, thigh.value, "M1", f"{hangs}.", (Settle(TEST, why),))
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
    """M3: the relaxed knee stops short of the school's pass mark. M8 may cap it."""
    if _school(case) != "degrees":
        return
    for side in SIDES:
        knee = _knee(case, side)
        short_by = case.schools["knee_pass"] - knee.value if knee else 0
        if knee is None or not more_than(short_by, 0):
            continue
        yield _usual_in_athletes(
            case,
            Finding(
                RECTUS,
                side,
                _size(short_by, LIMIT["knee_possible_up_to"], LIMIT["knee_likely_up_to"]),
                Reason(knee.at, "M3", f"Knee hangs at {degrees(knee.value)}, {degrees(short_by)} short."),
                TEST,
                "knee_angle",
                sources=_source(case, "knee_angle"),
            ),
            {each: _knee(case, each) for each in SIDES},
        )


def thigh_drifts_outwards(case: Case) -> Iterator[Finding]:
    """M4: drift outwards names the outer thigh, unless M5 reads it. M8 may cap it."""
    if _school(case) != "degrees":
        return
    for side in SIDES:
        drift = _outward_drift(case, side)
        if drift is None or _turns_out(case, side) is not None:
            continue
        likely = more_than(drift.value, LIMIT["abduction_likely_beyond"])
        strength = Strength.LIKELY if likely else Strength.POSSIBLE
        says = f"Drifts {degrees(drift.value)} outwards"
        rotation = case.number(TEST, "rotation_drift", side)
        if rotation and not more_than(rotation.value, LIMIT["rotation_confirms_at_most"]):
            strength = strength.one_step_more()
            says += f" and turns {degrees(-rotation.value)} internally"
        drifts = {each: case.number(TEST, "abduction_drift", each) for each in SIDES}
        because = Reason(drift.at, "M4", f"{says}.")
        finding = Finding(TFL_ITB, side, strength, because, TEST, "abduction_drift")
        yield _usual_in_athletes(case, finding, drifts)


def thigh_turns(case: Case) -> Iterator[Finding]:
    """M5: turning out names sartorius, turning in without drift the outer thigh."""
    if _school(case) != "degrees":
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
    return drift if drift and more_than(drift.value, LIMIT["abduction_possible_beyond"]) else None


def _turns_out(case: Case, side: Side) -> Observed | None:
    turn = case.number(TEST, "rotation_drift", side)
    return turn if turn and not less_than(turn.value, LIMIT["rotation_external_from"]) else None


def thigh_does_not_cross(case: Case) -> Iterator[Finding]:
    """M6: less than 10° across with the hip level. What is only seen counts in every school."""
    for side in SIDES:
        crossing = None
        if _school(case) == "degrees" and not case.is_void(TEST, "adduction_available", side):
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


def graded_at_the_edge(case: Case) -> Iterator[Finding]:
    """M7, school edge_grade: 0 passes, 1 possible, 2 likely, 3 strong."""
    if _school(case) != "edge_grade":
        return
    for side in SIDES:
        entry = case.entry(TEST, side)
        grade = entry.value("edge_grade", side) if entry else None
        if entry is not None and isinstance(grade, int) and grade > 0:
            because = Reason(entry.at, "M7", f"Grade {grade} at the side edge.")
            against = _spoilt(case, side)
            yield Finding(HIP_FLEXORS, side, SIZES[grade - 1], because, TEST, "edge_grade", against)


def failed_by_eye(case: Case) -> Iterator[Finding]:
    """M7, school pass_fail: a fail is likely; degrees taken all the same are read as fails."""
    if _school(case) != "pass_fail":
        return
    for side in SIDES:
        entry = case.entry(TEST, side)
        if entry is None:
            continue
        thigh, knee = case.number(TEST, "thigh_angle", side), _knee(case, side)
        failed = {
            "thigh": thigh is not None and more_than(thigh.value, 0),
            "knee": knee is not None and less_than(knee.value, case.schools["knee_pass"]),
            "cross": False,
        }
        for part, code, says in (
            ("thigh", HIP_FLEXORS, "The thigh does not reach level."),
            ("knee", RECTUS, "The knee does not bend far enough."),
            ("cross", TFL_ITB, "The thigh does not cross the body."),
        ):
            fails = failed[part] or entry.value(part, side) == "fail"
            if fails and not case.is_void(TEST, part, side):
                because = Reason(entry.at, "M7", says)
                against = _spoilt(case, side) if part == "thigh" else ()
                yield Finding(code, side, Strength.LIKELY, because, TEST, part, against)


def _usual_in_athletes(case: Case, finding: Finding, values: dict[Side, Observed | None]) -> Finding:
    """M8: in a squad screen, what both sides show alike is how athletes hang: possible at most."""
    left, right = values[Side.LEFT], values[Side.RIGHT]
    if case.exam.purpose != "squad_screen" or case.has_complaint or not left or not right:
        return finding
    comparison = case.compare(TEST, finding.measure or "", left.value, right.value)
    if comparison is None or comparison.verdict != "within_error":
        return finding
    if finding.strength is Strength.POSSIBLE:
        return finding
    says = f"Both sides are alike, and athletes as a group hang this way ({HARVEY})."
    return Finding(
        finding.code,
        finding.side,
        Strength.POSSIBLE,
        finding.because,
        finding.test,
        finding.measure,
        against=(*finding.against, says),
        sources=(*finding.sources, HARVEY),
    )


def rectus_named_twice(_case: Case, findings: Sequence[Finding]) -> Iterator[Step]:
    """M2 with M3: thigh and knee both name the rectus, both at least likely."""
    for side in SIDES:
        named = {
            finding.because.rule: finding
            for finding in findings
            if finding.code == RECTUS and finding.side is side and finding.strength >= Strength.LIKELY
        }
        if {"M2", "M3"} <= named.keys():
            because = Reason(named["M3"].because.at, "M2", "Thigh and knee both say so.")
            yield Step(RECTUS, side, because, TEST, "knee_angle", makes=False)


def sides_differ(case: Case, findings: Sequence[Finding]) -> Iterator[Step]:
    """M9: a side difference that matters lifts what the same measure named on the tighter side."""
    if _school(case) != "degrees" or any(_proves_nothing(case, side) for side in SIDES):
        return
    yield from _thigh_differs(case, findings)
    yield from _knee_differs(case)
    for measure in ("abduction_drift", "rotation_drift"):
        yield from _drift_differs(case, findings, measure)


def _proves_nothing(case: Case, side: Side) -> bool:
    """A normal thigh under an arched back: this side takes no part in the comparison."""
    thigh = case.number(TEST, "thigh_angle", side)
    normal = thigh is not None and not more_than(thigh.value, 0)
    return normal and case.is_flattered(TEST, "thigh_angle", side)


def _lift(
    case: Case, code: str, side: Side, measure: str, by: float, at: str, word: str, makes: bool
) -> Step:
    says = f"{whole_degrees(by)} {word} than the other side, beyond error."
    sources = _source(case, measure)
    return Step(code, side, Reason(at, "M9", says), TEST, measure, makes, sources)


def _thigh_differs(case: Case, findings: Sequence[Finding]) -> Iterator[Step]:
    left, right = (case.number(TEST, "thigh_angle", side) for side in SIDES)
    compared = case.compare(TEST, "thigh_angle", left.value, right.value) if left and right else None
    if compared is None or not compared.matters or left is None or right is None:
        return
    side, at = (Side.LEFT, left.at) if compared.difference > 0 else (Side.RIGHT, right.at)
    codes = [f.code for f in findings if f.side is side and f.because.rule in ("M1", "M2")]
    for code in codes or [HIP_FLEXORS]:
        yield _lift(case, code, side, "thigh_angle", compared.difference, at, "tighter", makes=not codes)


def _knee_differs(case: Case) -> Iterator[Step]:
    left, right = (_knee(case, side) for side in SIDES)
    compared = case.compare(TEST, "knee_angle", left.value, right.value) if left and right else None
    if compared is None or not compared.matters or left is None or right is None:
        return
    side, at = (Side.LEFT, left.at) if compared.difference < 0 else (Side.RIGHT, right.at)
    yield _lift(case, RECTUS, side, "knee_angle", compared.difference, at, "less bend", makes=True)


def _drift_differs(case: Case, findings: Sequence[Finding], measure: str) -> Iterator[Step]:
    left, right = (case.number(TEST, measure, side) for side in SIDES)
    compared = case.compare(TEST, measure, left.value, right.value) if left and right else None
    if compared is None or not compared.matters or left is None or right is None:
        return
    for finding in findings:
        if finding.side is None or finding.because.rule not in ("M4", "M5"):
            continue
        towards = 1 if finding.side is Side.LEFT else -1
        if _named_by(finding, measure) == (1 if compared.difference * towards > 0 else -1):
            at = left.at if finding.side is Side.LEFT else right.at
            yield _lift(
                case, finding.code, finding.side, measure, compared.difference, at, "more drift", makes=False
            )


def _named_by(finding: Finding, measure: str) -> int:
    """+1 or −1: the sign of the drift that gave this flag; 0 where this drift did not give it.

    Drift outwards gives M4's flag, and M5's likely sartorius together with the turn.
    """
    if measure == "abduction_drift":
        reads_both = finding.code == SARTORIUS and finding.strength >= Strength.LIKELY
        return 1 if finding.because.rule == "M4" or reads_both else 0
    if finding.because.rule != "M5":
        return 0
    return 1 if finding.code == SARTORIUS else -1
