"""How much each test can say: published figures, and what in a record makes a sign positive."""

from __future__ import annotations

import tomllib
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Literal, Self

import orjson
from pydantic import BaseModel, ConfigDict, Field, model_validator

FILE = Path(__file__).parent / "accuracy.toml"
Share = Annotated[float, Field(ge=0, le=1)]


class _Data(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", strict=True)


class Reads(_Data):
    """What makes a sign positive or negative.

    `needs` names a tick without which it counts for nothing; `held_for` the seconds without which a
    painless hold is no negative. `together`: bruising, tender ATFL and a lax drawer on the same day.
    """

    kind: Literal["result", "pain", "tender", "laxity", "choice", "flag", "rule", "together"]
    measure: str | None = None
    site: str | None = None
    key: str | None = None
    rule: str | None = None
    positive: list[str] = []
    negative: list[str] = []
    needs: str | None = None
    held_for: float | None = None
    # Days since the injury, first and last, on which signs are read together.
    days: tuple[int, int] | None = None


class AccuracyFigure(_Data):
    """Sensitivity and specificity, each least and most favourable; equal where one study gave one.

    `pooled_negative` stands in place of the negative ratio of the two, most favourable first. Where no use
    was shown no figure is moved.
    """

    sign: str
    family: str
    test: str
    codes: list[str]
    sensitivity: tuple[Share, Share]
    specificity: tuple[Share, Share]
    pooled_negative: tuple[Share, Share] | None = None
    no_use_shown: bool = False
    source: Annotated[str, Field(pattern=r"[12][09]\d\d")]
    reads: Reads

    @model_validator(mode="after")
    def least_before_most(self) -> Self:
        for low, high in (self.sensitivity, self.specificity):
            if low > high:
                raise ValueError(f"{self.sign}: {low} stands before {high}")
        return self


class _File(_Data):
    label: str
    figure: list[AccuracyFigure]


@lru_cache
def _file() -> _File:
    raw = tomllib.loads(FILE.read_text(encoding="utf-8"))
    # TOML has arrays only; strict mode would refuse them where a pair is meant.
    return _File.model_validate_json(orjson.dumps(raw))


def accuracy_figures() -> tuple[AccuracyFigure, ...]:
    return tuple(_file().figure)


def accuracy_label() -> str:
    """What is said beside every figure."""
    return _file().label
