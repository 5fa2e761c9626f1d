"""How a score adds up over the measures of a test."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from northstride.core.catalogue.data import Code, Data, Line


class ScoreItem(Data):
    """What one measure adds: a flag its points when true, a number them from `at_least` on, else itself."""

    measure: Code
    points: float | None = None
    at_least: float | None = None


class Score(Data):
    """Points added up over measures of one side; what is not answered adds nothing and is counted."""

    label: Line
    source: Line
    items: Annotated[list[ScoreItem], Field(min_length=2)]
    # What else counts that is not asked here.
    besides: Line | None = None
