"""The demo: whole, made up, and the same at every load."""

from __future__ import annotations

import unittest
from typing import Any

from sqlalchemy import text

from northstride.demo.load import is_loaded, load_demo
from northstride.demo.scenario import LAST_SEASON_SCREENS, MEMBERS, SEASON_SCREENS
from northstride.store.database import connect
from tests.support.database import fresh_database


def contents(url: str) -> dict[str, Any]:
    engine = connect(url)
    with engine.connect() as db:
        found = {
            "signed": db.execute(text("SELECT record, reading FROM signatures ORDER BY screen_id")).all(),
            "roles": list(db.execute(text("SELECT role FROM users ORDER BY role")).scalars()),
            "athletes": list(db.execute(text("SELECT name FROM athletes ORDER BY ref")).scalars()),
            "squads": db.execute(
                text("SELECT squad_id, count(*) FROM squad_members GROUP BY 1 ORDER BY 1")
            ).all(),
            "screens": db.execute(text("SELECT count(*), count(signed_at) FROM screens")).one(),
        }
    engine.dispose()
    for record, _ in found["signed"]:
        for entry in record["entries"]:
            entry.pop("id")
    return found


def _beyond_error(reading: dict[str, Any]) -> list[dict[str, Any]]:
    return [item for item in reading["changes"] if item["verdict"] == "changed"]


class Demo(unittest.TestCase):
    def test_is_the_same_at_every_load(self) -> None:
        first, second = fresh_database(), fresh_database()
        self.assertFalse(is_loaded(first))
        for url in (first, second):
            load_demo(url)
        self.assertTrue(is_loaded(first))
        found = contents(first)
        self.assertEqual(found, contents(second))
        self.assertEqual(found["roles"], ["assistant", "owner", "practitioner", "student"])
        self.assertEqual((len(found["athletes"]), [count for _, count in found["squads"]]), (24, [12, 12]))
        self.assertEqual(tuple(found["screens"]), (19, 17))
        flags = {flag["code"] for _, reading in found["signed"] for flag in reading["flags"]}
        self.assertGreaterEqual(len(flags), 4)
        changed = {item["worse"] for _, reading in found["signed"] for item in _beyond_error(reading)}
        self.assertEqual(changed, {True, False})

    def test_numbers_and_names_stand_once(self) -> None:
        self.assertEqual(len({member.name for member in MEMBERS}), 24)
        self.assertEqual(len({member.number for member in MEMBERS}), 24)
        for season in (SEASON_SCREENS, LAST_SEASON_SCREENS):
            self.assertEqual(len({screen.number for screen in season}), len(season))
