"""A test nobody has seen is recorded and read through the browser unchanged."""

from __future__ import annotations

import unittest
from typing import get_args

from playwright.sync_api import expect

from northstride.cli.steps import ROOT
from northstride.core.catalogue import default_catalogue
from northstride.core.terms.vocabulary import RetakeReason
from tests.support.browser import BrowserCase


class OtherShape(BrowserCase):
    factory = "tests.support.other_shape:make_app"

    def test_is_recorded_and_read(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.get_by_role("button", name="Ilse Varga").click()
        page.get_by_role("button", name="Squad screen").click()
        page.get_by_role("button", name="No pain, nothing new: begin").click()
        page.wait_for_url("**/bench")
        expect(page.get_by_label("Far, left")).to_be_focused()
        for value in ("600 610", "500", "12", "1.5"):
            page.keyboard.type(value)
            page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("1.5 is not a whole number")
        page.get_by_label("Often, right").fill("9")
        page.keyboard.press("Enter")
        expect(page.get_by_role("group", name="Marks, left").get_by_text("Heel")).to_be_focused()
        page.get_by_role("group", name="Marks, left").get_by_text("Heel").click()
        page.get_by_role("group", name="Marks, left").get_by_text("Toe").click()
        page.get_by_role("group", name="Steady, right").get_by_text("No").click()
        page.get_by_role("group", name="Power, left").get_by_text("4+").click()
        self.saved(page)
        self.assertEqual(
            self.values(page, "made.up_reach"),
            {
                "left": {"far": [600, 610], "often": 12, "marks": ["heel", "toe"], "power": "4+"},
                "right": {"far": 500, "often": 9, "steady": False},
            },
        )
        page.get_by_role("link", name="Made-up score").click()
        expect(page.get_by_role("group", name="Score, both")).to_be_visible()
        page.get_by_role("group", name="Score, both").get_by_text("5", exact=True).click()
        knee = page.get_by_role("group", name="Knee in, left")
        knee.get_by_role("button", name="2", exact=True).click()
        page.get_by_role("group", name="Knee in, right").get_by_role("button", name="0").click()
        self.saved(page)
        record = page.evaluate(
            "id => fetch(`/api/screens/${id}`).then(r => r.json()).then(s => s.record)", self.screen_id(page)
        )
        whole = next(entry for entry in record["entries"] if entry["test"] == "made.up_score")
        self.assertEqual(whole["values"], {"score": 5, "knee_in": {"left": 2, "right": 0}})
        self.assertNotIn("side", whole)
        page.reload()
        expect(knee.get_by_role("button", name="2", exact=True)).to_have_attribute("aria-pressed", "true")
        page.get_by_role("link", name="Reading").click()
        differences = page.get_by_label("Left against right")
        expect(differences).to_contain_text("R reaches less by 105 mm")
        expect(page.get_by_label("Reading", exact=True)).to_contain_text("R reaches less")
        expect(page.get_by_text("2 of 2 begun")).to_be_visible()


class NothingNamesATest(unittest.TestCase):
    def test_web_store_and_api_know_no_test_and_no_measure(self) -> None:
        codes = {
            code
            for test in default_catalogue().tests.values()
            for code in (test.code, *(m.code for m in test.measures), *(s.code for s in test.seen))
            if "_" in code or "." in code
        } - set(get_args(RetakeReason))
        files = [
            path
            for folder, pattern in (
                ("northstride/api", "*.py"),
                ("northstride/store", "*.py"),
                ("web/src", "*.ts"),
                ("web/src", "*.tsx"),
            )
            for path in (ROOT / folder).rglob(pattern)
            if path.name != "schema.d.ts"  # generated, and schools name an edge grade
            and not path.name.endswith(".test.tsx")  # what is tested may be named
            # Anatomy: joints and landmarks bear the names that measures were given after them. Which
            # measure moves which joint is the catalogue's data.
            and "web/src/figures" not in path.as_posix()
        ]
        self.assertGreater(len(files), 60)
        named = [
            (str(path.relative_to(ROOT)), code)
            for path in files
            for code in codes
            if code in path.read_text(encoding="utf-8")
        ]
        self.assertEqual(named, [])
