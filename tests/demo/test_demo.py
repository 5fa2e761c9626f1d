"""The demo: whole, made up, believable on any day, and the same at every load of a day."""

from __future__ import annotations

import datetime as dt
import unittest
from collections import Counter
from typing import Any
from unittest import mock

from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.demo.cases import cases
from northstride.demo.load import is_loaded, load_demo
from northstride.demo.moving import moved
from northstride.demo.scenario import MEMBERS
from northstride.demo.squads import squad_screens
from northstride.store.database import connect
from northstride.store.readings.refreshing import refresh
from tests.support.database import fresh_database

CATALOGUE = default_catalogue()
FLAGS = {code.split(".")[0] for code in FLAG_NAMES}
# A Sunday at the end of a year, and a leap day years from now.
DAYS = (dt.date(2026, 12, 27), dt.date(2032, 2, 29))


def loaded(day: dt.date) -> str:
    """As on that day, which may be still to come."""
    url = fresh_database()
    with (
        mock.patch("northstride.store.people.clinic_day.today_of", return_value=day),
        mock.patch("northstride.store.days.arrangements.today_of", return_value=day),
    ):
        load_demo(url, day)
    return url


def contents(url: str) -> dict[str, Any]:
    engine = connect(url)
    while refresh(engine, CATALOGUE):
        pass
    queries = {
        "signed": "SELECT record, reading FROM signatures ORDER BY screen_id",
        "roles": "SELECT role FROM users ORDER BY role",
        "squads": "SELECT squad_id, count(*) FROM squad_members GROUP BY 1 ORDER BY 1",
        "screens": "SELECT date, purpose, signed_at IS NULL AS open FROM screens ORDER BY id",
        "flags": "SELECT screen_id, code, side, strength FROM reading_flags ORDER BY 1, 2, 3",
        "actions": 'SELECT screen_id, code, side, urgency, start, "end" FROM reading_actions'
        " ORDER BY screen_id, code, side",
        "steps": 'SELECT screen_id, action, does, "on", until FROM arrangements ORDER BY id',
        "faults": "SELECT fault FROM readings WHERE fault IS NOT NULL",
    }
    with engine.connect() as db:
        found = {name: db.execute(text(query)).all() for name, query in queries.items()}
    engine.dispose()
    for record, _ in found["signed"]:
        for entry in record["entries"]:
            entry.pop("id")
            # Never later than the load itself, which on a day still to come is always the case.
            entry.pop("at")
    return found


def without_days(found: dict[str, Any]) -> Any:
    """What does not depend on the day it was loaded on."""
    return (
        found["flags"],
        [tuple(row)[:4] for row in found["actions"]],
        Counter(r.does for r in found["steps"]),
    )


class Demo(unittest.TestCase):
    url: str
    found: dict[str, Any]

    @classmethod
    def setUpClass(cls) -> None:
        cls.url = loaded(DAYS[0])
        cls.found = contents(cls.url)

    def test_is_the_same_at_every_load_of_a_day_and_reads_the_same_on_any_other(self) -> None:
        self.assertTrue(is_loaded(self.url))
        self.assertFalse(is_loaded(fresh_database()))
        self.assertEqual(contents(loaded(DAYS[0])), self.found)
        self.assertEqual(without_days(contents(loaded(DAYS[1]))), without_days(self.found))

    def test_two_seasons_of_every_kind_and_all_of_it_readable(self) -> None:
        self.assertEqual(self.found["faults"], [])
        roles = [row.role for row in self.found["roles"]]
        self.assertEqual(roles, ["assistant", "owner", "practitioner", "student"])
        self.assertEqual(sorted(row.count for row in self.found["squads"]), [4, 12, 16])
        self.assertEqual({row.code.split(".")[0] for row in self.found["flags"]}, FLAGS)
        days = [row.date for row in self.found["screens"]]
        self.assertGreater((max(days) - min(days)).days, 365)
        purposes = {row.purpose for row in self.found["screens"]}
        self.assertGreaterEqual(len(purposes), 6)
        changed = [c for _, r in self.found["signed"] for c in r["changes"] if c["verdict"] == "changed"]
        self.assertEqual({item["worse"] for item in changed}, {True, False})

    def test_something_is_open_and_due_today(self) -> None:
        today = DAYS[0]
        self.assertGreaterEqual(sum(row.open and row.date == today for row in self.found["screens"]), 4)
        windows = [(row.start, row.end) for row in self.found["actions"] if row.start]
        windows += [(row.on, row.until) for row in self.found["steps"] if row.does == "again"]
        self.assertTrue(any(start <= today <= end for start, end in windows))
        self.assertTrue(any(end < today for _, end in windows))
        self.assertTrue(any(start > today for start, _ in windows))
        self.assertTrue(any(row.does == "arranged" and row.on == today for row in self.found["steps"]))

    def test_numbers_and_names_stand_once(self) -> None:
        self.assertEqual(len({member.name for member in MEMBERS}), len(MEMBERS))
        self.assertEqual([member.number for member in MEMBERS], list(range(1, len(MEMBERS) + 1)))
        screens = [(screen.days_ago, screen.member.number) for screen in squad_screens()]
        self.assertEqual(len(set(screens)), len(screens))
        slugs = [(case.slug, case.days_ago) for case in cases()]
        self.assertEqual(len(set(slugs)), len(slugs))

    def test_a_record_moves_whole(self) -> None:
        told = {"date": "2026-09-14", "intake": {"onset": {"date": "2026-09-12"}}, "note": "2026", "n": [1]}
        there = moved(told, dt.date(2027, 1, 1))
        self.assertEqual(
            there,
            {"date": "2027-01-01", "intake": {"onset": {"date": "2026-12-30"}}, "note": "2026", "n": [1]},
        )
