"""What lists show of a reading: derived rows, made again at any time, never in the way of a writer."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, delete, func, insert, select
from sqlalchemy.dialects.postgresql import insert as upsert

from northstride.store.signed.frozen import Signed
from northstride.store.signed.identity import Identity
from northstride.store.tables import Athlete, Screen, StoredAction, StoredFlag, StoredReading

Document = dict[str, Any]


def keep_reading(
    db: Connection, clinic_id: UUID, screen: Row[Any], identity: Identity, document: Document
) -> None:
    """Keeps what an open screen reads as, unless it has moved on: then somebody newer will."""
    if not _still_as_read(db, clinic_id, screen):
        return
    values = {"identity": identity, "document": document, "fault": None, "signature": None}
    _put(db, clinic_id, screen, values, identity["rules"])
    _put_rows(db, clinic_id, screen.id, document)


def keep_fault(db: Connection, clinic_id: UUID, screen: Row[Any], rules: str, fault: str) -> None:
    """The screen cannot be read as it stands: lists say so until something about it changes."""
    values = {"identity": None, "document": None, "fault": fault, "signature": None}
    _put(db, clinic_id, screen, values, rules)
    _put_rows(db, clinic_id, screen.id, {"flags": [], "actions": []})


def keep_signed(db: Connection, clinic_id: UUID, screen: Row[Any], signed: Signed, rules: str) -> None:
    """What lists show of a signed screen, from its newest signature. The screen's row is locked."""
    values = {"identity": None, "document": None, "fault": None, "signature": signed.number}
    _put(db, clinic_id, screen, values, rules)
    _put_rows(db, clinic_id, screen.id, signed.reading)


def _still_as_read(db: Connection, clinic_id: UUID, screen: Row[Any]) -> bool:
    """Whether the screen is open and as it was when it was read. Held until the transaction ends.

    A row somebody writes to just now is not waited for: their answer will be read again anyway.
    """
    now = db.execute(
        select(Screen.revision, Screen.signed_at)
        .where(Screen.clinic_id == clinic_id, Screen.id == screen.id)
        .with_for_update(skip_locked=True)
    ).first()
    return now is not None and now.signed_at is None and now.revision == screen.revision


def _put(db: Connection, clinic_id: UUID, screen: Row[Any], values: Document, rules: str) -> None:
    athlete_revision = (
        select(Athlete.revision)
        .where(Athlete.clinic_id == clinic_id, Athlete.id == screen.athlete_id)
        .scalar_subquery()
    )
    row = {
        **values,
        "revision": screen.revision,
        # As read, where the reader knows it: an edit since then makes the row old at once.
        "athlete_revision": getattr(screen, "athlete_revision", None) or func.coalesce(athlete_revision, 0),
        "shipped": rules,
    }
    statement = upsert(StoredReading).values(clinic_id=clinic_id, screen_id=screen.id, **row)
    db.execute(statement.on_conflict_do_update(index_elements=["clinic_id", "screen_id"], set_=row))


def _put_rows(db: Connection, clinic_id: UUID, screen_id: UUID, document: Document) -> None:
    place = {"clinic_id": clinic_id, "screen_id": screen_id}
    for table, rows in (
        (StoredFlag, [_flag_row(flag) for flag in document["flags"]]),
        (StoredAction, [_action_row(action) for action in document["actions"]]),
    ):
        db.execute(delete(table).where(table.clinic_id == clinic_id, table.screen_id == screen_id))
        if rows:
            db.execute(insert(table), [{**place, "place": n, **row} for n, row in enumerate(rows)])


def _flag_row(flag: Document) -> Document:
    return {name: flag[name] for name in ("code", "side", "strength", "urgency")}


def _action_row(action: Document) -> Document:
    row = {name: action[name] for name in ("code", "side", "urgency")}
    rests_on = {name: action[name] for name in ("says", "tests")}
    return {**row, **rests_on, "start": action.get("from"), "end": action.get("to")}
