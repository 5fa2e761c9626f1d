"""The newest screen of each athlete, for lists: kept rows only, nothing is computed here."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import ARRAY, Connection, Row, Uuid, bindparam, select, text

from northstride.core.catalogue import Catalogue
from northstride.record.edition import shipped
from northstride.store.actor import Actor
from northstride.store.tables import StoredFlag

# `waiting` is shown with what was last known, and read again behind the request.
ReadingState = Literal["current", "waiting", "unreadable"]


@dataclass(frozen=True, slots=True)
class NewestScreen:
    screen: Row[Any]
    flags: list[dict[str, Any]]
    state: ReadingState


NEWEST = text(
    """
    SELECT s.id, s.athlete_id, s.date, s.purpose, s.signed_at, r.fault,
           CASE WHEN s.signed_at IS NOT NULL THEN r.signature IS NOT NULL OR r.fault IS NOT NULL
                ELSE r.revision = s.revision AND r.shipped = :shipped AND r.athlete_revision = a.revision
                     AND r.signature IS NULL END AS is_current
    FROM athletes a
    CROSS JOIN LATERAL (
      SELECT * FROM screens WHERE clinic_id = a.clinic_id AND athlete_id = a.id
      ORDER BY date DESC, created_at DESC LIMIT 1
    ) s
    LEFT JOIN readings r ON r.clinic_id = s.clinic_id AND r.screen_id = s.id
    WHERE a.clinic_id = :clinic AND a.id = ANY(:athletes)
    """
).bindparams(bindparam("athletes", type_=ARRAY(Uuid)))


def newest_screens(
    db: Connection, actor: Actor, catalogue: Catalogue, athlete_ids: Sequence[UUID]
) -> dict[UUID, NewestScreen]:
    """By athlete."""
    if not athlete_ids:
        return {}
    asked = {"clinic": actor.clinic_id, "athletes": list(athlete_ids), "shipped": shipped(catalogue)}
    rows = db.execute(NEWEST, asked).all()
    flags = _flags_by_screen(db, actor, [row.id for row in rows])
    return {row.athlete_id: NewestScreen(row, flags.get(row.id, []), _state(row)) for row in rows}


def _state(row: Row[Any]) -> ReadingState:
    if not row.is_current:
        return "waiting"
    return "current" if row.fault is None else "unreadable"


def _flags_by_screen(
    db: Connection, actor: Actor, screen_ids: Sequence[UUID]
) -> dict[UUID, list[dict[str, Any]]]:
    rows = db.execute(
        select(
            StoredFlag.screen_id, StoredFlag.code, StoredFlag.side, StoredFlag.strength, StoredFlag.urgency
        )
        .where(StoredFlag.clinic_id == actor.clinic_id, StoredFlag.screen_id.in_(screen_ids))
        .order_by(StoredFlag.screen_id, StoredFlag.place)
    )
    found: dict[UUID, list[dict[str, Any]]] = {}
    for row in rows:
        found.setdefault(row.screen_id, []).append(
            {"code": row.code, "side": row.side, "strength": row.strength, "urgency": row.urgency}
        )
    return found
