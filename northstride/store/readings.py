"""Readings: a pure function of record, context and rules, kept as derived rows."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, delete, insert, select
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.dialects.postgresql import insert as upsert

from northstride.core.catalogue import Catalogue
from northstride.core.errors import Fault
from northstride.core.reading import evaluate
from northstride.core.rules import RULES_VERSION
from northstride.record.read import check_record
from northstride.record.reading import reading_json
from northstride.store.actor import Actor
from northstride.store.answers import placed
from northstride.store.contexts import context_document, earlier_screens, mark_of, read_context
from northstride.store.folding import fold
from northstride.store.new_answer import NewAnswer, answer_faults
from northstride.store.screens import answers_of, current_record, get_screen, record_json
from northstride.store.tables import Screen, StoredAction, StoredFlag, StoredReading

# A signed screen's reading was made from documents that are frozen with it.
FROZEN = "frozen"
# What readings did not have when the first screens were signed.
LATER: dict[str, Any] = {"changes": []}
NO_CONTEXT: dict[str, Any] = {"earlier": [], "sem": {}}


@dataclass(frozen=True, slots=True)
class Preview:
    """How an unsaved draft would read. Drafts with faults are left out of the reading."""

    reading: dict[str, Any]
    faults: list[Fault]


def compute(
    catalogue: Catalogue, record: dict[str, Any], context: dict[str, Any] = NO_CONTEXT
) -> dict[str, Any]:
    """Raises InvalidRecord where the record has faults."""
    exam = check_record(record, catalogue).exam
    return reading_json(evaluate(exam, catalogue, read_context(catalogue, context)))


def reading_of(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> dict[str, Any]:
    """The kept reading where it still matches, else a new one, kept."""
    kept = db.execute(
        select(
            StoredReading.revision, StoredReading.rules, StoredReading.context_hash, StoredReading.document
        ).where(StoredReading.clinic_id == actor.clinic_id, StoredReading.screen_id == screen.id)
    ).first()
    # A signed screen's reading is frozen with it, whatever the rules or earlier screens have become.
    earlier = [] if screen.signed_at is not None else earlier_screens(db, actor, screen)
    now = (screen.revision, RULES_VERSION, mark_of(earlier))
    if kept is not None and (screen.signed_at is not None or tuple(kept[:3]) == now):
        return {**LATER, **kept.document}
    context = context_document(db, actor, earlier)
    document = compute(catalogue, current_record(db, actor, screen), context)
    keep_reading(db, actor, screen.id, screen.revision, document, mark_of(earlier))
    return document


def keep_reading(
    db: Connection,
    actor: Actor,
    screen_id: UUID,
    revision: int,
    document: dict[str, Any],
    context_hash: str,
) -> None:
    place = {"clinic_id": actor.clinic_id, "screen_id": screen_id}
    values = {
        "revision": revision,
        "rules": RULES_VERSION,
        "context_hash": context_hash,
        "document": document,
    }
    statement = upsert(StoredReading).values(**place, **values)
    db.execute(statement.on_conflict_do_update(index_elements=["clinic_id", "screen_id"], set_=values))
    for table, rows in (
        (StoredFlag, [_flag_row(flag) for flag in document["flags"]]),
        (StoredAction, [_action_row(action) for action in document["actions"]]),
    ):
        db.execute(delete(table).where(table.clinic_id == actor.clinic_id, table.screen_id == screen_id))
        if rows:
            db.execute(insert(table), [{**place, "place": n, **row} for n, row in enumerate(rows)])


def _flag_row(flag: dict[str, Any]) -> dict[str, Any]:
    return {name: flag[name] for name in ("code", "side", "strength", "urgency")}


def _action_row(action: dict[str, Any]) -> dict[str, Any]:
    row = {name: action[name] for name in ("code", "side", "urgency")}
    return {**row, "start": action.get("from"), "end": action.get("to")}


def preview(
    db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any], drafts: Sequence[NewAnswer]
) -> Preview:
    """Reads the screen as if the drafts had been written, without what was before. Writes nothing."""
    faults: list[Fault] = []
    sound: list[NewAnswer] = []
    for place, draft in enumerate(drafts):
        found = answer_faults(catalogue, draft, f"answers[{place}]")
        faults += found
        if not found:
            sound.append(draft)
    standing = answers_of(db, actor, screen.id)
    rows = placed(catalogue, standing, sound, actor, screen.revision)
    return Preview(compute(catalogue, record_json(screen, fold([*standing, *rows]))), faults)


@dataclass(frozen=True, slots=True)
class Latest:
    """An athlete's newest screen and what it reads as."""

    screen: Row[Any]
    flags: list[dict[str, Any]]


def latest_by_athlete(
    db: Connection, actor: Actor, catalogue: Catalogue, athlete_ids: Sequence[UUID]
) -> dict[UUID, Latest]:
    """For lists: kept flags; only a reading that no longer matches is computed again.

    No flag depends on earlier screens, so that they may have changed is no reason.
    """
    if not athlete_ids:
        return {}
    rows = db.execute(
        select(
            Screen.__table__,
            StoredReading.revision.label("read_revision"),
            StoredReading.rules,
        )
        .ext(distinct_on(Screen.athlete_id))
        .outerjoin(
            StoredReading,
            (StoredReading.clinic_id == Screen.clinic_id) & (StoredReading.screen_id == Screen.id),
        )
        .where(Screen.clinic_id == actor.clinic_id, Screen.athlete_id.in_(athlete_ids))
        .order_by(Screen.athlete_id, Screen.date.desc(), Screen.created_at.desc())
    ).all()
    for row in rows:
        read = (row.read_revision, row.rules)
        if row.signed_at is None and read != (row.revision, RULES_VERSION):
            reading_of(db, actor, catalogue, get_screen(db, actor, row.id))
    flags = _flags_by_screen(db, actor, [row.id for row in rows])
    return {row.athlete_id: Latest(row, flags.get(row.id, [])) for row in rows}


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
