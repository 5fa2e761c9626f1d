"""Days to come: a secret address of one's own, the same event for the same action, no names unasked."""

from __future__ import annotations

import datetime as dt
from typing import Any
from uuid import uuid4

import vobject
from sqlalchemy import text

from tests.support.api import ApiCase

ACTION = "train.tightness_hip_flexors"


class Calendar(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        self.today = dt.datetime.now(dt.UTC).date()
        athlete = self.me.add_athlete(name="Ilse Varga", ref="T-5")
        self.screen = self.me.begin_screen(athlete, date=str(self.today - dt.timedelta(days=9)))
        self.me.answer(self.screen, "left", "values.thigh_angle", 8)
        self.me.answer(self.screen, "right", "values.thigh_angle", -6)
        self.refresh()

    def arrange(self, does: str, days: int, **more: Any) -> str:
        key = str(uuid4())
        on = str(self.today + dt.timedelta(days=days))
        body = {"id": key, "action": ACTION, "side": "left", "does": does, "on": on, **more}
        self.me.ok("POST", f"/api/screens/{self.screen}/arrangements", body)
        return key

    def feed(self, path: str) -> Any:
        stranger = self.me.client.__class__(self.app)
        response = stranger.get(path)
        self.assertEqual(response.status_code, 200, response.text)
        self.assertEqual(response.headers["content-type"], "text/calendar; charset=utf-8")
        return vobject.readOne(response.text)

    def events(self, path: str) -> list[Any]:
        return list(self.feed(path).contents.get("vevent", []))

    def make(self, *, named: bool = False) -> str:
        made = self.me.ok("POST", "/api/calendar", {"id": str(uuid4()), "named": named})
        return str(made["path"])

    def test_the_address_ends_with_its_account_for_good(self) -> None:
        other = self.person("practitioner", self.me.clinic_id)
        path = str(other.ok("POST", "/api/calendar", {"id": str(uuid4())})["path"])
        self.assertEqual(self.client().get(path).status_code, 200)
        for archived in (True, False):
            self.me.ok("PATCH", f"/api/users/{other.user_id}", {"archived": archived})
            self.assertEqual(self.client().get(path).status_code, 404, f"archived {archived}")

    def test_a_window_is_a_stretch_of_whole_days_and_moves_as_the_same_event(self) -> None:
        path = self.make()
        self.assertEqual(self.events(path), [])
        self.arrange("again", 7, until=str(self.today + dt.timedelta(days=14)))
        (first,) = self.events(path)
        self.assertEqual(first.dtstart.value, self.today + dt.timedelta(days=7))
        self.assertEqual(first.dtend.value, self.today + dt.timedelta(days=15))
        self.arrange("again", 20, until=str(self.today + dt.timedelta(days=21)))
        (moved,) = self.events(path)
        self.assertEqual(moved.uid.value, first.uid.value)
        self.assertGreater(int(moved.sequence.value), int(first.sequence.value))
        self.assertEqual(moved.dtstart.value, self.today + dt.timedelta(days=20))

    def test_a_booked_time_is_by_the_clinics_clock_and_done_is_gone(self) -> None:
        path = self.make()
        self.arrange("again", 2, until=str(self.today + dt.timedelta(days=5)))
        self.arrange("arranged", 3, at_time="09:30", whom="Dr Farkas")
        (event,) = self.events(path)
        begins = event.dtstart.value.astimezone(dt.UTC)
        self.assertIn(begins.hour, (6, 7))
        self.assertEqual(begins.minute, 30)
        body = {"id": str(uuid4()), "action": ACTION, "side": "left", "does": "closed", "note": "seen"}
        self.me.ok("POST", f"/api/screens/{self.screen}/arrangements", body)
        self.assertEqual(self.events(path), [])

    def test_names_and_findings_only_where_the_user_chose_them(self) -> None:
        self.arrange("again", 7, until=str(self.today + dt.timedelta(days=14)))
        plain = self.feed(self.make()).serialize()
        self.assertIn("T-5", plain)
        for said in ("Ilse", "left", "flexor"):
            self.assertNotIn(said, plain)
        named = self.feed(self.make(named=True)).serialize()
        self.assertIn("Ilse Varga", named)
        self.assertIn("left", named)

    def test_an_address_can_be_taken_back_and_is_kept_nowhere(self) -> None:
        first = self.make()
        second = self.make()
        stranger = self.me.client.__class__(self.app)
        self.assertEqual(stranger.get(first).status_code, 404)
        self.events(second)
        state = self.me.ok("GET", "/api/calendar")
        self.assertTrue(state["on"])
        self.assertIsNotNone(state["read_at"])
        secret = second.rpartition("/")[2].removesuffix(".ics")
        with self.engine.begin() as db:
            kept = db.execute(text("SELECT secret_hash FROM calendar_feeds")).scalars().all()
            self.assertNotIn(secret, kept)
            went = db.execute(text("SELECT detail FROM audit WHERE noun = 'calendar' AND verb = 'hand over'"))
            self.assertIn({"form": "calendar feed", "dates": 0, "named": False}, list(went.scalars()))
        self.me.ok("DELETE", "/api/calendar")
        self.assertEqual(stranger.get(second).status_code, 404)
        self.assertFalse(self.me.ok("GET", "/api/calendar")["on"])

    def test_somebody_who_left_has_no_address(self) -> None:
        other = self.person("practitioner", self.me.clinic_id)
        path = str(other.ok("POST", "/api/calendar", {"id": str(uuid4())})["path"])
        self.events(path)
        self.me.ok("PATCH", f"/api/users/{other.user_id}", {"archived": True})
        stranger = self.me.client.__class__(self.app)
        self.assertEqual(stranger.get(path).status_code, 404)

    def test_only_the_clinics_own(self) -> None:
        self.arrange("again", 7, until=str(self.today + dt.timedelta(days=14)))
        other = self.person("owner", self.new_clinic())
        path = str(other.ok("POST", "/api/calendar", {"id": str(uuid4()), "named": True})["path"])
        self.assertEqual(self.events(path), [])

    def test_the_file_of_one_date(self) -> None:
        where = f"/api/screens/{self.screen}/date"
        of = {"action": ACTION, "side": "left"}
        self.assertEqual(self.me.call("GET", where, params=of).status_code, 404)
        self.arrange("again", 7, until=str(self.today + dt.timedelta(days=14)))
        response = self.me.call("GET", where, params={**of, "named": True})
        (event,) = vobject.readOne(response.text).contents["vevent"]
        self.assertIn("Ilse Varga", event.summary.value)
        (own,) = self.events(self.make())
        self.assertEqual(event.uid.value, own.uid.value)
