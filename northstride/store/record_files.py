"""The open record in and out: a file carries a screen from one clinic to another."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid4, uuid5

from sqlalchemy import Connection, Row, insert, select

from northstride import CAUTION
from northstride.core.catalogue import Catalogue
from northstride.record.model import Record
from northstride.record.read import check_record
from northstride.record.values import is_per_side
from northstride.store.actor import Actor, audit
from northstride.store.answers import append_rows
from northstride.store.athletes import add_athlete, athlete_by_ref
from northstride.store.errors import Differs
from northstride.store.folding import (
    FIELDS,
    VALUES,
    AnswerRow,
    FoldedEntry,
    canonical,
    differing_paths,
    fold,
)
from northstride.store.measurements import replace_measurements
from northstride.store.screens import current_record, get_screen, lock_screen
from northstride.store.tables import Screen

SAYS_SOMETHING = {"values", *FIELDS}


def export_record(db: Connection, actor: Actor, screen_id: UUID) -> dict[str, Any]:
    """The screen as an open record, with the line that says what it is not."""
    record = current_record(db, actor, get_screen(db, actor, screen_id))
    audit(db, actor, "export", "screen", screen_id)
    head = {name: record[name] for name in ("format", "version")}
    return {**head, "notice": CAUTION, **record}


def import_record(db: Connection, actor: Actor, catalogue: Catalogue, raw: object) -> tuple[UUID, bool]:
    """The screen's id, and whether it is new. An identical record does nothing.

    Raises InvalidRecord with all faults, Differs with the paths where one of this id stands.
    """
    record = check_record(raw, catalogue).record
    document = _normal(record)
    standing = db.execute(
        select(Screen.id).where(Screen.clinic_id == actor.clinic_id, Screen.id == record.id)
    ).first()
    if standing is not None:
        _check_identical(db, actor, catalogue, record.id, document)
        return record.id, False
    athlete_id = _athlete(db, actor, record)
    db.execute(
        insert(Screen).values(
            clinic_id=actor.clinic_id,
            id=record.id,
            athlete_id=athlete_id,
            date=record.date,
            purpose=record.purpose,
            examiner=record.examiner,
            schools=document.get("schools", {}),
            intake=document.get("intake"),
            planned=document.get("planned", []),
            consent=document.get("consent"),
            overrides=document.get("overrides", []),
            athlete_part=document["athlete"],
            created_by=actor.user_id,
        )
    )
    screen = lock_screen(db, actor, record.id)
    rows = _rows(catalogue, record, document)
    if rows:
        append_rows(db, actor, catalogue, screen, [], rows, "import", "import")
        replace_measurements(db, actor.clinic_id, _superseded(fold(rows)))
    else:
        audit(db, actor, "import", "screen", record.id)
    return record.id, True


def _normal(record: Record) -> dict[str, Any]:
    """The record's content: entries that say nothing left out, entries without an id given one."""
    document: dict[str, Any] = canonical(record.model_dump(mode="json", exclude_unset=True))
    entries = []
    for place, entry in enumerate(document.get("entries", [])):
        if SAYS_SOMETHING & entry.keys():
            entries.append({**entry, "id": _entry_id(record, place)})
    return {**document, "entries": entries}


def _entry_id(record: Record, place: int) -> str:
    """An entry's own id, or one made from the screen and its place: the same file makes the same ids."""
    return str(record.entries[place].id or uuid5(record.id, f"entry {place}"))


def _check_identical(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, document: dict[str, Any]
) -> None:
    own = check_record(current_record(db, actor, get_screen(db, actor, screen_id)), catalogue)
    paths = differing_paths(_normal(own.record), document)
    if paths:
        raise Differs("screen", screen_id, paths)


def _athlete(db: Connection, actor: Actor, record: Record) -> UUID:
    """The clinic's athlete of this reference, or a new one known by it."""
    part = record.athlete
    standing: Row[Any] | None = athlete_by_ref(db, actor, part.ref)
    if standing is not None:
        found: UUID = standing.id
        return found
    athlete_id = uuid4()
    add_athlete(db, actor, athlete_id, {**part.model_dump(), "name": part.ref})
    return athlete_id


def _rows(catalogue: Catalogue, record: Record, document: dict[str, Any]) -> list[AnswerRow]:
    """One row a field. Times are kept in the offset they were written in."""
    times = {_entry_id(record, place): part.at for place, part in enumerate(record.entries)}
    rows: list[AnswerRow] = []
    for entry in document["entries"]:
        at = times[entry["id"]]
        offset = at.utcoffset() if at else None
        entry_id = UUID(entry["id"])
        key = catalogue.tests[entry["test"]].key
        for side, field, value in _fields(entry):
            rows.append(
                AnswerRow(
                    id=uuid5(record.id, f"{entry_id} {side} {field}"),
                    revision=len(rows) + 1,
                    test=entry["test"],
                    entry_id=entry_id,
                    entry_side=entry.get("side"),
                    key=str(entry.get("values", {}).get(key, "")) if key else "",
                    side=side,
                    field=field,
                    value=value,
                    by_name=entry.get("by"),
                    observed_at=at,
                    observed_zone=int(offset.total_seconds() // 60) if offset is not None else None,
                )
            )
    return rows


def _superseded(entries: list[FoldedEntry]) -> list[UUID]:
    """Answers of entries a later one of the same test, side and key replaced; a refusal replaces none."""
    last: dict[tuple[str, str | None, str], FoldedEntry] = {}
    gone: list[UUID] = []
    for entry in entries:
        place = (entry.test, entry.side, entry.key)
        if place in last and not entry.declined:
            gone += [row.id for row in last[place].standing.values()]
        if place not in last or not entry.declined:
            last[place] = entry
    return gone


def _fields(entry: dict[str, Any]) -> list[tuple[str | None, str, Any]]:
    side = entry.get("side")
    fields: list[tuple[str | None, str, Any]] = []
    for measure, value in entry.get("values", {}).items():
        if side is None and is_per_side(value):
            fields += [(own, f"{VALUES}{measure}", part) for own, part in value.items()]
        else:
            fields.append((side, f"{VALUES}{measure}", value))
    fields += [(side, name, entry[name]) for name in FIELDS if name in entry]
    return fields
