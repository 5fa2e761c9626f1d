"""What a reading is made of."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from northstride.core.examination.follows import Follows
from northstride.core.findings.change import Change
from northstride.core.findings.finding import (
    Ask,
    Reason,
    Settle,
    Strength,
    Urgency,
)
from northstride.core.measuring.measurement import Comparison
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import Gate, RetakeReason, ReturnCriterion


@dataclass(frozen=True, slots=True)
class Retake:
    test: str
    side: Side | None
    reason: RetakeReason


@dataclass(frozen=True, slots=True)
class Held:
    test: str
    side: Side | None
    gate: Gate


@dataclass(frozen=True, slots=True)
class Shut:
    """All tests of the catalogue that a shut gate covers on a side, whether planned or not."""

    gate: Gate
    side: Side | None
    tests: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Doubt:
    """A gate that is shut on a side."""

    gate: Gate
    side: Side


@dataclass(frozen=True, slots=True)
class Difference:
    test: str
    measure: str
    comparison: Comparison
    symmetry: float | None
    source: str


@dataclass(frozen=True, slots=True)
class Flag:
    code: str
    side: Side | None
    strength: Strength
    urgency: Urgency | None
    because: tuple[Reason, ...]
    against: tuple[str, ...]
    settle: tuple[Settle, ...]
    uncompared: bool
    sources: tuple[str, ...]
    within_days: int | None = None

    @property
    def kind(self) -> str:
        return self.code.split(".", 1)[0]


@dataclass(frozen=True, slots=True)
class RuledDown:
    code: str
    side: Side | None
    because: tuple[Reason, ...]


@dataclass(frozen=True, slots=True)
class Action:
    """What is to be done, and for which flag: `about` is its code.

    `says` in words where it is more than the flag's name; `tests` are what it rests on: done again later,
    a second look has been had.
    """

    code: str
    about: str
    side: Side | None
    urgency: Urgency
    because: tuple[str, ...]
    start: date | None = None
    end: date | None = None
    says: str | None = None
    tests: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Next:
    """`rule` where a rule asks it before anything else."""

    test: str
    side: Side | None
    why: str
    rule: str | None = None


@dataclass(frozen=True, slots=True)
class Criterion:
    criterion: ReturnCriterion
    state: Literal["met", "not_met", "not_tested"]
    at: str | None


@dataclass(frozen=True, slots=True)
class Unexamined:
    """A structure the purpose and the story call for, and nothing that was read speaks about.

    `why`: nothing recorded, all of it held, or all of it declined. `tests` would speak about it.
    """

    structure: str
    side: Side | None
    why: Literal["not_recorded", "held", "declined"]
    tests: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Coverage:
    planned: int
    done: int
    declined: int
    open: tuple[str, ...]
    unexamined: tuple[Unexamined, ...]


@dataclass(frozen=True, slots=True)
class Advice:
    """Options for a licensed practitioner, by flag."""

    code: str
    side: Side | None
    options: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Reading:
    record: str
    rules: str
    flags: tuple[Flag, ...]
    ruled_down: tuple[RuledDown, ...]
    actions: tuple[Action, ...]
    retake: tuple[Retake, ...]
    held: tuple[Held, ...]
    shut: tuple[Shut, ...]
    doubts: tuple[Doubt, ...]
    differences: tuple[Difference, ...]
    next: tuple[Next, ...]
    ask: tuple[Ask, ...]
    criteria: tuple[Criterion, ...]
    follows: tuple[Follows, ...]
    changes: tuple[Change, ...]
    coverage: Coverage
    advice: tuple[Advice, ...]
