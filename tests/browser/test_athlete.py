"""One athlete over time: flags by side, lines read by keyboard, dates, every purpose from here."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from playwright.sync_api import Page, expect

from tests.support.browser import BrowserCase
from tests.support.records import record


def lunge(ref: str, date: str, left: int, right: int, **parts: Any) -> dict[str, Any]:
    entries = [
        {"test": "ankle.lunge", "side": side, "values": {"distance": value}}
        for side, value in (("left", left), ("right", right))
    ]
    return record(entries, id=str(uuid4()), date=date, athlete={"ref": ref}, **parts)


class Athlete(BrowserCase):
    def at_athlete(self, **options: Any) -> Page:
        """Three screens: sprained in March, half of it won back in August."""
        page = self.page(**options)
        self.sign_in(page)
        ref = f"NS-{uuid4().hex[:4]}"
        rolled = {"kind": "sudden", "date": "2026-03-01"}
        sprained = {"complaint": {"region": "ankle", "side": "right"}, "onset": rolled}
        for file in (
            lunge(ref, "2025-09-15", 111, 109),
            lunge(ref, "2026-03-03", 112, 62, purpose="ankle_injury", intake=sprained),
            lunge(ref, "2026-08-03", 116, 94, purpose="return_to_sport"),
        ):
            page.goto(f"{self.app.address}/people")
            self.import_record(page, file)
        page.locator("header").first.get_by_role("link", name="Ilse Varga").click()
        page.wait_for_url("**/athletes/*")
        return page

    def test_a_line_a_side_read_value_by_value_with_the_arrow_keys(self) -> None:
        page = self.at_athlete()
        over = page.get_by_label("Over time")
        expect(over.locator(".lane-right").filter(has_text="15 mm less")).to_contain_text("for the worse")
        expect(over.locator(".lane-left").filter(has_text="Nothing moved")).to_be_visible()
        line = page.get_by_role("slider", name="Knee to wall, distance, right")
        line.focus()
        expect(line).to_have_attribute("aria-valuetext", "3 Aug 2026, 94 mm, beyond error of the first")
        page.keyboard.press("ArrowLeft")
        expect(page.get_by_role("status").filter(has_text="3 Mar 2026, 62 mm")).to_be_visible()
        for _ in range(5):
            page.keyboard.press("ArrowLeft")
        expect(line).to_have_attribute("aria-valuenow", "1")

    def test_what_happened_stands_in_its_own_lane_and_everything_in_the_table(self) -> None:
        page = self.at_athlete()
        over = page.get_by_label("Over time")
        expect(over.locator(".lane-right").first).to_contain_text("injured")
        expect(over.locator(".lane-left").first).not_to_contain_text("injured")
        page.get_by_role("button", name="All 1 measures, as a table").click()
        row = page.get_by_role("row").filter(has_text="right")
        expect(row).to_contain_text("15 Sept 2025: 109 mm; 3 Mar 2026: 62 mm; 3 Aug 2026: 94 mm")

    def test_flags_now_are_the_newest_screens_and_lead_to_it(self) -> None:
        page = self.at_athlete()
        flags = page.get_by_label("Flags now")
        expect(flags).to_contain_text("Ankle dorsiflexion less")
        expect(flags.locator(".lane-right").filter(has_text="sooner")).to_be_visible()
        flags.get_by_role("link", name="3 Aug 2026, return to sport").click()
        page.wait_for_url("**/reading")

    def test_every_purpose_begins_from_here(self) -> None:
        page = self.at_athlete(has_touch=True)
        page.set_viewport_size({"width": 390, "height": 844})
        page.get_by_role("button", name="Something hurts…").tap()
        page.get_by_role("button", name="Ankle, lower leg").tap()
        page.wait_for_url("**/story")

    def test_nobody_screened_says_that_nothing_is_known(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.goto(f"{self.app.address}/athletes/{self.athletes['Tuva Lind']}")
        expect(page.get_by_label("Flags now")).to_contain_text("nothing is known of either side")
        expect(page.get_by_label("Dates and screens")).to_contain_text("None yet.")
