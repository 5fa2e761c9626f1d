"""Keeps what lists show up to date, behind the requests. Any number of processes may do it at once."""

from __future__ import annotations

from typing import Any
from uuid import UUID

import structlog
from sqlalchemy import Connection, Engine, Row, text
from sqlalchemy.exc import SQLAlchemyError

from northstride.core.catalogue import Catalogue
from northstride.record.edition import shipped
from northstride.record.json_text import InvalidRecord
from northstride.store.actor import Actor
from northstride.store.readings.kept import keep_fault, keep_reading, keep_signed
from northstride.store.readings.readings import basis_of, reading_from
from northstride.store.screens.screens import screen_query
from northstride.store.signed.frozen import latest_signature

log = structlog.get_logger()

AT_ONCE = 50
# Open screens whose kept rows are of another record, athlete or edition of the rules, or missing.
STALE = """
    s.signed_at IS NULL AND (r.screen_id IS NULL OR r.signature IS NOT NULL OR r.revision <> s.revision
      OR r.shipped <> :shipped OR r.athlete_revision <> a.revision)
"""
# Signed screens whose kept rows are gone: they come back from the signature.
GONE = "s.signed_at IS NOT NULL AND (r.screen_id IS NULL OR r.signature IS NULL AND r.fault IS NULL)"
DUE = """
    SELECT s.clinic_id, s.id FROM screens s
    JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id
    LEFT JOIN readings r ON r.clinic_id = s.clinic_id AND r.screen_id = s.id
    WHERE {what} {one}
    ORDER BY s.clinic_id, s.date DESC LIMIT :most
"""
OPEN_DUE = text(DUE.format(what=STALE, one=""))
SIGNED_DUE = text(DUE.format(what=GONE, one=""))
TAKE = text(
    DUE.format(what=f"(({STALE}) OR ({GONE}))", one="AND s.clinic_id = :clinic AND s.id = :screen")
    + "FOR UPDATE OF s SKIP LOCKED"
)


def refresh(engine: Engine, catalogue: Catalogue, *, signed: bool = False) -> int:
    """Reads what waits, at most `AT_ONCE` screens; returns how many were looked at.

    `signed` looks for signed screens whose rows are gone, which a start does once.
    """
    rules = shipped(catalogue)
    with engine.connect() as db:
        due = db.execute(SIGNED_DUE if signed else OPEN_DUE, {"shipped": rules, "most": AT_ONCE}).all()
    for row in due:
        with engine.begin() as db:
            _refresh_one(db, catalogue, row.clinic_id, row.id, rules)
    return len(due)


def _refresh_one(db: Connection, catalogue: Catalogue, clinic_id: UUID, screen_id: UUID, rules: str) -> None:
    asked = {"clinic": clinic_id, "screen": screen_id, "shipped": rules, "most": 1}
    # Asked twice: what another process read while the first was on its way to the lock, only the next sees.
    if any(db.execute(TAKE, asked).first() is None for _ in range(2)):
        # Another process has it, or it was read in the meantime.
        return
    reader = Actor.nobody(clinic_id)
    screen: Row[Any] = db.execute(screen_query(reader, screen_id)).one()
    try:
        with db.begin_nested():
            _read(db, catalogue, reader, screen, rules)
    except InvalidRecord as invalid:
        keep_fault(db, clinic_id, screen, rules, f"{len(invalid.faults)} values cannot be read")
    except SQLAlchemyError:
        # The database is in trouble, not the screen.
        raise
    except Exception as error:
        # One screen that breaks a rule must not keep the others from being read.
        log.error("unreadable screen", screen=str(screen_id), error=type(error).__name__)
        keep_fault(db, clinic_id, screen, rules, "this screen cannot be read")


def _read(db: Connection, catalogue: Catalogue, reader: Actor, screen: Row[Any], rules: str) -> None:
    if screen.signed_at is not None:
        keep_signed(db, reader.clinic_id, screen, latest_signature(db, reader, screen.id), rules)
        return
    basis = basis_of(db, reader, catalogue, screen)
    document = reading_from(db, reader, catalogue, basis)
    keep_reading(db, reader.clinic_id, screen, basis.identity, document)
