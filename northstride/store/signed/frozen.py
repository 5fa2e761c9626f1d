"""Signed documents, each read by the format it was written in, for ever."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, select

from northstride.store.actor import Actor
from northstride.store.errors import NotFound
from northstride.store.signed.identity import Identity
from northstride.store.tables import Signature

FORMAT = 6
# What readings of a format did not have yet, by format: of the reading, its coverage, and each action.
LATER: dict[int, dict[str, Any]] = {
    1: {"changes": [], "fingerprint": None, "ask": None, "shut": None, "follows": None},
    2: {"ask": None, "shut": None, "follows": None},
    3: {"shut": None, "follows": None},
    4: {"follows": None},
    5: {"follows": None},
    6: {},
}
LATER_COVERED: dict[int, dict[str, Any]] = {
    1: {"unexamined": None},
    2: {"unexamined": None},
    3: {},
    4: {},
    5: {},
    6: {},
}
LATER_ACTION: dict[str, Any] = {"says": None, "tests": None}


@dataclass(frozen=True, slots=True)
class Signed:
    """One signature: 0 is the signing, later ones are amendments with their reason.

    `context` names the earlier screens it was held against. `differences` is what an amendment changed
    in the reading, each with where it came from; None in what was signed before that was kept. `words`
    are those of the sheets, likewise.
    """

    screen_id: UUID
    number: int
    id: UUID
    reason: str | None
    by: str
    at: dt.datetime
    record: dict[str, Any]
    context: dict[str, Any]
    reading: dict[str, Any]
    changes: list[dict[str, Any]]
    identity: Identity | None
    differences: list[dict[str, Any]] | None
    words: list[dict[str, Any]] | None = None


def read_signature(row: Row[Any]) -> Signed:
    """Raises KeyError for a format nobody knows: it is never guessed at."""
    context = row.context
    if row.format == 1:
        # Earlier screens stand in it whole.
        context = {**context, "earlier": [{"record": record} for record in context["earlier"]]}
    return Signed(
        screen_id=row.screen_id,
        number=row.number,
        id=row.id,
        reason=row.reason,
        by=row.by_name,
        at=row.at,
        record=row.record,
        context=context,
        reading=_as_today(row.format, row.reading),
        changes=row.changes,
        identity=row.identity,
        differences=row.differences,
        words=row.words,
    )


def _as_today(format_: int, reading: dict[str, Any]) -> dict[str, Any]:
    """What a format did not keep is said to be unknown, never to be nothing."""
    covered = {**LATER_COVERED[format_], **reading["coverage"]}
    actions = [{**LATER_ACTION, **action} for action in reading["actions"]]
    return {**LATER[format_], **reading, "coverage": covered, "actions": actions}


def signatures_of(db: Connection, actor: Actor, screen_id: UUID) -> list[Signed]:
    """The signing first, then amendments."""
    rows = db.execute(_query(actor, screen_id).order_by(Signature.number))
    return [read_signature(row) for row in rows]


def latest_signature(db: Connection, actor: Actor, screen_id: UUID) -> Signed:
    return read_signature(
        db.execute(_query(actor, screen_id).order_by(Signature.number.desc()).limit(1)).one()
    )


def signature_at(db: Connection, actor: Actor, screen_id: UUID, number: int) -> Signed:
    """Raises NotFound."""
    row = db.execute(_query(actor, screen_id).where(Signature.number == number)).first()
    if row is None:
        raise NotFound("signature", str(number))
    return read_signature(row)


def _query(actor: Actor, screen_id: UUID) -> Any:
    return select(Signature.__table__).where(
        Signature.clinic_id == actor.clinic_id, Signature.screen_id == screen_id
    )
