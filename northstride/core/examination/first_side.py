"""Which side is examined first: the sound one, so that there is a normal to compare with."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from northstride.core.examination import Complaint
from northstride.core.sides import Side
from northstride.core.vocabulary import DEFAULT_SCHOOLS, ComplaintRegion


def first_side_of(complaint: Complaint | None, school: str) -> Side:
    """The uninjured side where there is one and the school wants it, otherwise left."""
    injured = complaint.side if complaint is not None and complaint.region != "none" else None
    if school == "uninjured" and injured in (Side.LEFT, Side.RIGHT):
        return Side(injured).other
    return Side.LEFT


def first_side(intake: Mapping[str, Any] | None, schools: Mapping[str, Any]) -> Side:
    """The same for a story and schools as they stand in a record."""
    raw = (intake or {}).get("complaint") or {}
    places = [place["side"] for place in raw.get("places") or []]
    sides = {raw.get("side"), *places} - {None}
    # Which region does not matter here, only whether there is a complaint.
    nothing = raw.get("region") == "none" and not places
    region: ComplaintRegion = "none" if nothing else "hip"
    complaint = Complaint(region, sides.pop() if len(sides) == 1 else None)
    return first_side_of(complaint, schools.get("first_side", DEFAULT_SCHOOLS["first_side"]))
