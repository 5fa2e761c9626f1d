"""Imported screens: what is urgent is said plainly, and what to do next can be opened."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

from playwright.sync_api import FilePayload, Page, expect

from northstride.cli.published import DOCS
from tests.support.browser import BrowserCase


class Stories(BrowserCase):
    def import_story(self, page: Page, name: str) -> None:
        self.import_file(page, DOCS / "examples" / f"{name}.json")

    def import_record(self, page: Page, record: dict[str, Any]) -> None:
        """Another screen of somebody who is known here by now."""
        text = json.dumps(record).encode()
        file = FilePayload(name="later.json", mimeType="application/json", buffer=text)
        self.import_file(page, file)

    def test_a_return_is_held_against_the_earlier_screen_and_its_criteria(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "stiff-ankle-first")
        expect(page.get_by_label("Since earlier screens")).to_have_count(0)
        page.get_by_role("link", name="North Stride").click()
        later = json.loads((DOCS / "examples" / "stiff-ankle-first.json").read_text())
        later |= {"id": str(uuid4()), "date": "2026-11-20", "purpose": "return_to_sport"}
        lunge = next(e for e in later["entries"] if e["test"] == "ankle.lunge" and e["side"] == "right")
        lunge["values"]["distance"] = 120
        self.import_record(page, later)
        since = page.get_by_label("Since earlier screens")
        expect(since).to_contain_text("72 mm → 120 mm")
        expect(since).to_contain_text("for the better since 2 Nov 2026")
        side = page.get_by_label("What follows")
        expect(side).to_contain_text("Ready to return: you decide")
        expect(side).to_contain_text("Not tested: Side hop 90 % and painless")

    def test_an_emergency_says_what_to_do_and_names_the_flag(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "clot-day-3")
        bar = page.get_by_role("alert")
        expect(bar).to_contain_text("call the emergency number")
        expect(bar).to_contain_text("Clot in doubt, left")

    def test_what_to_do_next_opens_at_the_bench_though_nobody_planned_it(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "lateral-sprain-day-2")
        page.get_by_label("What follows").get_by_role("link", name="Open").first.click()
        expect(page.get_by_role("heading", name="Inversion tilt")).to_be_visible()
        expect(page.get_by_label("Route").get_by_text("Inversion tilt")).to_be_visible()

    def test_differences_name_their_test(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "tibialis-posterior-first")
        differences = page.get_by_label("Left against right")
        expect(differences).to_contain_text("Navicular drop")
        expect(differences).to_contain_text("L drops more by 7 mm")

    def test_what_is_held_is_said_in_the_reading_and_at_the_bench(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "fracture-signs-same-day")
        side = page.get_by_label("What follows")
        expect(side).to_contain_text("Held: kept, not read")
        expect(side).to_contain_text("A bone is in doubt")
        page.get_by_role("link", name="Bench").click()
        page.get_by_label("Route").get_by_text("Inversion tilt").click()
        held = page.get_by_role("status").filter(has_text="Held left")
        expect(held).to_contain_text("kept and not read")
