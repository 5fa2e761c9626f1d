"""A second device by a code: once, for two minutes, while its maker is signed in; a session of its own."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import httpx2
from fastapi.testclient import TestClient
from sqlalchemy import text

from tests.api.test_screens import ScreenCase


class Pairing(ScreenCase):
    def make(self, **fields: Any) -> tuple[str, str]:
        key = str(uuid4())
        made = self.me.ok("POST", "/api/pairings", {"id": key, "screen_id": self.screen, **fields})
        self.assertEqual(made["lives_seconds"], 120)
        return key, made["code"]

    def phone(self) -> TestClient:
        return TestClient(self.app)

    def pair(self, code: str, phone: TestClient | None = None) -> httpx2.Response:
        return (phone or self.phone()).post("/api/session/pair", json={"code": code})

    def used(self, key: str) -> bool:
        return bool(self.me.ok("GET", f"/api/pairings/{key}")["used"])

    def test_the_phone_is_the_same_person_with_a_session_of_its_own_at_the_screen(self) -> None:
        key, code = self.make()
        self.assertFalse(self.used(key))
        phone = self.phone()
        paired = self.pair(code, phone).json()
        self.assertEqual(
            (paired["session"]["user_id"], paired["screen"]), (str(self.me.user_id), self.screen)
        )
        self.assertNotEqual(paired["session"]["token"], self.me.token)
        self.assertEqual(phone.get(self.at).status_code, 200)
        self.assertTrue(self.used(key))
        # Whose it is may leave it alone; where its maker leaves, it ends.
        self.assertEqual(self.me.call("GET", self.at).status_code, 200)
        self.me.ok("DELETE", "/api/session")
        self.assertEqual(phone.get(self.at).status_code, 401)

    def test_whose_code_it_is_stands_there_before_anybody_enters(self) -> None:
        _, code = self.make()
        for _ in range(2):
            looked = self.phone().post("/api/session/pair/look", json={"code": code})
            self.assertEqual(looked.json(), {"name": "A. Practitioner", "clinic": "Tarnholt"})
            self.assertNotIn("set-cookie", looked.headers)
        self.assertEqual(self.pair(code).status_code, 200)
        gone = self.phone().post("/api/session/pair/look", json={"code": code})
        self.assertEqual(gone.status_code, 401)

    def test_nobody_is_put_in_the_place_of_who_is_signed_in(self) -> None:
        """A link somebody was sent would else make them write as its sender."""
        _, code = self.make()
        colleague = self.person("assistant")
        refused = colleague.client.post("/api/session/pair", json={"code": code})
        self.assertEqual(refused.status_code, 409)
        self.assertEqual(colleague.ok("GET", "/api/session")["session"]["name"], "A. Assistant")
        self.assertEqual(self.pair(code).status_code, 200)

    def test_it_is_as_old_as_its_makers_and_listed_with_it(self) -> None:
        began = "now() - interval '11 hours 59 minutes'"
        with self.engine.begin() as db:
            db.execute(
                text(f"UPDATE sessions SET created_at = {began} WHERE user_id = :user"),
                {"user": self.me.user_id},
            )
        _, code = self.make()
        phone = self.phone()
        self.pair(code, phone)
        listed = self.me.ok("GET", "/api/sessions")
        came = [(each["came_with"], each["here"]) for each in listed]
        self.assertEqual(came, [(None, True), (listed[0]["id"], False)])
        self.assertEqual(listed[0]["begun"], listed[1]["begun"])
        older = "created_at - interval '2 minutes'"
        with self.engine.begin() as db:
            db.execute(
                text(f"UPDATE sessions SET created_at = {older} WHERE user_id = :user"),
                {"user": self.me.user_id},
            )
        self.assertEqual(phone.get(self.at).status_code, 401)

    def test_a_lock_closes_this_device_and_not_the_one_in_the_hand(self) -> None:
        _, code = self.make()
        phone = self.phone()
        self.pair(code, phone)
        self.me.ok("DELETE", "/api/session", params={"how": "locked"})
        self.assertEqual(self.me.call("GET", self.at).status_code, 401)
        self.assertEqual(phone.get(self.at).status_code, 200)

    def test_a_code_works_once(self) -> None:
        _, code = self.make()
        self.assertEqual([self.pair(code).status_code, self.pair(code).status_code], [200, 401])

    def test_a_code_grows_old_and_ends_with_its_makers_session(self) -> None:
        _, old = self.make()
        with self.engine.begin() as db:
            db.execute(text("UPDATE pairings SET created_at = created_at - interval '121 seconds'"))
        self.assertEqual(self.pair(old).status_code, 401)
        _, code = self.make()
        self.me.ok("DELETE", "/api/session")
        self.assertEqual(self.pair(code).status_code, 401)

    def test_nobody_guesses_and_a_wrong_code_says_no_more_than_an_old_one(self) -> None:
        _, code = self.make()
        self.assertGreaterEqual(len(code), 32)
        wrong, used = self.pair("x" * 32), (self.pair(code), self.pair(code))[1]
        self.assertEqual((wrong.status_code, wrong.content), (401, used.content))
        phone = self.phone()
        tries = [self.pair(f"{number:032}", phone).status_code for number in range(40)]
        self.assertIn(429, tries)
        with self.engine.begin() as db:
            db.execute(text("DELETE FROM guesses"))

    def test_the_code_is_kept_nowhere(self) -> None:
        key, code = self.make()
        with self.engine.connect() as db:
            row = db.execute(text("SELECT * FROM pairings WHERE id = :id"), {"id": key}).one()
        self.assertNotIn(code, [str(value) for value in row])

    def test_only_for_a_screen_of_the_clinic_and_only_the_maker_asks(self) -> None:
        stranger = self.person(clinic_id=self.new_clinic())
        body = {"id": str(uuid4()), "screen_id": self.screen}
        self.assertEqual(stranger.call("POST", "/api/pairings", body).status_code, 404)
        key, _ = self.make(screen_id=None)
        colleague = self.person("owner")
        self.assertEqual(colleague.call("GET", f"/api/pairings/{key}").status_code, 404)

    def test_a_closed_account_takes_no_device_along(self) -> None:
        _, code = self.make()
        owner = self.person("owner")
        owner.ok("PATCH", f"/api/users/{self.me.user_id}", {"archived": True})
        self.assertEqual(self.pair(code).status_code, 401)
