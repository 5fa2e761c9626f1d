"""Which side is examined first: the sound one, so that there is a normal to compare with."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from northstride.core.sides import Side
from northstride.core.vocabulary import DEFAULT_SCHOOLS


def first_side(intake: Mapping[str, Any] | None, schools: Mapping[str, Any]) -> Side:
    """The uninjured side where there is one and the school wants it, otherwise left."""
    school = schools.get("first_side", DEFAULT_SCHOOLS["first_side"])
    complaint = (intake or {}).get("complaint") or {}
    injured = complaint.get("side") if complaint.get("region") != "none" else None
    if school == "uninjured" and injured in (Side.LEFT, Side.RIGHT):
        return Side(injured).other
    return Side.LEFT
