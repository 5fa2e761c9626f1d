"""What rules give back."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from enum import IntEnum, StrEnum

from northstride.core.examination import Value
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import Gate


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
# What cannot wait; and all that somebody else has to see.
URGENT = (Urgency.EMERGENCY, Urgency.SAME_DAY)
REFERRED = (*URGENT, Urgency.REFER)


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
