"""Day: where one begins, what cannot wait, and each thing one tap from where it is done."""

from __future__ import annotations

import datetime as dt
import json
from typing import Any
from uuid import uuid4
from zoneinfo import ZoneInfo

from playwright.sync_api import FilePayload, Locator, Page, expect

from tests.support.browser import PASSWORD, BrowserCase
from tests.support.records import record


def ago(days: int) -> str:
    return (dt.datetime.now(ZoneInfo("Europe/Helsinki")).date() - dt.timedelta(days=days)).isoformat()


def early_ankle() -> dict[str, Any]:
    """Looked at on the second day: ligaments again from the fourth to the seventh, which is now."""
    drawer = {"test": "ankle.anterior_drawer", "values": {"laxity": 2, "end_feel": "soft"}}
    return record(
        [
            {**drawer, "side": "right"},
            {**drawer, "side": "left", "values": {"laxity": 0, "end_feel": "firm"}},
        ],
        id=str(uuid4()),
        date=ago(3),
        purpose="ankle_injury",
        athlete={"ref": f"NS-{uuid4().hex[:4]}"},
        intake={
            "complaint": {"region": "ankle", "side": "right", "sites": ["anterolateral"]},
            "onset": {"date": ago(5), "kind": "sudden", "mechanism": "inversion"},
        },
        overrides=[{"gate": "fracture_doubt", "side": "right", "reason": "X-ray clear", "by": "K. Aalto"}],
    )


def chest() -> dict[str, Any]:
    return record(
        [],
        id=str(uuid4()),
        date=ago(0),
        athlete={"ref": f"NS-{uuid4().hex[:4]}"},
        intake={"red_flags": ["breathless_or_chest_pain"]},
    )


class EmptyDay(BrowserCase):
    def test_one_begins_at_day_and_an_empty_one_says_what_to_do_first(self) -> None:
        page = self.page()
        page.goto(self.app.address)
        page.get_by_label("Name you sign in with").fill("jonas")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.wait_for_url("**/day")
        expect(page.get_by_role("heading", level=1)).to_contain_text("Choose who comes")
        page.get_by_role("link", name="Choose an athlete").click()
        page.wait_for_url("**/people")


class Day(BrowserCase):
    def taken_in(self, page: Page, file: dict[str, Any], name: str) -> None:
        """One athlete a test, so that each finds its own."""
        content = json.dumps(file).encode()
        payload = FilePayload(name="screen.json", mimeType="application/json", buffer=content)
        self.import_file(page, payload, name)
        expect(page.get_by_role("heading", name=f"Reading of {name}")).to_be_attached()

    def row(self, page: Page, name: str) -> Locator:
        runs = page.get_by_label("Runs out, soonest first")
        return runs.locator("[class*='_run_']").filter(has_text=name)

    def day(self, page: Page) -> None:
        page.get_by_label("Places", exact=True).get_by_role("link", name="Day").click()
        expect(page.get_by_role("heading", level=1)).to_be_visible()

    def test_what_cannot_wait_is_seen_from_everywhere_and_arranged_from_the_day(self) -> None:
        page = self.page()
        self.sign_in(page)
        places = page.get_by_label("Places", exact=True)
        expect(places).not_to_contain_text("cannot wait")
        self.taken_in(page, chest(), "Tuva Holm")
        page.goto(f"{self.app.address}/people")
        expect(places).to_contain_text("1 cannot wait")
        self.day(page)
        bar = page.get_by_role("alert").filter(has_text="Tuva Holm")
        expect(bar).to_contain_text("call the emergency number")
        expect(bar).to_contain_text("Found today.")
        bar.get_by_role("button", name="Arrange…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Who sees to it").fill("ambulance")
        dialog.get_by_role("button", name="Keep").click()
        expect(bar).to_have_count(0)
        expect(places).not_to_contain_text("cannot wait")
        today = page.get_by_label("Today", exact=True)
        expect(today).to_contain_text("ambulance")

    def test_a_second_look_in_its_days_is_one_tap_from_its_story(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.taken_in(page, early_ankle(), "Sanna Vik")
        page.goto(f"{self.app.address}/day")
        row = self.row(page, "Sanna Vik")
        expect(row).to_contain_text("Ligaments again, when the swelling is down.")
        expect(row).to_contain_text("open, 2 days left")
        row.get_by_role("button", name="Begin").click()
        page.wait_for_url("**/story")
        expect(page.locator("header").first).to_contain_text("follow-up")

    def test_a_referral_is_booked_and_the_strip_says_so(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.taken_in(page, early_ankle(), "Elias Rost")
        page.goto(f"{self.app.address}/day")
        row = self.row(page, "Elias Rost")
        row.get_by_role("button", name="Book…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("At (if known)").fill("10:15")
        dialog.get_by_role("button", name="Keep").click()
        expect(row).to_contain_text("booked today")
        expect(page.get_by_label("Today", exact=True)).to_contain_text("10:15")
        expect(row.get_by_role("button", name="Change…")).to_be_visible()

    def test_with_the_server_gone_the_day_stays_and_says_how_old_it_is(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.taken_in(page, early_ankle(), "Liv Aune")
        page.goto(f"{self.app.address}/day")
        row = self.row(page, "Liv Aune")
        expect(row).to_contain_text("Ligaments again")
        self.app.kill()
        try:
            page.get_by_label("Places", exact=True).get_by_role("link", name="People").click()
            self.day(page)
            expect(page.get_by_text("This is the day as it was last known.")).to_be_visible()
            expect(row).to_contain_text("Ligaments again")
        finally:
            self.app.start()

    def test_held_in_one_hand_the_places_lie_under_the_thumb_and_the_rest_behind_the_mark(self) -> None:
        page = self.page(has_touch=True)
        page.set_viewport_size({"width": 390, "height": 844})
        self.sign_in(page)
        page.get_by_label("Places at the foot").get_by_role("link", name="Day").tap()
        page.wait_for_url("**/day")
        open_ones = page.get_by_label("Open on the couch").get_by_role("link")
        expect(open_ones.first).to_be_visible()
        page.get_by_role("button", name="Places and more").tap()
        menu = page.get_by_label("All places")
        expect(menu).to_be_visible()
        page.get_by_label("Also open").get_by_role("link").first.tap()
        expect(menu).to_have_count(0)
        expect(page.get_by_label("Path of this screen")).to_be_visible()
