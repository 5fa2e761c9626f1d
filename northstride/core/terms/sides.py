"""Left and right are the athlete's own, always."""

from __future__ import annotations

from enum import StrEnum


class Side(StrEnum):
    LEFT = "left"
    RIGHT = "right"

    @property
    def other(self) -> Side:
        return Side.RIGHT if self is Side.LEFT else Side.LEFT


SIDES = (Side.LEFT, Side.RIGHT)
