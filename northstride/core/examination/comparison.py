"""Two values of one measure against its error: which figure is in force, and what it says."""

from __future__ import annotations

import math

from northstride.core.catalogue import Catalogue, ErrorFigure
from northstride.core.examination.model import Context
from northstride.core.measuring.measurement import Comparison, compare_sides


def own_sem(context: Context, test: str, measure: str) -> float | None:
    """The clinic's own standard error, in the measure's unit; None where it has none."""
    return context.sem.get(f"{test}.{measure}", context.sem.get(measure))


def error_of(catalogue: Catalogue, test: str, measure: str) -> ErrorFigure | None:
    """The catalogue's error figure of a measure, or of what follows from measures.

    Raises KeyError for a measure the test does not have.
    """
    found = catalogue.compared(test, measure)
    if found is None:
        raise KeyError(f"{test}.{measure}")
    return found.error


def compare_values(
    catalogue: Catalogue, context: Context, test: str, measure: str, one: float, other: float
) -> Comparison | None:
    """Two values against error and threshold; None where a measure has no error figure."""
    error, own = error_of(catalogue, test, measure), own_sem(context, test, measure)
    if error is None:
        # A clinic that measured its own error may say what is real, not what matters.
        return None if own is None else compare_sides(one, other, own, math.inf)
    sem = error.sem if own is None else own
    threshold = error.threshold
    if error.percent is not None:
        threshold *= max(one, other) / 100
    # A clinic's own figure is in the measure's unit, whatever the catalogue's is.
    if error.percent == "both" and own is None:
        sem *= (one + other) / 2 / 100
    return compare_sides(one, other, sem, threshold)
