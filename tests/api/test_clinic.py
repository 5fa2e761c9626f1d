"""What a clinic settles: schools with what they would alter, zone, lock; and the audit of a record."""

from __future__ import annotations

from typing import Any

from northstride.core.terms.schools import schools
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS
from tests.support.api import ApiCase, Person, answer


class ClinicCase(ApiCase):
    owner: Person

    def setUp(self) -> None:
        self.owner = self.person("owner", clinic_id=self.new_clinic())

    def clinic(self) -> dict[str, Any]:
        return dict(self.owner.ok("GET", "/api/clinic"))

    def slipped(self, third: float, **fields: Any) -> str:
        """Three trials of a hanging thigh; the mean follows the third, the median does not."""
        screen = self.owner.begin_screen(**fields)
        self.owner.answer(screen, "left", "values.thigh_angle", [-10, -10, third])
        return screen

    def flags(self, screen: str) -> set[str]:
        reading = self.owner.ok("GET", f"/api/screens/{screen}/reading")["reading"]
        return {f"{flag['code']} {flag['strength']}" for flag in reading["flags"]}


class Settling(ClinicCase):
    def test_every_school_says_why_its_default_is_one(self) -> None:
        found = self.clinic()
        self.assertEqual(found["schools"], {**DEFAULT_SCHOOLS})
        self.assertEqual([item["code"] for item in found["asked"]], [school.code for school in schools()])
        for item in found["asked"]:
            self.assertIn(item["default"], [option["value"] for option in item["options"]])
            self.assertTrue(item["why"])

    def test_a_new_screen_is_read_by_the_clinics_schools_and_keeps_them(self) -> None:
        before = self.slipped(44)
        self.owner.ok("PATCH", "/api/clinic", {"schools": {"trial_value": "median"}})
        after = self.slipped(44)
        self.assertNotEqual(self.flags(before), self.flags(after))
        record = self.owner.ok("GET", f"/api/screens/{after}")["record"]
        self.assertEqual(record["schools"], {"trial_value": "median"})
        own = self.slipped(44, schools={"trial_value": "mean"})
        self.assertEqual(self.flags(own), self.flags(before))

    def test_one_school_changes_and_the_others_stay(self) -> None:
        self.owner.ok("PATCH", "/api/clinic", {"schools": {"knee_pass": 80}})
        self.owner.ok("PATCH", "/api/clinic", {"schools": {"trial_value": "median"}})
        found = self.clinic()["schools"]
        self.assertEqual((found["knee_pass"], found["trial_value"]), (80, "median"))

    def test_what_a_change_would_alter_is_told_before_and_nothing_is_written(self) -> None:
        screen, same = self.slipped(44), self.slipped(-10)
        before = self.flags(screen)
        found = self.owner.ok("POST", "/api/clinic/preview", {"schools": {"trial_value": "median"}})
        self.assertEqual(found["looked_at"], 2)
        (altered,) = found["altered"]
        self.assertEqual(altered["screen"], screen)
        self.assertNotEqual(altered["screen"], same)
        self.assertTrue(altered["differences"])
        self.assertEqual((self.flags(screen), self.clinic()["schools"]["trial_value"]), (before, "mean"))

    def test_open_screens_are_read_by_it_only_where_that_is_asked_and_signed_ones_never(self) -> None:
        signed, open_ = self.slipped(44), self.slipped(44)
        self.owner.sign(signed)
        before = self.flags(signed)
        self.owner.ok("PATCH", "/api/clinic", {"schools": {"trial_value": "median"}})
        self.assertEqual(self.flags(open_), before)
        self.owner.ok("PATCH", "/api/clinic", {"schools": {"trial_value": "median"}, "to_open": True})
        self.assertNotEqual(self.flags(open_), before)
        self.assertEqual(self.flags(signed), before)
        # Answers go on after it, and it is in the audit of the screen.
        self.owner.answer(open_, "left", "values.knee_angle", 85)
        verbs = [row["verb"] for row in self.trail("screen", open_)]
        self.assertIn("change schools", verbs)

    def test_zone_and_lock_are_checked(self) -> None:
        self.owner.ok("PATCH", "/api/clinic", {"time_zone": "Europe/Oslo", "idle_minutes": 5})
        found = self.clinic()
        self.assertEqual((found["time_zone"], found["idle_minutes"]), ("Europe/Oslo", 5))
        for wrong in ({"time_zone": "Tarnholt"}, {"idle_minutes": 0}, {"schools": {"knee_pass": 85}}):
            self.assertEqual(self.owner.call("PATCH", "/api/clinic", wrong).status_code, 422)
        self.assertEqual(self.clinic(), found)

    def trail(self, noun: str, key: str, **more: Any) -> list[dict[str, Any]]:
        return list(self.owner.ok("GET", "/api/audit", params={"noun": noun, "key": key, **more}))


class Trail(ClinicCase):
    def test_who_did_what_newest_first_and_looking_is_in_it_too(self) -> None:
        screen = self.slipped(44)
        helper = self.person("assistant", clinic_id=self.owner.clinic_id)
        helper.ok("GET", f"/api/screens/{screen}")
        helper.call("POST", f"/api/screens/{screen}/answers", {"answers": [answer("left", "note", "x")]})
        params = {"noun": "screen", "key": screen}
        rows = self.owner.ok("GET", "/api/audit", params=params)
        self.assertEqual(rows[-1]["verb"], "begin")
        self.assertTrue(all(row["by"] for row in rows))
        self.assertEqual([row["id"] for row in rows], sorted((row["id"] for row in rows), reverse=True))
        again = self.owner.ok("GET", "/api/audit", params=params)
        self.assertEqual(again[0]["verb"], "read audit")
        older = self.owner.ok("GET", "/api/audit", params={**params, "before": rows[-2]["id"]})
        self.assertEqual([row["verb"] for row in older], ["begin"])

    def test_an_athletes_trail_holds_their_screens(self) -> None:
        athlete = self.owner.add_athlete()
        screen = self.owner.begin_screen(athlete)
        rows = self.owner.ok("GET", "/api/audit", params={"noun": "athlete", "key": athlete})
        self.assertEqual({row["noun_id"] for row in rows}, {athlete, screen})
