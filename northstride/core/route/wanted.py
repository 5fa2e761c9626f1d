"""What a route is chosen from: a test that is wanted and why, or left out and why."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from northstride.core.catalogue import Position, Test
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import Gate

Stage = Literal["safety", "first", "middle", "last"]
STAGES: tuple[Stage, ...] = ("safety", "first", "middle", "last")


@dataclass(frozen=True, slots=True)
class Wanted:
    """A test on the route: on which sides (none for tests of both at once), where, when, and why."""

    test: Test
    sides: tuple[Side, ...]
    positions: tuple[Position, ...]
    stage: Stage
    why: str
    # The sides the story asks it for; the others are there to compare with. Empty: no side by name.
    asked_for: tuple[Side, ...] = ()
    # The gate that holds it until earlier stops are answered.
    waits_for: Gate | None = None
    # Sides that are held for good, while another is free.
    held: tuple[HeldSide, ...] = ()


@dataclass(frozen=True, slots=True)
class HeldSide:
    side: Side
    gate: Gate


@dataclass(frozen=True, slots=True)
class LeftOut:
    """`gate` where one holds it for good."""

    test: str
    why: str
    gate: Gate | None = None


@dataclass(frozen=True, slots=True)
class CalledFor:
    """That a test is asked for: whether for safety, why first, and for which sides."""

    safety: bool
    why: str
    sides: tuple[Side, ...] = ()
