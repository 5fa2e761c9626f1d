"""The tools of the bench: seen, pain, note, not done, history, wrong side, undo, and late answers."""

from __future__ import annotations

from playwright.sync_api import expect

from tests.support.browser import PASSWORD, BrowserCase


class Tools(BrowserCase):
    def test_wrong_side_undo_and_history(self) -> None:
        page = self.at_bench()
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_label("Thigh, hanging, left").focus()
        page.get_by_role("button", name="More, left").click()
        page.get_by_role("button", name="Wrong side: move +8° to the right").click()
        expect(page.get_by_label("Thigh, hanging, right")).to_have_value("+8")
        self.saved(page)
        self.assertEqual(self.values(page).get("right"), {"thigh_angle": 8})
        page.keyboard.press("Alt+z")
        expect(page.get_by_label("Thigh, hanging, left")).to_have_value("+8")
        self.saved(page)
        self.assertEqual(self.values(page)["left"], {"thigh_angle": 8})
        page.get_by_role("button", name="More, left").click()
        history = page.get_by_role("list", name="What was written here, newest first")
        expect(history.get_by_role("listitem")).to_have_count(3)
        expect(history.get_by_role("listitem").nth(1)).to_contain_text("cleared")
        expect(history).to_contain_text("Jonas")

    def test_what_is_typed_stands_in_the_place_of_several_trials_and_adds_to_none(self) -> None:
        page = self.at_bench()
        left = page.get_by_label("Thigh, hanging, left")
        page.keyboard.type("8 9")
        page.keyboard.press("Enter")
        expect(left).to_have_value("+8.5")
        page.keyboard.press("Tab")
        left.focus()
        expect(left).to_have_value("8 9")
        page.keyboard.type("5")
        expect(left).to_have_value("5")
        page.keyboard.press("Enter")
        self.saved(page)
        self.assertEqual(self.values(page)["left"], {"thigh_angle": 5})

    def test_a_key_pressed_the_moment_the_next_test_stands_there_is_heard(self) -> None:
        page = self.at_bench()
        page.evaluate(
            """() => {
                const title = () => document.querySelector("h1").textContent;
                const before = title();
                new MutationObserver((_, seen) => {
                    if (title() === before) return;
                    seen.disconnect();
                    window.dispatchEvent(new KeyboardEvent("keydown", { key: "r", altKey: true }));
                }).observe(document.body, { subtree: true, childList: true, characterData: true });
            }"""
        )
        page.get_by_label("Route").get_by_role("link").nth(2).click()
        expect(page.get_by_role("dialog", name="Rest as expected")).to_be_visible()

    def test_pain_opens_only_what_it_needs(self) -> None:
        page = self.at_bench()
        page.get_by_role("button", name="Pain?, left").click()
        card = page.get_by_role("dialog", name="pain, left")
        expect(card.get_by_role("button", name="Groin", exact=True)).to_have_count(0)
        card.get_by_role("button", name="Hurts").click()
        card.get_by_role("button", name="4", exact=True).click()
        card.get_by_role("button", name="Groin", exact=True).click()
        card.get_by_role("button", name="Yes").click()
        page.keyboard.press("Escape")
        expect(page.get_by_role("button", name="Hurts 4, left")).to_be_focused()
        self.saved(page)
        self.assertEqual(
            self.entry(page, "left")["pain"],
            {"present": True, "nrs": 4, "site": "groin", "familiar": True},
        )

    def test_a_note_outlives_a_reload_while_it_is_written(self) -> None:
        page = self.at_bench()
        page.get_by_role("button", name="Note, right").click()
        page.get_by_role("textbox", name="Note").fill("lost the hug")
        page.reload()
        page.get_by_role("button", name="Note, right").click()
        expect(page.get_by_role("textbox", name="Note")).to_have_value("lost the hug")
        page.get_by_role("button", name="Keep note").click()
        self.saved(page)
        self.assertEqual(self.entry(page, "right")["note"], "lost the hug")

    def test_not_done_with_a_reason_makes_the_screen_complete(self) -> None:
        page = self.at_bench()
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_role("link", name="4 stops open")).to_be_visible()
        page.get_by_role("link", name="Bench").click()
        for name in ("Gait", "Knee to wall", "Squat", "Modified Thomas test"):
            self.open_stop(page, name)
            page.get_by_role("button", name="Not done, left").click()
            page.get_by_role("button", name="too sore").click()
            self.saved(page)
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_label("Reading", exact=True)).to_contain_text("not done: too sore")
        expect(page.get_by_text("0 of 4 begun, 4 not done with a reason")).to_be_visible()

    def test_seen_shows_at_once_what_it_spoils(self) -> None:
        page = self.at_bench()
        page.keyboard.type("-4")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Low back arches").first.click()
        expect(page.get_by_label("Reads as so far")).to_contain_text("The low back was not flat")
        page.get_by_role("button", name="Low back arches").first.click()
        expect(page.get_by_label("Reads as so far")).not_to_contain_text("The low back was not flat")
        self.saved(page)
        self.assertNotIn("seen", self.entry(page, "left"))

    def test_the_figure_moves_with_the_number(self) -> None:
        page = self.at_bench()
        left = page.locator("[class*='figure-lane']").first
        still = left.inner_html()
        page.keyboard.type("20")
        expect(left.locator(".figure-arm")).to_have_count(1)
        self.assertNotEqual(left.inner_html(), still)

    def test_what_comes_after_signing_waits_for_an_amendment(self) -> None:
        page = self.at_bench()
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.examine_standing(page)
        page.get_by_role("link", name="Reading").click()
        page.get_by_role("button", name="Sign", exact=True).click()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()
        page.get_by_role("link", name="Bench").click()
        expect(page.get_by_text("This screen is signed.")).to_be_visible()
        self.open_stop(page, "Modified Thomas test")
        page.get_by_label("Thigh, hanging, left").fill("3")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_role("link", name="Reading").click()
        late = page.get_by_label("Arrived after signing")
        expect(late).to_contain_text("left Thigh, hanging: +3°")
        late.get_by_label("Why the signed screen is amended").fill("read the dial again")
        late.get_by_label("Your password").fill(PASSWORD)
        late.get_by_role("button", name="Amend with these").click()
        expect(page.get_by_label("All signatures")).to_contain_text("Amended: read the dial again")
        self.assertEqual(self.values(page)["left"], {"thigh_angle": 3})

    def test_every_other_key_of_the_map(self) -> None:
        page = self.at_bench()
        page.keyboard.press("Alt+s")
        expect(page.get_by_label("Thigh, hanging, right")).to_be_focused()
        page.keyboard.press("PageDown")
        expect(page.get_by_label("Thigh, knee straight, left")).to_be_focused()
        page.keyboard.press("PageUp")
        expect(page.get_by_label("Thigh, hanging, left")).to_be_focused()
        page.keyboard.press("F1")
        expect(page.get_by_role("dialog")).to_contain_text("Undo the last action")
        page.keyboard.press("Escape")
        page.keyboard.press("Alt+PageDown")
        page.wait_for_url("**/reading")

    def test_an_ordinary_test_does_not_scroll(self) -> None:
        page = self.at_bench()
        for value in ("20 21 20", "-4", "60", "95", "12", "-6", "17", "1", "12", "-1", "4", "20"):
            page.keyboard.type(value)
            page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_role("button", name="1 Hanging").click()
        for step in range(4):
            middle = page.locator("[class*='bench-middle']")
            whole, shown = (middle.evaluate(f"node => node.{name}Height") for name in ("scroll", "client"))
            self.assertLessEqual(whole, shown, f"step {step}")
            page.keyboard.press("PageDown")
