"""Answers that arrive after signing: drafts of an amendment, never dropped."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select

from northstride.core.catalogue import Catalogue
from northstride.store.actor import Actor, audit
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.answers.same_answer import check_same, each_once, not_yet_written, said_by
from northstride.store.errors import Differs
from northstride.store.tables import Answer, LateAnswer


def keep_late(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, answers: Sequence[NewAnswer]
) -> tuple[UUID, ...]:
    """Never dropped: what was already written before signing is done, the rest waits for an amendment.

    Raises Differs for an id that stands with other content.
    """
    fresh = not_yet_written(catalogue, _written(db, actor, answers), screen_id, answers)
    waiting = _waiting(db, actor, fresh)
    for answer in fresh:
        if answer.id in waiting:
            check_late(catalogue, screen_id, waiting[answer.id], answer)
    new = [answer for answer in fresh if answer.id not in waiting]
    if new:
        rows = [
            {
                "clinic_id": actor.clinic_id,
                "id": answer.id,
                "screen_id": screen_id,
                "body": as_json(answer),
                "user_id": actor.user_id,
                "by_name": actor.name,
            }
            for answer in new
        ]
        db.execute(insert(LateAnswer), rows)
        audit(db, actor, "answer late", "screen", screen_id, {"answers": len(new)})
    return tuple(answer.id for answer in fresh)


def _written(db: Connection, actor: Actor, answers: Sequence[NewAnswer]) -> dict[UUID, Row[Any]]:
    ids = [answer.id for answer in answers]
    rows = db.execute(select(Answer.__table__).where(Answer.clinic_id == actor.clinic_id, Answer.id.in_(ids)))
    return {row.id: row for row in rows}


def _waiting(db: Connection, actor: Actor, answers: Sequence[NewAnswer]) -> dict[UUID, Row[Any]]:
    ids = [answer.id for answer in answers]
    rows = db.execute(
        select(LateAnswer.__table__).where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.id.in_(ids))
    )
    return {row.id: row for row in rows}


def check_late(catalogue: Catalogue, screen_id: UUID, row: Row[Any], answer: NewAnswer) -> None:
    """Raises Differs where a late answer of this id says something else."""
    standing = said_by(catalogue, row.screen_id, from_json(row.body))
    check_same(answer.id, standing, said_by(catalogue, screen_id, answer))


def check_ids_are_new(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, answers: Sequence[NewAnswer]
) -> None:
    """What an amendment brings has ids of its own. Raises Differs where one stands already."""
    own = each_once(catalogue, screen_id, answers)
    for key in {**_written(db, actor, own), **_waiting(db, actor, own)}:
        raise Differs("answer", key, ["id"])


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
