"""What calls about screens answer with."""

from __future__ import annotations

import datetime as dt
from typing import Literal
from uuid import UUID

from pydantic import JsonValue

from northstride.api.answer_inputs import AnswerInput, SideCode
from northstride.api.bodies import Output
from northstride.core.vocabulary import Purpose, Schools
from northstride.record.model import Record, RecordHead


class WrittenOut(Output):
    revision: int
    late: list[UUID]


class AnswerOut(Output):
    id: UUID
    revision: int
    test: str
    side: SideCode | None
    key: str
    field: str
    value: JsonValue
    by: str | None
    # The name stands as an imported file wrote it: nobody here vouches for it.
    from_file: bool
    at: dt.datetime | None


class HeadOut(Output):
    """All of a screen but its entries: story, plan, overrides, schools, whose it is."""

    record: RecordHead
    schools: Schools
    first_side: SideCode


class ChangesOut(Output):
    """`head` comes with any change, so that what was asked, planned or opened elsewhere is seen here."""

    revision: int
    state: Literal["open", "signed"]
    answers: list[AnswerOut]
    head: HeadOut | None


class ScreenLine(Output):
    id: UUID
    date: dt.date
    purpose: Purpose
    state: Literal["open", "signed"]
    examiner: str | None
    # The examiner's name is as an imported file wrote it.
    from_file: bool


class AthleteLine(Output):
    id: UUID
    ref: str
    name: str
    birth_date: dt.date | None
    sport: str | None


class SignatureOut(Output):
    number: int
    id: UUID
    reason: str | None
    by: str
    at: dt.datetime


class ArrangementOut(Output):
    action: str
    side: SideCode | None
    on: dt.date
    note: str
    by: str


class FactOut(Output):
    """Something told or planned, at its place, as answers are."""

    test: str
    side: SideCode | None
    key: str
    field: str
    value: JsonValue
    by: str | None
    at: dt.datetime | None


class ScreenOut(Output):
    """`record` is the open format; the rest is what only this server knows."""

    record: Record
    facts: list[FactOut]
    revision: int
    state: Literal["open", "signed"]
    from_file: bool
    athlete: AthleteLine
    schools: Schools
    first_side: SideCode
    signatures: list[SignatureOut]
    arrangements: list[ArrangementOut]
    late: list[AnswerInput]
