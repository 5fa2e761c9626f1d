"""What lists show of a screen follows the newest answer, whoever read last."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from sqlalchemy import Row, text

from northstride.store.actor import Actor
from northstride.store.readings.kept import keep_reading
from northstride.store.screens.screens import get_screen
from tests.support.api import ApiCase, Person

NOTHING: dict[str, Any] = {"flags": [], "actions": []}


class AReadingThatComesLate(ApiCase):
    me: Person

    def setUp(self) -> None:
        self.clinic = self.new_clinic()
        self.me = self.person(clinic_id=self.clinic)
        self.screen = self.me.begin_screen()
        self.me.answer(self.screen, "left", "values.thigh_angle", 8)

    def as_it_is(self) -> Row[Any]:
        with self.engine.connect() as db:
            actor = Actor(self.clinic, self.me.user_id, "K. Aalto", "owner", None, "Europe/Helsinki")
            return get_screen(db, actor, UUID(self.screen))

    def keep(self, as_read: Row[Any]) -> None:
        with self.engine.begin() as db:
            keep_reading(db, self.clinic, as_read, {"rules": "late"}, NOTHING)

    def kept(self) -> list[str]:
        query = text("SELECT shipped FROM readings WHERE screen_id = :id")
        with self.engine.connect() as db:
            return list(db.execute(query, {"id": self.screen}).scalars())

    def test_is_kept_while_nothing_was_written_since(self) -> None:
        self.keep(self.as_it_is())
        self.assertEqual(self.kept(), ["late"])

    def test_is_left_once_somebody_wrote(self) -> None:
        before = self.as_it_is()
        self.me.answer(self.screen, "left", "values.thigh_angle", 12)
        self.keep(before)
        self.assertNotIn("late", self.kept())

    def test_is_left_once_the_screen_was_signed(self) -> None:
        before = self.as_it_is()
        self.assertEqual(self.me.sign(self.screen).status_code, 204)
        self.keep(before)
        self.assertNotIn("late", self.kept())
