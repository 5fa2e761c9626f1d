"""axe finds nothing on any page, in either theme."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from northstride.cli.steps import ROOT
from tests.support.browser import BrowserCase
from tests.support.clean import STILL, CleanCase
from tests.support.telling import answer, begin, door, point
from tests.support.waiting import frame, still

DOCS = ROOT / "docs"
SIZES = ((1280, 800), (1180, 820), (820, 1180), (390, 844))
ONE_OF_EACH = ("ankle.palpation", "ankle.heel_rise", "hip.single_leg_stance", "ankle.squeeze")
# Places on a drawing, a row a key, a score, points, a ladder, figures of more than one panel.
OTHERS = (
    "ankle.sensation",
    "ankle.percussion",
    "leg.clot",
    "general.hypermobility",
    "ankle.cotton",
    "hip.gait",
)


class Accessible(CleanCase):
    def assert_clean_at_each_size(self, page: Page, where: str) -> None:
        """And nothing of it is wider than the window."""
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            frame(page)
            self.assert_clean(page, f"{where} at {width}")
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), width, where)

    def test_the_door(self) -> None:
        page = self.page(**STILL)
        page.goto(self.app.address)
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.assert_clean(page, "sign-in")
        page.get_by_label("Name you sign in with").fill("x")
        page.get_by_label("Password").fill("x")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("alert")).to_be_visible()
        self.assert_clean(page, "sign-in refused")

    def test_people_and_team(self) -> None:
        page = self.page(**STILL)
        self.sign_in(page, "aino")
        page.get_by_role("button", name="Ilse Varga").click()
        expect(page.get_by_role("button", name="Squad screen")).to_be_visible()
        self.assert_clean(page, "people")
        page.get_by_role("button", name="Add athlete").click()
        expect(page.get_by_label("Reference, as it stands in files")).to_be_visible()
        still(page)
        self.assert_clean(page, "add athlete")
        page.get_by_role("button", name="Cancel").click()
        page.goto(f"{self.app.address}/settings/people")
        expect(page.get_by_text("jonas · practitioner")).to_be_visible()
        self.assert_clean(page, "people and roles")

    def test_bench_and_reading(self) -> None:
        page = self.at_bench(**STILL)
        for typed in ("8 9", "-4", "999"):
            page.keyboard.type(typed)
            page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_be_visible()
        self.assert_clean(page, "bench with a fault")
        page.get_by_label("Knee bend, left").fill("84")
        page.keyboard.press("Enter")
        for tool in ("Pain?", "Note", "Not done", "More"):
            page.get_by_role("button", name=f"{tool}, right").click()
            if tool == "Pain?":
                page.get_by_role("button", name="Hurts", exact=True).click()
            self.assert_clean(page, f"bench, {tool}")
            page.keyboard.press("Escape")
        page.get_by_label("How Knee bend is read").select_option("ninety_neutral")
        for step in range(3):
            page.keyboard.press("PageDown")
            self.assert_clean(page, f"bench, step {step + 2}")
        page.keyboard.press("F1")
        still(page)
        self.assert_clean(page, "key help")
        page.get_by_role("button", name="Close").click()
        self.examine_standing(page)
        self.assert_clean(page, "a test of both sides at once")
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_label("Left against right")).to_be_visible()
        self.assert_clean(page, "reading")
        page.get_by_role("button", name="Sign", exact=True).click()
        still(page)
        self.assert_clean(page, "sign dialog")

    def test_each_kind_of_record_at_each_size(self) -> None:
        page = self.at_bench(**STILL)
        at = page.url.rsplit("/", 1)[0]
        for test in (*ONE_OF_EACH, *OTHERS):
            page.goto(f"{at}/{test}")
            expect(page.locator("[class*='ask-bar']")).to_be_visible()
            self.assert_clean_at_each_size(page, test)
        page.keyboard.press("Alt+r")
        expect(page.get_by_role("dialog", name="Rest as expected")).to_be_visible()
        still(page)
        self.assert_clean(page, "rest as expected")

    def test_story_and_route_at_each_size(self) -> None:
        page = self.page(**STILL)
        self.sign_in(page)
        begin(page, "Ilse Varga", "Ankle, lower leg")
        door(page, "Ankle", "right").first.click()
        at = page.url.rsplit("/", 1)[0]
        self.assert_clean_at_each_size(page, "closer picture")
        point(page, "Front of outer ankle", "right").click()
        for name in ("where", "when", "danger", "before"):
            page.goto(f"{at}/story/{name}")
            expect(page.get_by_label("Parts of the story")).to_be_visible()
            self.assert_clean_at_each_size(page, f"story, {name}")
        page.goto(f"{at}/route")
        stop = page.get_by_label("The way through").locator("[class*='_name_']").first
        stop.click()
        page.get_by_role("button", name="Leave out: ").click()
        page.get_by_label("Add a stop, by any name").fill("psoas")
        self.assert_clean_at_each_size(page, "route")
        page.goto(f"{at}/story/danger")
        answer(page, "Numb between the legs?", "Yes").click()
        expect(page.get_by_role("alert")).to_be_visible()
        self.assert_clean(page, "danger answered yes")

    def test_day_athlete_tests_settings_and_reading_at_each_size(self) -> None:
        page = self.page(**STILL)
        self.sign_in(page, "aino")
        self.import_file(page, DOCS / "examples" / "lateral-sprain-day-2.json", "Oda Rist")
        reading = page.url
        page.get_by_role("button", name="How much each test can say").click()
        page.locator("header").first.get_by_role("link", name="Oda Rist").click()
        page.wait_for_url("**/athletes/*")
        athlete = page.url
        places = (
            (f"{self.app.address}/day", "Open on the couch"),
            (athlete, "Over time"),
            (reading, "Not examined"),
            (reading.replace("/reading", "/sheet/letter"), "Your words"),
            (reading.replace("/reading", "/sheet/report"), "Take it along"),
            (f"{self.app.address}/tests/ankle.anterior_drawer", "How it is read"),
            (f"{self.app.address}/settings/device", "This device"),
            (f"{self.app.address}/settings/schools", "Schools"),
            (f"{self.app.address}/settings/errors", "Error figures"),
            (f"{self.app.address}/settings/clinic", "Clinic"),
        )
        for address, shown in places:
            page.goto(address)
            expect(page.get_by_label(shown, exact=True).first).to_be_visible()
            self.assert_clean_at_each_size(page, address)
        page.get_by_role("button", name="Places and more").click()
        expect(page.get_by_label("All places")).to_be_visible()
        self.assert_clean(page, "behind the mark")

    def test_bench_by_touch(self) -> None:
        page = self.at_bench(has_touch=True, **STILL)
        page.get_by_label("Thigh, hanging, left").tap()
        expect(page.locator("[class*='_pad_']")).to_be_visible()
        self.assert_clean(page, "bench with the pad")


class InOneHand(BrowserCase):
    """A phone's width holds every place: nothing is pushed out at the side."""

    def assert_held(self, page: Page) -> None:
        wide = page.evaluate(
            "() => [...document.querySelectorAll('header, main, footer, header > *, footer > *')]"
            ".filter(e => e.getBoundingClientRect().right > innerWidth + 1).map(e => e.outerHTML)"
        )
        self.assertEqual(wide, [], page.url)
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390, page.url)

    def test_each_place(self) -> None:
        page = self.page()
        page.set_viewport_size({"width": 390, "height": 844})
        self.sign_in(page)
        expect(page.get_by_role("button", name="Ilse Varga")).to_be_visible()
        self.assert_held(page)
        self.begin_screen(page)
        self.assert_held(page)
        # At the bench the path waits behind the mark: its foot is the bench's own.
        page.get_by_role("button", name="Places and more").click()
        self.assert_held(page)
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_role("button", name="Download the screen")).to_be_visible()
        self.assert_held(page)
        for place, shown in (
            ("story/where", "figure"),
            ("story/danger", "fieldset"),
            ("route", "ol li"),
            ("sheet", "textarea"),
        ):
            page.goto(f"{self.app.address}/screens/{self.screen_id(page)}/{place}")
            expect(page.locator(shown).locator("visible=true").first).to_be_visible()
            self.assert_held(page)
