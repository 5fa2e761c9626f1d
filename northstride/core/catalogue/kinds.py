"""What each kind of measure is, once for everything that reads, checks, compares or shows it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Literal, get_args

MeasureKind = Literal[
    "angle", "length", "time", "force", "mass", "count", "grade", "strength", "choice", "choices", "flag"
]


@dataclass(frozen=True, slots=True)
class KindFacts:
    """`numeric`: taken in trials and averaged. `ratio`: zero means none of it, so percent is legal.

    `whole`: only whole numbers are one. `dial`: read on a goniometer, or seen to be full.
    `ranged`: needs its plausible range. `chosen`: needs its choices.
    """

    numeric: bool = False
    ratio: bool = False
    whole: bool = False
    dial: bool = False
    ranged: bool = False
    chosen: bool = False


_AMOUNT = KindFacts(numeric=True, ratio=True, ranged=True)

KIND_FACTS: Mapping[MeasureKind, KindFacts] = MappingProxyType(
    {
        "angle": KindFacts(numeric=True, dial=True, ranged=True),
        "length": _AMOUNT,
        "time": _AMOUNT,
        "force": _AMOUNT,
        "mass": _AMOUNT,
        "count": KindFacts(numeric=True, ratio=True, whole=True, ranged=True),
        "grade": KindFacts(ranged=True),
        "strength": KindFacts(),
        "choice": KindFacts(chosen=True),
        "choices": KindFacts(chosen=True),
        "flag": KindFacts(),
    }
)
if set(KIND_FACTS) != set(get_args(MeasureKind)):
    raise KeyError("kinds of measure and their facts differ")
