"""Records as the tests write them: only what a test is about."""

from __future__ import annotations

from typing import Any

from northstride.core.catalogue import default_catalogue
from northstride.core.reading import evaluate
from northstride.record.context import check_context
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.record.reading import reading_json

THOMAS = "hip.modified_thomas"
Reading = dict[str, Any]


def record(entries: list[dict[str, Any]] | None = None, **parts: Any) -> dict[str, Any]:
    return {
        "format": "north-stride/screen",
        "version": 1,
        "id": "00000000-0000-4000-8000-000000000001",
        "date": "2026-09-14",
        "purpose": "hip_complaint",
        "athlete": {"ref": "T-1", "birth_date": "1990-05-02"},
        "entries": entries or [],
        **parts,
    }


def thomas(side: str, seen: list[str] | None = None, **values: Any) -> dict[str, Any]:
    entry: dict[str, Any] = {"test": THOMAS, "side": side, "values": values}
    return {**entry, "seen": seen} if seen else entry


def read(raw: dict[str, Any], context: dict[str, Any] | None = None) -> Reading:
    catalogue = default_catalogue()
    outside = check_context(context or {}, catalogue)
    return reading_json(evaluate(check_record(raw, catalogue).exam, catalogue, outside), catalogue)


def read_thomas(*entries: dict[str, Any], **parts: Any) -> Reading:
    return read(record(list(entries), **parts))


def strengths(reading: Reading) -> dict[tuple[str, str | None], str]:
    """Each flag's strength by code and side."""
    return {(flag["code"], flag["side"]): flag["strength"] for flag in reading["flags"]}


def faults(raw: object) -> dict[str, str]:
    """The faults of a record by path; empty where it is sound."""
    try:
        check_record(raw, default_catalogue())
    except InvalidRecord as invalid:
        return {fault.path: fault.problem for fault in invalid.faults}
    return {}
