"""What was shown is what is signed, and what is signed is what is read, for ever."""

from __future__ import annotations

import json
from typing import Any
from unittest import mock
from uuid import uuid4

from sqlalchemy import text

from northstride.store.actor import Actor
from northstride.store.papers import signing
from northstride.store.readings import readings
from northstride.store.readings.refreshing import refresh
from northstride.store.screens.screens import get_screen
from tests.support.api import PASSWORD, ApiCase, answer

FIELD = "values.thigh_angle"


class SignedCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person()
        self.athlete = self.me.add_athlete(birth_date="2001-05-02", sex="female")
        self.screen = self.me.begin_screen(self.athlete)
        self.at = f"/api/screens/{self.screen}"
        self.me.answer(self.screen, "left", FIELD, 8)

    def reading(self) -> dict[str, Any]:
        return dict(self.me.ok("GET", f"{self.at}/reading"))

    def signature(self, number: int) -> dict[str, Any]:
        return dict(self.me.ok("GET", f"{self.at}/signatures/{number}"))

    def amend(self, *answers: dict[str, Any], **fields: Any) -> Any:
        body = self.me.amendment(self.screen, answers=list(answers), **fields)
        return self.me.call("POST", f"{self.at}/amendments", body)

    def sql(self, statement: str, **values: Any) -> None:
        with self.engine.begin() as db:
            db.execute(text(statement), values)

    def flags_in_list(self) -> list[dict[str, Any]]:
        return list(self.newest()["flags"])

    def newest(self) -> dict[str, Any]:
        found = next(line for line in self.me.listed() if line["id"] == self.athlete)
        return dict(found["last_screen"])


class FromTheSignatureAlone(SignedCase):
    def everything(self) -> tuple[Any, ...]:
        return (self.reading(), self.me.ok("GET", f"{self.at}/record"), self.me.ok("GET", self.at)["record"])

    def test_deleting_what_is_derived_changes_nothing_and_lists_come_back(self) -> None:
        self.me.sign(self.screen)
        before = (
            self.reading(),
            self.me.ok("GET", f"{self.at}/record"),
            self.me.ok("GET", self.at)["record"],
        )
        flags = self.flags_in_list()
        self.assertTrue(flags)
        for table in ("reading_flags", "reading_actions", "readings"):
            self.sql(f"DELETE FROM {table} WHERE screen_id = :id", id=self.screen)
        self.assertEqual(self.everything(), before)
        self.assertEqual(self.newest()["reading"], "waiting")
        while refresh(self.engine, self.app.state.services.catalogue, signed=True):
            pass
        self.assertEqual((self.newest()["reading"], self.flags_in_list()), ("current", flags))

    def test_a_slow_reader_that_finishes_after_the_signing_keeps_nothing(self) -> None:
        me = Actor(self.me.clinic_id, self.me.user_id, "slow", "practitioner", None, "UTC")
        catalogue = self.app.state.services.catalogue
        with self.engine.connect() as slow:
            open_ = get_screen(slow, me, self.screen)  # type: ignore[arg-type]
            self.me.answer(self.screen, "left", FIELD, 3)
            self.me.sign(self.screen)
            signed, flags = self.reading(), self.flags_in_list()
            with (
                mock.patch.object(readings, "answers_of", return_value=[]),
                mock.patch("northstride.store.screens.screens.answers_of", return_value=[]),
            ):
                late = readings.reading_of(slow, me, catalogue, open_)
            slow.commit()
        self.assertEqual(late.reading["flags"], [])
        self.assertEqual((self.reading(), self.flags_in_list()), (signed, flags))

    def test_signing_again_is_signing_what_was_shown(self) -> None:
        """A second tab that shows another reading is told so, and not that it signed."""
        shown = self.me.shown(self.screen)
        body = {"shown": shown, "password": PASSWORD}
        for _ in range(2):
            self.me.ok("POST", f"{self.at}/sign", body)
        other = {"shown": {**shown, "answers": "0" * 12}, "password": PASSWORD}
        refused = self.me.call("POST", f"{self.at}/sign", other)
        self.assertEqual((refused.status_code, refused.json()["changed"]), (409, ["answers"]))

    def test_a_birth_date_put_right_later_leaves_what_was_signed(self) -> None:
        self.me.sign(self.screen)
        before = self.reading()
        self.me.edit(self.athlete, birth_date="2011-05-02")
        self.assertEqual(self.reading(), before)


class Identity(SignedCase):
    """A reading is another one as soon as anything it depends on is."""

    def change(self, part: str) -> None:
        """Something that changes one part alone."""
        match part:
            case "answers":
                self.me.answer(self.screen, "left", FIELD, 9)
            case "athlete":
                self.me.edit(self.athlete, birth_date="2011-05-02")
            case "overrides":
                body = {"gate": "clot_doubt", "side": "left", "reason": "scan clear"}
                self.me.ok("POST", f"{self.at}/overrides", body)
            case "earlier":
                before = self.me.begin_screen(self.athlete, date="2026-03-01")
                self.me.answer(before, "left", FIELD, 2)
            case "story" | "plan" | "schools" | "screen":
                column, value = {
                    "story": ("intake", '{"load_change": true}'),
                    "plan": ("planned", '["hip.gait"]'),
                    "schools": ("schools", '{"knee_pass": 80}'),
                    "screen": ("purpose", "teaching"),
                }[part]
                self.sql(
                    f"UPDATE screens SET {column} = :value, revision = revision + 1 WHERE id = :id",
                    value=value,
                    id=self.screen,
                )

    def test_each_part_by_itself_refuses_the_signature_and_is_named(self) -> None:
        for part in ("answers", "athlete", "overrides", "earlier", "story", "plan", "schools", "screen"):
            self.setUp()
            seen = self.me.shown(self.screen)
            self.change(part)
            body = {"shown": seen, "password": PASSWORD}
            refused = self.me.call("POST", f"{self.at}/sign", body)
            with self.subTest(part=part):
                self.assertEqual((refused.status_code, refused.json()["changed"]), (409, [part]))
                now = self.me.shown(self.screen)
                self.assertEqual([name for name in now if now[name] != seen[name]], [part])

    def test_rules_and_error_figures_too(self) -> None:
        seen = self.me.shown(self.screen)
        with mock.patch.object(readings, "shipped", return_value="0" * 12):
            other = self.me.call("POST", f"{self.at}/sign", {"shown": seen, "password": PASSWORD})
            self.assertEqual(other.json()["changed"], ["rules"])
            self.assertEqual(self.reading()["identity"]["rules"], "0" * 12)
        with mock.patch.object(readings, "NO_ERRORS", {"thigh_angle": 1.5}):
            other = self.me.call("POST", f"{self.at}/sign", {"shown": seen, "password": PASSWORD})
            self.assertEqual(other.json()["changed"], ["errors"])

    def test_the_same_content_has_the_same_identity_and_is_read_once(self) -> None:
        first = self.reading()
        with mock.patch.object(readings, "compute", side_effect=AssertionError("read again")):
            self.assertEqual(self.reading(), first)

    def test_what_raises_no_revision_is_refused_by_the_database(self) -> None:
        for column, value in (("planned", '["hip.gait"]'), ("intake", "{}"), ("purpose", "teaching")):
            with self.subTest(column=column), self.assertRaisesRegex(Exception, "must raise it"):
                self.sql(f"UPDATE screens SET {column} = :value WHERE id = :id", value=value, id=self.screen)

    def test_the_edition_stands_beside_the_readable_one(self) -> None:
        reading = self.reading()
        self.assertRegex(reading["reading"]["fingerprint"], "^[0-9a-f]{12}$")
        self.assertEqual(reading["reading"]["fingerprint"], reading["identity"]["rules"])


class Versions(SignedCase):
    def test_each_is_read_by_itself_with_its_reason(self) -> None:
        self.me.sign(self.screen)
        self.amend(answer("left", FIELD, 3), reason="read from the wrong line")
        self.amend(answer("left", "values.knee_angle", 80), reason="knee forgotten")
        values = [self.signature(number)["record"]["entries"][0]["values"] for number in range(3)]
        self.assertEqual(
            values, [{"thigh_angle": 8}, {"thigh_angle": 3}, {"thigh_angle": 3, "knee_angle": 80}]
        )
        reasons = [self.signature(number)["reason"] for number in range(3)]
        self.assertEqual(reasons, [None, "read from the wrong line", "knee forgotten"])
        strengths = [self.signature(number)["reading"]["flags"][0]["strength"] for number in range(2)]
        self.assertEqual(strengths, ["likely", "possible"])
        self.assertEqual(self.reading()["signature"], 2)
        self.assertEqual(self.me.call("GET", f"{self.at}/signatures/3").status_code, 404)

    def test_earlier_screens_are_frozen_by_name_of_their_signature(self) -> None:
        before = self.me.begin_screen(self.athlete, date="2026-03-01")
        self.me.answer(before, "left", FIELD, 20)
        self.me.sign(before)
        unsigned = self.me.begin_screen(self.athlete, date="2026-04-01")
        self.me.answer(unsigned, "left", FIELD, 14)
        self.me.sign(self.screen)
        with self.engine.connect() as db:
            query = text("SELECT context FROM signatures WHERE screen_id = :id")
            named, whole = db.execute(query, {"id": self.screen}).scalar_one()["earlier"]
        self.assertEqual(named, {"screen": before, "signature": 0})
        self.assertEqual(whole["record"]["id"], unsigned)
        body = self.me.amendment(before, answers=[answer("left", FIELD, 1)])
        self.me.ok("POST", f"/api/screens/{before}/amendments", body)
        self.me.answer(unsigned, "left", FIELD, 30)
        self.amend(answer("right", FIELD, 2))
        baselines = {change["before"] for change in self.reading()["reading"]["changes"]}
        self.assertEqual(baselines, {14})


class Amending(SignedCase):
    def setUp(self) -> None:
        super().setUp()
        self.me.sign(self.screen)

    def test_one_that_stands_on_an_older_signature_is_out_of_date(self) -> None:
        seen = self.me.amendment(self.screen, answers=[answer("left", FIELD, 5)])
        self.amend(answer("left", FIELD, 3))
        refused = self.me.call("POST", f"{self.at}/amendments", seen)
        self.assertEqual((refused.status_code, refused.json()["number"]), (409, 1))
        self.assertTrue(refused.json()["type"].endswith("newer-signature"))

    def test_asks_the_password(self) -> None:
        refused = self.amend(answer("left", FIELD, 3), password="guess")
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (422, "password"))
        self.assertEqual(len(self.me.ok("GET", self.at)["signatures"]), 1)

    def test_keeps_entry_ids(self) -> None:
        self.amend(answer("right", FIELD, 3))
        first = [entry["id"] for entry in self.signature(1)["record"]["entries"]]
        self.amend(answer("right", "values.knee_angle", 80))
        self.assertEqual([entry["id"] for entry in self.signature(2)["record"]["entries"]], first)
        self.assertEqual(first[0], self.signature(0)["record"]["entries"][0]["id"])

    def test_says_what_answers_did(self) -> None:
        self.amend(answer("left", FIELD, 3))
        made = self.signature(1)["differences"]
        flag = next(item for item in made if item["what"] == "flags")
        self.assertEqual({item["cause"] for item in made}, {"answers"})
        self.assertEqual((flag["before"]["strength"], flag["after"]["strength"]), ("likely", "possible"))

    def test_says_what_rules_did(self) -> None:
        """The screen as rules of another edition would have signed it, amended by today's."""
        screen = self.me.begin_screen(self.athlete, date="2026-09-15")
        self.me.answer(screen, "left", FIELD, 8)

        def older(*given: Any) -> Any:
            reading = json.loads(json.dumps(readings.reading_from(*given)))
            reading["flags"][0]["strength"] = "strong"
            return reading

        with mock.patch.object(signing, "reading_from", side_effect=older):
            self.me.sign(screen)
        body = self.me.amendment(screen, answers=[answer("right", FIELD, 8)])
        self.me.ok("POST", f"/api/screens/{screen}/amendments", body)
        made = self.me.ok("GET", f"/api/screens/{screen}/signatures/1")["differences"]
        causes = {(item["side"], item["cause"]) for item in made if item["what"] == "flags"}
        self.assertEqual(causes, {("left", "rules"), ("right", "answers")})

    def test_the_same_id_with_another_reason_or_other_answers_is_refused(self) -> None:
        body = self.me.amendment(self.screen, answers=[answer("left", FIELD, 3)])
        for _ in range(2):
            self.me.ok("POST", f"{self.at}/amendments", body)
        others: tuple[dict[str, Any], ...] = (
            {"reason": "another"},
            {"answers": []},
            {"answers": [answer("left", FIELD, 3)]},
            {"answers": [{**body["answers"][0], "value": 4}]},
            {"answers": [{**body["answers"][0], "side": "right"}]},
        )
        for other in others:
            refused = self.me.call("POST", f"{self.at}/amendments", {**body, **other})
            self.assertEqual(refused.status_code, 409, other)
        self.assertEqual(len(self.me.ok("GET", self.at)["signatures"]), 2)

    def test_an_answer_is_amended_once(self) -> None:
        late = answer("left", FIELD, 3)
        self.me.ok("POST", f"{self.at}/answers", {"answers": [late]})
        self.assertEqual(self.amend(late).status_code, 409)
        self.assertEqual(self.amend(late=[late["id"]]).status_code, 204)
        self.assertEqual(self.amend(late=[late["id"]]).status_code, 409)


class SameId(SignedCase):
    def test_any_difference_is_refused_and_nothing_is_acknowledged(self) -> None:
        once = answer("left", FIELD, 9, at="2026-09-14T09:00:00+02:00")
        other = self.me.begin_screen(self.athlete)
        changes: tuple[dict[str, Any], ...] = (
            {"side": "right"},
            {"value": 10},
            {"field": "values.knee_angle"},
            {"at": "2026-09-14T09:00:01+02:00"},
            {"at": None},
            {"test": "ankle.percussion", "field": "note", "value": "x"},
        )
        for signed in (False, True):
            if signed:
                self.me.sign(self.screen)
                once = {**once, "id": str(uuid4())}
            post = f"{self.at}/answers"
            self.me.ok("POST", post, {"answers": [once]})
            self.me.ok("POST", post, {"answers": [once, once]})
            for change in changes:
                with self.subTest(signed=signed, change=change):
                    for body in ([{**once, **change}], [once, {**once, **change}]):
                        self.assertEqual(self.me.call("POST", post, {"answers": body}).status_code, 409)
            moved = self.me.call("POST", f"/api/screens/{other}/answers", {"answers": [once]})
            self.assertEqual(moved.status_code, 409 if not signed else 200)
            fresh = {**once, "id": str(uuid4())}
            twice = [fresh, {**fresh, "value": 4}]
            self.assertEqual(self.me.call("POST", post, {"answers": twice}).status_code, 409)

    def test_keys_tell_answers_apart(self) -> None:
        bone = {"test": "ankle.percussion", "key": "fibula", "field": "note"}
        once = answer("left", "note", "x", **{k: v for k, v in bone.items() if k != "field"})
        self.me.ok("POST", f"{self.at}/answers", {"answers": [once]})
        other = {**once, "key": "tibia"}
        self.assertEqual(self.me.call("POST", f"{self.at}/answers", {"answers": [other]}).status_code, 409)
        for key, path in (("nose", "answers[0].key"), ("fibula", "answers[0].value")):
            wrong = answer("left", "values.bone", "tibia", test="ankle.percussion", key=key)
            refused = self.me.call("POST", f"{self.at}/answers", {"answers": [wrong]})
            self.assertEqual([fault["path"] for fault in refused.json()["faults"]], [path])
        keyless = answer("left", FIELD, 8, key="fibula")
        refused = self.me.call("POST", f"{self.at}/answers", {"answers": [keyless]})
        self.assertEqual(refused.json()["faults"][0]["path"], "answers[0].key")
