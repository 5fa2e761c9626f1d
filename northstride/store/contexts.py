"""What a reading depends on beside its own record: the athlete's earlier screens."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from itertools import groupby
from typing import Any
from uuid import UUID

import orjson
from sqlalchemy import Connection, Row, func, select, tuple_
from sqlalchemy.dialects.postgresql import distinct_on

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context
from northstride.record.read import InvalidRecord, check_record
from northstride.store.actor import Actor
from northstride.store.folding import AnswerRow, fold
from northstride.store.screens import ANSWER_COLUMNS, ATHLETE_COLUMNS, record_json
from northstride.store.tables import Answer, Athlete, Screen, Signature


def earlier_screens(db: Connection, actor: Actor, screen: Row[Any]) -> Sequence[Row[Any]]:
    """Screens of the same athlete that were begun before this one, oldest first."""
    signatures = (
        select(func.count())
        .where(Signature.clinic_id == Screen.clinic_id, Signature.screen_id == Screen.id)
        .scalar_subquery()
    )
    return db.execute(
        select(Screen.__table__, *ATHLETE_COLUMNS, signatures.label("signatures"))
        .join(Athlete, (Athlete.clinic_id == Screen.clinic_id) & (Athlete.id == Screen.athlete_id))
        .where(
            Screen.clinic_id == actor.clinic_id,
            Screen.athlete_id == screen.athlete_id,
            Screen.id != screen.id,
            tuple_(Screen.date, Screen.created_at) < tuple_(screen.date, screen.created_at),
        )
        .order_by(Screen.date, Screen.created_at)
    ).all()


def mark_of(earlier: Sequence[Row[Any]]) -> str:
    """Changes whenever an earlier screen is added, written to, signed or amended."""
    state = [[str(row.id), row.revision, row.signatures] for row in earlier]
    return hashlib.sha256(orjson.dumps(state)).hexdigest()


def context_document(db: Connection, actor: Actor, earlier: Sequence[Row[Any]]) -> dict[str, Any]:
    """The earlier screens as open records, in the form `evaluate --context` takes."""
    frozen = _frozen_records(db, actor, [row.id for row in earlier if row.signed_at is not None])
    answers = _answers(db, actor, [row.id for row in earlier if row.signed_at is None])
    records = [
        frozen[row.id] if row.id in frozen else record_json(row, fold(answers.get(row.id, [])))
        for row in earlier
    ]
    return {"earlier": records, "sem": {}}


def _frozen_records(db: Connection, actor: Actor, screen_ids: Sequence[UUID]) -> dict[UUID, dict[str, Any]]:
    rows = db.execute(
        select(Signature.screen_id, Signature.record)
        .ext(distinct_on(Signature.screen_id))
        .where(Signature.clinic_id == actor.clinic_id, Signature.screen_id.in_(screen_ids))
        .order_by(Signature.screen_id, Signature.number.desc())
    )
    return {row.screen_id: row.record for row in rows}


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


def read_context(catalogue: Catalogue, document: dict[str, Any]) -> Context:
    """As the core takes it. An earlier screen that can no longer be read is no baseline."""
    earlier = []
    for record in document["earlier"]:
        try:
            earlier.append(check_record(record, catalogue).exam)
        except InvalidRecord:
            continue
    return Context(tuple(earlier), document["sem"])
