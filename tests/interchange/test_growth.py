"""Every reader of foreign bytes takes as long as they are, not as long as their square."""

from __future__ import annotations

import datetime as dt
import unittest
from collections.abc import Callable
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

import orjson

from northstride.api.strict_json import strictly_read
from northstride.core.catalogue import default_catalogue
from northstride.interchange.calendar import DateOf, calendar_of
from northstride.interchange.fhir.paths import document_of
from northstride.interchange.fhir.to_record import record_of
from northstride.interchange.paper.letters import printable
from northstride.interchange.sheets.templates import template_faults
from northstride.interchange.values.cells import number_of
from northstride.interchange.values.formulas import guarded, unguarded
from northstride.interchange.values.table import table_of
from northstride.record.json_text import parse_json, parts_in
from northstride.record.read import check_record
from tests.support.growing import growth
from tests.support.records import record
from tests.support.taking import take_table

MOST = 6.0
CATALOGUE = default_catalogue()
LONG_ROLES = ["athlete", "date", "test", "measure", "side", "value"]


def as_bytes(pattern: bytes, before: bytes = b"", after: bytes = b"") -> Callable[[int], bytes]:
    return lambda size: before + pattern * size + after


def as_text(pattern: str, before: str = "", after: str = "") -> Callable[[int], str]:
    return lambda size: before + pattern * size + after


def rows(size: int) -> Any:
    lines = [",".join(LONG_ROLES)]
    lines += [f"R-{number},2026-09-14,hip.modified_thomas,thigh_angle,left,8" for number in range(size)]
    return table_of("\n".join(lines))


def bundle(size: int) -> Any:
    observation = {"resource": {"resourceType": "Observation", "id": "a", "code": {"text": "x" * 9}}}
    return {"resourceType": "Bundle", "type": "collection", "entry": [observation] * size}


def date_of(name: str) -> DateOf:
    day = dt.date(2026, 9, 14)
    moment = dt.datetime(2026, 9, 14, tzinfo=dt.UTC)
    who = (None, "R-1", name)
    return DateOf(UUID(int=1), "refer.hip", "left", "refer", *who, day, day, None, name, 1, moment)


def with_text(field: str) -> Callable[[int], Any]:
    return lambda size: record([], **{field: "9" * size})


READERS: dict[str, tuple[Callable[[int], Any], Callable[[Any], object]]] = {
    "an open string": (as_bytes(b'\\"', b'"'), parts_in),
    "an open string, read": (as_bytes(b'\\"', b'"'), parse_json),
    "an open string with a lone escape": (as_bytes(b"\\\\", b'["', b"\\"), parts_in),
    "quotes": (as_bytes(b'"'), parts_in),
    "a string": (as_bytes(b"a", b'"', b'"'), parse_json),
    "escapes": (as_bytes(b"\\u0041", b'"', b'"'), parse_json),
    "numbers": (as_bytes(b"1", b"[", b"]"), parse_json),
    "many numbers": (as_bytes(b"1,", b"[", b"1]"), strictly_read),
    "brackets": (as_bytes(b"["), parse_json),
    "brackets of a body": (as_bytes(b"["), strictly_read),
    "keys": (lambda size: orjson.dumps({f"k{n}": n for n in range(size)}), strictly_read),
    "one key many times": (lambda size: b"{" + b'"a":1,' * size + b'"a":1}', parse_json),
    "a date": (with_text("date"), lambda raw: check_record(raw, CATALOGUE)),
    "a note": (
        lambda size: record([{"test": "hip.modified_thomas", "side": "left", "note": "\n" * size}]),
        lambda raw: check_record(raw, CATALOGUE),
    ),
    "a muscle grade": (
        lambda size: record([{"test": "hip.strength", "side": "left", "values": {"adduction": "5" * size}}]),
        lambda raw: check_record(raw, CATALOGUE),
    ),
    "a number of a table": (as_text("1", after="x"), number_of),
    "a cell": (as_text(" ", after="="), guarded),
    "a marked cell": (as_text("'"), unguarded),
    "quoted cells": (as_text('"a""",'), table_of),
    "an open quote of a table": (as_text('""', '"a'), table_of),
    "lines of a table": (as_text("a\n", "h\n"), table_of),
    "columns of a table": (as_text("a,"), table_of),
    "rows of a table": (rows, lambda table: take_table(CATALOGUE, table, LONG_ROLES, "follow_up")),
    "a bundle": (bundle, lambda raw: record_of(CATALOGUE, raw)),
    "a path of a bundle": (
        lambda size: [{"linkId": "a" + ".b" * size, "answer": [{"valueString": "x"}]}],
        document_of,
    ),
    "a path of brackets": (
        lambda size: [{"linkId": "a" + "[0]" * size, "answer": [{"valueString": "x"}]}],
        document_of,
    ),
    "a name in a calendar": (
        as_text("ä,;\n"),
        lambda name: calendar_of([date_of(name)], ZoneInfo("UTC"), name),
    ),
    "a field of a template": (as_text("{athlete}"), lambda text: list(template_faults({"to": text}))),
    "open braces": (as_text("{"), lambda text: list(template_faults({"to": text}))),
    "letters on paper": (as_text("a\u0301王"), printable),
}


class Growth(unittest.TestCase):
    def test_every_reader(self) -> None:
        for name, (make, read) in READERS.items():
            with self.subTest(name):
                self.assertLessEqual(growth(make, read, MOST), MOST)
