"""What calls about screens answer with."""

from __future__ import annotations

import datetime as dt
from typing import Any, Literal
from uuid import UUID

from pydantic import JsonValue
from sqlalchemy import Row

from northstride.api.answer_inputs import AnswerInput, SideCode
from northstride.api.bodies import Output
from northstride.core.terms.vocabulary import Purpose, Schools
from northstride.record.complaint import ComplaintOut
from northstride.record.model import Record, RecordHead
from northstride.store.days.arrangements import Of, Standing


class WrittenOut(Output):
    """`beside` did not take their place: what was seen later stands there.

    `skew_seconds`: how far the device's clock is behind ours, where that is worth saying.
    """

    revision: int
    late: list[UUID]
    beside: list[UUID]
    skew_seconds: int | None


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


class ClashOut(Output):
    """Two answers to one question, seen by two.

    `danger`: the more careful one holds until somebody licensed decides.
    """

    holds: AnswerOut
    beside: AnswerOut
    danger: bool


class HeadOut(Output):
    """All of a screen but its entries: story, plan, overrides, schools, whose it is."""

    record: RecordHead
    schools: Schools
    complaint: ComplaintOut | None
    first_side: SideCode


class OtherOut(Output):
    """Somebody else at this screen just now, or oneself on another device."""

    name: str
    device: str
    step: Literal["story", "route", "bench", "reading", "sheet"]
    test: str | None
    side: SideCode | None


class ChangesOut(Output):
    """`head` comes with any change, so that what was asked, planned or opened elsewhere is seen here."""

    revision: int
    state: Literal["open", "signed"]
    answers: list[AnswerOut]
    clashes: list[ClashOut]
    head: HeadOut | None
    others: list[OtherOut]


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


class ArrangedStep(Output):
    """A step of what was done about an action. `on` is its day, or the first day of a second look."""

    id: UUID
    on: dt.date | None
    until: dt.date | None
    at_time: str | None
    whom: str
    note: str
    by: str
    at: dt.datetime


class ArrangementOut(Output):
    """How it stands with an action: of each step the newest that nobody took back."""

    action: str
    side: SideCode | None
    arranged: ArrangedStep | None
    again: ArrangedStep | None
    closed: ArrangedStep | None
    left: ArrangedStep | None


STEPS = ("arranged", "again", "closed", "left")


def arrangement_out(of: Of, standing: Standing) -> dict[str, Any]:
    return {
        "action": of[0],
        "side": of[1],
        **{name: _step(getattr(standing, name)) for name in STEPS},
    }


def _step(row: Row[Any] | None) -> dict[str, Any] | None:
    if row is None:
        return None
    return {
        "by": row.by_name,
        **{name: getattr(row, name) for name in ("id", "on", "until", "at_time", "whom", "note", "at")},
    }


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
    # Put together from what was told of it; of an open screen as it is told now.
    complaint: ComplaintOut | None
    first_side: SideCode
    signatures: list[SignatureOut]
    arrangements: list[ArrangementOut]
    clashes: list[ClashOut]
    late: list[AnswerInput]
