"""Day: what is open, what nobody has in hand, what opens and runs out; by the clinic's own day."""

from __future__ import annotations

import datetime as dt
from typing import Any
from unittest.mock import patch
from uuid import uuid4
from zoneinfo import ZoneInfo

from sqlalchemy import text

from northstride.store.actor import Actor
from northstride.store.people.clinic_day import today_of
from tests.support.api import ApiCase, Person, answer
from tests.support.records import record

TODAY = dt.datetime.now(ZoneInfo("Europe/Helsinki")).date()


def ago(days: int) -> str:
    return (TODAY - dt.timedelta(days=days)).isoformat()


def drawer(side: str, laxity: int) -> dict[str, Any]:
    return {"test": "ankle.anterior_drawer", "side": side, "values": {"laxity": laxity, "end_feel": "soft"}}


class DayCase(ApiCase):
    me: Person

    def setUp(self) -> None:
        self.me = self.person(clinic_id=self.new_clinic())

    def file(self, days_ago: int, entries: list[dict[str, Any]], **parts: Any) -> str:
        key = str(uuid4())
        whole = {"id": key, "date": ago(days_ago), "athlete": {"ref": "NS-014"}, **parts}
        self.me.import_file(record(entries, **whole))
        self.refresh()
        return key

    def ankle(self, days_ago: int, onset: int, **parts: Any) -> str:
        """Looked at so early after it rolled that a second look is asked for."""
        complaint = {"region": "ankle", "side": "right", "sites": ["anterolateral"]}
        intake = {
            "complaint": complaint,
            "onset": {"date": ago(onset), "kind": "sudden", "mechanism": "inversion"},
        }
        overrides = [{"gate": "fracture_doubt", "side": "right", "reason": "X-ray clear", "by": "K. Aalto"}]
        entries = [drawer("left", 0), drawer("right", 2)]
        return self.file(
            days_ago, entries, purpose="ankle_injury", intake=intake, overrides=overrides, **parts
        )

    def chest(self, days_ago: int = 0) -> str:
        return self.file(days_ago, [], intake={"red_flags": ["breathless_or_chest_pain"]})

    def day(self) -> dict[str, Any]:
        return dict(self.me.ok("GET", "/api/day"))

    def codes(self) -> list[str]:
        return [item["standing"]["action"] for item in self.day()["actions"]]

    def step(self, screen: str, action: str, side: str | None, **fields: Any) -> str:
        key = str(uuid4())
        body = {"id": key, "action": action, "side": side, **fields}
        self.me.ok("POST", f"/api/screens/{screen}/arrangements", body)
        return key


ATFL = "recheck.instability_atfl"


class Actions(DayCase):
    def test_an_empty_day_says_so_in_full(self) -> None:
        found = self.day()
        self.assertEqual(found["day"], TODAY.isoformat())
        self.assertEqual([found[name] for name in ("open", "actions", "older", "being_read")], [[], [], 0, 0])
        self.assertEqual(found["unseen"], {"total": 0, "athletes": []})

    def test_what_cannot_wait_comes_first_and_stays_until_somebody_has_it_in_hand(self) -> None:
        self.ankle(3, 5)
        urgent = self.chest(1)
        self.assertEqual(self.codes(), ["emergency.danger_chest", ATFL])
        self.assertEqual(self.me.ok("GET", "/api/day/urgent"), {"count": 1})
        self.step(urgent, "emergency.danger_chest", None, does="left", note="nobody answered")
        self.assertEqual(self.me.ok("GET", "/api/day/urgent"), {"count": 1})
        key = self.step(urgent, "emergency.danger_chest", None, on=ago(0), whom="ambulance")
        self.assertEqual(self.me.ok("GET", "/api/day/urgent"), {"count": 0})
        arranged = self.day()["actions"][0]["standing"]["arranged"]
        self.assertEqual((arranged["whom"], arranged["on"]), ("ambulance", ago(0)))
        self.me.ok("POST", f"/api/screens/{urgent}/arrangements/{key}/undo", {"id": str(uuid4())})
        self.assertEqual(self.me.ok("GET", "/api/day/urgent"), {"count": 1})
        self.step(urgent, "emergency.danger_chest", None, does="closed", note="seen, sent home")
        self.assertEqual(self.codes(), [ATFL])

    def test_a_second_look_names_its_days_and_its_reason(self) -> None:
        self.ankle(3, 5)
        (due,) = self.day()["actions"]
        self.assertEqual((due["found"], due["start"], due["end"]), (ago(3), ago(1), ago(-2)))
        self.assertIn("swelling", due["says"])

    def test_a_second_look_has_been_had_once_its_test_was_done_again_in_its_days(self) -> None:
        self.ankle(9, 10)
        self.assertEqual(self.codes(), [ATFL])
        # Too early: the window opened six days ago.
        self.file(8, [drawer("right", 1)])
        self.assertIn(ATFL, self.codes())
        # Another test, and the same on the other side, say nothing about it.
        self.file(
            5, [{"test": "ankle.lunge", "side": "right", "values": {"distance": 100}}, drawer("left", 0)]
        )
        self.assertIn(ATFL, self.codes())
        self.file(4, [drawer("right", 1)])
        self.assertNotIn(ATFL, self.codes())

    def test_a_declined_test_is_no_second_look(self) -> None:
        self.ankle(9, 10)
        self.file(4, [{"test": "ankle.anterior_drawer", "side": "right", "declined": "too sore"}])
        self.assertIn(ATFL, self.codes())

    def again(self) -> tuple[str, str]:
        """A second look that was had just now, in a screen that is still open."""
        athlete = self.me.ok("GET", f"/api/screens/{self.ankle(9, 10)}")["athlete"]["id"]
        screen = self.me.begin_screen(athlete, date=ago(2))
        self.me.answer(screen, "right", "values.laxity", 1, test="ankle.anterior_drawer")
        self.assertNotIn(ATFL, self.codes())
        return screen, athlete

    def test_a_value_that_was_cleared_is_no_second_look(self) -> None:
        """Typed on the wrong test and taken back: the days it asks for stay on Day and in the calendar."""
        screen, athlete = self.again()
        self.me.answer(screen, "right", "values.laxity", None, test="ankle.anterior_drawer")
        self.assertIn(ATFL, self.codes())
        course = self.me.ok("GET", f"/api/athletes/{athlete}/course")
        self.assertEqual([item["standing"]["action"] for item in course["actions"]], [ATFL])
        feed = self.me.ok("POST", "/api/calendar", {"id": str(uuid4())})["path"]
        self.assertIn("BEGIN:VEVENT", self.client().get(feed).text)

    def test_a_value_that_was_moved_across_is_no_second_look(self) -> None:
        screen, _ = self.again()
        across = [
            answer("right", "values.laxity", None, test="ankle.anterior_drawer"),
            answer("left", "values.laxity", 1, test="ankle.anterior_drawer"),
        ]
        self.me.ok("POST", f"/api/screens/{screen}/answers", {"answers": across})
        self.assertIn(ATFL, self.codes())

    def test_what_was_declined_in_its_place_is_no_second_look(self) -> None:
        screen, _ = self.again()
        declined = [
            answer("right", "values.laxity", None, test="ankle.anterior_drawer"),
            answer("right", "declined", "too sore", test="ankle.anterior_drawer"),
        ]
        self.me.ok("POST", f"/api/screens/{screen}/answers", {"answers": declined})
        self.assertIn(ATFL, self.codes())

    def test_what_an_amendment_took_back_is_no_second_look(self) -> None:
        screen, _ = self.again()
        self.me.answer(screen, "right", "values.end_feel", "soft", test="ankle.anterior_drawer")
        self.assertEqual(self.me.sign(screen).status_code, 204)
        self.assertNotIn(ATFL, self.codes())
        both = [
            answer("right", f"values.{name}", None, test="ankle.anterior_drawer")
            for name in ("laxity", "end_feel")
        ]
        amendment = self.me.amendment(screen, answers=both)
        self.me.ok("POST", f"/api/screens/{screen}/amendments", amendment)
        self.assertIn(ATFL, self.codes())

    def test_what_was_seen_too_early_and_came_late_is_no_second_look(self) -> None:
        screen, _ = self.again()
        self.me.answer(screen, "right", "values.laxity", None, test="ankle.anterior_drawer")
        other = self.person("assistant", self.me.clinic_id)
        early = (dt.datetime.now(dt.UTC) - dt.timedelta(hours=3)).isoformat()
        other.answer(screen, "right", "values.laxity", 2, test="ankle.anterior_drawer", at=early)
        self.assertIn(ATFL, self.codes())

    def test_days_of_ones_own_bring_an_exercise_back(self) -> None:
        thigh = [{"test": "hip.modified_thomas", "side": "left", "values": {"thigh_angle": 12}}]
        screen = self.file(40, thigh)
        self.assertEqual(self.codes(), [])
        action = "train.tightness_hip_flexors"
        self.step(screen, action, "left", does="again", on=ago(2), until=ago(-5))
        self.assertEqual(self.codes(), [action])
        again = self.day()["actions"][0]["standing"]["again"]
        self.assertEqual((again["on"], again["until"]), (ago(2), ago(-5)))
        self.file(1, thigh)
        self.assertEqual(self.codes(), [])

    def test_what_lies_far_back_is_counted_and_not_dropped(self) -> None:
        self.ankle(300, 301)
        found = self.day()
        self.assertEqual((found["actions"], found["older"]), ([], 1))

    def test_an_archived_athlete_takes_no_danger_along(self) -> None:
        self.ankle(3, 5)
        screen = self.chest()
        athlete = self.me.ok("GET", f"/api/screens/{screen}")["athlete"]["id"]
        self.me.edit(athlete, archived=True)
        self.assertEqual(self.codes(), ["emergency.danger_chest"])

    def test_the_day_is_the_clinics_whatever_the_servers_clock_says(self) -> None:
        late = dt.datetime(2026, 12, 31, 22, 30, tzinfo=dt.UTC)
        helsinki = Actor(uuid4(), uuid4(), "A. Practitioner", "practitioner", None, "Europe/Helsinki")
        with patch("northstride.store.people.clinic_day.dt.datetime") as clock:
            clock.now.side_effect = late.astimezone
            self.assertEqual(today_of(helsinki), dt.date(2027, 1, 1))


class Open(DayCase):
    def test_open_screens_with_what_is_done_and_who_was_last(self) -> None:
        screen = self.me.begin_screen(purpose="squad_screen", date=ago(0))
        self.me.answer(screen, "left", "values.thigh_angle", 3)
        found = self.day()
        self.assertEqual((found["being_read"], found["open"][0]["planned"]), (1, None))
        self.refresh()
        found = self.day()
        (line,) = found["open"]
        self.assertEqual((found["being_read"], found["open_total"]), (0, 1))
        self.assertEqual((line["planned"], line["done"], line["open"]), (4, 1, 3))
        reading = self.me.ok("GET", f"/api/screens/{screen}/reading")["reading"]
        self.assertEqual(line["unexamined"], len(reading["coverage"]["unexamined"]))
        self.assertGreater(line["unexamined"], 0)
        self.assertEqual(line["last_by"], "A. Practitioner")

    def test_who_was_not_looked_at_for_a_season_is_named(self) -> None:
        seen, old, never = (self.me.add_athlete(name=name) for name in ("Seen", "Old", "Never"))
        self.me.begin_screen(seen, date=ago(30))
        self.me.begin_screen(old, date=ago(400))
        unseen = self.day()["unseen"]
        self.assertEqual((unseen["total"], [each["id"] for each in unseen["athletes"]]), (2, [never, old]))

    def test_another_clinic_sees_none_of_it(self) -> None:
        self.chest()
        self.me.begin_screen()
        stranger = self.person(clinic_id=self.new_clinic())
        found = stranger.ok("GET", "/api/day")
        self.assertEqual((found["open"], found["actions"], found["unseen"]["total"]), ([], [], 0))
        self.assertEqual(stranger.ok("GET", "/api/day/urgent"), {"count": 0})

    def test_looking_is_in_the_audit_and_counting_is_not(self) -> None:
        self.day()
        self.me.ok("GET", "/api/day/urgent")
        with self.engine.connect() as db:
            rows = db.execute(
                text("SELECT noun FROM audit WHERE clinic_id = :clinic AND noun = 'day'"),
                {"clinic": self.me.clinic_id},
            ).all()
        self.assertEqual(len(rows), 1)
