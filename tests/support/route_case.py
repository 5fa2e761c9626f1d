"""A browser on the route of a screen."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect

from northstride.core.catalogue import default_catalogue
from tests.support.story_case import StoryCase
from tests.support.telling import answer, begin, door, part, point

TESTS = default_catalogue().tests


class RouteCase(StoryCase):
    def at_route(self, page: Page, purpose: str = "Hip, groin, thigh") -> None:
        self.sign_in(page)
        begin(page, "Ilse Varga", purpose)
        if purpose == "Ankle, lower leg":
            door(page, "Ankle", "right").first.click()
            point(page, "Front of outer ankle", "right").click()
            part(page, "When and how").click()
            answer(page, "How did it happen?", "Rolled inwards").click()
        elif purpose != "Teaching":
            point(page, "Groin", "left").click()
        self.saved(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Route").click()
        expect(self.stops(page).first).to_be_visible()

    @staticmethod
    def stops(page: Page) -> Locator:
        return page.get_by_label("The way through").locator("li [class*='_name_'] strong")

    def names(self, page: Page) -> list[str]:
        return list(dict.fromkeys(self.stops(page).all_inner_texts()))

    def in_hand(self, page: Page, name: str) -> None:
        self.stops(page).filter(has_text=name).first.click()

    def planned(self, page: Page) -> list[str]:
        return [TESTS[code].name for code in self.told(page)["planned"]]
