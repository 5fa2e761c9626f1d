"""Imported screens: what is urgent is said plainly, and what to do next can be opened."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

from playwright.sync_api import Page, expect
from sqlalchemy import text

from northstride.cli.published import DOCS
from tests.support.browser import PASSWORD, BrowserCase


class Stories(BrowserCase):
    def import_story(self, page: Page, name: str) -> None:
        self.import_file(page, DOCS / "examples" / f"{name}.json")

    def test_a_return_is_held_against_the_earlier_screen_and_its_criteria(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "stiff-ankle-first")
        expect(page.get_by_label("Since earlier screens")).to_have_count(0)
        page.goto(f"{self.app.address}/people")
        later = json.loads((DOCS / "examples" / "stiff-ankle-first.json").read_text())
        later |= {"id": str(uuid4()), "date": "2026-11-20", "purpose": "return_to_sport"}
        lunge = next(e for e in later["entries"] if e["test"] == "ankle.lunge" and e["side"] == "right")
        lunge["values"]["distance"] = 120
        self.import_record(page, later)
        since = page.get_by_label("Since earlier screens")
        expect(since).to_contain_text("72 mm → 120 mm")
        expect(since).to_contain_text("for the better since 2 Nov 2026")
        criteria = page.get_by_label("Ready to return")
        expect(criteria).to_contain_text("Ready to return: you decide")
        expect(criteria).to_contain_text("Not tested: Side hop 90 % and painless")

    def test_an_emergency_says_what_to_do_and_names_the_flag(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "clot-day-3")
        bar = page.get_by_role("alert")
        expect(bar).to_contain_text("call the emergency number")
        expect(bar).to_contain_text("Clot suspected")
        expect(bar).to_contain_text("left")

    def test_what_to_do_next_opens_at_the_bench_though_nobody_planned_it(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_story(page, "lateral-sprain-day-2")
        page.get_by_role("link", name="Next: Inversion tilt").click()
        expect(page.get_by_role("heading", name="Inversion tilt")).to_be_visible()
        expect(page.get_by_label("Route").get_by_text("Inversion tilt")).to_be_visible()

    def ankle(self, **intake: Any) -> dict[str, Any]:
        """An ankle nobody asked much about."""
        complaint = {"region": "ankle", "side": "right", "sites": ["anterolateral"]}
        return {
            "format": "north-stride/screen",
            "version": 1,
            "id": str(uuid4()),
            "date": "2026-11-20",
            "purpose": "ankle_injury",
            "athlete": {"ref": "NS-901", "birth_date": "2001-04-09"},
            "intake": {"complaint": complaint, **intake},
            "entries": [{"test": "ankle.anterior_drawer", "side": "right", "values": {"laxity": 2}}],
        }

    def test_what_was_not_asked_and_not_examined_is_said_in_both_places(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_record(page, self.ankle())
        asked = page.get_by_label("Still to ask")
        expect(asked).to_contain_text("Did it begin suddenly or gradually?")
        expect(asked).to_contain_text("Before anything else.")
        silent = page.get_by_label("Not examined", exact=True)
        expect(silent.locator(".lane-right")).to_contain_text("Circulation of the foot")
        expect(silent.locator(".lane-right")).to_contain_text("Outer ankle ligaments (held)")
        expect(silent.locator(".lane-left")).to_contain_text("nothing else called for")
        page.get_by_role("link", name="Bench").click()
        bench = page.get_by_label("Reads as so far")
        expect(bench).to_contain_text("Did it begin suddenly or gradually?")
        expect(bench.get_by_label("Not examined yet")).to_contain_text("Four steps")

    def test_a_referral_names_its_last_day_and_what_has_no_side_stands_in_no_lane(self) -> None:
        page = self.page()
        self.sign_in(page)
        story = self.ankle(onset={"kind": "gradual"}, load_change=False, red_flags=["weight_loss"])
        self.import_record(page, story)
        expect(page.get_by_label("What is to be done").locator(".spine")).to_contain_text("By 4 Dec 2026.")
        whole = page.get_by_label("Signs of illness")
        expect(whole).to_contain_text("Signs of illness")
        expect(page.locator(".lane-left").filter(has_text="Weight loss")).to_have_count(0)

    def test_an_older_edition_stays_and_todays_rules_are_one_tap_away(self) -> None:
        page = self.page()
        self.sign_in(page)
        record = self.ankle(onset={"kind": "gradual"}, load_change=False)
        self.import_record(page, record)
        page.get_by_role("button", name="Sign", exact=True).click()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()
        # As an edition before this one would have left it.
        older = (
            "UPDATE signatures SET format = 2, reading = (reading - 'ask') || jsonb_build_object("
            "'rules', '1', 'flags', '[]'::jsonb, 'actions', '[]'::jsonb,"
            " 'coverage', (reading -> 'coverage') - 'unexamined') WHERE screen_id = :id"
        )
        with self.engine.begin() as db:
            db.execute(text("ALTER TABLE signatures DISABLE TRIGGER signatures_append_only"))
            db.execute(text(older), {"id": record["id"]})
            db.execute(text("ALTER TABLE signatures ENABLE TRIGGER signatures_append_only"))
        page.reload()
        reading = page.get_by_label("Reading", exact=True)
        expect(reading).to_contain_text("rules 1")
        expect(page.get_by_label("Not examined", exact=True)).to_contain_text("not kept back then")
        page.get_by_role("button", name="What today's rules would add").click()
        today = page.get_by_label("Today's rules")
        expect(today).to_contain_text("ATFL laxity: none → likely, train by newer rules")
        expect(today).to_contain_text("Not examined: Bones of ankle and foot, right")
        expect(reading).to_contain_text("No flags")

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
        held = page.get_by_label("Inversion tilt")
        expect(held.locator(".lane-left")).to_contain_text("held A bone is not cleared")
        expect(held.locator(".lane-right")).to_contain_text("not held")
        page.get_by_role("link", name="Bench").click()
        page.get_by_label("Route").get_by_text("Inversion tilt").click()
        held = page.get_by_role("status").filter(has_text="Held left")
        expect(held).to_contain_text("kept and not read")
