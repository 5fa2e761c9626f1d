"""One side against the other in percent, on scales where zero means none."""

from __future__ import annotations

from typing import Literal

from northstride.core.examination.case import Case
from northstride.core.measuring.measurement import less_than, symmetry_index
from northstride.core.norms import limits
from northstride.core.terms.sides import Side

LIMIT = limits("hip_joint")


def involved_side(case: Case) -> Side | None:
    """The side of the complaint where there is one and only one."""
    sides = [side for side in case.complaint_sides if side is not None]
    return sides[0] if len(sides) == 1 and case.has_complaint else None


def against_uninvolved(case: Case, left: float | None, right: float | None) -> float | None:
    """Percent of the uninvolved side; without an involved side, of the stronger."""
    involved = involved_side(case)
    hurt: Literal["left", "right"] | None = None
    if involved is not None:
        hurt = "left" if involved is Side.LEFT else "right"
    return _index(left, right, hurt)


def weaker_side(left: float | None, right: float | None) -> tuple[Side, float] | None:
    """The weaker side, whichever is involved, and weaker against stronger where that is under 90 %."""
    index = _index(left, right, None)
    if index is None or left is None or right is None:
        return None
    if not less_than(index, LIMIT["symmetry_possible_below"]):
        return None
    return Side.LEFT if left < right else Side.RIGHT, index


def _index(
    left: float | None, right: float | None, involved: Literal["left", "right"] | None
) -> float | None:
    if left is None or right is None:
        return None
    return symmetry_index(left, right, ratio_scale=True, measure="ratio", involved=involved)
