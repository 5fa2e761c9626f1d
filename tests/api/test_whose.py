"""Whose screen it is: files, moves and edits of the person."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from sqlalchemy import text

from tests.support.api import PASSWORD, ApiCase, answer
from tests.support.records import record, thomas

FIELD = "values.thigh_angle"


class WhoseCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())

    def file(self, **athlete: Any) -> dict[str, Any]:
        part = {"ref": "NS-014", "birth_date": "2003-05-02", "sex": "female", **athlete}
        entry = {**thomas("left", thigh_angle=8), "by": "K. Aalto"}
        return record([entry], id=str(uuid4()), athlete=part, examiner="K. Aalto")

    def check(self, file: dict[str, Any]) -> Any:
        return self.me.call("POST", "/api/records/check", file)

    def take(self, file: dict[str, Any], **whose: Any) -> Any:
        return self.me.call("POST", "/api/records", file, params=whose)

    def audit(self, noun_id: str, verb: str) -> dict[str, Any]:
        with self.engine.connect() as db:
            query = text("SELECT detail FROM audit WHERE noun_id = :id AND verb = :verb ORDER BY id DESC")
            return dict(db.execute(query, {"id": noun_id, "verb": verb}).scalars().first() or {})


class Files(WhoseCase):
    def test_the_person_is_shown_and_nothing_is_taken_before_it_is_confirmed(self) -> None:
        own = self.me.add_athlete(ref="NS-014", name="Ilse Varga", birth_date="2003-05-02", sex="female")
        file = self.file()
        shown = self.check(file).json()
        self.assertEqual((shown["athlete"]["id"], shown["athlete"]["name"]), (own, "Ilse Varga"))
        self.assertEqual((shown["file"]["ref"], shown["entries"], shown["stands"]), ("NS-014", 1, False))
        self.assertEqual(self.me.call("GET", f"/api/screens/{file['id']}").status_code, 404)
        for unconfirmed in ({}, {"name": "Ilse Varga"}, {"athlete": self.me.add_athlete()}):
            self.assertEqual(self.take(file, **unconfirmed).status_code, 409)
        self.assertEqual(self.take(file, athlete=own).status_code, 201)
        self.assertTrue(self.check(file).json()["stands"])
        self.assertEqual(self.take(file, athlete=own).json(), {"id": file["id"], "new": False})

    def test_somebody_unknown_here_needs_a_name(self) -> None:
        file = self.file()
        self.assertIsNone(self.check(file).json()["athlete"])
        for whose in ({}, {"athlete": str(uuid4())}, {"name": " "}, {"name": "‑ ."}):
            self.assertEqual(self.take(file, **whose).status_code, 422, whose)
        self.assertEqual(self.take(file, name="Ilse Varga").status_code, 201)
        (made,) = self.me.listed()
        self.assertEqual((made["name"], made["ref"], made["sex"]), ("Ilse Varga", "NS-014", "female"))

    def test_a_file_that_contradicts_the_athlete_is_refused_with_both_shown(self) -> None:
        own = self.me.add_athlete(ref="NS-014", name="Ilse Varga", birth_date="2003-05-02", sex="female")
        for apart, says in (
            ({"birth_date": "2003-05-03"}, "2003-05-03 in the file, 2003-05-02 here"),
            ({"sex": "male"}, "male in the file, female here"),
        ):
            for refused in (self.check(self.file(**apart)), self.take(self.file(**apart), athlete=own)):
                self.assertEqual(refused.status_code, 409)
                self.assertIn("Ilse Varga", refused.json()["title"])
                path = f"athlete.{next(iter(apart))}"
                self.assertEqual(refused.json()["faults"], [{"path": path, "problem": says}])
        self.assertEqual(self.take(self.file(birth_date=None, sex=None), athlete=own).status_code, 201)

    def test_an_archived_athlete_is_restored_first(self) -> None:
        own = self.me.add_athlete(ref="NS-014")
        self.me.edit(own, archived=True)
        refused = self.take(self.file(), athlete=own)
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (422, "athlete.ref"))

    def test_names_in_a_file_stay_as_the_file_wrote_them(self) -> None:
        file = self.file()
        self.me.import_file(file)
        at = f"/api/screens/{file['id']}"
        self.me.answer(file["id"], "left", FIELD, 9)
        place = {"test": "hip.modified_thomas", "side": "left", "field": FIELD}
        lines = self.me.ok("GET", f"{at}/history", params=place)
        self.assertEqual(
            [(line["by"], line["from_file"]) for line in lines], [("A. Owner", False), ("K. Aalto", True)]
        )
        self.assertTrue(self.me.ok("GET", at)["from_file"])
        athlete = self.me.ok("GET", at)["athlete"]["id"]
        (line,) = self.me.ok("GET", "/api/screens", params={"athlete": athlete})
        self.assertEqual((line["examiner"], line["from_file"]), ("K. Aalto", True))

    def test_the_sex_the_clinic_knows_is_read_in_screens_of_files_and_of_its_own(self) -> None:
        file = self.file(sex=None)
        self.me.import_file(file)
        athlete = self.me.ok("GET", f"/api/screens/{file['id']}")["athlete"]["id"]
        screens = (file["id"], self.me.begin_screen(athlete))
        for sex in ("male", "female"):
            self.me.edit(athlete, sex=sex)
            for screen in screens:
                own = self.me.ok("GET", f"/api/screens/{screen}")["record"]["athlete"]
                self.assertEqual(own["sex"], sex)

    def test_what_the_clinic_knows_better_is_read_and_the_file_is_still_the_same(self) -> None:
        file = self.file(birth_date=None)
        self.me.import_file(file)
        athlete = self.me.ok("GET", f"/api/screens/{file['id']}")["athlete"]["id"]
        before = self.me.shown(file["id"])
        self.me.edit(athlete, birth_date="2011-05-02")
        self.assertNotEqual(self.me.shown(file["id"]), before)
        opened = self.me.ok("GET", f"/api/screens/{file['id']}")["record"]
        self.assertEqual(opened["athlete"]["birth_date"], "2011-05-02")
        self.assertEqual(self.take(file).json(), {"id": file["id"], "new": False})


class Moving(WhoseCase):
    def setUp(self) -> None:
        super().setUp()
        self.wrong = self.me.add_athlete(ref="NS-1", name="Ilse Varga", birth_date="2001-05-02")
        self.right = self.me.add_athlete(ref="NS-2", name="Tuva Lind", birth_date="2011-05-02")
        self.screen = self.me.begin_screen(self.wrong)
        self.me.answer(self.screen, "left", FIELD, 8)
        self.at = f"/api/screens/{self.screen}"

    def move(self, athlete: str, **fields: Any) -> Any:
        body = {"athlete_id": athlete, "reason": "the wrong line of the list", "password": PASSWORD}
        return self.me.call("POST", f"{self.at}/move", {**body, **fields})

    def lists(self) -> dict[str, str | None]:
        self.refresh()
        return {a["id"]: (a["last_screen"] or {}).get("id") for a in self.me.listed()}

    def test_an_open_screen_goes_over_with_its_numbers_and_both_lists_are_right(self) -> None:
        for _ in range(2):
            self.assertEqual(self.move(self.right).status_code, 204)
        self.assertEqual(self.lists(), {self.wrong: None, self.right: self.screen})
        self.assertEqual(self.me.ok("GET", self.at)["record"]["athlete"]["ref"], "NS-2")
        with self.engine.connect() as db:
            query = text("SELECT DISTINCT athlete_id FROM measurements WHERE screen_id = :id")
            owners = db.execute(query, {"id": self.screen}).scalars().all()
        self.assertEqual([str(owner) for owner in owners], [self.right])
        told = self.audit(self.screen, "move")
        self.assertEqual(told["changed"], {"athlete": [self.wrong, self.right]})
        self.assertEqual(told["reason"], "the wrong line of the list")

    def test_a_signed_one_keeps_what_was_signed_and_the_newest_names_the_right_person(self) -> None:
        self.me.sign(self.screen)
        self.assertEqual(self.move(self.right).status_code, 204)
        self.assertEqual(self.lists(), {self.wrong: None, self.right: self.screen})
        refs = [
            self.me.ok("GET", f"{self.at}/signatures/{number}")["record"]["athlete"]["ref"]
            for number in range(2)
        ]
        self.assertEqual(refs, ["NS-1", "NS-2"])
        newest = self.me.ok("GET", self.at)["signatures"][-1]
        self.assertEqual(newest["reason"], "the wrong line of the list")
        body = self.me.amendment(self.screen, answers=[answer("left", FIELD, 3)])
        self.me.ok("POST", f"{self.at}/amendments", body)

    def test_a_file_taken_for_the_wrong_person_speaks_of_the_right_one(self) -> None:
        file = record([thomas("left", thigh_angle=8)], id=str(uuid4()), athlete={"ref": "NS-1"})
        self.me.import_file(file)
        self.at = f"/api/screens/{file['id']}"
        self.assertEqual(self.move(self.right).status_code, 204)
        moved = self.me.ok("GET", self.at)
        self.assertEqual(moved["record"]["athlete"], {"ref": "NS-2", "birth_date": "2011-05-02"})
        self.assertTrue(moved["from_file"])

    def test_needs_a_reason_and_somebody_it_can_be(self) -> None:
        unborn = self.me.add_athlete(birth_date="2026-09-15")
        archived = self.me.add_athlete()
        self.me.edit(archived, archived=True)
        for athlete in (unborn, archived):
            self.assertEqual(self.move(athlete).json()["faults"][0]["path"], "athlete_id")
        self.assertEqual(self.move(self.right, reason=" ").status_code, 422)
        self.assertEqual(self.move(str(uuid4())).status_code, 404)
        self.assertEqual(self.lists()[self.wrong], self.screen)


class Edits(WhoseCase):
    def setUp(self) -> None:
        super().setUp()
        self.athlete = self.me.add_athlete(name="Ilse Varga", sport="skiing")

    def edit(self, seen: int, **fields: Any) -> Any:
        return self.me.call("PATCH", f"/api/athletes/{self.athlete}", {"seen": seen, **fields})

    def test_old_and_new_value_stay_in_the_audit(self) -> None:
        self.edit(1, sport="orienteering", birth_date="2003-05-02")
        told = {"sport": ["skiing", "orienteering"], "birth_date": [None, "2003-05-02"]}
        self.assertEqual(self.audit(self.athlete, "edit"), {"changed": told})
        squad = str(uuid4())
        self.me.ok("POST", "/api/squads", {"id": squad, "name": "Juniors"})
        self.edit(2, squads=[squad])
        self.assertEqual(self.audit(self.athlete, "edit"), {"changed": {"squads": [[], [squad]]}})

    def test_an_unseen_change_is_not_overwritten(self) -> None:
        self.assertEqual(self.edit(1, sport="orienteering").status_code, 200)
        refused = self.edit(1, sport="running")
        self.assertEqual((refused.status_code, refused.json()["current"]), (409, 2))
        squad = str(uuid4())
        self.me.ok("POST", "/api/squads", {"id": squad, "name": "Seniors"})
        self.assertEqual(self.edit(1, squads=[squad]).status_code, 409)
        now = self.me.ok("GET", f"/api/athletes/{self.athlete}")
        self.assertEqual((now["sport"], now["squads"], now["revision"]), ("orienteering", [], 2))

    def test_the_same_edit_again_does_nothing(self) -> None:
        for _ in range(2):
            self.assertEqual(self.edit(1, sport="orienteering").json()["revision"], 2)

    def test_fields_and_squads_of_one_form_are_one_edit(self) -> None:
        squad = str(uuid4())
        self.me.ok("POST", "/api/squads", {"id": squad, "name": "Masters"})
        self.assertEqual(self.edit(1, sport="running", squads=[squad]).status_code, 200)

    def test_nobody_is_born_after_a_screen_that_is_open(self) -> None:
        self.me.begin_screen(self.athlete)
        refused = self.edit(1, birth_date="2026-09-15")
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (422, "birth_date"))
