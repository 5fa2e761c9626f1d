"""M8 and M9: what both sides together say of the modified Thomas test, and where two rules agree."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from northstride.core.examination.case import Case, Observed
from northstride.core.findings import Finding, Reason, Step, Strength
from northstride.core.measuring.measurement import Verdict, less_than, more_than
from northstride.core.rules.hip.modified_thomas import (
    HARVEY,
    HIP_FLEXORS,
    LIMIT,
    RECTUS,
    SARTORIUS,
    TEST,
    knee,
    school,
    source,
)
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import whole_degrees

FRONT_SITES = frozenset({"groin", "anterior_thigh", "knee"})
FRONT_REGIONS = frozenset({"hip", "groin", "thigh", "knee"})
ALIKE = f"Both sides are alike, and athletes as a group hang this way ({HARVEY})."
ONE_SIDE = "Only one side was measured: athletes as a group hang this way."


def usual_in_athletes(case: Case, finding: Finding, values: Mapping[Side, Observed | None]) -> Finding | None:
    """M8: what both sides show alike is how athletes hang (Harvey 1998). Nothing, capped, or in full.

    Nothing while both sides are alike, within what one athlete in twenty is beyond, and nothing in front
    hurts there; sides that differ beyond error are read in full.
    """
    side, left, right = finding.side, values[Side.LEFT], values[Side.RIGHT]
    if left is None or right is None:
        return _capped(finding, ONE_SIDE)
    comparison = case.compare(TEST, finding.measure or "", left.value, right.value)
    if comparison is None or comparison.verdict is not Verdict.WITHIN_ERROR:
        return finding
    complaint = side is not None and _hurts_in_front(case, side)
    usual = all(_as_athletes(finding, value.value) for value in (left, right))
    return None if usual and not complaint else _capped(finding, ALIKE)


def _as_athletes(finding: Finding, value: float) -> bool:
    if finding.because.rule == "M3":
        return not less_than(value, LIMIT["knee_usual_from"])
    return not more_than(value, LIMIT["drift_usual_up_to"])


def _hurts_in_front(case: Case, side: Side) -> bool:
    """A complaint in front of that hip, thigh or knee: by its sites, without any by its region."""
    complaint = case.complaint
    if complaint is None or side not in case.sides_of_complaint:
        return False
    if complaint.sites:
        return bool(FRONT_SITES & {*complaint.sites})
    return complaint.region in FRONT_REGIONS


def _capped(finding: Finding, says: str) -> Finding:
    """Possible at most, before anything else is merged with it."""
    return replace(
        finding,
        strength=Strength.POSSIBLE,
        against=(*finding.against, says),
        sources=(*dict.fromkeys((*finding.sources, HARVEY)),),
    )


def knee_fails_alike(finding: Finding, *, other_fails: bool | None) -> Finding:
    """M8 for a knee that fails by eye: capped where both sides fail or only one was tested."""
    if other_fails is False:
        return finding
    return _capped(finding, ALIKE if other_fails else ONE_SIDE)


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
    if school(case) != "degrees" or any(_proves_nothing(case, side) for side in SIDES):
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
    sources = source(case, measure)
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
    left, right = (knee(case, side) for side in SIDES)
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
