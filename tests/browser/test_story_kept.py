"""The story through a reload, a dead server, an ended session, a signature, and two hands at once."""

from __future__ import annotations

from playwright.sync_api import Route, expect
from sqlalchemy import text

from tests.support.browser import PASSWORD
from tests.support.story_case import StoryCase
from tests.support.telling import answer, door, part, point, score

BREATH = "Short of breath, or pain in the chest?"


class Signed(StoryCase):
    def test_what_is_told_after_signing_waits_for_an_amendment_and_says_so(self) -> None:
        page = self.at_story("Hip, groin, thigh")
        screen = self.screen_id(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        page.get_by_role("button", name="Sign", exact=True).click()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()
        page.goto(f"{self.app.address}/screens/{screen}/story/danger")
        expect(page.get_by_text("waits for an amendment")).to_be_visible()
        answer(page, "Weight lost without wanting to?", "Yes").click()
        self.saved(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Reading").click()
        late = page.get_by_label("Arrived after signing")
        expect(late).to_contain_text("Weight lost without wanting to? yes")
        late.get_by_label("Why the signed screen is amended").fill("told on the way out")
        late.get_by_label("Your password").fill(PASSWORD)
        late.get_by_role("button", name="Amend with these").click()
        expect(page.get_by_label("Reading", exact=True)).to_contain_text("Signs of illness")
        self.assertEqual(self.told(page)["intake"]["red_flags"], ["weight_loss"])


class Kept(StoryCase):
    def test_a_half_typed_line_survives_a_reload_and_a_dead_server(self) -> None:
        page = self.at_story()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        part(page, "Before").click()
        answer(page, "What was it?", "Break").click()
        answer(page, "Of what?", "Foot").click()
        page.get_by_label("Weeks ago").fill("30")
        page.get_by_label("Chaperone").fill("M. Lind")
        page.reload()
        expect(page.get_by_label("Weeks ago")).to_have_value("30")
        expect(page.get_by_label("Chaperone")).to_have_value("M. Lind")
        self.app.kill()
        page.get_by_role("button", name="Add this line").click()
        page.get_by_label("Chaperone").press("Enter")
        expect(page.get_by_role("status")).to_contain_text("waiting for the server")
        page.reload()
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        self.app.start()
        expect(page.get_by_text("Break, foot, side not said, 30 weeks ago")).to_be_visible()
        record = self.told(page)
        self.assertEqual(record["intake"]["history"][0]["weeks_ago"], 30)
        self.assertEqual(record["consent"], {"chaperone": "M. Lind"})

    def test_an_ended_session_in_the_middle_loses_nothing(self) -> None:
        page = self.at_story()
        part(page, "Danger").click()
        answer(page, "Weight lost without wanting to?", "No").click()
        self.saved(page)
        # Ended as the answer leaves: any sooner, and asking for others' answers would find out first.
        page.route("**/answers", self.end_sessions, times=1)
        answer(page, "Cancer, now or before?", "Yes").click()
        expect(page.get_by_role("heading", name="Sign in again")).to_be_visible()
        page.get_by_label("Name you sign in with").fill("jonas")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()
        intake = self.told(page)["intake"]
        self.assertEqual((intake["red_flags"], intake["asked"]), (["cancer_history"], ["weight_loss"]))

    def end_sessions(self, leaving: Route) -> None:
        with self.engine.begin() as db:
            db.execute(text("UPDATE sessions SET ended_at = now()"))
        leaving.continue_()

    def test_a_day_that_cannot_be_is_said_at_its_field_and_stays_as_typed(self) -> None:
        page = self.at_story()
        part(page, "When and how").click()
        day = page.get_by_label("Or the day")
        day.fill("2199-01-01")
        day.press("Enter")
        expect(page.get_by_text("is after the screen")).to_be_visible()
        expect(day).to_have_value("2199-01-01")
        day.fill("2020-01-02")
        day.press("Enter")
        self.assertEqual(self.told(page)["intake"]["onset"], {"date": "2020-01-02"})

    def test_one_asks_while_another_examines(self) -> None:
        asks = self.at_story()
        screen = self.screen_id(asks)
        examines = self.page()
        self.sign_in(examines, "maren")
        examines.goto(f"{self.app.address}/screens/{screen}/bench/ankle.anterior_drawer")
        group = examines.get_by_role("group", name="Laxity, left")
        expect(group).to_be_visible()
        door(asks, "Ankle", "right").first.click()
        point(asks, "Front of outer ankle", "right").click()
        group.get_by_role("button", name="0").first.click()
        part(asks, "Danger").click()
        answer(asks, BREATH, "Yes").click()
        expect(examines.get_by_role("alert")).to_contain_text("Stop and call the emergency number")
        self.saved(examines)
        record = self.told(asks)
        self.assertEqual(record["intake"]["red_flags"], ["breathless_or_chest_pain"])
        self.assertEqual(record["entries"][0]["values"], {"laxity": 0})

    def test_two_tabs_tell_one_story(self) -> None:
        one = self.at_story("Hip, groin, thigh")
        other = one.context.new_page()
        self.watch(other)
        other.goto(one.url)
        point(one, "Groin", "left").click()
        expect(other.get_by_label("Left", exact=True)).to_contain_text("Groin")
        other.get_by_role("button", name="Groin now open").click()
        score(other, "Groin", "now", "left", 4).click()
        expect(one.get_by_label("Left", exact=True)).to_contain_text("now 4")
