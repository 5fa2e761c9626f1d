"""What was tried and not done is in the audit too; a database that cannot write just now is busy."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from unittest import mock

from sqlalchemy import text

from tests.support.api import PASSWORD, ApiCase, Person, answer


class RefusedCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        self.screen = self.me.begin_screen()
        self.me.answer(self.screen, "left", "values.thigh_angle", 8)

    def trail(self, verb: str) -> list[tuple[Any, ...]]:
        with self.engine.connect() as db:
            rows = db.execute(
                text(
                    "SELECT user_id, noun, noun_id, detail FROM audit"
                    " WHERE clinic_id = :c AND verb = :v ORDER BY id"
                ),
                {"c": self.me.clinic_id, "v": verb},
            )
            return [(str(r.user_id), r.noun, str(r.noun_id) if r.noun_id else None, r.detail) for r in rows]

    def login(self, who: Person) -> str:
        with self.engine.connect() as db:
            return str(
                db.execute(text("SELECT login FROM users WHERE id = :id"), {"id": who.user_id}).scalar_one()
            )


class Trail(RefusedCase):
    def test_a_failed_sign_in_stands_with_the_account_that_was_tried(self) -> None:
        for login, password in ((self.login(self.me), "wrong"), ("nobody-here", "wrong")):
            body = {"login": login, "password": password}
            self.assertEqual(self.client().post("/api/session", json=body).status_code, 401)
        self.assertEqual(self.trail("refuse sign in"), [(str(self.me.user_id), "session", None, None)])
        self.client().post("/api/session", json={"login": self.login(self.me), "password": PASSWORD})
        self.assertEqual(len(self.trail("refuse sign in")), 1)

    def test_a_wrong_password_at_signing_stands_with_its_screen(self) -> None:
        self.assertEqual(self.me.sign(self.screen, "wrong").status_code, 422)
        own = (str(self.me.user_id), "screen", self.screen, {"for": "sign_screen"})
        self.assertEqual(self.trail("refuse password"), [own])
        self.assertEqual(self.me.sign(self.screen).status_code, 204)
        self.assertEqual(len(self.trail("refuse password")), 1)

    def test_what_a_role_does_not_include_stands_with_who_asked_for_what(self) -> None:
        student = self.person("student", self.me.clinic_id)
        self.assertEqual(student.call("GET", f"/api/screens/{self.screen}/record").status_code, 403)
        self.assertEqual(student.call("GET", "/api/users").status_code, 403)
        who = str(student.user_id)
        self.assertEqual(
            self.trail("refuse"),
            [
                (who, "screen", self.screen, {"asked": "export_record"}),
                (who, "session", None, {"asked": "list_users"}),
            ],
        )

    def test_an_export_that_was_stopped_says_so(self) -> None:
        athlete = self.me.ok("GET", f"/api/screens/{self.screen}")["athlete"]["id"]
        self.me.call("GET", f"/api/athletes/{athlete}/archive")
        self.assertEqual(self.trail("stop export"), [])

        def stops(*_given: Any, **_more: Any) -> Iterator[bytes]:
            yield b"the first piece"
            raise OSError("the reader is gone")

        with mock.patch("northstride.api.exports._pieces", stops):
            self.me.call("GET", f"/api/athletes/{athlete}/archive")
        own = (str(self.me.user_id), "athlete", athlete, {"form": "archive"})
        self.assertEqual(self.trail("stop export"), [own])
        self.assertEqual(len(self.trail("hand over")), 3)


class Busy(RefusedCase):
    def put(self) -> Any:
        body = {"answers": [answer("left", "values.thigh_angle", 9)]}
        return self.me.call("POST", f"/api/screens/{self.screen}/answers", body)

    def is_busy(self, response: Any) -> None:
        self.assertEqual(response.status_code, 503, response.text)
        self.assertTrue(response.json()["type"].endswith(":busy"), response.text)
        self.assertIn("kept", response.json()["title"])
        self.assertEqual(response.headers["retry-after"], "2")

    def read_only(self, how: str) -> None:
        name = self.engine.url.database
        with self.engine.connect().execution_options(isolation_level="AUTOCOMMIT") as db:
            db.execute(text("SET default_transaction_read_only = off"))
            db.execute(text(f'ALTER DATABASE "{name}" SET default_transaction_read_only = {how}'))
        for engine in (self.engine, self.app.state.services.engine):
            engine.dispose()

    def test_a_read_only_database_is_busy_and_takes_the_same_later(self) -> None:
        self.read_only("on")
        self.addCleanup(self.read_only, "off")
        self.is_busy(self.put())
        self.is_busy(self.me.call("GET", f"/api/screens/{self.screen}"))
        self.read_only("off")
        self.assertEqual(self.put().status_code, 200)

    def test_a_restarting_database_is_busy_and_found_again(self) -> None:
        self.put()
        with self.engine.connect() as db:
            mine = "pid <> pg_backend_pid() AND datname = current_database()"
            db.execute(text(f"SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE {mine}"))
        first = self.put()
        if first.status_code != 200:
            self.is_busy(first)
        self.assertEqual(self.put().status_code, 200)
