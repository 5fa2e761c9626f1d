"""The route in the browser: chosen, ordered, kept, held; what the story changes is offered."""

from __future__ import annotations

import re
from uuid import uuid4

from playwright.sync_api import Page, expect

from northstride.core.catalogue import default_catalogue
from northstride.store.readings.routes import keep_route
from tests.support.route_case import TESTS, RouteCase
from tests.support.telling import begin
from tests.support.waiting import frame, still


def code_of(name: str) -> str:
    return next(code for code, test in TESTS.items() if test.name == name)


class Chosen(RouteCase):
    def test_a_stop_is_added_by_any_name_and_left_out_with_its_reason(self) -> None:
        page = self.page()
        self.at_route(page)
        proposed = self.names(page)
        page.get_by_label("Add a stop, by any name").fill("calf rais")
        page.get_by_role("button", name="Add:").first.click()
        expect(self.stops(page).filter(has_text="Heel rise")).to_be_visible()
        self.assertEqual(set(self.planned(page)), {*proposed, "Heel rise"})
        self.in_hand(page, "Heel rise")
        page.get_by_role("button", name="Leave out: Heel rise").click()
        page.get_by_role("button", name="too sore").click()
        left = page.get_by_label("Left out")
        expect(left).to_contain_text("too sore")
        out = self.told(page)["left_out"]
        self.assertEqual([(item["test"], item["reason"]) for item in out], [("ankle.heel_rise", "too sore")])
        self.assertTrue(out[0]["by"])
        self.assertEqual(set(self.planned(page)), set(proposed))
        left.get_by_role("button", name="Put back: Heel rise").click()
        expect(self.stops(page).filter(has_text="Heel rise")).to_be_visible()
        expect(page.get_by_label("Left out")).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_label("Left out")).to_contain_text("too sore")

    def test_a_reason_half_written_survives_a_reload(self) -> None:
        page = self.page()
        self.at_route(page)
        name = self.names(page)[0]
        self.in_hand(page, name)
        page.get_by_role("button", name=f"Leave out: {name}").click()
        page.get_by_label("Another reason").fill("seen on")
        page.reload()
        self.in_hand(page, name)
        expect(page.get_by_label("Another reason")).to_have_value("seen on")

    def test_the_clinics_own_route_is_kept_used_and_hides_why_until_a_stop_is_done(self) -> None:
        page = self.page()
        self.at_route(page, "Teaching")
        for name in self.names(page)[:1]:
            self.in_hand(page, name)
        page.get_by_role("button", name="Keep as our route").click()
        page.get_by_label("Name of the route").fill("First year")
        page.get_by_label("For learning").check()
        page.get_by_role("button", name="Keep", exact=True).click()
        own = page.get_by_label("Our routes")
        expect(own).to_contain_text("First year")
        page.goto(f"{self.app.address}/people")
        begin(page, "Tuva Lind", "Teaching")
        page.get_by_label("Path of this screen").get_by_role("link", name="Route").click()
        page.get_by_role("button", name="Use: First year").click()
        way = page.get_by_label("The way through")
        expect(way.get_by_text("why comes after").first).to_be_visible()
        expect(way).not_to_contain_text("for learning")
        page.get_by_role("button", name="Retire: First year").click()
        expect(own).not_to_contain_text("First year")

    def test_a_short_route_replaces_what_was_planned(self) -> None:
        with self.engine.begin() as db:
            keep_route(
                db,
                self.actor,
                default_catalogue(),
                uuid4(),
                purpose="hip_complaint",
                name="Two",
                tests=["hip.fadir", "hip.gait"],
                reasons_after=False,
            )
        page = self.page()
        self.at_route(page)
        page.get_by_role("button", name="Begin:").click()
        page.wait_for_url("**/bench/**")
        page.get_by_label("Path of this screen").get_by_role("link", name="Route").click()
        page.get_by_role("button", name="Use: Two").click()
        expect(self.stops(page)).to_have_count(2)
        self.assertEqual(self.planned(page), [TESTS["hip.fadir"].name, TESTS["hip.gait"].name])


class Ordered(RouteCase):
    def test_by_buttons_within_safety(self) -> None:
        page = self.page()
        self.at_route(page, "Ankle, lower leg")
        before = self.names(page)
        self.in_hand(page, before[0])
        expect(page.get_by_text("A danger check: it stays before everything else.")).to_be_visible()
        expect(page.get_by_role("button", name=f"Earlier: {before[0]}")).to_be_disabled()
        fifth = before[4]
        self.in_hand(page, fifth)
        expect(page.get_by_role("button", name=f"Earlier: {fifth}")).to_be_disabled()
        page.get_by_role("button", name=f"Later: {fifth}").click()
        expect(self.stops(page).nth(5)).to_have_text(fifth)
        self.assertEqual(self.planned(page), self.names(page))

    def test_by_keys(self) -> None:
        page = self.page()
        self.at_route(page)
        before = self.names(page)
        at = self.first_free(page)
        page.get_by_role("button", name=f"Carry {before[at]}").focus()
        told = page.locator("[id^='DndLiveRegion']")
        page.keyboard.press("Space")
        expect(told).to_contain_text(f"raggable item {code_of(before[at])}")
        frame(page)
        page.keyboard.press("ArrowDown")
        expect(told).to_contain_text(f"was moved over droppable area {code_of(before[at + 1])}")
        page.keyboard.press("Space")
        expect(self.stops(page).nth(at)).to_have_text(before[at + 1])
        self.assertEqual(self.planned(page)[at + 1], before[at])

    def test_by_mouse_and_by_touch(self) -> None:
        page = self.page()
        self.at_route(page)
        before = self.names(page)
        at = self.first_free(page)
        self.carry(page, before[at], before[at + 2])
        expect(self.stops(page).nth(at + 2)).to_have_text(before[at])
        self.assertEqual(self.planned(page)[at + 2], before[at])
        # A danger check stays where it is, and nothing goes before it.
        order = self.names(page)
        self.carry(page, order[at], order[0])
        self.assertEqual(self.planned(page), order)
        touched = self.page(has_touch=True)
        self.sign_in(touched)
        touched.goto(page.url)
        expect(self.stops(touched).first).to_be_visible()
        self.carry_by_finger(touched, order[at], order[at + 1])
        expect(self.stops(touched).nth(at)).to_have_text(order[at + 1])

    def first_free(self, page: Page) -> int:
        """Where the first stop stands that is no danger check."""
        return page.get_by_label("The way through").locator("li[data-safety]").count()

    @staticmethod
    def bead(page: Page, name: str) -> tuple[float, float]:
        own = re.compile(rf"^\d+\. Carry {re.escape(name)}$")
        box = page.get_by_role("button", name=own).bounding_box()
        assert box is not None
        return box["x"] + 22, box["y"] + 22

    def carry(self, page: Page, name: str, to: str) -> None:
        here, there = self.bead(page, name), self.bead(page, to)
        page.mouse.move(*here)
        page.mouse.down()
        page.mouse.move(there[0], there[1] + 4, steps=12)
        told = page.locator("[id^='DndLiveRegion']")
        expect(told).to_contain_text(f"was moved over droppable area {code_of(to)}")
        page.mouse.up()
        expect(told).to_contain_text("was dropped")
        still(page)

    def carry_by_finger(self, page: Page, name: str, to: str) -> None:
        """A finger that rests before it moves carries; one that moves at once scrolls."""
        (x, y), (_, end) = self.bead(page, name), self.bead(page, to)
        hand = page.context.new_cdp_session(page)

        def at(height: float) -> list[dict[str, float]]:
            return [{"x": x, "y": height}]

        hand.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": at(y)})
        expect(page.locator("[id^='DndLiveRegion']")).to_contain_text(f"raggable item {code_of(name)}")
        for step in range(1, 9):
            points = at(y + (end + 6 - y) * step / 8)
            hand.send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": points})
            frame(page)
        hand.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})

    def test_sitting_first_turns_it_round(self) -> None:
        page = self.page()
        self.at_route(page, "Teaching")
        legs = page.get_by_label("The way through").locator("section[aria-label]")
        expect(legs.first).to_have_attribute("aria-label", "Standing")
        page.get_by_role("button", name="sitting first").click()
        expect(page.get_by_role("button", name="sitting first")).to_have_attribute("aria-pressed", "true")
        self.assertEqual(self.told(page)["schools"], {"start": "sitting"})

    def test_the_bench_walks_it_in_its_order_and_side_lying_is_two_positions(self) -> None:
        page = self.page()
        self.at_route(page)
        page.get_by_label("Add a stop, by any name").fill("posterior impingement")
        page.get_by_role("button", name="Add:").first.click()
        expect(self.stops(page).filter(has_text="Posterior impingement").first).to_be_visible()
        self.saved(page)
        visits = self.stops(page).all_inner_texts()
        page.get_by_role("button", name="Begin:").click()
        page.wait_for_url("**/bench/**")
        rail = page.get_by_label("Route")
        expect(rail.get_by_role("link")).to_have_count(len(visits))
        walked = [name.strip() for name in rail.get_by_role("link").all_inner_texts()]
        self.assertEqual(walked, visits)
        expect(rail).to_contain_text(f"0 of {len(visits)}")
        expect(rail).to_contain_text("minutes left")
        for name in visits[:3]:
            expect(page.locator("[class*='bench-title'] h1")).to_have_text(name)
            page.keyboard.press("Alt+PageDown")

    def test_each_side_of_a_side_lying_test_is_asked_at_its_own_stop(self) -> None:
        lying = next(code for code, test in TESTS.items() if test.position == "side_lying" and test.measures)
        page = self.page()
        self.at_route(page)
        page.get_by_label("Add a stop, by any name").fill(TESTS[lying].name)
        page.get_by_role("button", name=f"Add: {TESTS[lying].name}").click()
        self.saved(page)
        page.goto(f"{self.app.address}/screens/{self.screen_id(page)}/bench/{lying}?side=left")
        rail = page.get_by_label("Route")
        expect(rail.get_by_role("heading", name="Side-lying, left")).to_be_visible()
        expect(rail.get_by_role("heading", name="Side-lying, right")).to_be_visible()
        bar = page.locator("[class*='ask-bar']")
        expect(bar).to_contain_text("LEFT")
        own = rail.get_by_role("link", name=TESTS[lying].name)
        expect(own).to_have_count(2)
        rail.locator("a[href$='side=right']").filter(has_text=TESTS[lying].name).click()
        page.wait_for_url("**side=right")
        expect(bar).to_contain_text("RIGHT")
