"""The shape of a reading as it leaves the core: what `evaluate` prints and the API answers with."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from pydantic import AliasChoices, BaseModel, ConfigDict, Field

from northstride.core.terms.vocabulary import FollowsUnit, Gate, RetakeReason, ReturnCriterion

SideCode = Literal["left", "right"] | None
StrengthCode = Literal["possible", "likely", "strong"]
UrgencyCode = Literal["emergency", "same_day", "refer", "recheck", "train"]


class Out(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


class ReasonOut(Out):
    at: str
    rule: str
    says: str


class FlagOut(Out):
    code: str
    kind: str
    side: SideCode
    strength: StrengthCode
    urgency: UrgencyCode | None
    because: list[ReasonOut]
    against: list[str]
    settle: list[str]
    uncompared: bool
    sources: list[str]


class RuledDownOut(Out):
    code: str
    side: SideCode
    because: list[ReasonOut]


class ActionOut(Out):
    code: str
    side: SideCode
    urgency: UrgencyCode
    start: dt.date | None = Field(
        default=None, validation_alias=AliasChoices("start", "from"), serialization_alias="from"
    )
    end: dt.date | None = Field(
        default=None, validation_alias=AliasChoices("end", "to"), serialization_alias="to"
    )
    because: list[str]
    # Why, where it is more than the flag's name; None also in what was frozen before it was kept.
    says: str | None
    # What it rests on. None in what was frozen before it was kept.
    tests: list[str] | None


class RetakeOut(Out):
    test: str
    side: SideCode
    reason: RetakeReason


class HeldOut(Out):
    test: str
    side: SideCode
    gate: Gate


class ShutOut(Out):
    """All tests a shut gate covers on a side, planned or not."""

    gate: Gate
    side: SideCode
    tests: list[str]


class DifferenceOut(Out):
    test: str
    measure: str
    left: float
    right: float
    difference: float
    mdc95: float
    threshold: float
    verdict: Literal["within_error", "real_small", "real_matters"]
    symmetry: float | None = None
    source: str


class AskOut(Out):
    item: str
    why: str
    urgent: bool


class FollowsOut(Out):
    """By arithmetic from what was measured; no flag comes of it. `test` is the one it is shown with."""

    code: str
    label: str
    unit: FollowsUnit
    test: str
    left: float | None
    right: float | None


class NextOut(Out):
    test: str
    side: SideCode
    why: str


class CriterionOut(Out):
    criterion: ReturnCriterion
    state: Literal["met", "not_met", "not_tested"]
    at: str | None


class BaselineOut(Out):
    record: str
    date: dt.date
    why: str


class ChangeOut(Out):
    test: str
    measure: str
    side: SideCode
    verdict: Literal["within_error", "changed", "not_comparable"]
    why: str | None
    baseline: BaselineOut
    before: float | None
    now: float | None
    difference: float | None
    mdc95: float | None
    threshold: float | None
    matters: bool | None
    worse: bool | None
    same_examiner: bool | None
    growing: bool
    source: str


class UnexaminedOut(Out):
    structure: str
    name: str
    side: SideCode
    why: Literal["not_recorded", "held", "declined"]
    tests: list[str]


class CoverageOut(Out):
    planned: int
    done: int
    declined: int
    open: list[str]
    # None in what was frozen before it was kept: then nobody knows, and it is no empty list.
    unexamined: list[UnexaminedOut] | None


class AdviceOut(Out):
    code: str
    side: SideCode
    options: list[str]


class ReadingOut(Out):
    """`rules` is the readable edition, `fingerprint` tells two editions of one name apart."""

    record: str
    rules: str
    # None in what was frozen before there were fingerprints.
    fingerprint: str | None
    flags: list[FlagOut]
    ruled_down: list[RuledDownOut]
    actions: list[ActionOut]
    retake: list[RetakeOut]
    held: list[HeldOut]
    # None in what was frozen before it was kept.
    shut: list[ShutOut] | None
    differences: list[DifferenceOut]
    # None in what was frozen before it was kept.
    follows: list[FollowsOut] | None
    next: list[NextOut]
    # None in what was frozen before there were questions.
    ask: list[AskOut] | None
    criteria: list[CriterionOut]
    changes: list[ChangeOut]
    coverage: CoverageOut
    advice: list[AdviceOut]
