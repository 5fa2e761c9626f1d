"""The story in the browser: told by keys and by touch, urgent at once, kept through everything."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect

from tests.support.browser import SIZE
from tests.support.story_case import StoryCase
from tests.support.telling import (
    Counted,
    Press,
    answer,
    begin,
    by_keys,
    by_touch,
    door,
    onwards,
    part,
    point,
    score,
)

PHONE: Any = {"width": 390, "height": 844}
TABLET: Any = {"width": 820, "height": 1180}
BREATH = "Short of breath, or pain in the chest?"
PURPOSES = (
    ("Hip, groin, thigh", ("Groin", None)),
    ("Ankle, lower leg", ("Front of outer ankle", "Ankle")),
    ("Foot", ("Arch", "Sole and heel")),
    ("Follow-up", ("Groin", None)),
    ("Return to sport", ("Outer hip", None)),
    ("Teaching", ("Knee", None)),
    ("Squad screen", None),
)


class EachPurpose(StoryCase):
    def test_from_the_story_to_the_first_stop_by_keys(self) -> None:
        page = self.page()
        self.sign_in(page)
        for size in (SIZE, TABLET):
            page.set_viewport_size(size)
            for purpose, place in PURPOSES:
                with self.subTest(purpose=purpose, size=size):
                    self.walk(page, purpose, place, by_keys)

    def test_from_the_story_to_the_first_stop_by_touch(self) -> None:
        page = self.page(has_touch=True)
        self.sign_in(page)
        for size in (TABLET, PHONE):
            page.set_viewport_size(size)
            for purpose, place in PURPOSES:
                with self.subTest(purpose=purpose, size=size):
                    self.walk(page, purpose, place, by_touch)

    def walk(self, page: Page, purpose: str, place: tuple[str, str | None] | None, press: Press) -> None:
        page.goto(f"{self.app.address}/people")
        begin(page, "Ilse Varga", purpose, press)
        if place is None:
            press(page.get_by_role("button", name="No pain, nothing new: begin"))
        else:
            site, behind = place
            expect(page.locator("figure").locator("visible=true").first).to_be_visible()
            faces = page.get_by_role("group", name="Which way round")
            if behind == "Sole and heel" and faces.is_visible():
                press(faces.get_by_role("button", name="Back"))
            if behind:
                press(door(page, behind, "right").locator("visible=true").first)
            press(point(page, site, "right"))
            for name in ("When and how", "Danger", "Before"):
                press(onwards(page))
                expect(part(page, name)).to_have_attribute("aria-current", "step")
            press(onwards(page))
            page.wait_for_url("**/route")
            press(page.get_by_role("button", name="Begin:"))
        page.wait_for_url("**/bench**")
        expect(page.get_by_label("Route").get_by_role("link").first).to_be_visible()
        expect(page.locator("[class*='bench-title'] h1")).to_be_visible()

    def test_a_squad_screen_takes_two_taps_and_asks_both_questions(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.get_by_role("button", name="Ilse Varga").click()
        press = Counted(lambda target: target.click())
        press(page.get_by_role("button", name="Squad screen"))
        for question in ("Any pain today?", "Anything new since last time?"):
            expect(page.get_by_role("group", name=question)).to_be_visible()
        press(page.get_by_role("button", name="No pain, nothing new: begin"))
        page.wait_for_url("**/bench")
        self.assertEqual(press.inputs, 2)
        intake = self.told(page)["intake"]
        self.assertEqual(intake, {"complaint": {"region": "none"}, "asked": ["history"]})

    def test_a_yes_of_a_squad_opens_the_part_that_asks_more(self) -> None:
        page = self.at_story("Squad screen")
        answer(page, "Any pain today?", "Yes").click()
        page.wait_for_url("**/story/where")
        point(page, "Groin", "left").click()
        self.assertEqual(
            self.told(page)["intake"]["complaint"]["places"], [{"site": "groin", "side": "left"}]
        )


class AcuteAnkle(StoryCase):
    def test_is_told_in_fourteen_inputs(self) -> None:
        page = self.at_story()
        press = Counted(lambda target: target.click())
        press(door(page, "Ankle", "right").first)
        press(point(page, "Front of outer ankle", "right"))
        press(score(page, "Front of outer ankle", "now", "right", 5))
        press(score(page, "Front of outer ankle", "worst", "right", 7))
        press(onwards(page))
        press(answer(page, "How did it happen?", "Rolled inwards"))
        press(answer(page, "Since when?", "2 days ago"))
        press(answer(page, "Has it swollen?", "Yes"))
        press(page.get_by_role("button", name="None of the rest"))
        press(onwards(page))
        press(page.get_by_role("button", name="All read out: no to the"))
        press(onwards(page))
        press(page.get_by_role("button", name="Nothing before"))
        press(answer(page, "Consent to this examination?", "Yes"))
        self.assertLessEqual(press.inputs, 14)
        record = self.told(page)
        intake = record["intake"]
        place = {"site": "anterolateral", "side": "right", "now": 5, "worst": 7}
        self.assertEqual(intake["complaint"]["places"], [place])
        self.assertEqual(intake["onset"]["mechanism"], "inversion")
        self.assertEqual(intake["symptoms"], ["swelling"])
        self.assertIn("obvious_deformity", intake["asked"])
        self.assertIn("history", intake["asked"])
        self.assertEqual(record["consent"], {"given": True})
        onwards(page).click()
        expect(page.get_by_role("heading", name="minutes")).to_be_visible()
        expect(page.get_by_label("The way through").get_by_text("Four steps", exact=True)).to_be_visible()

    def test_open_is_not_no_and_stays_in_sight_from_every_part(self) -> None:
        page = self.at_story()
        expect(part(page, "Danger")).to_contain_text("9 open")
        part(page, "Danger").click()
        answer(page, BREATH, "No").click()
        expect(part(page, "Danger")).to_contain_text("8 open")
        self.assertEqual(self.told(page)["intake"]["asked"], ["breathless_or_chest_pain"])
        answer(page, BREATH, "No").click()
        expect(part(page, "Danger")).to_contain_text("9 open")
        self.assertNotIn("intake", {k: v for k, v in self.told(page).items() if v})

    def test_what_an_answer_changes_is_said_there_and_then(self) -> None:
        page = self.at_story()
        door(page, "Ankle", "right").first.click()
        point(page, "Front of outer ankle", "right").click()
        said = page.get_by_label("What the last answer changed")
        part(page, "When and how").click()
        answer(page, "Did it begin suddenly or gradually?", "Gradually").click()
        # On the right: that the left is no longer held was said of the place, and may still stand.
        expect(said).to_contain_text("R No longer held: A bone is not cleared")
        answer(page, "Did it begin suddenly or gradually?", "Suddenly").click()
        expect(said).to_contain_text("R Held: A bone is not cleared")
        expect(page.get_by_label("Thinkable, right")).to_contain_text("Outer ankle ligaments held")

    def test_a_place_of_another_part_of_the_body_offers_its_purpose(self) -> None:
        page = self.at_story("Hip, groin, thigh")
        door(page, "Ankle", "left").first.click()
        point(page, "Front of outer ankle", "left").click()
        page.get_by_role("button", name="Make it: ankle injury").click()
        self.assertEqual(self.told(page)["purpose"], "ankle_injury")

    def test_last_visits_story_is_offered_line_by_line(self) -> None:
        page = self.at_story("Hip, groin, thigh")
        point(page, "Groin", "left").click()
        score(page, "Groin", "now", "left", 6).click()
        part(page, "Before").click()
        answer(page, "What was it?", "Sprain").click()
        answer(page, "Of what?", "Ankle").click()
        answer(page, "Which side was it?", "Left").click()
        page.get_by_label("How often").fill("3")
        page.get_by_role("button", name="Add this line").click()
        self.saved(page)
        page.goto(f"{self.app.address}/people")
        begin(page, "Ilse Varga", "Follow-up")
        last = page.get_by_label("Told last time")
        expect(last).to_contain_text("Pain: Groin, left")
        expect(last).not_to_contain_text("now")
        self.assertNotIn("intake", {k: v for k, v in self.told(page).items() if v})
        last.get_by_role("button", name="Still so: Pain: Groin, left").click()
        expect(last).to_have_count(0)
        part(page, "Before").click()
        page.get_by_role("button", name="Still so: Sprain, ankle, left, 3 times").click()
        intake = self.told(page)["intake"]
        self.assertEqual(intake["complaint"], {"places": [{"site": "groin", "side": "left"}]})
        self.assertEqual([line["count"] for line in intake["history"]], [3])


class Urgent(StoryCase):
    def test_a_red_flag_shows_its_bar_at_once_and_on_every_place_of_the_athlete(self) -> None:
        page = self.at_story()
        part(page, "Danger").click()
        answer(page, BREATH, "Yes").click()
        bar = page.get_by_role("alert").filter(has_text="Stop and call the emergency number")
        expect(bar).to_be_visible()
        self.saved(page)
        path = page.get_by_label("Path of this screen")
        for place in ("Route", "Bench", "Reading", "Story"):
            path.get_by_role("link", name=place).click()
            page.wait_for_url(f"**/{place.lower()}**")
            expect(bar).to_be_visible()
        page.reload()
        expect(bar).to_be_visible()
        page.goto(f"{self.app.address}/people")
        page.get_by_role("button", name="Ilse Varga").click()
        expect(page.get_by_label("Chosen athlete").get_by_role("alert")).to_contain_text("Emergency")

    def test_danger_told_while_the_server_is_away_is_not_out_of_sight(self) -> None:
        page = self.at_story()
        part(page, "Danger").click()
        expect(page.get_by_role("group", name=BREATH)).to_be_visible()
        self.app.kill()
        answer(page, BREATH, "Yes").click()
        expect(page.get_by_role("alert")).to_contain_text("Short of breath")
        expect(page.get_by_role("status")).to_contain_text("kept here, waiting for the server")
        self.app.start()
        expect(page.get_by_role("alert")).to_contain_text("Stop and call the emergency number")
        self.assertEqual(self.told(page)["intake"]["red_flags"], ["breathless_or_chest_pain"])

    def test_what_has_no_side_is_said_beside_the_questions_and_urgent_questions_elsewhere_too(self) -> None:
        page = self.at_story()
        part(page, "Danger").click()
        answer(page, "Weight lost without wanting to?", "Yes").click()
        expect(page.get_by_label("Thinkable, no side")).to_contain_text("Signs of illness")
        elsewhere = page.get_by_label("Urgent, in another part")
        elsewhere.get_by_role("link", name="Which side is it: left, right or both?").click()
        page.wait_for_url("**/story/where")
