"""M7: the schools that read the modified Thomas test by eye."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Strength
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.rules.hip.length_sides import knee_fails_alike
from northstride.core.rules.hip.modified_thomas import (
    HIP_FLEXORS,
    RECTUS,
    TEST,
    TFL_ITB,
    knee,
    school,
    spoilt,
)
from northstride.core.terms.sides import SIDES, Side

SIZES = (Strength.POSSIBLE, Strength.LIKELY, Strength.STRONG)


def graded_at_the_edge(case: Case) -> Iterator[Finding]:
    """M7, school edge_grade: 0 passes, 1 possible, 2 likely, 3 strong."""
    if school(case) != "edge_grade":
        return
    for side in SIDES:
        entry = case.entry(TEST, side)
        grade = case.on(side).grade(TEST, "edge_grade")
        if entry is not None and grade is not None and grade > 0:
            because = Reason(entry.at, "M7", f"Grade {grade} at the side edge.")
            against = spoilt(case, side)
            yield Finding(HIP_FLEXORS, side, SIZES[grade - 1], because, TEST, "edge_grade", against)


def failed_by_eye(case: Case) -> Iterator[Finding]:
    """M7, school pass_fail: a fail is likely; degrees taken all the same are read as fails."""
    if school(case) != "pass_fail":
        return
    for side in SIDES:
        entry = case.entry(TEST, side)
        if entry is None:
            continue
        for part, code, says in (
            ("thigh", HIP_FLEXORS, "The thigh does not reach level."),
            ("knee", RECTUS, "The knee does not bend far enough."),
            ("cross", TFL_ITB, "The thigh does not cross the body."),
        ):
            if _fails(case, part, side) and not case.is_void(TEST, part, side):
                because = Reason(entry.at, "M7", says)
                against = spoilt(case, side) if part == "thigh" else ()
                finding = Finding(code, side, Strength.LIKELY, because, TEST, part, against)
                other = _fails(case, "knee", side.other)
                yield knee_fails_alike(finding, other_fails=other) if part == "knee" else finding


def _fails(case: Case, part: str, side: Side) -> bool | None:
    """Written as a fail, or by degrees taken all the same; None where that part was not looked at."""
    written = case.value(TEST, part, side)
    thigh, bend = case.number(TEST, "thigh_angle", side), knee(case, side)
    by_degrees: list[bool] = []
    if part == "thigh" and thigh is not None:
        by_degrees.append(more_than(thigh.value, 0))
    if part == "knee" and bend is not None:
        by_degrees.append(less_than(bend.value, case.schools["knee_pass"]))
    if written is None and not by_degrees:
        return None
    return written == "fail" or any(by_degrees)
