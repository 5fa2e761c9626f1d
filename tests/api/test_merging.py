"""Nobody stands twice: references that look alike are refused, and those who do are brought together."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from sqlalchemy import text

from tests.support.api import PASSWORD, ApiCase
from tests.support.records import record, thomas


class References(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())

    def add(self, ref: str, **more: Any) -> Any:
        body = {"id": str(uuid4()), "ref": ref, "name": "Bram Holm", **more}
        return self.me.call("POST", "/api/athletes", body)

    def test_a_reference_stands_once_however_it_is_written(self) -> None:
        self.assertEqual(self.add("TA-10").json()["ref"], "TA-10")
        for ref in ("ta-10", " TA-10 ", "TA\u200b-10", "ＴＡ-10", "ТА-10", "TA-1O", "TA-I0"):
            with self.subTest(ascii(ref)):
                refused = self.add(ref)
                self.assertEqual(refused.status_code, 422, refused.text)
                self.assertEqual([fault["path"] for fault in refused.json()["faults"]], ["ref"])
        self.assertEqual(self.add("TA-11").status_code, 201)
        other = self.add("TB-10").json()
        edit = {"seen": other["revision"], "ref": "Ta-10"}
        self.assertEqual(self.me.call("PATCH", f"/api/athletes/{other['id']}", edit).status_code, 422)

    def test_another_clinic_has_its_own(self) -> None:
        self.add("TA-10")
        stranger = self.person("owner", self.new_clinic())
        stranger.add_athlete(ref="TA-10")

    def test_names_stand_on_one_line(self) -> None:
        self.assertEqual(self.add("TA-1", name=" Ilse\nVarga\u200b ").json()["name"], "Ilse Varga")
        squad = {"id": str(uuid4()), "name": "Juniors\n"}
        self.me.ok("POST", "/api/squads", squad)
        self.assertEqual(self.me.ok("GET", "/api/squads")[0]["name"], "Juniors")

    def test_a_file_meets_its_athlete_whatever_the_case(self) -> None:
        athlete = self.me.add_athlete(ref="TA-10", birth_date="1990-05-02")
        file = record([thomas("left", thigh_angle=8)], id=str(uuid4()), athlete={"ref": " ta-10"})
        self.assertEqual(self.me.ok("POST", "/api/records/check", file)["athlete"]["id"], athlete)


class Merging(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        self.kept = self.me.add_athlete(ref="TA-10", name="Ilse Varga")
        self.gone = self.me.add_athlete(ref="X-7", name="I. Varga", birth_date="1990-05-02", sport="skiing")
        self.screen = self.me.begin_screen(self.gone)
        self.me.answer(self.screen, "left", "values.thigh_angle", 8)
        self.assertEqual(self.me.sign(self.screen).status_code, 204)
        self.open = self.me.begin_screen(self.gone, date="2026-10-02")
        self.me.answer(self.open, "left", "values.thigh_angle", 4)

    def merge(self, who: Any = None, key: str | None = None, **more: Any) -> Any:
        body = {"id": key or str(uuid4()), "gone": self.gone, "password": PASSWORD, **more}
        return (who or self.me).call("POST", f"/api/athletes/{self.kept}/merge", body)

    def undo(self) -> Any:
        (merged,) = self.me.ok("GET", f"/api/athletes/{self.kept}/merges")
        body = {"merge": merged["id"], "password": PASSWORD}
        return self.me.call("POST", f"/api/athletes/{self.kept}/merge/undo", body)

    def screens(self, athlete: str) -> list[str]:
        return [each["id"] for each in self.me.ok("GET", "/api/screens", params={"athlete": athlete})]

    def verbs(self, athlete: str) -> list[str]:
        with self.engine.connect() as db:
            rows = db.execute(text("SELECT verb FROM audit WHERE noun_id = :key"), {"key": athlete})
            return [row.verb for row in rows]

    def test_shown_first_and_nothing_changed(self) -> None:
        shown = self.me.ok("GET", f"/api/athletes/{self.kept}/merge", params={"gone": self.gone})
        self.assertEqual(
            (shown["screens"], shown["filled"], shown["faults"]), (2, ["birth_date", "sport"], [])
        )
        self.assertEqual(self.screens(self.kept), [])

    def test_brought_together_and_parted_again(self) -> None:
        key = str(uuid4())
        signed = self.me.ok("GET", f"/api/screens/{self.screen}/signatures/0")
        for _ in range(2):
            self.assertEqual(self.merge(key=key).status_code, 204)
        self.assertEqual(self.screens(self.kept), [self.open, self.screen])
        self.assertEqual(self.screens(self.gone), [])
        self.assertEqual([each["id"] for each in self.me.listed()], [self.kept])
        athlete = self.me.ok("GET", f"/api/athletes/{self.kept}")
        self.assertEqual((athlete["birth_date"], athlete["sport"]), ("1990-05-02", "skiing"))
        self.assertEqual(self.me.ok("GET", f"/api/screens/{self.screen}/signatures/0"), signed)
        lines = self.me.ok("GET", f"/api/athletes/{self.kept}/course")["lines"]
        self.assertEqual(len(lines), 1)
        self.assertIn("merge", self.verbs(self.kept))
        self.assertIn("merge", self.verbs(self.gone))
        later = self.me.begin_screen(self.kept, date="2026-11-02")
        self.assertEqual([self.undo().status_code for _ in range(1)], [204])
        self.assertEqual(self.screens(self.gone), [self.open, self.screen])
        self.assertEqual(self.screens(self.kept), [later])
        athlete = self.me.ok("GET", f"/api/athletes/{self.kept}")
        self.assertEqual((athlete["birth_date"], athlete["sport"]), (None, None))
        self.assertEqual({each["id"] for each in self.me.listed()}, {self.kept, self.gone})
        self.assertIn("undo merge", self.verbs(self.gone))

    def test_what_was_put_right_since_stays(self) -> None:
        self.merge()
        self.me.edit(self.kept, sport="rowing")
        self.undo()
        self.assertEqual(self.me.ok("GET", f"/api/athletes/{self.kept}")["sport"], "rowing")

    def test_the_other_reference_still_names_the_person(self) -> None:
        self.merge()
        file = record([thomas("left", thigh_angle=8)], id=str(uuid4()), athlete={"ref": "x-7"})
        self.assertEqual(self.me.ok("POST", "/api/records/check", file)["athlete"]["id"], self.kept)
        body = {"id": str(uuid4()), "ref": "X-7", "name": "Somebody"}
        self.assertEqual(self.me.call("POST", "/api/athletes", body).status_code, 422)
        seen = self.me.ok("GET", f"/api/athletes/{self.gone}")["revision"]
        restored = self.me.call("PATCH", f"/api/athletes/{self.gone}", {"seen": seen, "archived": False})
        self.assertEqual(restored.status_code, 422)

    def test_two_people_are_not_brought_together(self) -> None:
        self.me.edit(self.kept, birth_date="1991-05-02")
        shown = self.me.ok("GET", f"/api/athletes/{self.kept}/merge", params={"gone": self.gone})
        self.assertEqual([fault["path"] for fault in shown["faults"]], ["birth_date"])
        self.assertEqual(self.merge().status_code, 422)
        self.assertEqual(self.merge(gone=self.kept).status_code, 422)
        self.assertEqual(self.screens(self.kept), [])

    def test_an_owner_with_their_password_and_of_this_clinic(self) -> None:
        practitioner = self.person("practitioner", self.me.clinic_id)
        self.assertEqual(self.merge(practitioner).status_code, 403)
        self.assertEqual(self.merge(password="a wrong password").status_code, 422)
        stranger = self.person("owner", self.new_clinic())
        self.assertEqual(self.merge(stranger).status_code, 404)
        theirs = stranger.add_athlete()
        self.assertEqual(self.merge(gone=theirs).status_code, 404)
