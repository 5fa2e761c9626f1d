"""Bytes nobody means well with: refused at their place, at no cost to others, and never a dead end."""

from __future__ import annotations

import json
import re
import threading
import time
from typing import Any
from unittest import mock
from uuid import uuid4

from northstride.api.strict_json import MOST_OF_ANYONE
from northstride.record import values
from tests.support.api import PASSWORD, ApiCase
from tests.support.hostile import hostile_answers, of_each_kind

JSON = {"Content-Type": "application/json"}
OPEN = {
    "/api/session": {"login": "a", "password": "b"},
    "/api/session/pair": {"code": "a"},
    "/api/setup": {
        "clinic": "Tarnholt",
        "time_zone": "UTC",
        "login": "aa",
        "name": "A",
        "password": PASSWORD,
    },
}


class BeforeAnyoneIsKnown(ApiCase):
    def test_an_open_string_holds_nobody_up(self) -> None:
        """It took six seconds at half this size, in the one loop of all requests."""
        body = b'{"login": "' + b'\\"' * 24_000
        began = time.thread_time()
        for path in OPEN:
            self.assertEqual(self.client().post(path, content=body, headers=JSON).status_code, 413)
        self.assertLess(time.thread_time() - began, 2)

    def test_open_operations_take_little(self) -> None:
        for path, body in OPEN.items():
            with self.subTest(path):
                large = {**body, "more": "x" * MOST_OF_ANYONE}
                self.assertEqual(self.client().post(path, json=large).status_code, 413)
                self.assertNotEqual(self.client().post(path, json=body).status_code, 413)

    def test_a_large_body_is_read_only_from_who_may_send_it(self) -> None:
        large = b'{"answers": [' + b"1," * 200_000 + b"1]}"
        path = f"/api/screens/{uuid4()}/answers"
        with mock.patch("northstride.api.strict_json.strictly_read") as reading:
            self.assertEqual(self.client().post(path, content=large, headers=JSON).status_code, 401)
        reading.assert_not_called()
        response = self.person().call("POST", path, content=large, headers=JSON)
        self.assertEqual(response.status_code, 413)

    def test_what_is_large_is_read_beside_the_loop(self) -> None:
        me, threads = self.person(), []

        def read(_body: bytes) -> Any:
            threads.append(threading.current_thread().name)
            return {"answers": []}

        large = json.dumps({"answers": [], "device": "x" * 30_000}).encode()
        with mock.patch("northstride.api.strict_json.strictly_read", read):
            me.call("POST", f"/api/screens/{uuid4()}/answers", content=large, headers=JSON)
        self.assertIn("worker", threads[0])


class WrittenTwice(ApiCase):
    def test_a_doubled_key_is_refused_at_its_path(self) -> None:
        me = self.person("owner")
        athlete = me.add_athlete()
        bodies = {
            ("PATCH", f"/api/athletes/{athlete}"): ('{"seen": 1, "sport": "a", "sport": "b"}', "sport"),
            ("POST", f"/api/screens/{me.begin_screen(athlete)}/answers"): (
                '{"answers": [{"id": "a", "value": {"left": 1, "left": 2}}]}',
                "answers[0].value.left",
            ),
        }
        for (method, path), (body, at) in bodies.items():
            with self.subTest(path):
                response = me.call(method, path, content=body, headers=JSON)
                self.assertEqual(response.status_code, 422, response.text)
                self.assertEqual([fault["path"] for fault in response.json()["faults"]], [at])

    def test_before_anyone_is_known_too(self) -> None:
        body = '{"login": "aino", "login": "bram", "password": "x"}'
        response = self.client().post("/api/session", content=body, headers=JSON)
        self.assertEqual(response.status_code, 422)
        self.assertIn("login", response.text)

    def test_who_may_not_ask_hears_that_first(self) -> None:
        body = '{"name": "a", "name": "b"}'
        response = self.client().post("/api/squads", content=body, headers=JSON)
        self.assertEqual(response.status_code, 401)


class EveryKindOfValue(ApiCase):
    def test_whatever_was_taken_can_be_read(self) -> None:
        me = self.person()
        kinds = of_each_kind()
        self.assertLessEqual({"angle", "strength", "choice", "choices", "grade", "flag"}, set(kinds))
        for kind, (test, measure) in kinds.items():
            screen = me.begin_screen()
            for body in hostile_answers(test, measure):
                with self.subTest(kind=kind, value=ascii(body["value"])[:60]):
                    path = f"/api/screens/{screen}"
                    written = me.call("POST", f"{path}/answers", {"answers": [body]})
                    self.assertIn(written.status_code, (200, 422), written.text)
                    self.assertEqual(me.call("GET", f"{path}/reading").status_code, 200)


class WhatStandsAlready(ApiCase):
    """A grade with a line break was taken once, and its screen answered 500 for ever."""

    def setUp(self) -> None:
        self.me = self.person()
        self.screen = self.me.begin_screen()
        with mock.patch.object(values, "STRENGTH_GRADE", re.compile(r"[\s\S]*")):
            self.grade("5\n")

    def grade(self, value: str) -> None:
        self.me.answer(self.screen, "left", "values.grade", value, test="ankle.resisted.dorsiflexion")

    def test_the_reading_says_which_entry_and_can_be_mended(self) -> None:
        for method, path, body in (
            ("GET", "reading", None),
            ("POST", "preview", {"answers": []}),
            ("GET", "evidence", None),
            ("GET", "sheets", None),
        ):
            with self.subTest(path):
                response = self.me.call(method, f"/api/screens/{self.screen}/{path}", body)
                self.assertEqual(response.status_code, 409, response.text)
                self.assertIn("dorsiflexion, left", response.json()["faults"][0]["problem"])
        self.assertEqual(self.me.call("GET", f"/api/screens/{self.screen}").status_code, 200)
        self.grade("5")
        self.assertEqual(self.me.call("GET", f"/api/screens/{self.screen}/reading").status_code, 200)

    def test_a_rule_that_fails_names_its_entry(self) -> None:
        self.grade("5")

        def fails(case: Any) -> list[Any]:
            if case.exam.entries:
                raise ZeroDivisionError
            return []

        with mock.patch("northstride.core.judgement.judge.RECHECK_RULES", [fails]):
            for path in ("reading", "evidence", "route", "sheets"):
                with self.subTest(path):
                    response = self.me.call("GET", f"/api/screens/{self.screen}/{path}")
                    self.assertEqual(response.status_code, 409, response.text)
                    (fault,) = response.json()["faults"]
                    self.assertEqual(fault["path"], "entries[0]")
                    self.assertIn("dorsiflexion, left", fault["problem"])
