"""What stands on each sheet, as data: paper and page draw the same."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass, field
from typing import Literal

from northstride.record.model import Record
from northstride.record.reading_model import Out, ReadingOut, SideCode, StrengthCode

SheetKind = Literal["report", "letter", "athlete"]
Status = Literal["draft", "signed", "amended"]


@dataclass(frozen=True, slots=True)
class Clinic:
    """As the clinic set it; what is empty is said before a sheet leaves."""

    name: str
    address: str = ""
    phone: str = ""
    night_phone: str = ""
    emergency_number: str = ""


@dataclass(frozen=True, slots=True)
class Signature:
    """Number 0 is the signing, later ones are amendments with their reason."""

    by: str
    at: dt.datetime
    number: int
    reason: str | None


@dataclass(frozen=True, slots=True)
class Changed:
    """A flag the newest amendment brought, took away or changed; `was` its strength before, if it had one."""

    code: str
    side: SideCode
    was: StrengthCode | None
    stands: bool


@dataclass(frozen=True, slots=True)
class LaterWords:
    """Words were put on a signed paper: which version that made it, who put the last ones there and when."""

    version: int
    by: str
    at: dt.datetime


@dataclass(frozen=True, slots=True)
class Basis:
    """All that sheets are made from. `edited` holds words a practitioner put in the place of ours."""

    clinic: Clinic
    athlete: str
    record: Record
    reading: ReadingOut
    signature: Signature | None
    edited: dict[str, str] = field(default_factory=dict)
    changed: tuple[Changed, ...] = ()
    later: LaterWords | None = None

    @property
    def status(self) -> Status:
        if self.signature is None:
            return "draft"
        return "signed" if self.signature.number == 0 else "amended"


class Head(Out):
    """Who, by whom, and how far it holds.

    `notice` says that it is a draft, what was amended and why, or that words were changed after signing.
    """

    athlete: str
    ref: str
    born: dt.date | None
    age: int | None
    date: dt.date
    examiner: str | None
    clinic: str
    address: str
    phone: str
    status: Status
    notice: str
    signed: str | None
    rules: str


class Line(Out):
    """A finding in a line: whose side, its name, and what is said of it. `code` finds its figure."""

    code: str | None = None
    side: SideCode
    lead: str
    says: str


class Cell(Out):
    """One lane of a row of the report. `muted` where nothing was found, and why."""

    strength: StrengthCode | None = None
    lines: list[str] = []
    muted: bool = False


class Row(Out):
    """A row of two lanes with its name in the spine. `code` finds its figures."""

    code: str | None = None
    name: str
    about: list[str] = []
    left: Cell
    right: Cell


class Report(Out):
    head: Head
    purpose: str
    rows: list[Row]
    # What belongs to no side.
    whole: list[Line]
    sources: list[str]
    caution: str


class Letter(Out):
    head: Head
    to: str
    about: str
    asked: str
    by: dt.date | None
    sooner: str
    greeting: str
    why: list[str]
    found: list[Line]
    more: int
    not_done: list[str]
    until_then: str
    last: str
    caution: str


class Numbers(Out):
    emergency: str
    phone: str
    night: str


class Days(Out):
    """From one day to another somebody is to look again, or to be seen by the last of them."""

    start: dt.date
    end: dt.date
    says: str


class Pin(Out):
    """Where on the body a numbered line of what stands out lies."""

    number: int
    side: Literal["left", "right"]
    region: str


class AthleteSheet(Out):
    """`alone` is what an emergency says: then there is nothing else on it. `days` begin with the first."""

    head: Head
    alone: list[str]
    looked_at: list[str]
    not_yet: list[str]
    stands_out: list[Line]
    pins: list[Pin]
    to_do: list[str]
    come_back: list[str]
    days: list[Days]
    call_now: list[str]
    call_same_day: list[str]
    numbers: Numbers
    caution: str
