"""What the story changes later is offered; what is held says by which gate; a follow-up goes by what was."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import expect

from tests.support.route_case import TESTS, RouteCase
from tests.support.telling import answer, begin, part


class Offered(RouteCase):
    def test_what_the_story_changes_later_is_offered_and_waits_for_a_tap(self) -> None:
        page = self.page()
        self.at_route(page)
        page.get_by_role("button", name="Begin:").click()
        page.wait_for_url("**/bench/**")
        self.saved(page)
        path = page.get_by_label("Path of this screen")
        path.get_by_role("link", name="Story").click()
        part(page, "When and how").click()
        answer(page, "Does it click?", "Yes").click()
        self.saved(page)
        planned = self.planned(page)
        path.get_by_role("link", name="Route").click()
        offered = page.get_by_label("Offered")
        name = TESTS["hip.flexion_circumduction_ir"].name
        expect(offered).to_contain_text(name)
        self.assertNotIn(name, self.names(page))
        self.assertEqual(self.planned(page), planned)
        offered.get_by_role("button", name=f"Take it in: {name}").click()
        expect(self.stops(page).filter(has_text=name)).to_be_visible()
        other = TESTS["hip.posterior_impingement"].name
        offered.get_by_role("button", name=f"Not now: {other}").click()
        expect(page.get_by_label("Left out")).to_contain_text("Not now.")
        expect(page.get_by_label("Offered")).to_have_count(0)

    def test_what_is_held_says_by_which_gate_and_what_opens_it(self) -> None:
        page = self.page()
        self.at_route(page, "Ankle, lower leg")
        gate = page.get_by_label("At the gate")
        expect(gate.locator(".lane-right")).to_contain_text("A bone is not cleared")
        expect(gate).to_contain_text("It opens when the bone questions are answered")
        expect(gate).to_contain_text("With it wait: ")
        expect(gate).to_contain_text(TESTS["ankle.anterior_drawer"].name)
        expect(page.get_by_text("waits until cleared").first).to_be_visible()
        gate.get_by_role("button", name="Open it with a reason").click()
        page.get_by_label("Why is it safe to open, right").fill("radiograph clear")
        page.get_by_role("button", name="Open on the right").click()
        expect(page.get_by_label("At the gate")).to_have_count(0)
        overrides: list[dict[str, Any]] = self.told(page)["overrides"]
        self.assertEqual(overrides[0]["reason"], "radiograph clear")

    def test_a_follow_up_is_routed_by_what_it_is_held_against(self) -> None:
        page = self.page()
        self.sign_in(page)
        begin(page, "Oskar Bremer", "Follow-up")
        screen = self.screen_id(page)
        page.goto(f"{self.app.address}/screens/{screen}/bench/ankle.lunge")
        page.get_by_label("Distance, left").fill("90")
        page.keyboard.press("Enter")
        self.saved(page)
        page.goto(f"{self.app.address}/people")
        begin(page, "Oskar Bremer", "Follow-up")
        page.get_by_label("Path of this screen").get_by_role("link", name="Route").click()
        expect(self.stops(page)).to_have_text([TESTS["ankle.lunge"].name])
        expect(page.get_by_label("The way through")).to_contain_text("Has a value of last time")
