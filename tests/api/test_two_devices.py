"""Two devices on one screen: each learns where the other is, by two app processes as by one."""

from __future__ import annotations

from typing import Any
from unittest import mock

from fastapi.testclient import TestClient
from pydantic import SecretStr
from sqlalchemy import text

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.store.screens import screens
from tests.api.test_screens import ScreenCase
from tests.support.api import ApiCase, Person


class TwoDevices(ScreenCase):
    def others(self, person: Person, device: str) -> list[tuple[Any, ...]]:
        params = {"after": 0, "device": device}
        found = person.ok("GET", f"{self.at}/changes", params=params)["others"]
        return [(other["name"], other["step"], other["test"], other["side"]) for other in found]

    def say(self, person: Person, device: str, **at: Any) -> None:
        person.ok("POST", f"{self.at}/presence", {"device": device, "step": "bench", **at})

    def test_each_learns_where_the_other_is_and_nobody_hears_of_themselves(self) -> None:
        helper = self.person("assistant")
        self.say(self.me, "tablet", test="ankle.lunge", side="right")
        self.say(helper, "phone", step="story")
        self.assertEqual(self.others(helper, "phone"), [("A. Practitioner", "bench", "ankle.lunge", "right")])
        self.assertEqual([row[1] for row in self.others(self.me, "tablet")], ["story"])
        self.say(self.me, "tablet", test="hip.squat")
        self.assertEqual(self.others(helper, "phone"), [("A. Practitioner", "bench", "hip.squat", None)])

    def test_one_person_on_two_devices_is_told_of_the_other_device(self) -> None:
        self.say(self.me, "tablet", test="ankle.lunge")
        self.say(self.me, "phone", test="hip.squat")
        self.assertEqual([row[2] for row in self.others(self.me, "phone")], ["ankle.lunge"])

    def test_who_is_silent_is_forgotten_soon(self) -> None:
        self.say(self.me, "tablet")
        with self.engine.begin() as db:
            db.execute(text("UPDATE presence SET seen_at = seen_at - interval '13 seconds'"))
        self.assertEqual(self.others(self.me, "phone"), [])
        with self.engine.begin() as db:
            db.execute(text("UPDATE presence SET seen_at = seen_at - interval '2 hours'"))
        self.say(self.me, "phone")
        with self.engine.connect() as db:
            self.assertEqual(db.execute(text("SELECT device FROM presence")).scalars().all(), ["phone"])

    def test_another_process_knows_it_too(self) -> None:
        self.say(self.me, "tablet", test="ankle.lunge")
        second = create_app(Settings(database_url=SecretStr(self.url), hash_cost="test"))
        self.addCleanup(second.state.services.engine.dispose)
        client = TestClient(second)
        client.cookies = self.me.client.cookies
        person = Person(client, self.me.token, self.me.clinic_id, self.me.user_id)
        self.assertEqual([row[2] for row in self.others(person, "phone")], ["ankle.lunge"])

    def test_another_clinic_neither_says_nor_hears_and_saying_is_no_use(self) -> None:
        stranger = self.person(clinic_id=self.new_clinic())
        body = {"device": "tablet", "step": "bench"}
        self.assertEqual(stranger.call("POST", f"{self.at}/presence", body).status_code, 404)
        before = self.audit(self.screen)
        self.say(self.me, "tablet")
        self.assertEqual(self.audit(self.screen), before)
        for wrong in ({"device": ""}, {"device": "x y"}, {"step": "elsewhere"}, {"side": "up"}):
            self.assertEqual(self.me.call("POST", f"{self.at}/presence", {**body, **wrong}).status_code, 422)


class WhatIsReadMeanwhile(ApiCase):
    def test_what_was_read_after_the_row_counts_so_that_nobody_asks_for_it_again(self) -> None:
        me = self.person()
        screen = me.begin_screen()
        me.answer(screen, "left", "values.thigh_angle", 8)
        rows = []
        get_screen = screens.get_screen

        def early(*told: Any) -> Any:
            """The row is read, and somebody writes before the answers are."""
            rows.append(get_screen(*told))
            if len(rows) == 1:
                me.answer(screen, "left", "values.thigh_angle", 9)
            return rows[0]

        with mock.patch.object(screens, "get_screen", early):
            changes = me.ok("GET", f"/api/screens/{screen}/changes", params={"after": 0})
        self.assertEqual([found["value"] for found in changes["answers"]], [8, 9])
        self.assertEqual(changes["revision"], changes["answers"][-1]["revision"])
        self.assertGreater(changes["revision"], rows[0].revision)
