"""M7: the schools that read the modified Thomas test by eye."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Strength
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.rules.hip.modified_thomas import (
    HIP_FLEXORS,
    RECTUS,
    TEST,
    TFL_ITB,
    knee,
    school,
    spoilt,
)
from northstride.core.sides import SIDES

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
        thigh, bend = case.number(TEST, "thigh_angle", side), knee(case, side)
        failed = {
            "thigh": thigh is not None and more_than(thigh.value, 0),
            "knee": bend is not None and less_than(bend.value, case.schools["knee_pass"]),
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
                against = spoilt(case, side) if part == "thigh" else ()
                yield Finding(code, side, Strength.LIKELY, because, TEST, part, against)
