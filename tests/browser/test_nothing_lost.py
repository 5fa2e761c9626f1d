"""A dead server, a reload, an ended session, two tabs, bad input: nothing typed is lost."""

from __future__ import annotations

from playwright.sync_api import Page, expect
from sqlalchemy import text

from tests.support.browser import PASSWORD, BrowserCase
from tests.support.waiting import looked_again


class DeadServer(BrowserCase):
    def test_killed_in_the_middle_reloaded_and_back(self) -> None:
        page = self.at_bench()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.saved(page)
        self.app.kill()
        page.keyboard.type("-4")
        page.keyboard.press("Enter")
        expect(page.get_by_role("status")).to_contain_text("1 kept here, waiting for the server")
        page.keyboard.type("84")
        page.reload()
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        expect(page.get_by_text("What you typed is kept on this device")).to_be_visible()
        self.app.start()
        expect(page.get_by_label("Thigh, hanging, right")).to_have_value("−4")
        self.saved(page)
        self.assertEqual(
            self.values(page), {"left": {"thigh_angle": 8, "knee_angle": 84}, "right": {"thigh_angle": -4}}
        )

    def test_a_place_whose_code_did_not_come_is_tried_again(self) -> None:
        page = self.page(service_workers="block")
        page.route("**/assets/BenchPlace*.js", lambda route: route.abort())
        self.sign_in(page)
        page.get_by_role("button", name="Ilse Varga").click()
        page.get_by_role("button", name="Squad screen").click()
        page.get_by_role("button", name="No pain, nothing new: begin").click()
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        page.unroute("**/assets/BenchPlace*.js")
        self.open_stop(page, "Modified Thomas test")
        expect(page.get_by_label("Thigh, hanging, left")).to_be_focused()

    def test_a_place_that_cannot_be_had_leaves_the_way_to_the_others(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.get_by_role("button", name="Ilse Varga").click()
        person = page.get_by_role("link", name="Ilse Varga")
        expect(person).to_be_visible()
        self.app.kill()
        self.addCleanup(self.app.start)
        person.click()
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        page.get_by_label("Places", exact=True).get_by_role("link", name="People").click()
        expect(page.get_by_role("button", name="Ilse Varga")).to_be_visible()

    def test_no_answer_of_the_api_is_kept_by_the_browser(self) -> None:
        page = self.at_bench()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        kept = page.evaluate(
            """async () => {
              const urls = [];
              for (const name of await caches.keys())
                for (const request of await (await caches.open(name)).keys()) urls.push(request.url);
              return urls;
            }"""
        )
        self.assertGreater(len(kept), 5)
        self.assertEqual([url for url in kept if "/api/" in url], [])


class EndedSession(BrowserCase):
    def test_while_typing(self) -> None:
        page = self.at_bench()
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.saved(page)
        # Typed, and ended before the hand rests: what is typed is written after that.
        page.keyboard.type("-4")
        with self.engine.begin() as db:
            db.execute(text("UPDATE sessions SET ended_at = now()"))
        expect(page.get_by_role("heading", name="Sign in again")).to_be_visible()
        page.get_by_label("Name you sign in with").fill("jonas")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()
        self.saved(page)
        expect(page.get_by_label("Thigh, hanging, left")).to_have_value("+8")
        self.assertEqual(self.values(page), {"left": {"thigh_angle": 8}, "right": {"thigh_angle": -4}})

    def test_another_user_never_sends_the_first_ones_answers(self) -> None:
        page = self.at_bench()
        screen = self.screen_id(page)
        page.keyboard.type("8")
        with self.engine.begin() as db:
            db.execute(text("UPDATE sessions SET ended_at = now()"))
        expect(page.get_by_role("heading", name="Sign in again")).to_be_visible()
        page.get_by_label("Name you sign in with").fill("maren")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()
        expect(page.get_by_role("heading", name="Sign in again")).to_have_count(0)
        looked_again(page)
        with self.engine.connect() as db:
            query = text("SELECT count(*) FROM answers WHERE screen_id = :id AND test <> 'story'")
            self.assertEqual(db.execute(query, {"id": screen}).scalar_one(), 0)
        self.sign_out(page)
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        with page.expect_response("**/answers"):
            self.sign_in(page)
        with self.engine.connect() as db:
            row = db.execute(
                text("SELECT value, by_name FROM answers WHERE screen_id = :id AND test <> 'story'"),
                {"id": screen},
            ).one()
        self.assertEqual(tuple(row), (8, "Jonas"))


class TwoTabs(BrowserCase):
    def test_on_one_screen_both_see_all_of_it(self) -> None:
        first = self.at_bench()
        second = first.context.new_page()
        self.watch(second)
        second.goto(first.url)
        expect(second.get_by_label("Thigh, hanging, left")).to_be_focused()
        first.keyboard.type("8")
        first.keyboard.press("Enter")
        second.get_by_label("Knee bend, right").fill("95")
        second.keyboard.press("Tab")
        expect(second.get_by_label("Thigh, hanging, left")).to_have_value("+8")
        expect(first.get_by_label("Knee bend, right")).to_have_value("95")
        self.saved(first)
        self.saved(second)
        self.assertEqual(self.values(first), {"left": {"thigh_angle": 8}, "right": {"knee_angle": 95}})


class BadInput(BrowserCase):
    def test_clear_words_at_the_field_and_nothing_lost(self) -> None:
        page = self.at_bench()
        field = page.get_by_label("Thigh, hanging, left")
        for typed, says in (
            ("999", "999 is outside −40 to 90"),
            ("172", "read on a 180-at-neutral dial it is 8°"),
            ("abc", "“abc” is not a number"),
            ("-", "A number is missing after −."),
        ):
            field.fill(typed)
            expect(page.get_by_role("alert")).to_contain_text(says)
            field.press("Enter")
            expect(field).to_have_value(typed)
            expect(page.get_by_role("status")).to_contain_text("not saved: thigh angle, left")
            page.reload()
            expect(field).to_have_value(typed)
        self.assertEqual(self.values(page), {})
        field.fill("")
        field.press("Enter")
        expect(page.get_by_role("alert")).to_have_count(0)
        expect(page.get_by_label("Thigh, hanging, right")).to_be_focused()

    def test_a_raw_dial_reading_on_the_right_and_on_the_wrong_scale(self) -> None:
        page = self.at_bench()
        field = page.get_by_label("Thigh, hanging, left")
        page.get_by_label("How Thigh, hanging is read").select_option("zero_neutral")
        field.fill("172")
        expect(page.get_by_role("alert")).to_contain_text("172 on this dial would be 172°")
        page.get_by_label("How Thigh, hanging is read").select_option("one_eighty_neutral")
        field.fill("172 171")
        expect(page.get_by_role("alert")).to_have_count(0)
        page.get_by_role("group", name="Which way, left").get_by_text("below level").click()
        field.focus()
        field.press("Enter")
        self.saved(page)
        raw = {"dial": "one_eighty_neutral", "direction": -1}
        self.assertEqual(
            self.values(page)["left"]["thigh_angle"], [{"reading": 172, **raw}, {"reading": 171, **raw}]
        )
        expect(field).to_have_value("−8.5")

    def test_what_the_hand_left_is_written_after_two_seconds_rest(self) -> None:
        page = self.at_bench()
        page.keyboard.type("8 ")
        self.saved_value(page, "thigh_angle", 8)
        page.keyboard.type("9")
        page.get_by_label("Knee bend, left").focus()
        self.saved(page)
        self.assertEqual(self.values(page)["left"]["thigh_angle"], [8, 9])

    def saved_value(self, page: Page, measure: str, value: object) -> None:
        page.wait_for_function(
            """async ([id, measure, value]) => {
              const screen = await (await fetch(`/api/screens/${id}`)).json();
              return screen.record.entries[0]?.values[measure] === value;
            }""",
            arg=[self.screen_id(page), measure, value],
        )
