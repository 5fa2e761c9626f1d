"""The open record `north-stride/screen` as strict Pydantic models.

What needs the catalogue (tests, measures, seen codes, places of pain) is checked in `entries`.
"""

from __future__ import annotations

import datetime as dt
import re
import unicodedata
from typing import Annotated, Literal, Self, TypeVar
from uuid import UUID

from pydantic import (
    AfterValidator,
    AwareDatetime,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    JsonValue,
    StringConstraints,
    model_validator,
)

from northstride.core.terms.vocabulary import (
    ComplaintRegion,
    Confounder,
    Gate,
    HistoryKind,
    Mechanism,
    OnsetKind,
    Purpose,
    RedFlag,
    Region,
    Schools,
    Sex,
    SideOrBoth,
    Symptom,
)
from northstride.record.naming import tidy

FORMAT = "north-stride/screen"
VERSION = 1

MOST_ENTRIES = 2000
MOST_LISTED = 500


# Letters by their category that no font draws.
INVISIBLE_LETTERS = "\u115f\u1160\u17b4\u17b5\u3164\uffa0"

# No screen, birth or onset lies outside. Beyond lie the calendar's own edges, where no offset fits.
FIRST_YEAR, LAST_YEAR = 1900, 2199


def _a_calendar_day(value: object) -> object:
    """Pydantic would also take a date and time, or seconds: a day is YYYY-MM-DD and nothing else."""
    if not isinstance(value, str) or not re.fullmatch(r"[0-9]{4}-[0-9]{2}-[0-9]{2}", value):
        raise ValueError("is not a day written YYYY-MM-DD")
    return value


def _within_years(value: DayOrMoment) -> DayOrMoment:
    if not FIRST_YEAR <= value.year <= LAST_YEAR:
        raise ValueError(f"is not between the years {FIRST_YEAR} and {LAST_YEAR}")
    return value


def _within_a_day(value: dt.datetime) -> dt.datetime:
    """Offsets in whole minutes, as clocks are set: seconds could not be kept."""
    offset = value.utcoffset()
    if offset is not None and (offset.seconds % 60 or abs(offset) > dt.timedelta(hours=18)):
        raise ValueError("has an offset that is on no clock")
    return value


def _a_visible_letter(value: str) -> str:
    """A name is read: one of spaces, marks or invisible characters alone names nobody."""
    shown = (character for character in value if character not in INVISIBLE_LETTERS)
    if not any(unicodedata.category(character)[0] in "LN" for character in shown):
        raise ValueError("has no letter or digit in it")
    return value


DayOrMoment = TypeVar("DayOrMoment", dt.date, dt.datetime)


def _no_boolean(value: object) -> object:
    """True equals 1, and a version is no truth value."""
    if isinstance(value, bool):
        raise ValueError("is not a version")
    return value


# Strict would refuse the text the check above lets through.
Day = Annotated[
    dt.date,
    Field(strict=False),
    BeforeValidator(_a_calendar_day, json_schema_input_type=dt.date),
    AfterValidator(_within_years),
]
Moment = Annotated[AwareDatetime, AfterValidator(_within_years), AfterValidator(_within_a_day)]
# NUL cannot be stored, other control characters cannot be read aloud or printed.
CONTROL_FREE = r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$"
Text = Annotated[str, StringConstraints(max_length=2000, pattern=CONTROL_FREE)]
ShortText = Annotated[str, StringConstraints(max_length=200, pattern=CONTROL_FREE)]
# The same with at least one character that is not a space.
FILLED = r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*[^\x00-\x20\x7f][^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$"
FilledText = Annotated[str, StringConstraints(max_length=2000, pattern=FILLED)]
FilledShortText = Annotated[str, StringConstraints(max_length=200, pattern=FILLED)]
# What somebody or something is called: on one line, without what nobody sees.
Name = Annotated[FilledShortText, AfterValidator(tidy), AfterValidator(_a_visible_letter)]
# Of a day.
Minutes = Annotated[float, Field(ge=0, le=1440)]
PainScore = Annotated[int, Field(ge=0, le=10)]


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, frozen=True, allow_inf_nan=False)


class AthletePart(Strict):
    ref: Name
    birth_date: Day | None = None
    sex: Sex | None = None
    sport: ShortText | None = None
    dominant_side: SideOrBoth | None = None
    body_mass_kg: Annotated[float, Field(gt=0, le=400)] | None = None
    height_cm: Annotated[float, Field(gt=0, le=280)] | None = None


class SorePlace(Strict):
    """One place that hurts, on its side, with how much."""

    site: str
    side: Literal["left", "right"]
    now: PainScore | None = None
    worst: PainScore | None = None


class ComplaintPart(Strict):
    """The region may be missing where places or sites are told: it follows from them."""

    region: ComplaintRegion | None = None
    side: SideOrBoth | None = None
    sites: Annotated[list[str], Field(max_length=MOST_LISTED)] = []
    places: Annotated[list[SorePlace], Field(max_length=MOST_LISTED)] = []

    @model_validator(mode="after")
    def _somewhere(self) -> Self:
        if self.region is None and not self.places and not self.sites:
            raise ValueError("names no region and no place")
        return self


class OnsetPart(Strict):
    date: Day | None = None
    kind: OnsetKind | None = None
    mechanism: Mechanism | None = None
    # The day is a guess.
    about: bool | None = None


class PainLevels(Strict):
    now: PainScore | None = None
    worst: PainScore | None = None
    at_onset: PainScore | None = None


class HistoryPart(Strict):
    # Tells the lines of one history apart while several hands write it.
    id: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_]{1,40}$")] | None = None
    region: Region
    kind: HistoryKind
    side: SideOrBoth | None = None
    count: Annotated[int, Field(ge=1, le=100)] | None = None
    weeks_ago: Annotated[float, Field(ge=0, le=6000)] | None = None
    date: Day | None = None


# What can be asked and answered no.
Asked = Symptom | RedFlag | Confounder | Literal["history"]


class IntakePart(Strict):
    complaint: ComplaintPart | None = None
    onset: OnsetPart | None = None
    pain: PainLevels | None = None
    symptoms: Annotated[list[Symptom], Field(max_length=MOST_LISTED)] = []
    morning_stiffness_min: Minutes | None = None
    load_change: bool | None = None
    red_flags: Annotated[list[RedFlag], Field(max_length=MOST_LISTED)] = []
    confounders: Annotated[list[Confounder], Field(max_length=MOST_LISTED)] = []
    asked: Annotated[list[Asked], Field(max_length=MOST_LISTED)] = []
    history: Annotated[list[HistoryPart], Field(max_length=MOST_LISTED)] = []


class EntryPain(Strict):
    present: bool
    nrs: PainScore | None = None
    site: str | None = None
    familiar: bool | None = None


class EntryPart(Strict):
    id: UUID | None = None
    at: Moment | None = None
    test: str
    side: Literal["left", "right"] | None = None
    values: dict[str, JsonValue] = {}
    pain: EntryPain | None = None
    seen: Annotated[list[str], Field(max_length=MOST_LISTED)] = []
    declined: FilledText | None = None
    method: ShortText | None = None
    by: ShortText | None = None
    by_exception: bool | None = None
    note: Text | None = None


class ConsentPart(Strict):
    given: bool | None = None
    guardian: ShortText | None = None
    chaperone: ShortText | None = None


class LeftOutPart(Strict):
    """A test that stays out of this screen, why, and who said so."""

    test: str
    reason: FilledText
    by: Name | None = None


class OverridePart(Strict):
    gate: Gate
    side: SideOrBoth
    reason: FilledText
    by: Name


class StrictSchools(Schools, total=False):
    """The core's schools, refusing keys it does not know."""

    __pydantic_config__ = ConfigDict(extra="forbid", strict=True)  # type: ignore[misc]


class RecordHead(Strict):
    """All of a screen but its entries."""

    format: Literal["north-stride/screen"]
    version: Annotated[Literal[1], BeforeValidator(_no_boolean, json_schema_input_type=Literal[1])]
    # A line for whoever opens the file; it says nothing about the athlete and is not kept.
    notice: Text | None = None
    id: UUID
    date: Day
    purpose: Purpose
    athlete: AthletePart
    examiner: ShortText | None = None
    schools: StrictSchools = StrictSchools()
    intake: IntakePart | None = None
    planned: Annotated[list[str], Field(max_length=MOST_ENTRIES)] = []
    left_out: Annotated[list[LeftOutPart], Field(max_length=MOST_LISTED)] = []
    # For learning: why a test is on the route is shown once it is done.
    reasons_after: bool | None = None
    consent: ConsentPart | None = None
    overrides: Annotated[list[OverridePart], Field(max_length=MOST_LISTED)] = []


class Record(RecordHead):
    """One screen. What is missing is unknown; nothing is assumed."""

    entries: Annotated[list[EntryPart], Field(max_length=MOST_ENTRIES)]
