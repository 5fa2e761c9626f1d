"""Change against the athlete's earlier screens, over HTTP: read, kept up to date, frozen, audited."""

from __future__ import annotations

from typing import Any

from sqlalchemy import text

from tests.support.api import ApiCase, Person, answer

FIELD = "values.thigh_angle"


class Change(ApiCase):
    def setUp(self) -> None:
        self.me = self.person()
        self.athlete = self.me.add_athlete()
        self.before = self.me.begin_screen(self.athlete, date="2026-03-02")
        self.now = self.me.begin_screen(self.athlete, date="2026-09-14")
        for screen, left, right in ((self.before, 12, -4), (self.now, 2, -3)):
            self.me.answer(screen, "left", FIELD, left)
            self.me.answer(screen, "right", FIELD, right)

    def changes(self, screen: str, person: Person | None = None) -> list[dict[str, Any]]:
        return list((person or self.me).ok("GET", f"/api/screens/{screen}/reading")["reading"]["changes"])

    def sign(self, screen: str) -> None:
        self.assertEqual(self.me.sign(screen).status_code, 204)

    def test_beyond_error_or_not_by_side(self) -> None:
        found = {item["side"]: item for item in self.changes(self.now)}
        self.assertEqual((found["left"]["verdict"], found["left"]["worse"]), ("changed", False))
        self.assertEqual((found["left"]["before"], found["left"]["now"]), (12, 2))
        self.assertEqual(found["left"]["baseline"]["record"], self.before)
        self.assertEqual(found["right"]["verdict"], "within_error")
        self.assertEqual(self.changes(self.before), [])

    def test_an_earlier_screen_that_is_written_to_is_read_again(self) -> None:
        self.changes(self.now)
        self.me.answer(self.before, "left", FIELD, 3)
        self.assertEqual({item["verdict"] for item in self.changes(self.now)}, {"within_error"})

    def test_a_screen_of_the_same_day_is_earlier_only_if_it_was_begun_before(self) -> None:
        again = self.me.begin_screen(self.athlete, date="2026-09-14")
        self.me.answer(again, "left", FIELD, 12)
        self.assertEqual([item["baseline"]["record"] for item in self.changes(again)], [self.now])
        self.assertEqual({item["baseline"]["record"] for item in self.changes(self.now)}, {self.before})

    def test_signing_freezes_what_it_was_held_against(self) -> None:
        self.sign(self.now)
        signed = self.changes(self.now)
        self.me.answer(self.before, "left", FIELD, 3)
        self.assertEqual(self.changes(self.now), signed)
        amendment = self.me.amendment(self.now, answers=[answer("left", FIELD, 1)])
        self.me.ok("POST", f"/api/screens/{self.now}/amendments", amendment)
        amended = {item["side"]: item for item in self.changes(self.now)}
        self.assertEqual((amended["left"]["before"], amended["left"]["now"]), (12, 1))

    def test_a_signed_earlier_screen_counts_as_it_was_signed_and_amended(self) -> None:
        self.sign(self.before)
        self.assertEqual({item["before"] for item in self.changes(self.now)}, {12, -4})
        amendment = self.me.amendment(self.before, answers=[answer("left", FIELD, 8)])
        self.me.ok("POST", f"/api/screens/{self.before}/amendments", amendment)
        self.assertEqual({item["before"] for item in self.changes(self.now)}, {8, -4})

    def test_another_athlete_and_another_clinic_are_no_baseline(self) -> None:
        other = self.me.begin_screen(date="2026-09-14")
        self.me.answer(other, "left", FIELD, 2)
        self.assertEqual(self.changes(other), [])
        stranger = self.person()
        away = stranger.begin_screen(date="2026-09-14")
        stranger.answer(away, "left", FIELD, 2)
        self.assertEqual(self.changes(away, stranger), [])

    def test_open_screens_are_read_again_after_the_rules_grew(self) -> None:
        self.changes(self.now)
        with self.engine.begin() as db:
            db.execute(text("UPDATE readings SET shipped = 'older'"))
            db.execute(text("UPDATE reading_flags SET code = 'of.older_rules'"))

        def newest() -> dict[str, Any]:
            found = next(line for line in self.me.listed(search="Ilse") if line["id"] == self.athlete)
            return dict(found["last_screen"])

        self.assertEqual(newest()["reading"], "waiting")
        self.assertEqual({flag["code"] for flag in newest()["flags"]}, {"of.older_rules"})
        self.refresh()
        self.assertEqual(newest()["reading"], "current")
        self.assertNotIn("of.older_rules", {flag["code"] for flag in newest()["flags"]})

    def test_the_audit_names_the_screens_it_was_held_against(self) -> None:
        self.changes(self.now)
        with self.engine.connect() as db:
            query = text("SELECT detail FROM audit WHERE noun_id = :id AND verb = 'read' ORDER BY id DESC")
            detail = db.execute(query, {"id": self.now}).scalar()
        self.assertEqual(detail, {"against": [self.before]})
