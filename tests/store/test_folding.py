"""Answers folded into entries, and documents compared, without a database."""

from __future__ import annotations

import datetime as dt
import unittest
from typing import Any
from uuid import UUID, uuid4

from northstride.core.catalogue import default_catalogue
from northstride.store.answers.folding import AnswerRow, canonical, differing_paths, entries_json, fold

CATALOGUE = default_catalogue()
ENTRY = UUID("00000000-0000-4000-8000-000000000001")
NOON = dt.datetime(2026, 9, 14, 12, tzinfo=dt.UTC)


def row(field: str, value: Any, **changes: Any) -> AnswerRow:
    base: dict[str, Any] = {
        "id": uuid4(),
        "revision": 1,
        "test": "made.up",
        "entry_id": ENTRY,
        "entry_side": "left",
        "key": "",
        "side": "left",
        "field": field,
        "value": value,
        "by_name": "K. Aalto",
        "observed_at": None,
        "observed_zone": None,
    }
    return AnswerRow(**{**base, **changes})


class Folding(unittest.TestCase):
    def entry(self, *rows: AnswerRow) -> dict[str, Any]:
        (found,) = entries_json(fold(rows, CATALOGUE))
        return found

    def test_the_last_answer_of_a_field_stands(self) -> None:
        found = self.entry(row("values.a", 1), row("values.b", 2), row("values.a", 3))
        self.assertEqual(found["values"], {"a": 3, "b": 2})

    def test_clearing_takes_it_out_and_an_empty_entry_is_none(self) -> None:
        self.assertEqual(
            self.entry(row("values.a", 1), row("values.a", None), row("note", "x"))["values"], {}
        )
        self.assertEqual(entries_json(fold([row("values.a", 1), row("values.a", None)], CATALOGUE)), [])

    def test_time_and_name_are_the_latest_answers_in_its_own_offset(self) -> None:
        later = row("note", "x", observed_at=NOON, observed_zone=330, by_name="B. Holm")
        found = self.entry(row("values.a", 1, observed_at=NOON), later)
        self.assertEqual((found["at"], found["by"]), ("2026-09-14T17:30:00+05:30", "B. Holm"))

    def test_lanes_of_an_entry_without_a_side(self) -> None:
        whole = {"entry_side": None}
        found = self.entry(
            row("values.a", 1, **whole, side="left"),
            row("values.a", 2, **whole, side="right"),
            row("values.b", 3, **whole, side=None),
        )
        self.assertEqual(found["values"], {"a": {"left": 1, "right": 2}, "b": 3})
        self.assertNotIn("side", found)

    def test_what_was_said_of_both_at_once_gives_way_to_a_later_side_and_back(self) -> None:
        whole = {"entry_side": None, "side": None}
        left = {"entry_side": None, "side": "left"}
        found = self.entry(
            row("values.a", ["x"], **whole, revision=1), row("values.a", ["y"], **left, revision=2)
        )
        self.assertEqual(found["values"], {"a": {"left": ["y"]}})
        found = self.entry(
            row("values.a", ["y"], **left, revision=1), row("values.a", ["x"], **whole, revision=2)
        )
        self.assertEqual(found["values"], {"a": ["x"]})
        found = self.entry(
            row("values.a", ["x"], **whole, revision=1),
            row("values.a", ["y"], **left, revision=2),
            row("values.a", None, **left, revision=3),
        )
        self.assertEqual(found["values"], {"a": ["x"]})

    def test_a_value_beats_a_refusal_but_pain_does_not(self) -> None:
        refusal = row("declined", "too sore")
        self.assertNotIn("declined", self.entry(refusal, row("values.a", 1)))
        self.assertEqual(self.entry(refusal, row("pain", {"present": True}))["declined"], "too sore")

    def test_entries_stand_in_the_order_they_were_begun(self) -> None:
        other = uuid4()
        found = entries_json(
            fold([row("values.a", 1), row("values.a", 2, entry_id=other), row("values.a", 3)], CATALOGUE)
        )
        self.assertEqual([entry["id"] for entry in found], [str(ENTRY), str(other)])


class Comparing(unittest.TestCase):
    def test_absent_null_and_empty_are_the_same(self) -> None:
        full = {"a": None, "b": [], "c": "", "d": {"e": None}, "f": 2.0, "g": [0, False], "notice": "x"}
        self.assertEqual(canonical(full), {"f": 2, "g": [0, False]})

    def test_names_each_place_that_differs(self) -> None:
        left = {"a": 1, "b": {"c": [1, 2]}, "d": [1], "same": 5}
        right = {"a": 2, "b": {"c": [1, 3]}, "d": [1, 2], "same": 5, "e": 0}
        self.assertEqual(differing_paths(left, right), ["a", "b.c[1]", "d", "e"])
        self.assertEqual(differing_paths(left, left), [])
        self.assertEqual(differing_paths(1, 2), ["$"])
