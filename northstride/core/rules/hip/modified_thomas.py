"""What every rule of the modified Thomas test looks up: values, school, sources, what spoils them.

T thigh_angle, S thigh_angle_knee_straight, K knee_angle (or 90 − shortfall), P the school's
knee_pass; degrees.
"""

from __future__ import annotations

from northstride.core.examination.case import Case, Observed
from northstride.core.norms import limits
from northstride.core.terms.sides import Side

TEST = "hip.modified_thomas"
LIMIT = limits("hip_length")

ILIOPSOAS = "tightness.iliopsoas"
RECTUS = "tightness.rectus_femoris"
HIP_FLEXORS = "tightness.hip_flexors"
TFL_ITB = "tightness.tfl_itb"
SARTORIUS = "tightness.sartorius"

HARVEY = "Harvey 1998"
POSITION_SPOILT = "The low back was not flat: the true value is tighter still."


def school(case: Case) -> str:
    return case.schools["thomas"]


def source(case: Case, measure: str) -> tuple[str, ...]:
    error = case.measure(TEST, measure).error
    return (error.source,) if error else ()


def knee(case: Case, side: Side) -> Observed | None:
    bend = case.number(TEST, "knee_angle", side)
    if bend is not None:
        return bend
    short = case.number(TEST, "knee_shortfall", side)
    return Observed(LIMIT["shortfall_zero"] - short.value, short.at) if short else None


def spoilt(case: Case, side: Side) -> tuple[str, ...]:
    return (POSITION_SPOILT,) if case.is_flattered(TEST, "thigh_angle", side) else ()
