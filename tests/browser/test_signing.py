"""Before and after the signature: arranging and taking back, what is open, what an amendment changed."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from playwright.sync_api import Locator, Page, expect

from tests.support.browser import PASSWORD, BrowserCase
from tests.support.records import record


class Signing(BrowserCase):
    def chest(self) -> dict[str, Any]:
        """Somebody who must not wait, and a plan with one test open."""
        return record(
            [
                {"test": "ankle.lunge", "side": side, "values": {"distance": 110}}
                for side in ("left", "right")
            ],
            id=str(uuid4()),
            athlete={"ref": "NS-950", "birth_date": "1999-02-03"},
            intake={"red_flags": ["breathless_or_chest_pain"], "asked": ["saddle_numbness"]},
            planned=["ankle.lunge", "hip.squat", "ankle.heel_rise"],
        )

    def at_reading(self, login: str = "jonas") -> Page:
        page = self.page()
        self.sign_in(page, login)
        self.import_record(page, self.chest())
        return page

    def bar(self, page: Page) -> Locator:
        return page.get_by_role("alert")

    def arrange(self, page: Page, way: str, **fields: str) -> None:
        self.bar(page).get_by_role("button", name="Arrange…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name=way, exact=True).click()
        for label, value in fields.items():
            dialog.get_by_label(label).fill(value)
        dialog.get_by_role("button", name="Keep").click()
        expect(dialog).to_have_count(0)

    def sign(self, page: Page) -> None:
        page.get_by_role("button", name="Sign", exact=True).click()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()

    def test_arranged_by_whom_and_when_and_taken_back(self) -> None:
        page = self.at_reading()
        expect(self.bar(page)).to_contain_text("call the emergency number")
        self.arrange(
            page,
            "Arranged",
            **{"Who sees to it": "ambulance", "At (if known)": "10:15", "How": "with the trainer"},
        )
        expect(self.bar(page)).to_have_count(0)
        todo = page.get_by_label("What is to be done")
        expect(todo).to_contain_text("ambulance on")
        expect(todo).to_contain_text("10:15: with the trainer")
        page.reload()
        todo.get_by_role("button", name="undo").click()
        expect(self.bar(page)).to_be_visible()

    def test_what_is_refused_is_said_at_its_field_and_nothing_is_lost(self) -> None:
        page = self.at_reading()
        self.bar(page).get_by_role("button", name="Arrange…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="Look again").click()
        dialog.get_by_label("From").fill("2026-12-10")
        dialog.get_by_label("To", exact=True).fill("2026-12-01")
        dialog.get_by_label("How").fill("after the antibiotics")
        dialog.get_by_role("button", name="Keep").click()
        expect(dialog).to_contain_text("is before the first day")
        expect(dialog.get_by_label("How")).to_have_value("after the antibiotics")

    def test_nothing_is_signed_over_in_silence(self) -> None:
        page = self.at_reading()
        expect(page.get_by_text("1 of 3 begun")).to_be_visible()
        page.get_by_role("button", name="Sign", exact=True).click()
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("Squat · Heel rise")
        dialog.get_by_label("Why these are not done").fill("sent away at once")
        dialog.get_by_label("why it is not arranged").fill("left before anybody could call")
        dialog.get_by_role("button", name="Keep the reasons").click()
        page.get_by_label("Your password").fill(PASSWORD)
        dialog.get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()
        # It is signed, and still nobody has it in hand.
        expect(self.bar(page)).to_contain_text("left before anybody could call")
        self.arrange(page, "Arranged", **{"Who sees to it": "her doctor"})
        expect(self.bar(page)).to_have_count(0)

    def test_an_assistant_sees_that_it_is_open_and_cannot_close_it(self) -> None:
        key = str(uuid4())
        owner = self.page()
        self.sign_in(owner)
        self.import_record(owner, {**self.chest(), "id": key})
        page = self.page()
        self.sign_in(page, "maren")
        page.goto(f"{self.app.address}/screens/{key}/reading")
        expect(self.bar(page)).to_contain_text("Tell a practitioner")
        expect(page.get_by_role("button", name="Arrange…")).to_have_count(0)
        expect(page.get_by_role("button", name="Sign", exact=True)).to_have_count(0)

    def test_an_amendment_is_marked_where_it_changed_the_reading(self) -> None:
        page = self.at_bench()
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.examine_standing(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        expect(page.get_by_role("region", name="Hip flexors short")).to_be_visible()
        self.sign(page)
        page.get_by_role("link", name="Bench").click()
        self.open_stop(page, "Modified Thomas test")
        page.get_by_label("Thigh, hanging, left").fill("-9")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_role("link", name="Reading").click()
        late = page.get_by_label("Arrived after signing")
        late.get_by_label("Why the signed screen is amended").fill("read the dial again")
        late.get_by_label("Your password").fill(PASSWORD)
        late.get_by_role("button", name="Amend with these").click()
        page.get_by_role("link", name="Amended: read the dial again").click()
        gone = page.get_by_label("No longer flagged")
        expect(gone).to_contain_text("by what was recorded")
        page.get_by_role("link", name="Signed", exact=True).click()
        expect(page.get_by_label("No longer flagged")).to_have_count(0)

    def test_how_much_each_test_can_say_with_a_starting_probability(self) -> None:
        page = self.page()
        self.sign_in(page)
        painless = {"pain": {"present": False}, "values": {"result": "negative"}}
        fadir = {"test": "hip.fadir", "side": "left", **painless}
        self.import_record(page, record([fadir], id=str(uuid4()), athlete={"ref": "NS-951"}))
        page.get_by_role("button", name="How much each test can say").click()
        says = page.get_by_label("How much each test can say")
        expect(says.locator(".lane-left").first).to_contain_text("Reiman 2015")
        expect(says.locator(".lane-right").first).to_contain_text("no sign with a figure")
        start = says.get_by_label("Starting probability")
        start.fill("100")
        expect(says).to_contain_text("Between 0 and 100")
        start.fill("40")
        expect(says.locator(".lane-left").first).to_contain_text("40 % →")
