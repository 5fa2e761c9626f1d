"""What a reading depends on beside its own record: the athlete's earlier screens, error figures."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, and_, false, func, or_, select, tuple_

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context, Examination
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.store.actor import Actor
from northstride.store.answers.folding import AnswerRow, fold
from northstride.store.screens.screens import ANSWER_COLUMNS, ATHLETE_COLUMNS, record_json
from northstride.store.signed.identity import content_hash
from northstride.store.tables import Answer, Athlete, Screen, Signature


@dataclass(frozen=True, slots=True)
class EarlierScreen:
    """One screen a reading is held against: as signature `number` froze it, or as it stands while open.

    The record of a signed one is fetched only where a reading is made: its number tells it apart.
    """

    screen_id: UUID
    number: int | None
    record: dict[str, Any] | None

    @property
    def mark(self) -> list[object]:
        """Changes whenever it is written to, signed or amended."""
        return [str(self.screen_id), self.number, content_hash(self.record) if self.number is None else None]

    @property
    def frozen(self) -> dict[str, Any]:
        """By name where a signature keeps it; an open one is kept here, since nothing else would."""
        if self.number is None:
            return {"record": self.record}
        return {"screen": str(self.screen_id), "signature": self.number}


def earlier_screens(
    db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]
) -> list[EarlierScreen]:
    """Screens of the same athlete that were begun before this one, oldest first."""
    rows = db.execute(
        select(Screen.__table__, *ATHLETE_COLUMNS)
        .join(Athlete, (Athlete.clinic_id == Screen.clinic_id) & (Athlete.id == Screen.athlete_id))
        .where(
            Screen.clinic_id == actor.clinic_id,
            Screen.athlete_id == screen.athlete_id,
            Screen.id != screen.id,
            tuple_(Screen.date, Screen.created_at) < tuple_(screen.date, screen.created_at),
        )
        .order_by(Screen.date, Screen.created_at)
    ).all()
    signed = _newest_signatures(db, actor, [row.id for row in rows if row.signed_at is not None])
    answers = _answers(db, actor, [row.id for row in rows if row.id not in signed])
    return [
        EarlierScreen(row.id, signed[row.id], None)
        if row.id in signed
        else EarlierScreen(row.id, None, record_json(row, fold(answers.get(row.id, []), catalogue)))
        for row in rows
    ]


def _newest_signatures(db: Connection, actor: Actor, screen_ids: Sequence[UUID]) -> dict[UUID, int]:
    rows = db.execute(
        select(Signature.screen_id, func.max(Signature.number).label("number"))
        .where(Signature.clinic_id == actor.clinic_id, Signature.screen_id.in_(screen_ids))
        .group_by(Signature.screen_id)
    )
    return {row.screen_id: row.number for row in rows}


def _answers(db: Connection, actor: Actor, screen_ids: Sequence[UUID]) -> dict[UUID, list[AnswerRow]]:
    rows = db.execute(
        select(Answer.screen_id, *ANSWER_COLUMNS)
        .where(Answer.clinic_id == actor.clinic_id, Answer.screen_id.in_(screen_ids))
        .order_by(Answer.screen_id, Answer.revision)
    )
    return {
        screen_id: [AnswerRow._make(row[1:]) for row in of_screen]
        for screen_id, of_screen in groupby(rows, key=lambda row: row.screen_id)
    }


def frozen_context(earlier: Sequence[EarlierScreen], errors: dict[str, float]) -> dict[str, Any]:
    """What a signature keeps of it."""
    return {"earlier": [screen.frozen for screen in earlier], "sem": errors}


def thawed(context: dict[str, Any]) -> list[EarlierScreen]:
    """The earlier screens a signature kept."""
    return [
        EarlierScreen(UUID(item["screen"]), item["signature"], None)
        if "screen" in item
        else EarlierScreen(UUID(item["record"]["id"]), None, item["record"])
        for item in context["earlier"]
    ]


def read_context(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    earlier: Sequence[EarlierScreen],
    errors: dict[str, float],
) -> Context:
    """As the core takes it. An earlier screen that can no longer be read is no baseline."""
    kept = _frozen_records(db, actor, earlier)
    records = [screen.record or kept[screen.screen_id, screen.number] for screen in earlier]
    return Context(tuple(exam for record in records if (exam := _exam(catalogue, record))), errors)


def _frozen_records(
    db: Connection, actor: Actor, earlier: Sequence[EarlierScreen]
) -> dict[tuple[UUID, int | None], dict[str, Any]]:
    named = [
        and_(Signature.screen_id == screen.screen_id, Signature.number == screen.number)
        for screen in earlier
        if screen.record is None
    ]
    rows = db.execute(
        select(Signature.screen_id, Signature.number, Signature.record).where(
            Signature.clinic_id == actor.clinic_id, or_(false(), *named)
        )
    )
    return {(row.screen_id, row.number): row.record for row in rows}


def _exam(catalogue: Catalogue, record: dict[str, Any]) -> Examination | None:
    try:
        return check_record(record, catalogue).exam
    except InvalidRecord:
        return None
