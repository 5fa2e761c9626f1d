"""One side against the other in percent, on scales where zero means none."""

from __future__ import annotations

from typing import Literal

from northstride.core.examination.case import Case
from northstride.core.measuring.measurement import less_than, symmetry_index
from northstride.core.norms import limits
from northstride.core.sides import Side

LIMIT = limits("hip_joint")


def involved_side(case: Case) -> Side | None:
    """The side of the complaint where there is one and only one."""
    sides = [side for side in case.complaint_sides if side is not None]
    return sides[0] if len(sides) == 1 and case.has_complaint else None


def symmetry(case: Case, left: float | None, right: float | None) -> float | None:
    """Involved against uninvolved where a side is involved, else weaker against stronger; percent."""
    if left is None or right is None:
        return None
    involved = involved_side(case)
    hurt: Literal["left", "right"] | None = None
    if involved is not None:
        hurt = "left" if involved is Side.LEFT else "right"
    return symmetry_index(left, right, ratio_scale=True, measure="ratio", involved=hurt)


def weaker_side(case: Case, left: float | None, right: float | None) -> tuple[Side, float] | None:
    """The side whose symmetry is under 90 %, and the symmetry in percent."""
    index = symmetry(case, left, right)
    if index is None or left is None or right is None:
        return None
    if not less_than(index, LIMIT["symmetry_possible_below"]):
        return None
    return involved_side(case) or (Side.LEFT if left < right else Side.RIGHT), index
