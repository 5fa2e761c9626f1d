"""What the database itself refuses, tried with SQL past all of our code."""

from __future__ import annotations

import datetime as dt
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import text
from sqlalchemy.exc import DBAPIError, IntegrityError

from northstride.core.catalogue import default_catalogue
from northstride.store.access.users import add_user, create_clinic
from northstride.store.actor import Actor
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.papers.signing import sign
from northstride.store.people.athletes import add_athlete
from northstride.store.readings.readings import basis_of
from northstride.store.screens.screens import begin_screen, get_screen
from northstride.store.screens.writing import write_answers
from tests.support.database import DatabaseCase

CATALOGUE = default_catalogue()
TEST = "hip.modified_thomas"


class StoreCase(DatabaseCase):
    """A clinic, a practitioner and an open screen."""

    actor: Actor
    screen: UUID
    athlete: UUID

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.actor = cls.new_actor()
        cls.athlete, cls.screen = uuid4(), uuid4()
        with cls.engine.begin() as db:
            add_athlete(db, cls.actor, cls.athlete, {"ref": "T-1", "name": "Ilse Varga"})
            cls.begin(db, cls.actor, cls.screen, cls.athlete)

    @classmethod
    def new_actor(cls) -> Actor:
        with cls.engine.begin() as db:
            clinic = create_clinic(db, "Tarnholt", "Europe/Helsinki")
            actor = Actor(clinic, uuid4(), "K. Aalto", "practitioner", None, "Europe/Helsinki")
            add_user(db, actor, actor.user_id, f"k-{actor.user_id}", "K. Aalto", "owner", "no hash")
        return actor

    @classmethod
    def begin(cls, db: Any, actor: Actor, screen: UUID, athlete: UUID) -> None:
        begin_screen(db, actor, CATALOGUE, screen, athlete, dt.date(2026, 9, 14), "follow_up", {})

    def write(self, side: str, field: str, value: Any, screen: UUID | None = None) -> UUID:
        key = uuid4()
        with self.engine.begin() as db:
            answer = NewAnswer(key, TEST, side, field, value)
            write_answers(db, self.actor, CATALOGUE, screen or self.screen, [answer], "test")
        return key

    def refused(self, sql: str, **values: Any) -> str:
        with self.assertRaises(DBAPIError) as raised, self.engine.begin() as db:
            db.execute(text(sql), values)
        return str(raised.exception.orig)


class AppendOnly(StoreCase):
    def test_answers_and_audit_take_no_change(self) -> None:
        self.write("left", "values.thigh_angle", 8)
        for table in ("answers", "audit"):
            for sql in (
                f"UPDATE {table} SET user_id = user_id",
                f"DELETE FROM {table}",
                f"TRUNCATE {table} CASCADE",
            ):
                with self.subTest(sql=sql):
                    self.assertIn("append-only", self.refused(sql))

    def test_a_signed_screen_takes_no_change_and_no_answer(self) -> None:
        screen = uuid4()
        with self.engine.begin() as db:
            self.begin(db, self.actor, screen, self.athlete)
        self.write("left", "values.thigh_angle", 8, screen)
        with self.engine.begin() as db:
            shown = basis_of(db, self.actor, CATALOGUE, get_screen(db, self.actor, screen)).identity
            sign(db, self.actor, CATALOGUE, screen, shown)
        for sql in (
            "UPDATE screens SET purpose = 'teaching' WHERE id = :id",
            "UPDATE screens SET signed_at = NULL, signed_by = NULL WHERE id = :id",
            "DELETE FROM screens WHERE id = :id",
            "INSERT INTO answers SELECT clinic_id, gen_random_uuid(), screen_id, 99, test, entry_id,"
            " entry_side, key, side, field, value, NULL, user_id, by_name, observed_at, observed_zone,"
            " recorded_at, device"
            " FROM answers WHERE screen_id = :id",
        ):
            with self.subTest(sql=sql):
                self.assertIn("signed", self.refused(sql, id=screen))
        for table in ("signatures", "late_answers", "arrangements"):
            self.assertIn("append-only", self.refused(f"TRUNCATE {table}"))
        for sql in ("UPDATE signatures SET by_name = 'x'", "DELETE FROM signatures"):
            self.assertIn("append-only", self.refused(sql))

    def test_screens_cannot_be_emptied(self) -> None:
        self.assertIn("append-only", self.refused("TRUNCATE screens CASCADE"))

    def test_an_open_screen_can_still_change(self) -> None:
        with self.engine.begin() as db:
            db.execute(text("UPDATE screens SET purpose = purpose WHERE id = :id"), {"id": self.screen})


class Isolation(StoreCase):
    def test_no_row_can_point_into_another_clinic(self) -> None:
        stranger = self.new_actor()
        with self.assertRaises(IntegrityError), self.engine.begin() as db:
            db.execute(
                text(
                    "INSERT INTO screens (clinic_id, id, athlete_id, date, purpose, schools, planned,"
                    " overrides, created_by) VALUES (:clinic, gen_random_uuid(), :athlete, now(),"
                    " 'squad_screen', '{}', '[]', '[]', :user)"
                ),
                {"clinic": stranger.clinic_id, "athlete": self.athlete, "user": stranger.user_id},
            )

    def test_clinic_leads_every_key_but_what_nobody_owns_yet(self) -> None:
        with self.engine.connect() as db:
            keys = db.execute(
                text(
                    "SELECT c.conrelid::regclass::text AS name, a.attname AS first FROM pg_constraint c"
                    " JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = c.conkey[1]"
                    " WHERE c.contype IN ('p', 'f') AND c.connamespace = 'public'::regnamespace"
                )
            ).all()
        own = {"clinics", "guesses", "alembic_version"}
        self.assertEqual({row.first for row in keys if row.name not in own}, {"clinic_id"})
        self.assertGreater(len(keys), 30)

    def test_sides_and_strengths_are_guarded(self) -> None:
        said = self.refused(
            "INSERT INTO reading_flags VALUES (:clinic, :screen, 0, 'x', 'middle', 'likely', NULL)",
            clinic=self.actor.clinic_id,
            screen=self.screen,
        )
        self.assertIn("ck_reading_flags_side", said)


class Measurements(StoreCase):
    def rows(self, screen: UUID) -> list[tuple[Any, ...]]:
        with self.engine.connect() as db:
            found = db.execute(
                text(
                    "SELECT measure, side, mean, median, trials, current, validity FROM measurements"
                    " WHERE screen_id = :id ORDER BY measure, side, mean"
                ),
                {"id": screen},
            )
            return [tuple(row) for row in found]

    def fresh(self) -> UUID:
        screen = uuid4()
        with self.engine.begin() as db:
            self.begin(db, self.actor, screen, self.athlete)
        return screen

    def test_one_row_a_number_and_the_replaced_one_is_no_longer_current(self) -> None:
        screen = self.fresh()
        self.write("left", "values.thigh_angle", [8, 9, 8], screen)
        self.write(
            "left",
            "values.thigh_angle",
            {"reading": 172, "dial": "one_eighty_neutral", "direction": -1},
            screen,
        )
        self.write("left", "values.thigh", "fail", screen)
        self.write("left", "values.knee_angle", "looks_full", screen)
        rows = self.rows(screen)
        self.assertEqual(rows[0], ("thigh_angle", "left", -8.0, -8.0, 1, True, "valid"))
        self.assertAlmostEqual(rows[1][2], 25 / 3)
        self.assertEqual(rows[1][3:], (8.0, 3, False, "valid"))
        self.assertEqual(len(rows), 2)

    def test_clearing_leaves_none_current(self) -> None:
        screen = self.fresh()
        self.write("left", "values.thigh_angle", 8, screen)
        self.write("left", "values.thigh_angle", None, screen)
        self.assertEqual([row[5] for row in self.rows(screen)], [False])

    def test_what_was_seen_reweighs_before_and_after(self) -> None:
        screen = self.fresh()
        self.write("left", "values.thigh_angle", 8, screen)
        self.write("left", "seen", ["lumbar_arch", "pelvis_shift"], screen)
        self.write("left", "values.adduction_available", 12, screen)
        worth = {row[0]: row[6] for row in self.rows(screen)}
        self.assertEqual(worth, {"thigh_angle": "flattered", "adduction_available": "void"})
        self.write("left", "seen", None, screen)
        self.assertEqual({row[6] for row in self.rows(screen)}, {"valid"})

    def test_a_repeated_answer_changes_nothing(self) -> None:
        screen = self.fresh()
        answer = NewAnswer(uuid4(), TEST, "left", "values.thigh_angle", 8)
        for _ in range(2):
            with self.engine.begin() as db:
                write_answers(db, self.actor, CATALOGUE, screen, [answer, answer], "test")
        with self.engine.connect() as db:
            self.assertEqual(get_screen(db, self.actor, screen).revision, 1)
        self.assertEqual(len(self.rows(screen)), 1)
