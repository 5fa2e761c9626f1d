"""Which side is examined first: the sound one, so that there is a normal to compare with."""

from __future__ import annotations

from northstride.core.examination import Complaint
from northstride.core.terms.sides import Side


def first_side_of(complaint: Complaint | None, school: str) -> Side:
    """The uninjured side where there is one and the school wants it, otherwise left."""
    injured = complaint.side if complaint is not None and complaint.hurts else None
    if school == "uninjured" and injured in (Side.LEFT, Side.RIGHT):
        return Side(injured).other
    return Side.LEFT
