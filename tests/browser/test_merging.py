"""Somebody who stands twice: shown side by side, brought together, parted again."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.support.browser import PASSWORD, BrowserCase


class Merging(BrowserCase):
    def at_athlete(self, login: str) -> Page:
        page = self.page()
        self.sign_in(page, login)
        page.get_by_label("Athletes").get_by_role("button", name="Ilse Varga").click()
        expect(page.get_by_role("heading", name="Ilse Varga")).to_be_visible()
        return page

    def test_by_an_owner_with_both_shown_and_back_again(self) -> None:
        page = self.at_athlete("aino")
        athletes = page.get_by_label("Athletes")
        page.get_by_role("button", name="Same person as…").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Find the second entry").fill("tuva")
        dialog.get_by_label("The same person as").select_option(label="Tuva Lind · NS-2")
        expect(dialog.get_by_role("row", name="Reference NS-0 NS-2")).to_be_visible()
        expect(dialog).to_contain_text("The names differ.")
        dialog.get_by_label("Your password").fill("a wrong password")
        dialog.get_by_role("button", name="Bring together").click()
        expect(dialog.locator(".fault").first).to_be_visible()
        expect(dialog.get_by_label("The same person as")).to_have_value(self.athletes_key("Tuva Lind"))
        expect(athletes.get_by_role("button", name="Tuva Lind")).to_have_count(1)
        dialog.get_by_label("Your password").fill(PASSWORD)
        page.keyboard.press("Enter")
        expect(dialog).to_have_count(0)
        expect(athletes.get_by_role("button", name="Tuva Lind")).to_have_count(0)
        page.get_by_role("button", name="part again… NS-2").click()
        page.get_by_role("dialog").get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Part").click()
        expect(athletes.get_by_role("button", name="Tuva Lind")).to_have_count(1)
        expect(page.get_by_role("button", name="part again")).to_have_count(0)

    def athletes_key(self, name: str) -> str:
        return str(self.athletes[name])

    def test_nobody_else_is_offered_it(self) -> None:
        page = self.at_athlete("jonas")
        expect(page.get_by_role("button", name="Edit")).to_be_visible()
        expect(page.get_by_role("button", name="Same person as…")).to_have_count(0)
