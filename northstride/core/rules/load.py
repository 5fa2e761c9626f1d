"""U3: more load than before, and what is made of it where nobody asked."""

from __future__ import annotations

from northstride.core.examination.case import Case
from northstride.core.findings import Strength


def load_unknown(case: Case) -> bool:
    return case.exam.intake.load_change is None


def as_if_load_went_up(case: Case) -> bool:
    """Yes, or nobody asked: then the flag stays possible, and what is to be done is as for yes."""
    return case.exam.intake.load_change is not False


def at_most_possible_unasked(case: Case, strength: Strength) -> Strength:
    return Strength.POSSIBLE if load_unknown(case) else strength
