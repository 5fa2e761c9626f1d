"""The story through the app: fact by fact, two hands at once, what it does to record, reading and route."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from typing import Any
from uuid import uuid4

from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.route import make_route
from northstride.record.read import check_record
from northstride.record.route import route_out
from tests.support.api import ApiCase, Person
from tests.support.records import record

Fact = dict[str, Any]


def fact(field: str, value: Any, side: str | None = None, key: str = "", test: str = "story") -> Fact:
    return {"id": str(uuid4()), "test": test, "side": side, "key": key, "field": field, "value": value}


def plan(field: str, value: Any) -> Fact:
    return fact(field, value, test="route")


class StoryCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner")

    def tell(self, screen: str, *facts: Fact, by: Person | None = None) -> Any:
        return (by or self.me).ok("POST", f"/api/screens/{screen}/answers", {"answers": list(facts)})

    def record(self, screen: str) -> dict[str, Any]:
        return dict(self.me.ok("GET", f"/api/screens/{screen}")["record"])

    def route(self, screen: str) -> dict[str, Any]:
        return dict(self.me.ok("GET", f"/api/screens/{screen}/route"))


SPRAIN = (
    ("here", True, "right", "anterolateral"),
    ("now", 5, "right", "anterolateral"),
    ("onset.mechanism", "inversion"),
    ("onset.date", "2026-09-12"),
    ("load_change", False),
)


class Told(StoryCase):
    def test_what_is_told_stands_in_the_record_and_is_read(self) -> None:
        screen = self.me.begin_screen(purpose="ankle_injury")
        self.tell(screen, *(fact(*told) for told in SPRAIN), fact("red_flags.breathless_or_chest_pain", True))
        intake = self.record(screen)["intake"]
        place = {"site": "anterolateral", "side": "right", "now": 5}
        self.assertEqual(intake["complaint"]["places"], [place])
        self.assertEqual(intake["onset"], {"mechanism": "inversion", "date": "2026-09-12"})
        reading = self.me.ok("GET", f"/api/screens/{screen}/reading")["reading"]
        self.assertIn("danger.chest", [flag["code"] for flag in reading["flags"]])

    def test_the_screen_says_each_fact_with_who_wrote_it(self) -> None:
        screen = self.me.begin_screen(purpose="ankle_injury")
        self.tell(screen, fact("symptoms.limp", False))
        facts = {item["field"]: item for item in self.me.ok("GET", f"/api/screens/{screen}")["facts"]}
        self.assertEqual(facts["symptoms.limp"]["value"], False)
        self.assertTrue(facts["symptoms.limp"]["by"])
        self.assertEqual((facts["purpose"]["value"], facts["purpose"]["by"]), ("ankle_injury", None))

    def test_a_draft_is_read_without_being_written(self) -> None:
        screen = self.me.begin_screen(purpose="hip_complaint")
        drafts = {"answers": [fact("red_flags.saddle_numbness", True), fact("onset.date", "2026-09-30")]}
        found = self.me.ok("POST", f"/api/screens/{screen}/preview", drafts)
        self.assertIn("danger.cauda_equina", [flag["code"] for flag in found["reading"]["flags"]])
        self.assertEqual([fault["path"] for fault in found["faults"]], ["answers[1].value"])
        self.assertNotIn("intake", {k: v for k, v in self.record(screen).items() if v})

    def test_a_story_that_cannot_be_is_refused_at_its_place_and_nothing_is_half_saved(self) -> None:
        screen = self.me.begin_screen(purpose="hip_complaint")
        for bad in (fact("onset.date", "2026-09-30"), fact("complaint.side", "left")):
            answers = {"answers": [fact("load_change", True), bad]}
            refused = self.me.call("POST", f"/api/screens/{screen}/answers", answers)
            self.assertEqual(refused.status_code, 422)
            self.assertEqual([fault["path"] for fault in refused.json()["faults"]], ["answers[1].value"])
        self.assertIsNone(self.record(screen).get("intake"))
        with self.engine.connect() as db:
            rows = db.execute(text("SELECT count(*) FROM answers WHERE screen_id = :id"), {"id": screen})
            self.assertEqual(rows.scalar(), 0)

    def test_telling_again_does_nothing_and_another_content_under_the_same_id_is_refused(self) -> None:
        screen = self.me.begin_screen()
        told = fact("load_change", True)
        first, again = self.tell(screen, told), self.tell(screen, told)
        self.assertEqual(first["revision"], again["revision"])
        other = {"answers": [{**told, "value": False}]}
        self.assertEqual(self.me.call("POST", f"/api/screens/{screen}/answers", other).status_code, 409)

    def test_two_hands_at_once_lose_nothing(self) -> None:
        screen = self.me.begin_screen(purpose="ankle_injury")
        other = self.person("practitioner", self.me.clinic_id)
        flags = ("weight_loss", "cancer_history", "fever_hot_joint", "bladder_or_bowel")
        symptoms = ("swelling", "limp", "numbness", "tingling")

        def ask(person: Person, family: str, codes: tuple[str, ...]) -> None:
            for code in codes:
                self.tell(screen, fact(f"{family}.{code}", False), by=person)

        with ThreadPoolExecutor(2) as hands:
            jobs = [
                hands.submit(ask, self.me, "red_flags", flags),
                hands.submit(ask, other, "symptoms", symptoms),
            ]
            for job in jobs:
                job.result()
        self.assertEqual(set(self.record(screen)["intake"]["asked"]), {*flags, *symptoms})
        changes = self.me.ok("GET", f"/api/screens/{screen}/changes", params={"after": 0})
        self.assertEqual(len(changes["answers"]), 8)

    def test_history_and_audit_say_who_was_told_what_and_when(self) -> None:
        screen = self.me.begin_screen()
        self.tell(screen, fact("now", 3, "left", "groin"))
        self.tell(screen, fact("now", 6, "left", "groin"))
        params = {"test": "story", "field": "now", "side": "left", "key": "groin"}
        found = self.me.ok("GET", f"/api/screens/{screen}/history", params=params)
        self.assertEqual([line["value"] for line in found], [6, 3])
        with self.engine.connect() as db:
            told = db.execute(
                text("SELECT detail -> 'told' FROM audit WHERE noun_id = :id AND verb = 'answer'"),
                {"id": screen},
            ).scalars()
            self.assertEqual(list(told), [["now groin left"], ["now groin left"]])

    def test_export_carries_all_of_it_and_import_brings_it_back(self) -> None:
        screen = self.me.begin_screen(purpose="ankle_injury")
        line = {"region": "ankle", "side": "left", "kind": "sprain", "count": 2}
        self.tell(
            screen,
            *(fact(*told) for told in SPRAIN),
            fact("onset.about", True),
            fact("history", line, None, "a1"),
            fact("consent.given", True),
            fact("consent.guardian", "M. Lind"),
            plan("order", ["ankle.lunge", "ankle.palpation"]),
            plan("left_out.ankle.cotton", "too sore"),
            plan("start", "sitting"),
            plan("reasons_after", True),
        )
        exported = self.me.ok("GET", f"/api/screens/{screen}/record")
        stranger = self.person("owner", self.new_clinic())
        stranger.ok("POST", "/api/records", exported, params={"name": "Ilse Varga"})
        again = stranger.ok("GET", f"/api/screens/{screen}/record")
        self.assertEqual(again, exported)
        mine, theirs = (p.ok("GET", f"/api/screens/{screen}")["facts"] for p in (self.me, stranger))
        said = [[(f["side"], f["key"], f["field"], f["value"]) for f in facts] for facts in (mine, theirs)]
        self.assertEqual(*said)

    def test_a_signed_story_takes_what_comes_late_as_an_amendment(self) -> None:
        screen = self.me.begin_screen()
        self.tell(screen, fact("load_change", False))
        self.assertEqual(self.me.sign(screen).status_code, 204)
        late = fact("red_flags.weight_loss", True)
        self.assertEqual(self.tell(screen, late)["late"], [late["id"]])
        self.assertNotIn("red_flags", self.record(screen)["intake"])
        stands_on = self.me.ok("GET", f"/api/screens/{screen}")["signatures"][-1]["id"]
        body = {
            "id": str(uuid4()),
            "stands_on": stands_on,
            "reason": "told on the way out",
            "late": [late["id"]],
            "answers": [],
            "password": "a long enough password",
        }
        self.me.ok("POST", f"/api/screens/{screen}/amendments", body)
        self.assertEqual(self.record(screen)["intake"]["red_flags"], ["weight_loss"])

    def test_a_file_that_was_taken_is_still_the_same_after_its_story_grew(self) -> None:
        raw = record(purpose="hip_complaint", id=str(uuid4()), intake={"symptoms": ["limp"]})
        self.me.ok("POST", "/api/records", raw, params={"name": "Ilse Varga"})
        self.tell(raw["id"], fact("symptoms.clicking", False))
        self.assertEqual(self.record(raw["id"])["intake"], {"symptoms": ["limp"], "asked": ["clicking"]})


class Walked(StoryCase):
    def test_the_route_is_what_the_command_says_of_the_exported_record(self) -> None:
        screen = self.me.begin_screen(purpose="ankle_injury")
        self.tell(screen, *(fact(*told) for told in SPRAIN))
        exam = check_record(self.record(screen), default_catalogue()).exam
        said = route_out(screen, make_route(exam, default_catalogue(), Context()))
        self.assertEqual(self.route(screen), said.model_dump(mode="json"))

    def test_a_test_more_goes_where_it_saves_a_turn_and_one_left_out_keeps_its_reason(self) -> None:
        screen = self.me.begin_screen(purpose="hip_complaint")
        self.tell(screen, plan("order", ["hip.gait", "hip.faber", "hip.ely"]))
        self.tell(screen, plan("planned.hip.fadir", True))
        self.assertEqual(self.record(screen)["planned"], ["hip.gait", "hip.faber", "hip.fadir", "hip.ely"])
        self.tell(screen, plan("left_out.hip.faber", "sore enough"))
        self.assertEqual(self.record(screen)["planned"], ["hip.gait", "hip.fadir", "hip.ely"])
        left = {item["test"]: item["why"] for item in self.route(screen)["left_out"]}
        self.assertEqual(left["hip.faber"], "sore enough")

    def test_a_follow_up_is_routed_by_the_screen_before(self) -> None:
        athlete = self.me.add_athlete()
        before = self.me.begin_screen(athlete, date="2026-09-01")
        self.me.answer(before, "left", "values.thigh_angle", 8)
        after = self.me.begin_screen(athlete, date="2026-09-20")
        self.assertEqual([stop["test"] for stop in self.route(after)["stops"]], ["hip.modified_thomas"])

    def test_the_start_turns_the_route_round(self) -> None:
        screen = self.me.begin_screen(purpose="hip_complaint")
        self.tell(screen, plan("start", "sitting"))
        self.assertEqual(self.me.ok("GET", f"/api/screens/{screen}")["schools"]["start"], "sitting")


class Kept(StoryCase):
    def keep(self, **parts: Any) -> str:
        key = str(uuid4())
        body = {"id": key, "purpose": "teaching", "name": "First year", "tests": ["hip.gait"], **parts}
        self.me.ok("POST", "/api/routes", body)
        return key

    def listed(self, person: Person | None = None) -> list[str]:
        return [route["name"] for route in (person or self.me).ok("GET", "/api/routes")]

    def test_a_clinic_keeps_its_routes_and_shows_them_to_nobody_else(self) -> None:
        me = self.me = self.person("owner", self.new_clinic())
        key = self.keep(reasons_after=True)
        self.assertEqual(self.listed(), ["First year"])
        self.assertTrue(me.ok("GET", "/api/routes")[0]["reasons_after"])
        self.assertEqual(self.listed(self.person("owner", self.new_clinic())), [])
        me.ok("POST", f"/api/routes/{key}/archive")
        self.assertEqual(self.listed(), [])
        self.keep()

    def test_keeping_again_does_nothing_and_bad_content_is_refused_at_its_field(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        key = self.keep()
        same = {"id": key, "purpose": "teaching", "name": "First year", "tests": ["hip.gait"]}
        self.me.ok("POST", "/api/routes", same)
        self.assertEqual(self.listed(), ["First year"])
        self.assertEqual(self.me.call("POST", "/api/routes", {**same, "name": "Other"}).status_code, 409)
        for change, path in (({"tests": ["hip.gait", "hip.dance"]}, "tests[1]"), ({}, "name")):
            refused = self.me.call("POST", "/api/routes", {**same, "id": str(uuid4()), **change})
            self.assertEqual([fault["path"] for fault in refused.json()["faults"]], [path])
