"""What rules give back, and what a reading is made of."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from enum import IntEnum, StrEnum
from typing import Literal

from northstride.core.changed import Change
from northstride.core.examination import Value
from northstride.core.measuring.measurement import Comparison
from northstride.core.sides import Side
from northstride.core.vocabulary import Gate, RetakeReason, ReturnCriterion


class Strength(IntEnum):
    POSSIBLE = 1
    LIKELY = 2
    STRONG = 3

    @property
    def code(self) -> str:
        return self.name.lower()

    def one_step_more(self) -> Strength:
        return Strength(min(self + 1, Strength.STRONG))


class Urgency(StrEnum):
    """Highest first."""

    EMERGENCY = "emergency"
    SAME_DAY = "same_day"
    REFER = "refer"
    RECHECK = "recheck"
    TRAIN = "train"


URGENCY_ORDER = {urgency: place for place, urgency in enumerate(Urgency)}


@dataclass(frozen=True, slots=True)
class Reason:
    """Where in the record, by which rule, in one sentence."""

    at: str
    rule: str
    says: str


@dataclass(frozen=True, slots=True)
class Settle:
    """A test that would settle a flag, and why. `measure` where only a part of the test is missing."""

    test: str
    why: str
    measure: str | None = None


@dataclass(frozen=True, slots=True)
class Finding:
    """What one rule contributes to one flag. `measure` is what the other side is compared by."""

    code: str
    side: Side | None
    strength: Strength
    because: Reason
    test: str | None = None
    measure: str | None = None
    against: tuple[str, ...] = ()
    settle: tuple[Settle, ...] = ()
    sources: tuple[str, ...] = ()
    # What the rule itself asks to be done; without one the default of kind and strength holds.
    urgency: Urgency | None = None
    # Days until the last day of a referral, where the rule names them.
    within_days: int | None = None
    # Flag codes that nothing is trained for beside it on that side; "*" stands for all.
    no_training_for: tuple[str, ...] = ()
    # Which of several entries of the test: a toe, a bone, an ankle position.
    key: Value | None = None


@dataclass(frozen=True, slots=True)
class GateRaised:
    """A reason to hold tests on a side, without a flag of its own.

    `until_answered` where questions that are still open would clear it; `variant` names what it holds
    where that is not what the gate usually holds.
    """

    gate: Gate
    side: Side
    until_answered: bool = False
    variant: str | None = None


@dataclass(frozen=True, slots=True)
class Question:
    """An answer of the story that nobody gave and that a rule needs. `item` as in the open format."""

    item: str
    why: str


@dataclass(frozen=True, slots=True)
class Ask:
    """A question, and whether its answer could change a gate or an emergency or same-day flag."""

    item: str
    why: str
    urgent: bool


@dataclass(frozen=True, slots=True)
class Step:
    """One step more on a flag. `makes` says whether it raises a flag where none stood.

    Steps of one rule and one `reason` count once for a flag, however many there are.
    """

    code: str
    side: Side | None
    because: Reason
    test: str
    measure: str
    makes: bool
    sources: tuple[str, ...] = ()
    reason: str = ""


@dataclass(frozen=True, slots=True)
class Cap:
    """The most a flag may be, after all steps, and what is said of it."""

    code: str
    side: Side | None
    at_most: Strength
    says: str
    sources: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Recheck:
    """What is looked at again, from one day to another, whether it was flagged or not.

    `says` why in words; `test` is the one to be done again.
    """

    code: str
    side: Side
    rule: str
    start: date
    end: date
    says: str
    test: str


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
    changes: tuple[Change, ...]
    coverage: Coverage
    advice: tuple[Advice, ...]
