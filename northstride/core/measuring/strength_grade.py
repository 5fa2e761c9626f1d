"""Manual muscle grades: text, in the order 0 < 1− < 1 < 1+ < … < 5."""

from __future__ import annotations

SIGNS = {"-": -1, "": 0, "+": 1}


def rank(grade: str) -> int:
    """A number that orders grades. Expects a grade the record has checked."""
    return int(grade[0]) * 3 + SIGNS[grade[1:].replace("−", "-")]


def at_most(grade: str, limit: str) -> bool:
    return rank(grade) <= rank(limit)
