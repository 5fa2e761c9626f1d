"""Settings: what is this device's, what the clinic settles, what a change would alter, who did what."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.support.browser import BrowserCase


class Settings(BrowserCase):
    def at(self, part: str, login: str = "aino") -> Page:
        page = self.page()
        self.sign_in(page, login)
        page.goto(f"{self.app.address}/settings/{part}")
        return page

    def test_what_is_chosen_for_a_device_stays_there(self) -> None:
        page = self.at("device", "maren")
        page.get_by_role("button", name="dim", exact=True).click()
        page.get_by_role("button", name="cm", exact=True).click()
        page.reload()
        expect(page.locator("html")).to_have_attribute("data-bs-theme", "dark")
        expect(page.get_by_role("button", name="cm", exact=True)).to_have_attribute("aria-pressed", "true")
        parts = page.get_by_label("Parts of the settings")
        expect(parts.get_by_role("link")).to_have_count(3)

    def test_a_school_says_what_it_would_alter_before_it_is_kept(self) -> None:
        page = self.page()
        self.sign_in(page, "aino")
        self.begin_screen(page)
        page.keyboard.type("-10 -10 44")
        page.keyboard.press("Enter")
        self.saved(page)
        screen = self.screen_id(page)
        page.goto(f"{self.app.address}/settings/schools")
        school = page.get_by_role("group", name="Several trials count as")
        expect(school).to_contain_text("the median forgives one that slipped")
        school.get_by_role("button", name="median").click()
        told = page.get_by_role("status").filter(has_text="would read otherwise")
        expect(told).to_contain_text("Ilse Varga")
        expect(told).to_contain_text("→ none")
        page.get_by_role("button", name="Keep, and read the open ones by it").click()
        expect(told).to_have_count(0)
        page.reload()
        expect(school.get_by_role("button", name="median")).to_have_attribute("aria-pressed", "true")
        page.goto(f"{self.app.address}/screens/{screen}/reading")
        expect(page.get_by_label("Reading", exact=True)).to_contain_text("No flags")
        page.goto(f"{self.app.address}/settings/schools")
        school.get_by_role("button", name="mean").click()
        page.get_by_role("button", name="Keep for new screens").click()
        expect(school.get_by_role("button", name="mean")).to_have_attribute("aria-pressed", "true")

    def test_only_the_owner_chooses_and_everybody_reads_why(self) -> None:
        page = self.at("schools", "jonas")
        school = page.get_by_role("group", name="Reading the hanging-leg test")
        expect(school).to_contain_text("Peeler & Anderson 2007")
        expect(school.get_by_role("button", name="pass or fail")).to_be_disabled()
        page.goto(f"{self.app.address}/settings/errors")
        row = page.get_by_role("row").filter(has_text="Modified Thomas test, thigh, hanging")
        expect(row.first).to_contain_text("°")

    def test_a_wrong_zone_is_refused_at_its_field_and_nothing_is_kept(self) -> None:
        page = self.at("clinic")
        page.get_by_label("Time zone").fill("Tarnholt")
        page.get_by_role("button", name="Keep").click()
        expect(page.get_by_text("is not a time zone such as")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Time zone")).to_have_value("Europe/Helsinki")

    def test_the_audit_of_a_screen_is_the_owners_and_says_who_did_what(self) -> None:
        page = self.page()
        self.sign_in(page, "aino")
        self.begin_screen(page)
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        page.get_by_role("link", name="Audit").click()
        rows = page.get_by_role("row")
        expect(rows.last).to_contain_text("begin screen")
        expect(rows.last).to_contain_text("Aino")
        expect(rows.filter(has_text="answer screen")).not_to_have_count(0)
        other = self.page()
        self.sign_in(other, "jonas")
        other.goto(page.url)
        expect(other.get_by_label("Audit")).to_have_count(0)
