"""Sheets that leave: what stands on them, words of one's own, who took which away, and what is frozen."""

from __future__ import annotations

import asyncio
import io
import os
import time
from typing import Any
from unittest import mock
from uuid import uuid4

from pypdf import PdfReader
from sqlalchemy import text
from sqlalchemy.exc import DBAPIError

from northstride.api.worker_pool import WorkerPool
from tests.support.api import PASSWORD, ApiCase, answer


class SheetsCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        self.athlete = self.me.add_athlete(name="Ilse Varga")
        self.screen = self.me.begin_screen(self.athlete)
        self.me.answer(self.screen, "left", "values.thigh_angle", 8)
        self.me.answer(self.screen, "right", "values.thigh_angle", -6)

    def sheets(self) -> dict[str, Any]:
        found: dict[str, Any] = self.me.ok("GET", f"/api/screens/{self.screen}/sheets")
        return found

    def word(self, field: str, value: str | None, *, sheet: str = "letter", key: str | None = None) -> Any:
        body = {"id": key or str(uuid4()), "sheet": sheet, "field": field, "value": value}
        return self.me.call("POST", f"/api/screens/{self.screen}/sheets/words", body)

    def my_name(self) -> str:
        users = self.me.ok("GET", "/api/users")
        return next(str(user["name"]) for user in users if user["id"] == str(self.me.user_id))

    def pdf(self, kind: str, **query: str) -> Any:
        return self.me.call("GET", f"/api/screens/{self.screen}/sheets/{kind}/pdf", params=query)

    def sign(self) -> None:
        shown = self.me.ok("GET", f"/api/screens/{self.screen}/reading")["identity"]
        body = {"shown": shown, "password": PASSWORD}
        self.assertLess(self.me.call("POST", f"/api/screens/{self.screen}/sign", body).status_code, 300)


class Sheets(SheetsCase):
    def test_all_three_say_what_the_reading_found_and_on_which_side(self) -> None:
        found = self.sheets()
        flag = next(row for row in found["report"]["rows"] if row["left"]["strength"])
        self.assertEqual(flag["right"]["lines"], ["no flag"])
        self.assertEqual({line["side"] for line in found["letter"]["found"]}, {"left"})
        self.assertIn("left", found["athlete"]["stands_out"][0]["says"])
        self.assertEqual(
            {found[kind]["head"]["status"] for kind in ("report", "letter", "athlete")}, {"draft"}
        )

    def test_paper_says_the_same_and_is_accessible(self) -> None:
        said = self.sheets()
        for kind in ("report", "letter", "athlete"):
            for paper in ("a4", "us-letter"):
                with self.subTest(kind=kind, paper=paper):
                    made = self.pdf(kind, paper=paper)
                    self.assertEqual(made.headers["content-type"], "application/pdf")
                    self.assertLess(len(made.content), 300_000)
                    self.assertNotIn("Varga", made.headers["content-disposition"])
                    read = PdfReader(io.BytesIO(made.content))
                    words = " ".join(" ".join(page.extract_text() for page in read.pages).split())
                    self.assertIn("Ilse Varga", words)
                    self.assertIn(" ".join(said[kind]["caution"].split()[:6]), words)
                    root: Any = read.trailer["/Root"]
                    self.assertIn("/StructTreeRoot", root)
                    self.assertEqual(root["/Lang"], "en")
                    self.assertIn("pdfuaid", root["/Metadata"].get_data().decode())

    def test_figures_are_drawn_for_both_sides_with_their_words(self) -> None:
        """The sound side too: what was measured there is what the other is held against."""
        read = PdfReader(io.BytesIO(self.pdf("report").content))
        size: Any = read.trailer["/Size"]
        objects: list[Any] = [read.get_object(number) for number in range(1, size)]
        said = {str(each["/Alt"]) for each in objects if isinstance(each, dict) and "/Alt" in each}
        self.assertIn("Modified Thomas test, left: thigh, hanging +8°", said)
        self.assertIn("Modified Thomas test, right: thigh, hanging −6°", said)

    def test_a_draft_says_so_and_a_signed_one_who_signed(self) -> None:
        self.assertIn("Not signed", self.sheets()["letter"]["head"]["notice"])
        self.sign()
        head = self.sheets()["letter"]["head"]
        self.assertEqual((head["status"], head["notice"]), ("signed", ""))
        self.assertIn("Signed by", head["signed"])

    def test_an_amended_one_says_why(self) -> None:
        self.sign()
        newest = self.me.ok("GET", f"/api/screens/{self.screen}")["signatures"][-1]["id"]
        late = answer("left", "values.thigh_angle", -9)
        body = {
            "id": str(uuid4()),
            "stands_on": newest,
            "password": PASSWORD,
            "reason": "read off the wrong line",
            "answers": [late],
        }
        amended = self.me.call("POST", f"/api/screens/{self.screen}/amendments", body)
        self.assertLess(amended.status_code, 300, amended.text)
        found = self.sheets()
        self.assertEqual(found["report"]["head"]["status"], "amended")
        self.assertIn("read off the wrong line", found["report"]["head"]["notice"])
        self.assertFalse(any(row["left"]["strength"] for row in found["report"]["rows"]))
        gone = [
            line for row in found["report"]["rows"] for line in row["left"]["lines"] if "no longer" in line
        ]
        self.assertEqual(len(gone), 1)

    def test_words_of_ones_own_are_kept_with_name_and_can_be_taken_back(self) -> None:
        ours = self.sheets()["letter"]["last"]
        key = str(uuid4())
        for _ in range(2):
            self.assertEqual(self.word("last", "Please call us.", key=key).status_code, 204)
        self.assertEqual(self.word("last", "Another.", key=key).status_code, 409)
        found = self.sheets()
        self.assertEqual(found["letter"]["last"], "Please call us.")
        field = next(each for each in found["words"] if each["field"] == "last")
        self.assertEqual(
            (field["value"], field["ours"], field["by"]), ("Please call us.", ours, self.my_name())
        )
        self.assertEqual(self.word("last", None).status_code, 204)
        self.assertEqual(self.sheets()["letter"]["last"], ours)

    def test_what_was_found_cannot_be_worded_and_a_letter_stays_short(self) -> None:
        for field, value in (("found", "nothing"), ("not_done", ""), ("last", "x" * 201)):
            refused = self.word(field, value)
            self.assertEqual(refused.status_code, 422, field)
            self.assertIn(refused.json()["faults"][0]["path"], ("field", "value"))
        self.assertEqual(self.word("why", "x", sheet="report").status_code, 422)

    def test_who_took_which_away_is_kept_and_looking_is_not_taking(self) -> None:
        page = f"/api/screens/{self.screen}/sheets/letter/pages/1"
        self.assertIn(b"<svg", self.me.call("GET", page).content)
        self.assertEqual(self.me.call("GET", page.replace("/1", "/9")).status_code, 404)
        self.assertEqual(self.sheets()["went"], [])
        self.pdf("athlete")
        printed = self.me.call("POST", f"/api/screens/{self.screen}/sheets/report/printed")
        self.assertEqual(printed.status_code, 204)
        self.sign()
        self.pdf("letter", paper="us-letter")
        forms = [(each["form"], each["status"]) for each in self.sheets()["went"]]
        taken = [("letter, PDF", "signed"), ("report, paper", "draft"), ("athlete, PDF", "draft")]
        self.assertEqual(forms, taken)
        went = self.sheets()["went"][-1]
        self.assertEqual(
            (went["form"], went["status"], went["by"]), ("athlete, PDF", "draft", self.my_name())
        )

    def test_what_is_empty_is_said_before_one_leaves(self) -> None:
        self.assertEqual(self.sheets()["before"], ["emergency_number", "phone", "night_phone"])
        given = {"emergency_number": "112", "phone": "555 0142", "night_phone": "555 0199"}
        self.assertEqual(self.me.call("PATCH", "/api/clinic", given).status_code, 204)
        found = self.sheets()
        self.assertEqual(found["before"], [])
        self.assertEqual(found["athlete"]["numbers"]["emergency"], "112")
        self.assertEqual(self.me.call("PATCH", "/api/clinic", {"phone": "call me"}).status_code, 422)

    def test_names_that_no_font_draws_are_said_and_do_not_stop_the_sheet(self) -> None:
        for name, fits in (("דוד לוי", True), ("محمد", True), ('O"Neil #_*', True), ("漢字 Lee", False)):
            with self.subTest(name=name):
                screen = self.me.begin_screen(self.me.add_athlete(name=name))
                found = self.me.ok("GET", f"/api/screens/{screen}/sheets")
                self.assertEqual("letters" in found["before"], not fits)
                made = self.me.call("GET", f"/api/screens/{screen}/sheets/letter/pdf")
                self.assertEqual(made.status_code, 200)

    def test_an_emergency_stands_alone_on_the_athletes_sheet(self) -> None:
        told = {
            "id": str(uuid4()),
            "test": "story",
            "field": "red_flags.breathless_or_chest_pain",
            "value": True,
        }
        written = self.me.call("POST", f"/api/screens/{self.screen}/answers", {"answers": [told]})
        self.assertLess(written.status_code, 300, written.text)
        athlete = self.sheets()["athlete"]
        self.assertIn("emergency number", " ".join(athlete["alone"]))
        self.assertEqual((athlete["stands_out"], athlete["to_do"], athlete["looked_at"]), ([], [], []))

    def test_words_are_never_changed_in_place(self) -> None:
        self.word("last", "Please call us.")
        with self.assertRaises(DBAPIError), self.engine.begin() as db:
            db.execute(text("UPDATE sheet_words SET value = 'x'"))


class SignedWords(SheetsCase):
    """Words are frozen with the signature: what is changed later says so on the paper."""

    def setUp(self) -> None:
        super().setUp()
        self.word("last", "Please call us.")
        self.word("asked", "Please look at the left hip.")
        self.sign()

    def after(self, field: str, value: str | None, password: str | None = PASSWORD, **more: Any) -> Any:
        body = {"id": str(uuid4()), "sheet": "letter", "field": field, "value": value, **more}
        if password is not None:
            body["password"] = password
        return self.me.call("POST", f"/api/screens/{self.screen}/sheets/words", body)

    def letter(self) -> Any:
        return self.sheets()["letter"]

    def amend(self, **fields: Any) -> Any:
        body = self.me.amendment(self.screen, **fields)
        return self.me.call("POST", f"/api/screens/{self.screen}/amendments", body)

    def test_nothing_changes_without_the_password(self) -> None:
        for password, path in ((None, "password"), ("a wrong password", "password")):
            refused = self.after("last", "Other.", password)
            self.assertEqual(refused.status_code, 422)
            self.assertEqual([fault["path"] for fault in refused.json()["faults"]], [path])
        self.assertEqual((self.letter()["last"], self.letter()["head"]["notice"]), ("Please call us.", ""))

    def test_later_words_make_a_new_version_that_says_who_and_when(self) -> None:
        other = self.person("practitioner", self.me.clinic_id)
        body = {
            "id": str(uuid4()),
            "sheet": "letter",
            "field": "last",
            "value": "Other.",
            "password": PASSWORD,
        }
        for _ in range(2):
            other.ok("POST", f"/api/screens/{self.screen}/sheets/words", body)
        letter = self.letter()
        self.assertEqual(letter["last"], "Other.")
        self.assertIn("Paper version 2", letter["head"]["notice"])
        self.assertIn("A. Practitioner", letter["head"]["notice"])
        self.assertIn("A. Owner", letter["head"]["signed"])
        words = PdfReader(io.BytesIO(self.pdf("letter").content)).pages[0].extract_text()
        self.assertIn("Paper version 2", " ".join(words.split()))
        field = next(each for each in self.sheets()["words"] if each["field"] == "last")
        self.assertEqual((field["later"], field["amend"]), (True, False))
        self.after("last", None)
        self.assertIn("Paper version 3", self.letter()["head"]["notice"])
        self.assertNotIn(self.letter()["last"], ("Other.", "Please call us."))

    def test_what_is_asked_and_what_to_do_is_changed_by_an_amendment_alone(self) -> None:
        for sheet, field in (
            ("letter", "asked"),
            ("letter", "until_then"),
            ("athlete", "to_do"),
            ("athlete", "come_back"),
        ):
            with self.subTest(field):
                refused = self.after(field, "Nothing.", sheet=sheet)
                self.assertEqual(refused.status_code, 422)
                self.assertEqual([fault["path"] for fault in refused.json()["faults"]], ["field"])
        words = [{"sheet": "letter", "field": "asked", "value": "Please look at both hips."}]
        body = self.me.amendment(self.screen, reason="both sides were meant", words=words)
        for _ in range(2):
            self.me.ok("POST", f"/api/screens/{self.screen}/amendments", body)
        letter = self.letter()
        self.assertEqual(letter["asked"], "Please look at both hips.")
        self.assertIn("both sides were meant", letter["head"]["notice"])
        self.assertEqual(letter["last"], "Please call us.")
        other = {**body, "words": [{**words[0], "value": "Nothing."}]}
        refused = self.me.call("POST", f"/api/screens/{self.screen}/amendments", other)
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (409, "words"))

    def test_an_amendment_words_only_what_may_be_worded(self) -> None:
        for field, value in (("found", "nothing"), ("asked", "x" * 301)):
            refused = self.amend(words=[{"sheet": "letter", "field": field, "value": value}])
            self.assertEqual(refused.status_code, 422, refused.text)
            self.assertTrue(refused.json()["faults"][0]["path"].startswith("words[0]."))

    def test_another_reading_is_asked_for_in_its_own_words(self) -> None:
        """What was worded for the old reading would ask for what is no longer found."""
        late = answer("left", "values.thigh_angle", -9)
        self.assertEqual(self.amend(answers=[late]).status_code, 204)
        letter = self.letter()
        self.assertNotEqual(letter["asked"], "Please look at the left hip.")
        self.assertEqual(letter["last"], "Please call us.")

    def test_words_of_a_signature_that_kept_none_are_those_of_its_time(self) -> None:
        with self.engine.begin() as db:
            db.execute(text("ALTER TABLE signatures DISABLE TRIGGER USER"))
            db.execute(text("UPDATE signatures SET words = NULL"))
            db.execute(text("ALTER TABLE signatures ENABLE TRIGGER USER"))
        self.assertEqual(self.letter()["asked"], "Please look at the left hip.")

    def test_words_do_not_go_to_another_athlete(self) -> None:
        other = self.me.add_athlete(name="Tuva Lind")
        body = {"athlete_id": other, "reason": "mixed up", "password": PASSWORD}
        self.me.ok("POST", f"/api/screens/{self.screen}/move", body)
        self.assertNotEqual(self.letter()["last"], "Please call us.")


class InTime(SheetsCase):
    def test_what_gives_way_lets_whoever_saves_go_first(self) -> None:
        own = os.getpriority(os.PRIO_PROCESS, 0)
        for gives_way, niceness in ((False, own), (True, min(own + 10, 19))):
            beside = WorkerPool(1, 60, gives_way=gives_way)
            self.addCleanup(beside.close)
            found = asyncio.run(beside.run(os.getpriority, os.PRIO_PROCESS, 0))
            self.assertEqual(found, niceness)

    def test_a_paper_that_takes_too_long_is_ended_and_said(self) -> None:
        short = WorkerPool(1, 0.5)
        self.addCleanup(short.close)
        own, began = WorkerPool.run, time.monotonic()

        async def sleeps(_papers: WorkerPool, *_given: object) -> None:
            await own(short, time.sleep, 60.0)

        with mock.patch.object(WorkerPool, "run", sleeps):
            refused = self.pdf("report")
        self.assertEqual(
            (refused.status_code, refused.json()["type"]), (503, "urn:north-stride:problem:took-too-long")
        )
        self.assertLess(time.monotonic() - began, 30)
        self.assertEqual(self.sheets()["went"], [])

    def test_no_connection_is_held_while_it_is_set(self) -> None:
        held = []

        async def look(*_given: object) -> list[bytes]:
            held.append(self.app.state.services.engine.pool.checkedout())
            return [b"page"]

        with mock.patch.object(WorkerPool, "run", look):
            self.pdf("report")
            self.sheets()
        self.assertEqual(set(held), {0})
