"""Scores: points added up by the catalogue's data."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from northstride.core.catalogue.score import Score, ScoreItem
from northstride.core.measuring.measurement import less_than


@dataclass(frozen=True, slots=True)
class Scored:
    """The points so far, and the measures nobody answered: those add nothing."""

    total: float
    open: tuple[str, ...]


def scored(score: Score, value: Callable[[str], object]) -> Scored:
    """`value` gives what stands for a measure: yes or no, a number (trials as one), or None for unknown."""
    total, open_ = 0.0, []
    for item in score.items:
        found = value(item.measure)
        if found is None:
            open_.append(item.measure)
        else:
            total += _points(item, found)
    return Scored(total, tuple(open_))


def _points(item: ScoreItem, found: object) -> float:
    if isinstance(found, bool):
        return (item.points or 0.0) if found else 0.0
    if not isinstance(found, int | float):
        return 0.0
    if item.at_least is None:
        return float(found)
    return 0.0 if less_than(found, item.at_least) else (item.points or 0.0)
