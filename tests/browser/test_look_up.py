"""Tests: found by any name, each with its set-up, how it is read and how much it can say."""

from __future__ import annotations

from playwright.sync_api import expect

from northstride.core.catalogue import default_catalogue
from tests.support.browser import BrowserCase


class LookUp(BrowserCase):
    def test_found_by_a_ligament_and_read_with_rules_and_source(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.get_by_label("Places", exact=True).get_by_role("link", name="Tests").click()
        page.get_by_label("Any name, place or muscle").fill("atfl")
        listed = page.get_by_label("Catalogue")
        expect(listed.get_by_role("listitem")).to_have_count(3)
        listed.get_by_role("link", name="Anterior drawer").click()
        shown = page.get_by_role("article", name="Anterior drawer")
        expect(shown.get_by_role("img", name="All, left")).to_have_count(1)
        expect(shown).to_contain_text("Thumbs on the joint line.")
        reads = shown.get_by_label("How it is read")
        expect(reads.get_by_role("row").filter(has_text="2 clearly more")).to_contain_text("likely")
        expect(reads).to_contain_text("A3")
        expect(shown.get_by_label("How much it can say")).to_contain_text("van Dijk 1996")
        expect(shown.get_by_label("Watch for")).to_contain_text("A bone is not cleared")
        shown.get_by_role("button", name="Show right").click()
        expect(shown.get_by_role("img", name="right").first).to_be_visible()
        page.reload()
        expect(page.get_by_label("Any name, place or muscle")).to_have_value("atfl")
        expect(shown).to_be_visible()

    def test_nothing_found_says_what_to_try(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.goto(f"{self.app.address}/tests?find=elbow")
        expect(page.get_by_role("status")).to_contain_text("Try the place or the muscle.")
        page.goto(f"{self.app.address}/tests/no.such")
        expect(page.get_by_text("The catalogue has no such test.")).to_be_visible()

    def test_on_a_phone_the_list_and_the_test_take_turns(self) -> None:
        page = self.page(has_touch=True)
        page.set_viewport_size({"width": 390, "height": 844})
        self.sign_in(page)
        page.get_by_label("Places at the foot").get_by_role("link", name="Tests").tap()
        page.get_by_label("Region").get_by_role("button", name="foot").tap()
        page.get_by_label("Catalogue").get_by_role("link").first.tap()
        expect(page.get_by_label("Catalogue")).to_be_hidden()
        page.get_by_role("link", name="All tests").tap()
        expect(page.get_by_label("Catalogue")).to_be_visible()
        expect(page.get_by_role("button", name="foot")).to_have_attribute("aria-pressed", "true")

    def test_every_test_opens_without_a_fault(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.goto(f"{self.app.address}/tests")
        listed = page.get_by_label("Catalogue").get_by_role("listitem")
        expect(listed).to_have_count(len(default_catalogue().tests))
        for place in range(0, listed.count(), 6):
            link = listed.nth(place).get_by_role("link")
            name = link.locator("strong").inner_text()
            link.click()
            shown = page.get_by_role("article", name=name, exact=True)
            expect(shown.get_by_label("How it is read")).to_be_visible()
            expect(shown.get_by_label("How much it can say")).to_be_visible()
