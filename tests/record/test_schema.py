"""The published JSON Schema: kept from drifting, and refusing what the reader refuses."""

from __future__ import annotations

import json
import unittest
from pathlib import Path

import jsonschema

from northstride.cli.published import DOCS, PUBLISHED
from northstride.core.catalogue import default_catalogue
from northstride.record.schema import record_schema
from tests.record.test_read import FULL, OneFault, changed
from tests.support.records import record, thomas

VALIDATOR = jsonschema.Draft202012Validator(record_schema(default_catalogue()))
# A schema cannot compare two dates, and a format is only a note to it.
BEYOND_A_SCHEMA = (
    "after the screen",
    "YYYY-MM-DD",
    "2026-02-30",
    "not-a-uuid",
    '"7"',
    "values stand",
    "2026-09-14T",
)


class Published(unittest.TestCase):
    def test_every_published_document_is_what_the_code_makes(self) -> None:
        for name, make in PUBLISHED.items():
            self.assertEqual(
                Path(DOCS, name).read_text(encoding="utf-8"),
                make(),
                f"{name} has drifted: python -m northstride.cli.published",
            )


class SameJudgement(unittest.TestCase):
    def test_takes_what_the_reader_takes(self) -> None:
        per_side = {"test": "hip.modified_thomas", "values": {"thigh_angle": {"left": [8, 9], "right": -4}}}
        for raw in (FULL, record(), record([thomas("left", knee_angle="looks_full")]), record([per_side])):
            VALIDATOR.validate(json.loads(json.dumps(raw)))

    def test_refuses_what_the_reader_refuses(self) -> None:
        for path, value, place, says in OneFault.CASES:
            if any(word in says for word in BEYOND_A_SCHEMA):
                continue
            with self.subTest(place=place, value=value):
                self.assertFalse(VALIDATOR.is_valid(changed(path, value)))
