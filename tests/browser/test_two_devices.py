"""Two devices on one screen: each sees the other's answers and place, and loses no key of its own."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.support.browser import BrowserCase
from tests.support.live import LiveApp

# Two seconds are asked for; a shared machine may be late.


class TwoDevices(BrowserCase):
    def second(self, first: Page, address: str | None = None, login: str = "maren") -> Page:
        """Another person's device, at the same screen."""
        page = self.page()
        page.goto(f"{address or self.app.address}/people")
        page.get_by_label("Name you sign in with").fill(login)
        page.get_by_label("Password").fill("a long enough password")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_label("Athletes")).to_be_visible()
        path = first.url.split("/screens/")[1]
        page.goto(f"{address or self.app.address}/screens/{path}")
        self.open_stop(page, "Modified Thomas test")
        return page

    def test_each_sees_the_others_answers_and_keeps_what_it_types(self) -> None:
        first = self.at_bench()
        second = self.second(first)
        second.get_by_label("Knee bend, right").fill("9")
        first.get_by_label("Thigh, hanging, left").fill("8")
        first.keyboard.press("Enter")
        left = second.get_by_label("Thigh, hanging, left")
        expect(left).to_have_value("+8")
        # What the second hand was typing stands, and the hand stays where it was.
        typed = second.get_by_label("Knee bend, right")
        expect(typed).to_have_value("9")
        expect(typed).to_be_focused()
        second.keyboard.type("5")
        second.keyboard.press("Enter")
        expect(first.get_by_label("Knee bend, right")).to_have_value("95")

    def test_each_sees_where_the_other_is(self) -> None:
        first = self.at_bench()
        second = self.second(first)
        here = first.get_by_label("Also here")
        expect(here).to_contain_text("Maren: Modified Thomas test, L")
        second.get_by_label("Thigh, hanging, right").focus()
        expect(here).to_contain_text("Maren: Modified Thomas test, R")
        mark = first.get_by_label("Route").get_by_title("Maren is here")
        expect(mark).to_have_text("M")
        second.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        expect(here).to_contain_text("Maren: reading")
        expect(second.get_by_label("Also here")).to_contain_text("Jonas: Modified Thomas test")
        second.close()
        expect(here).to_have_count(0)

    def test_a_reading_follows_what_is_examined_elsewhere(self) -> None:
        first = self.at_bench()
        second = self.second(first)
        second.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        expect(second.get_by_label("No flags")).to_be_visible()
        first.keyboard.type("18")
        first.keyboard.press("Enter")
        flag = second.get_by_role("region", name="Hip flexors short")
        expect(flag).to_be_visible()

    def test_a_phone_comes_along_by_a_code_that_works_once(self) -> None:
        tablet = self.at_bench()
        tablet.get_by_role("button", name="Places and more").click()
        tablet.get_by_role("button", name="Second device").click()
        dialog = tablet.get_by_role("dialog")
        expect(dialog.get_by_role("img", name="Code for the other device")).to_be_visible()
        address = dialog.locator(".squares-address").inner_text()
        self.assertIn("/pair#", address)
        phone = self.page(has_touch=True)
        phone.set_viewport_size({"width": 390, "height": 844})
        phone.goto(address)
        # Nobody comes in by looking: whose it is stands there, and a hand says yes.
        expect(phone.get_by_role("heading", name="Enter as Jonas, on Jonas’s device?")).to_be_visible()
        self.assertNotIn("#", phone.url)
        phone.get_by_role("button", name="Enter as Jonas").tap()
        phone.wait_for_url("**/bench")
        self.assertNotIn("#", phone.url)
        expect(phone.get_by_role("heading", level=1)).to_be_visible()
        expect(dialog).to_contain_text("It is here.")
        dialog.get_by_role("button", name="Close").click()
        expect(tablet.get_by_label("Also here")).to_contain_text("Jonas")
        other = self.page()
        other.goto(address)
        expect(other.get_by_role("alert")).to_contain_text("does not work any more")
        other.get_by_role("link", name="Sign in instead").click()
        expect(other.get_by_role("button", name="Sign in")).to_be_visible()

    def test_a_code_opens_nothing_over_somebody(self) -> None:
        tablet = self.at_bench()
        tablet.get_by_role("button", name="Places and more").click()
        tablet.get_by_role("button", name="Second device").click()
        address = tablet.get_by_role("dialog").locator(".squares-address").inner_text()
        other = self.page()
        self.sign_in(other, "maren")
        other.goto(address)
        expect(other.get_by_role("heading", name="Maren is signed in here")).to_be_visible()
        expect(other.get_by_role("button", name="Enter as Jonas")).to_have_count(0)

    def test_two_answers_stand_beside_each_other_until_somebody_chooses(self) -> None:
        first = self.at_bench()
        second = self.second(first)
        first.route("**/answers", lambda route: route.abort())
        first.get_by_label("Thigh, hanging, left").fill("8")
        first.keyboard.press("Enter")
        expect(first.get_by_role("status")).to_contain_text("waiting for the server")
        second.get_by_label("Thigh, hanging, left").fill("12")
        second.keyboard.press("Enter")
        self.saved(second)
        first.unroute("**/answers")
        for page in (first, second):
            two = page.get_by_role("region", name="Two answers to one question")
            expect(two).to_contain_text("8")
            expect(two).to_contain_text("12")
        # What was seen later holds, and nothing is signed until one is chosen.
        self.saved(first)
        expect(first.get_by_label("Thigh, hanging, left")).to_have_value("+12")
        first.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        expect(first.get_by_text("Two answers to one question: choose one above.")).to_be_visible()
        expect(first.get_by_role("button", name="Sign", exact=True)).to_be_disabled()
        first.get_by_role("button", name="Jonas").click()
        for page in (first, second):
            gone = page.get_by_role("region", name="Two answers to one question")
            expect(gone).to_have_count(0)
        expect(second.get_by_label("Thigh, hanging, left")).to_have_value("+8")
        self.assertEqual(self.values(second)["left"], {"thigh_angle": 8})

    def test_two_app_processes_serve_the_two_devices(self) -> None:
        first = self.at_bench()
        with LiveApp(self.url) as other:
            second = self.second(first, other.address)
            first.keyboard.type("8")
            first.keyboard.press("Enter")
            expect(second.get_by_label("Thigh, hanging, left")).to_have_value("+8")
            expect(second.get_by_label("Also here")).to_contain_text("Jonas")
