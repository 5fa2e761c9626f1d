"""Screens over HTTP: writing, following, signing, amending, audit, bad input."""

from __future__ import annotations

import json
import threading
from typing import Any
from uuid import uuid4

from sqlalchemy import text

from tests.support.api import PASSWORD, ApiCase, Person, answer
from tests.support.records import record, thomas

TEST = "hip.modified_thomas"


class ScreenCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person()
        self.screen = self.me.begin_screen()
        self.at = f"/api/screens/{self.screen}"

    def post(self, *answers: dict[str, Any], person: Person | None = None) -> Any:
        return (person or self.me).call("POST", f"{self.at}/answers", {"answers": list(answers)})

    def sign(self) -> Any:
        return self.me.sign(self.screen)

    def audit(self, noun_id: str) -> list[str]:
        with self.engine.connect() as db:
            rows = db.execute(text("SELECT verb FROM audit WHERE noun_id = :id ORDER BY id"), {"id": noun_id})
            return list(rows.scalars())


class Beginning(ScreenCase):
    def test_with_a_plan_of_its_own_or_that_of_its_purpose(self) -> None:
        planned = ["ankle.hop", "ankle.lunge", "ankle.hop"]
        own = self.me.begin_screen(purpose="return_to_sport", planned=planned)
        record = self.me.ok("GET", f"/api/screens/{own}")["record"]
        self.assertEqual(record["planned"], ["ankle.hop", "ankle.lunge"])
        body = {"id": str(uuid4()), "athlete_id": self.me.add_athlete(), "date": "2026-09-14"}
        wrong = {**body, "purpose": "squad_screen", "planned": ["ankle.hop", "ankle.dance"]}
        refused = self.me.call("POST", "/api/screens", wrong)
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (422, "planned[1]"))
        usual = self.me.begin_screen(purpose="squad_screen", planned=[])
        self.assertGreater(len(self.me.ok("GET", f"/api/screens/{usual}")["record"]["planned"]), 2)

    def test_the_return_tests_of_an_athlete_the_oldest_first(self) -> None:
        athlete = self.me.add_athlete()
        for date in ("2026-10-02", "2026-09-14"):
            self.me.begin_screen(athlete, purpose="return_to_sport", date=date)
        self.me.begin_screen(athlete)
        found = self.me.ok("GET", f"/api/athletes/{athlete}/return-tests")
        self.assertEqual([each["date"] for each in found], ["2026-09-14", "2026-10-02"])
        self.assertEqual([len(each["rows"]) for each in found], [11, 11])


class Writing(ScreenCase):
    def test_field_by_field_into_entries(self) -> None:
        self.post(answer("left", "values.thigh_angle", [8, 9, 8], at="2026-09-14T09:12:40+02:00"))
        self.post(answer("left", "seen", ["back_pain"]), answer("left", "pain", {"present": True, "nrs": 3}))
        self.post(answer("right", "declined", "too sore"), answer("left", "note", "cold hands"))
        entries = self.me.ok("GET", self.at)["record"]["entries"]
        left, right = entries
        self.assertEqual(left["values"], {"thigh_angle": [8, 9, 8]})
        self.assertEqual((left["seen"], left["pain"]["nrs"], left["note"]), (["back_pain"], 3, "cold hands"))
        self.assertEqual((right["side"], right["declined"]), ("right", "too sore"))

    def test_null_clears_and_a_value_beats_a_refusal(self) -> None:
        self.post(answer("left", "declined", "no time"))
        self.post(answer("left", "values.thigh_angle", 8))
        entry = self.me.ok("GET", self.at)["record"]["entries"][0]
        self.assertNotIn("declined", entry)
        self.post(answer("left", "values.thigh_angle", None))
        entry = self.me.ok("GET", self.at)["record"]["entries"][0]
        self.assertEqual((entry["values"], entry["declined"]), ({}, "no time"))

    def test_the_same_answer_twice_is_written_once(self) -> None:
        once = answer("left", "values.thigh_angle", 8)
        first, second = self.post(once).json(), self.post(once).json()
        self.assertEqual(first, second)
        self.assertEqual(len(self.me.ok("GET", f"{self.at}/changes", params={"after": 0})["answers"]), 1)

    def test_the_same_id_with_other_content_is_refused(self) -> None:
        once = answer("left", "values.thigh_angle", 8)
        self.post(once)
        self.assertEqual(self.post({**once, "value": 9}).status_code, 409)
        other = self.me.begin_screen()
        elsewhere = self.me.call("POST", f"/api/screens/{other}/answers", {"answers": [once]})
        self.assertEqual(elsewhere.status_code, 409)

    def test_one_fault_in_a_batch_writes_nothing(self) -> None:
        good, bad = answer("left", "values.thigh_angle", 8), answer("right", "values.thigh_angle", 999)
        response = self.post(good, bad)
        self.assertEqual(response.status_code, 422)
        self.assertEqual([fault["path"] for fault in response.json()["faults"]], ["answers[1].value"])
        self.assertEqual(self.me.ok("GET", self.at)["revision"], 0)

    def test_two_people_at_one_couch_lose_nothing(self) -> None:
        people = [self.person(role) for role in ("assistant", "student", "practitioner", "owner")]
        fields = ("thigh_angle", "knee_angle", "abduction_drift", "rotation_drift")

        def record_all(person: Person, field: str) -> None:
            for side in ("left", "right"):
                person.answer(self.screen, side, f"values.{field}", 7)

        threads = [
            threading.Thread(target=record_all, args=pair) for pair in zip(people, fields, strict=True)
        ]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        opened = self.me.ok("GET", self.at)
        self.assertEqual(opened["revision"], 8)
        entries = {entry["side"]: entry["values"] for entry in opened["record"]["entries"]}
        self.assertEqual(len(opened["record"]["entries"]), 2)
        for side in ("left", "right"):
            self.assertEqual(entries[side], dict.fromkeys(fields, 7))

    def test_changes_since_a_revision(self) -> None:
        self.post(answer("left", "values.thigh_angle", 8))
        revision = self.post(answer("left", "values.knee_angle", 90)).json()["revision"]
        after = self.me.ok("GET", f"{self.at}/changes", params={"after": revision - 1})
        self.assertEqual([item["field"] for item in after["answers"]], ["values.knee_angle"])
        none = self.me.ok("GET", f"{self.at}/changes", params={"after": revision})
        self.assertEqual((none["answers"], none["head"]), ([], None))

    def test_changes_bring_what_is_no_answer_too(self) -> None:
        body = {"gate": "clot_doubt", "side": "left", "reason": "scan clear"}
        self.me.ok("POST", f"{self.at}/overrides", body)
        self.me.ok("GET", f"{self.at}/changes", params={"after": 1})
        found = self.me.ok("GET", f"{self.at}/changes", params={"after": 0})
        self.assertEqual(found["answers"], [])
        self.assertEqual(found["head"]["record"]["overrides"], [{**body, "by": "A. Practitioner"}])
        self.assertEqual(found["head"]["schools"]["thomas"], "degrees")
        self.assertNotIn("entries", found["head"]["record"])

    def test_history_newest_first_with_who(self) -> None:
        self.post(answer("left", "values.thigh_angle", 8))
        helper = self.person("assistant")
        self.post(answer("left", "values.thigh_angle", 9), person=helper)
        lines = self.me.ok(
            "GET",
            f"{self.at}/history",
            params={"test": TEST, "side": "left", "field": "values.thigh_angle"},
        )
        self.assertEqual(
            [(line["value"], line["by"]) for line in lines], [(9, "A. Assistant"), (8, "A. Practitioner")]
        )


class BadInput(ScreenCase):
    def test_each_is_a_clear_fault_at_the_field_and_nothing_is_saved(self) -> None:
        for value, says in (
            (999, "999 is outside -40 to 90"),
            ("8", '"8" is not a number'),
            ("", "is not a number"),
            ("-", "is not a number"),
            (True, "true is not a number"),
            ([], "no trial"),
            ({"reading": 172, "dial": "zero_neutral", "direction": 1}, "180-at-neutral dial it is 8°"),
            ({"reading": 1}, "missing"),
            ([[8]], "is not a number"),
        ):
            with self.subTest(value=value):
                response = self.post(answer("left", "values.thigh_angle", value))
                self.assertEqual(response.status_code, 422)
                (fault, *_) = response.json()["faults"]
                self.assertTrue(fault["path"].startswith("answers[0].value"), fault)
                self.assertIn(says, fault["problem"])
        self.assertEqual(self.me.ok("GET", self.at)["revision"], 0)

    def test_what_a_database_or_json_cannot_hold(self) -> None:
        sound = json.dumps({"answers": [answer("left", "note", "NOTE")]})
        for raw in ('"NaN"', "NaN", "1e999", '"\\u0000"', '"\\ud800"', '"a\\u0007"', "[" * 2000):
            body = sound.replace('"NOTE"', raw)
            response = self.me.call(
                "POST", f"{self.at}/answers", content=body, headers={"Content-Type": "application/json"}
            )
            with self.subTest(raw=raw[:10]):
                if raw == '"NaN"':
                    self.assertEqual(response.status_code, 200)
                else:
                    self.assertIn(response.status_code, (400, 422), response.text)

    def test_wrong_places(self) -> None:
        for changes, path in (
            ({"test": "hip.unknown"}, "answers[0].test"),
            ({"side": None}, "answers[0].side"),
            ({"side": "both"}, "answers[0].side"),
            ({"field": "values.mood"}, "answers[0].field"),
            ({"field": "by"}, "answers[0].field"),
            ({"id": 7}, "answers[0].id"),
            ({"extra": 1}, "answers[0].extra"),
            ({"at": "yesterday"}, "answers[0].at"),
        ):
            response = self.post({**answer("left", "values.thigh_angle", 8), **changes})
            with self.subTest(changes=changes):
                self.assertEqual(response.status_code, 422)
                self.assertEqual([fault["path"] for fault in response.json()["faults"]], [path])

    def test_huge_bodies_and_odd_addresses(self) -> None:
        huge = self.me.call("POST", f"{self.at}/answers", content=b" " * 2_000_001)
        self.assertEqual(huge.status_code, 413)

        def pieces() -> Any:
            for _ in range(300):
                yield b" " * 10_000

        streamed = self.me.call("POST", f"{self.at}/answers", content=pieces())
        self.assertIn(streamed.status_code, (400, 413))
        for path in ("/api/screens/not-a-uuid", f"{self.at}/changes?after=-1", "/api/athletes?search=%00"):
            self.assertEqual(self.me.call("GET", path).status_code, 422)
        self.assertEqual(self.me.call("GET", "/api/nothing").status_code, 404)

    def test_preview_reads_the_sound_drafts_and_names_the_others(self) -> None:
        drafts = [answer("left", "values.thigh_angle", 8), answer("right", "values.thigh_angle", 172)]
        found = self.me.ok("POST", f"{self.at}/preview", {"answers": drafts})
        self.assertEqual([flag["side"] for flag in found["reading"]["flags"]], ["left"])
        self.assertEqual([fault["path"] for fault in found["faults"]], ["answers[1].value"])
        self.assertEqual(self.me.ok("GET", self.at)["revision"], 0)


class Signing(ScreenCase):
    def test_freezes_what_was_seen(self) -> None:
        self.post(answer("left", "values.thigh_angle", 8))
        self.seen = self.me.shown(self.screen)
        self.assertEqual(self.sign().status_code, 204)
        opened = self.me.ok("GET", self.at)
        self.assertEqual((opened["state"], opened["signatures"][0]["by"]), ("signed", "A. Practitioner"))
        again = {"shown": self.seen, "password": PASSWORD}
        self.assertEqual(self.me.call("POST", f"{self.at}/sign", again).status_code, 204)
        self.assertEqual(len(self.me.ok("GET", self.at)["signatures"]), 1)

    def test_another_reading_a_wrong_password_and_open_items_refuse(self) -> None:
        open_ = self.me.sign(self.me.begin_screen(purpose="squad_screen"))
        self.assertTrue(open_.json()["type"].endswith("incomplete"))
        shown = self.me.shown(self.screen)
        self.post(answer("left", "values.thigh_angle", 8))
        stale = self.me.call("POST", f"{self.at}/sign", {"shown": shown, "password": PASSWORD})
        self.assertEqual((stale.status_code, stale.json()["changed"]), (409, ["answers"]))
        wrong = self.me.sign(self.screen, "guess")
        self.assertEqual((wrong.status_code, wrong.json()["faults"][0]["path"]), (422, "password"))
        self.assertEqual(self.me.ok("GET", self.at)["state"], "open")

    def test_guessing_the_password_at_signing_slows_down(self) -> None:
        self.post(answer("left", "values.thigh_angle", 8))
        for _ in range(5):
            self.me.sign(self.screen, "guess")
        self.assertEqual(self.sign().status_code, 429)
        with self.engine.begin() as db:
            db.execute(text("UPDATE guesses SET next_at = now()"))
        self.assertEqual(self.sign().status_code, 204)

    def test_a_squad_screen_plans_a_lean_list_in_the_order_of_the_route(self) -> None:
        def planned(**fields: Any) -> list[str]:
            screen = self.me.begin_screen(**fields)
            return list(self.me.ok("GET", f"/api/screens/{screen}")["record"]["planned"])

        lean = ["hip.gait", "ankle.lunge", "hip.squat", "hip.modified_thomas"]
        self.assertEqual(planned(purpose="squad_screen"), lean)
        self.assertEqual(planned(purpose="follow_up"), [])

    def test_declined_tests_complete_the_screen(self) -> None:
        screen = self.me.begin_screen(purpose="squad_screen")
        record = self.me.ok("GET", f"/api/screens/{screen}")["record"]
        for test in record["planned"]:
            both = test in ("hip.gait", "hip.squat")
            self.assertEqual(self.me.sign(screen).status_code, 409)
            self.me.answer(screen, None if both else "left", "declined", "too sore", test=test)
        self.assertEqual(self.me.sign(screen).status_code, 204)

    def test_late_answers_wait_and_an_amendment_takes_them_in(self) -> None:
        self.post(answer("left", "values.thigh_angle", 8))
        self.sign()
        frozen = self.me.ok("GET", self.at)["record"]
        late = answer("left", "values.thigh_angle", 3)
        written = self.post(late, person=self.person("student")).json()
        self.assertEqual((written["revision"], written["late"]), (1, [late["id"]]))
        self.assertEqual(self.post(late).json()["late"], [late["id"]])
        opened = self.me.ok("GET", self.at)
        self.assertEqual(opened["record"], frozen)
        self.assertEqual([item["id"] for item in opened["late"]], [late["id"]])
        amendment = self.me.amendment(self.screen, late=[late["id"]])
        for _ in range(2):
            self.me.ok("POST", f"{self.at}/amendments", amendment)
        amended = self.me.ok("GET", self.at)
        self.assertEqual(amended["record"]["entries"][0]["values"], {"thigh_angle": 3})
        self.assertEqual((amended["late"], len(amended["signatures"])), ([], 2))
        reading = self.me.ok("GET", f"{self.at}/reading")["reading"]
        self.assertEqual(reading["flags"][0]["strength"], "possible")
        second = self.me.amendment(self.screen, answers=[answer("left", "values.knee_angle", 80)])
        self.me.ok("POST", f"{self.at}/amendments", second)
        values = self.me.ok("GET", self.at)["record"]["entries"][0]["values"]
        self.assertEqual(values, {"thigh_angle": 3, "knee_angle": 80})

    def test_amendments_are_refused_before_signing_and_without_substance(self) -> None:
        body = {
            "id": str(uuid4()),
            "stands_on": str(uuid4()),
            "reason": "x",
            "answers": [answer("left", "values.thigh_angle", 8)],
            "password": PASSWORD,
        }
        self.assertEqual(self.me.call("POST", f"{self.at}/amendments", body).status_code, 409)
        self.post(answer("left", "values.thigh_angle", 8))
        self.sign()
        body = self.me.amendment(self.screen, answers=[answer("left", "values.thigh_angle", 9)])
        empty: tuple[dict[str, Any], ...] = (
            {"answers": []},
            {"reason": " "},
            {"answers": [], "late": [str(uuid4())]},
        )
        for changes in empty:
            refused = self.me.call("POST", f"{self.at}/amendments", {**body, **changes})
            self.assertEqual(refused.status_code, 422)

    def test_overrides_keep_reason_and_name_and_stop_at_signing(self) -> None:
        body = {"gate": "fracture_doubt", "side": "left", "reason": "radiograph clear"}
        for _ in range(2):
            self.me.ok("POST", f"{self.at}/overrides", body)
        overrides = self.me.ok("GET", self.at)["record"]["overrides"]
        self.assertEqual(overrides, [{**body, "by": "A. Practitioner"}])
        self.post(answer("left", "values.thigh_angle", 8))
        self.sign()
        self.assertEqual(
            self.me.call("POST", f"{self.at}/overrides", {**body, "side": "right"}).status_code, 409
        )


class Auditing(ScreenCase):
    def test_one_row_an_opening_and_a_write_and_none_for_polling(self) -> None:
        self.assertEqual(self.audit(self.screen), ["begin"])
        self.me.ok("GET", self.at)
        self.post(answer("left", "values.thigh_angle", 8))
        for _ in range(3):
            self.me.ok("GET", f"{self.at}/changes", params={"after": 0})
            self.me.ok("POST", f"{self.at}/preview", {"answers": []})
        self.assertEqual(self.audit(self.screen), ["begin", "open", "answer"])
        self.me.ok("GET", f"{self.at}/reading")
        self.me.ok("GET", f"{self.at}/record")
        self.sign()
        self.assertEqual(self.audit(self.screen)[3:], ["read", "hand over", "read", "sign"])

    def test_following_without_opening_is_an_opening(self) -> None:
        other = self.person()
        for _ in range(2):
            other.ok("GET", f"{self.at}/changes", params={"after": 0})
        self.assertEqual(self.audit(self.screen), ["begin", "open"])

    def test_holds_no_health_data(self) -> None:
        self.post(answer("left", "note", "a very telling note"))
        with self.engine.connect() as db:
            kept = str(db.execute(text("SELECT detail FROM audit")).all())
        self.assertNotIn("telling", kept)


class Files(ScreenCase):
    def test_out_into_an_empty_clinic_and_out_again_is_equal(self) -> None:
        raw = {"reading": 98, "dial": "ninety_neutral", "direction": 1}
        self.post(answer("left", "values.thigh_angle", [raw, 8.5], at="2026-09-14T09:12:40+03:00"))
        self.post(answer("left", "pain", {"present": False}), answer("left", "seen", ["back_pain"]))
        self.post(answer("right", "declined", "too sore", at="2026-09-14T06:20:00Z"))
        self.me.ok(
            "POST", f"{self.at}/overrides", {"gate": "clot_doubt", "side": "both", "reason": "scan clear"}
        )
        exported = self.me.ok("GET", f"{self.at}/record")
        elsewhere = self.person("owner", self.new_clinic())
        self.assertEqual(elsewhere.import_file(exported), {"id": self.screen, "new": True})
        self.assertEqual(elsewhere.ok("GET", f"{self.at}/record"), exported)
        self.assertEqual(
            elsewhere.ok("GET", f"{self.at}/reading")["reading"],
            self.me.ok("GET", f"{self.at}/reading")["reading"],
        )

    def test_any_sound_record_comes_back_as_it_went_in(self) -> None:
        sent = record(
            [
                thomas("left", thigh_angle=20),
                {
                    "test": TEST,
                    "values": {"thigh_angle": {"left": [3, 4], "right": -4}, "knee_angle": {"right": 95}},
                    "by": "K. Aalto",
                    "at": "2026-09-14T09:12:40.500+05:30",
                    "by_exception": False,
                },
                {"test": TEST, "side": "left", "declined": "no time", "pain": {"present": True}},
            ],
            id=str(uuid4()),
            purpose="follow_up",
            intake={"complaint": {"region": "hip", "side": "both"}, "history": []},
            schools={"knee_pass": 80},
            planned=[TEST],
            consent={"given": True},
            examiner="K. Aalto",
        )
        self.assertTrue(self.me.import_file(sent)["new"])
        back = self.me.ok("GET", f"/api/screens/{sent['id']}/record")
        for entry in back["entries"]:
            entry.pop("id")
        self.assertEqual(back["entries"][0], {"test": TEST, "side": "left", "values": {"thigh_angle": 20}})
        self.assertEqual(back["entries"][1]["values"], sent["entries"][1]["values"])
        self.assertEqual(back["entries"][1]["at"], "2026-09-14T09:12:40.500000+05:30")
        self.assertEqual(back["entries"][2]["declined"], "no time")
        for key in ("purpose", "schools", "planned", "consent", "examiner"):
            self.assertEqual(back[key], sent[key])
        with self.engine.connect() as db:
            current = db.execute(
                text("SELECT mean FROM measurements WHERE screen_id = :id AND current ORDER BY mean"),
                {"id": sent["id"]},
            ).scalars()
            self.assertEqual(list(current), [-4.0, 3.5, 20.0, 95.0])

    def test_the_same_again_does_nothing_and_another_is_refused_with_paths(self) -> None:
        sent = record([thomas("left", thigh_angle=8), thomas("right", thigh_angle=3)], id=str(uuid4()))
        self.assertTrue(self.me.import_file(sent)["new"])
        again = self.me.call("POST", "/api/records", {**sent, "notice": "x", "overrides": []})
        self.assertEqual((again.status_code, again.json()["new"]), (200, False))
        changed = json.loads(json.dumps(sent))
        changed["entries"][1]["values"]["thigh_angle"] = 4
        changed["purpose"] = "teaching"
        refused = self.me.call("POST", "/api/records", changed)
        self.assertEqual(refused.status_code, 409)
        self.assertEqual(
            {fault["path"] for fault in refused.json()["faults"]},
            {"purpose", "entries[1].values.thigh_angle"},
        )

    def test_all_faults_of_a_file_at_once_and_nothing_half_saved(self) -> None:
        bad = record([thomas("left", thigh_angle=999, edge_grade=7)], id=str(uuid4()), purpose="fun")
        refused = self.me.call("POST", "/api/records", bad)
        self.assertEqual(refused.status_code, 422)
        self.assertEqual(len(refused.json()["faults"]), 3)
        self.assertEqual(self.me.call("GET", f"/api/screens/{bad['id']}").status_code, 404)
        twice = json.dumps(record(id=str(uuid4()))).replace('"version": 1', '"version": 1, "version": 1')
        doubled = self.me.call("POST", "/api/records", content=twice)
        self.assertEqual(doubled.json()["faults"][0], {"path": "version", "problem": "stands twice"})

    def test_an_export_says_what_it_is_not(self) -> None:
        exported = self.me.call("GET", f"{self.at}/record")
        self.assertIn("does not diagnose", exported.json()["notice"])
        self.assertIn("attachment", exported.headers["content-disposition"])
