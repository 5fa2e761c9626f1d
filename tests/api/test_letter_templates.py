"""Templates of letters: their fields filled from the screen, their words those of whoever filled them in."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from tests.support.api import PASSWORD, ApiCase


class Templates(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        athlete = self.me.add_athlete(name="Ilse {Varga}", birth_date="2001-04-05")
        self.screen = self.me.begin_screen(athlete)

    def keep(self, **lines: str) -> Any:
        body = {"id": str(uuid4()), "name": f"To {uuid4().hex[:6]}", **lines}
        return body, self.me.call("POST", "/api/letter-templates", body)

    def fill(self, template: str, key: str | None = None) -> Any:
        body = {"id": key or str(uuid4()), "template": template}
        return self.me.call("POST", f"/api/screens/{self.screen}/sheets/template", body)

    def letter(self) -> Any:
        return self.me.ok("GET", f"/api/screens/{self.screen}/sheets")

    def test_fields_are_filled_and_lines_it_does_not_say_stay(self) -> None:
        before = self.letter()["letter"]
        told = "About {athlete}, born {born}, seen {day}."
        body, kept = self.keep(to="Dr Farkas", greeting=told)
        self.assertEqual(kept.status_code, 204)
        self.assertEqual(self.fill(body["id"]).status_code, 204)
        after = self.letter()
        self.assertEqual(after["letter"]["to"], "Dr Farkas")
        greeting = "About Ilse {Varga}, born 5 April 2001, seen 14 September 2026."
        self.assertEqual(after["letter"]["greeting"], greeting)
        self.assertEqual(after["letter"]["last"], before["last"])
        by = {word["field"]: word["by"] for word in after["words"] if word["sheet"] == "letter"}
        self.assertTrue(by["to"])
        self.assertIsNone(by["last"])

    def test_safe_to_repeat(self) -> None:
        body, _ = self.keep(to="Dr Farkas")
        self.assertEqual(self.me.call("POST", "/api/letter-templates", body).status_code, 204)
        key = str(uuid4())
        self.assertEqual([self.fill(body["id"], key).status_code for _ in range(2)], [204, 204])
        other = self.me.call("POST", "/api/letter-templates", {**body, "to": "Dr Lind"})
        self.assertEqual(other.status_code, 409)

    def test_what_cannot_be_kept_is_said_at_its_line(self) -> None:
        for line, says in (
            ("{athlete:>900}", "nothing else"),
            ("{athlete!r}", "nothing else"),
            ("{athlete.__class__}", "no field"),
            ("{shoe}", "no field"),
            ("{athlete", "not closed"),
            ("{" * 121, "longer"),
        ):
            _, refused = self.keep(to=line)
            self.assertEqual(refused.status_code, 422, line)
            (fault,) = refused.json()["faults"]
            self.assertEqual(fault["path"], "to")
            self.assertIn(says, fault["problem"])
        body, _ = self.keep(to="Dr Farkas")
        taken = self.me.call("POST", "/api/letter-templates", {**body, "id": str(uuid4())})
        self.assertEqual(taken.json()["faults"][0]["path"], "name")

    def test_a_line_that_becomes_too_long_is_refused_whole(self) -> None:
        body, kept = self.keep(to="{athlete}" * 13, last="Yours")
        self.assertEqual(kept.status_code, 204)
        self.assertEqual(self.fill(body["id"]).status_code, 422)
        self.assertNotEqual(self.letter()["letter"]["last"], "Yours")

    def test_on_a_signed_screen_it_needs_the_password(self) -> None:
        body, _ = self.keep(to="Dr Farkas")
        self.me.answer(self.screen, "left", "values.thigh_angle", 3)
        self.assertEqual(self.me.sign(self.screen).status_code, 204)
        self.assertEqual(self.fill(body["id"]).status_code, 422)
        self.assertNotEqual(self.letter()["letter"]["to"], "Dr Farkas")
        again = {"id": str(uuid4()), "template": body["id"], "password": PASSWORD}
        self.me.ok("POST", f"/api/screens/{self.screen}/sheets/template", again)
        found = self.letter()["letter"]
        self.assertEqual(found["to"], "Dr Farkas")
        self.assertIn("version 2", found["head"]["notice"])

    def test_out_of_use_and_nobody_elses(self) -> None:
        body, _ = self.keep(to="Dr Farkas")
        stranger = self.person("owner", self.new_clinic())
        self.assertEqual(stranger.ok("GET", "/api/letter-templates")["templates"], [])
        listed = self.me.ok("GET", "/api/letter-templates")
        self.assertEqual([each["id"] for each in listed["templates"]], [body["id"]])
        self.assertIn("athlete", [each["field"] for each in listed["fields"]])
        self.me.ok("POST", f"/api/letter-templates/{body['id']}/archive")
        self.assertEqual(self.me.ok("GET", "/api/letter-templates")["templates"], [])
        self.assertEqual(self.fill(body["id"]).status_code, 404)
