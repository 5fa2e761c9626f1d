"""Wrong passwords slow down whoever guesses, and keep nobody out."""

from __future__ import annotations

import threading
from uuid import UUID

from fastapi.testclient import TestClient
from sqlalchemy import text

from tests.support.api import PASSWORD, ApiCase, Person


class GuessCase(ApiCase):
    def setUp(self) -> None:
        with self.engine.begin() as db:
            db.execute(text("DELETE FROM guesses"))
        self.me = self.person()
        with self.engine.connect() as db:
            asked = {"id": self.me.user_id}
            self.login = db.execute(text("SELECT login FROM users WHERE id = :id"), asked).scalar_one()

    def try_(self, client: TestClient, password: str = "wrong", login: str = "") -> int:  # noqa: S107
        body = {"login": login or self.login, "password": password}
        return client.post("/api/session", json=body).status_code


class SigningIn(GuessCase):
    def test_five_are_free_then_each_waits_longer_and_no_longer_than_half_a_minute(self) -> None:
        client = self.client()
        self.assertEqual([self.try_(client) for _ in range(6)], [401] * 5 + [429])
        waits: list[int] = []
        for _ in range(8):
            with self.engine.begin() as db:
                db.execute(text("UPDATE guesses SET next_at = now() - interval '1 second'"))
            self.assertEqual(self.try_(client), 401)
            refused = client.post("/api/session", json={"login": self.login, "password": PASSWORD})
            waits.append(int(refused.headers["Retry-After"]))
        self.assertEqual(waits, [2, 4, 8, 16, 30, 30, 30, 30])

    def test_the_limit_holds_under_forty_at_once(self) -> None:
        said: list[int] = []

        def guess() -> None:
            said.append(self.try_(self.client()))

        threads = [threading.Thread(target=guess) for _ in range(40)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual((said.count(401), said.count(429)), (5, 35))

    def test_guessing_elsewhere_keeps_nobody_out(self) -> None:
        strangers = [self.client(f"10.0.0.{number}") for number in range(4)]
        for client in strangers:
            for _ in range(6):
                self.try_(client)
        self.assertEqual(self.try_(self.client("10.0.1.1"), PASSWORD), 200)

    def test_guessing_beside_them_keeps_nobody_out_of_their_own_device(self) -> None:
        stranger = self.client()
        for _ in range(9):
            self.try_(stranger)
        self.assertEqual(self.try_(stranger, PASSWORD), 429)
        self.assertEqual(self.try_(self.me.client, PASSWORD), 200)

    def test_another_persons_device_is_no_way_round_it(self) -> None:
        other = self.person().client
        self.assertEqual([self.try_(other) for _ in range(6)], [401] * 5 + [429])

    def test_a_right_password_starts_afresh_and_a_quarter_of_an_hour_forgets(self) -> None:
        client = self.client()
        for _ in range(4):
            self.try_(client)
        self.assertEqual(self.try_(client, PASSWORD), 200)
        again = self.client()
        self.assertEqual([self.try_(again) for _ in range(6)], [401] * 5 + [429])
        with self.engine.begin() as db:
            db.execute(text("UPDATE guesses SET last_at = last_at - interval '16 minutes'"))
        self.assertEqual([self.try_(again) for _ in range(6)], [401] * 5 + [429])

    def test_an_unknown_name_is_answered_and_slowed_like_a_known_one(self) -> None:
        known, unknown = self.client(), self.client()
        wrong = known.post("/api/session", json={"login": self.login, "password": "wrong"})
        nobody = unknown.post("/api/session", json={"login": "nobody-at-all", "password": "wrong"})
        self.assertEqual((nobody.status_code, nobody.json()), (wrong.status_code, wrong.json()))
        self.assertEqual([self.try_(unknown, login="nobody-at-all") for _ in range(5)], [401] * 4 + [429])


class AskedAgain(GuessCase):
    """Signing has a count of its own: neither it nor signing in slows the other."""

    def screen_of(self, person: Person) -> str:
        screen = person.begin_screen()
        person.answer(screen, "left", "values.thigh_angle", 8)
        return screen

    def test_guesses_at_signing_slow_no_sign_in_and_no_colleague(self) -> None:
        screen = self.screen_of(self.me)
        self.assertEqual([self.me.sign(screen, "guess").status_code for _ in range(6)], [422] * 5 + [429])
        self.assertEqual(self.try_(self.client(), PASSWORD), 200)
        self.assertEqual(self.person("owner").sign(screen).status_code, 204)

    def test_guesses_at_the_door_slow_no_signing(self) -> None:
        screen = self.screen_of(self.me)
        client = self.client()
        for _ in range(7):
            self.try_(client)
            self.try_(client, login=f"sign {self.me.user_id}")
        self.assertEqual(self.me.sign(screen).status_code, 204)

    def test_amending_and_moving_ask_too(self) -> None:
        owner = self.person("owner")
        screen = self.screen_of(owner)
        owner.sign(screen)
        at = f"/api/screens/{screen}"
        amendment = owner.amendment(screen, late=[], password="guess")
        self.assertEqual(owner.call("POST", f"{at}/amendments", amendment).status_code, 422)
        move = {"athlete_id": owner.add_athlete(), "reason": "mixed up", "password": "guess"}
        refused = owner.call("POST", f"{at}/move", move)
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (422, "password"))
        self.assertEqual(UUID(owner.ok("GET", at)["record"]["id"]), UUID(screen))
