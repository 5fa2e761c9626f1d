"""The entries of a record, taken apart into the answers they are made of: one row a field."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid5

from northstride.core.catalogue import Catalogue
from northstride.record.model import Record
from northstride.record.values import is_per_side
from northstride.store.answers.folding import FIELDS, VALUES, AnswerRow, canonical, key_text

SAYS_SOMETHING = {"values", *FIELDS}


def normal(record: Record) -> dict[str, Any]:
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


def rows_of(catalogue: Catalogue, record: Record, document: dict[str, Any]) -> list[AnswerRow]:
    """One row a field of `document`, the record's normal form. Times keep the offset they were written in."""
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
                    key=key_text(entry.get("values", {}).get(key)) if key else "",
                    side=side,
                    field=field,
                    value=value,
                    by_name=entry.get("by"),
                    observed_at=at,
                    observed_zone=int(offset.total_seconds() // 60) if offset is not None else None,
                )
            )
    return rows


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
