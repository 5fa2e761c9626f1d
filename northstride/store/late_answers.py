"""Answers that arrive after signing: drafts of an amendment, never dropped."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select

from northstride.store.actor import Actor, audit
from northstride.store.new_answer import NewAnswer
from northstride.store.tables import Answer, LateAnswer


def keep_late(
    db: Connection, actor: Actor, screen_id: UUID, answers: Sequence[NewAnswer]
) -> tuple[UUID, ...]:
    """Never dropped: what was already written before signing is done, the rest waits for an amendment."""
    ids = [answer.id for answer in answers]
    known = set(
        db.execute(select(Answer.id).where(Answer.clinic_id == actor.clinic_id, Answer.id.in_(ids))).scalars()
    )
    known |= set(
        db.execute(
            select(LateAnswer.id).where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.id.in_(ids))
        ).scalars()
    )
    fresh = [answer for answer in answers if answer.id not in known]
    if fresh:
        db.execute(
            insert(LateAnswer),
            [
                {
                    "clinic_id": actor.clinic_id,
                    "id": answer.id,
                    "screen_id": screen_id,
                    "body": as_json(answer),
                    "user_id": actor.user_id,
                    "by_name": actor.name,
                }
                for answer in fresh
            ],
        )
        audit(db, actor, "answer late", "screen", screen_id, {"answers": len(fresh)})
    late = db.execute(
        select(LateAnswer.id).where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.id.in_(ids))
    ).scalars()
    return tuple(late)


def as_json(answer: NewAnswer) -> dict[str, Any]:
    return {
        "id": str(answer.id),
        "test": answer.test,
        "side": answer.side,
        "field": answer.field,
        "value": answer.value,
        "key": answer.key,
        "observed_at": answer.observed_at.isoformat() if answer.observed_at else None,
    }


def from_json(body: dict[str, Any]) -> NewAnswer:
    at = body["observed_at"]
    return NewAnswer(
        UUID(body["id"]),
        body["test"],
        body["side"],
        body["field"],
        body["value"],
        body["key"],
        dt.datetime.fromisoformat(at) if at else None,
    )


def late_answers_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    return db.execute(
        select(LateAnswer.__table__)
        .where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.screen_id == screen_id)
        .order_by(LateAnswer.at)
    ).all()
