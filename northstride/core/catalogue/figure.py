"""Which drawing shows a step of a test, what moves it and where the examiner's hands go."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import model_validator

from northstride.core.catalogue.data import Code, Data
from northstride.core.catalogue.figure_kinds import FigureKind

Frame = Literal["room", "pelvis", "thorax", "thigh", "shank", "foot", "forefoot", "toes"]
# A frame of the body, then forwards, outwards, up the bone, in thousandths of body height.
Place = tuple[Frame, float, float, float]


class Way(Data):
    """Where a hand pushes: along a direction, one way or both, or round an axis through a place."""

    along: Place | None = None
    both: bool = False
    turn: Place | None = None
    about: Code | Place | None = None
    degrees: float | None = None

    @model_validator(mode="after")
    def goes_one_way(self) -> Self:
        if (self.along is None) == (self.turn is None) or (self.turn is None) != (self.about is None):
            raise ValueError("a hand pushes along a direction, or turns about a place")
        return self


class Hand(Data):
    """`hold`: a ring. `feel`: with a dot. `press`: an arrow alone. `tap`: a star. `self`: the athlete."""

    does: Literal["hold", "press", "feel", "tap", "self"]
    at: Code | Place
    limb: Literal["tested", "other"] = "tested"
    way: Way | None = None
    # The arrow arrives at the hand; else it leaves it.
    into: bool = False
    # Under or behind the body.
    behind: bool = False
    small: bool = False


class Figure(Data):
    """Which drawing, and which measures move which joint of it: the first that was read does."""

    kind: FigureKind
    joints: dict[Code, list[Code]] = {}
    # How it stands until a measure was read.
    pose: dict[Code, float] = {}
    hands: list[Hand] = []

    @property
    def moved_by(self) -> set[str]:
        return {code for codes in self.joints.values() for code in codes}


class FigureOf(Figure):
    """A figure and whose it is: of one step, or of all steps of a test that have none of their own."""

    test: Code
    step: Code | None = None

    def drawn(self) -> Figure:
        return Figure.model_validate(self.model_dump(exclude={"test", "step"}))
