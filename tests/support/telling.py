"""A story told and a route walked in the browser, by keys alone or by touch alone."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from playwright.sync_api import Locator, Page, expect

from northstride.core.catalogue import Catalogue
from northstride.core.story.data import story_data
from northstride.core.wording.spoken import SPOKEN

Press = Callable[[Locator], None]


def by_touch(target: Locator) -> None:
    target.scroll_into_view_if_needed()
    target.tap()


def by_mouse(target: Locator) -> None:
    target.click()


def by_keys(target: Locator) -> None:
    """As Tab would bring one there; that Tab does reach everything is tested on its own."""
    target.focus()
    expect(target).to_be_focused()
    target.page.keyboard.press("Enter")


class Counted:
    """Presses that are counted."""

    def __init__(self, press: Press) -> None:
        self.press, self.inputs = press, 0

    def __call__(self, target: Locator) -> None:
        self.press(target)
        self.inputs += 1


def begin(page: Page, athlete: str, purpose: str, press: Press = by_mouse) -> None:
    """From People to the story of a new screen."""
    press(page.get_by_role("button", name=athlete).first)
    press(page.get_by_role("region", name="Begin").get_by_role("button", name=purpose))
    page.wait_for_url("**/story")


def door(page: Page, name: str, side: str) -> Locator:
    return page.get_by_role("button", name=f"{name}, closer, {side}")


def point(page: Page, site: str, side: str) -> Locator:
    """A place on the chart or in a closer picture."""
    return page.get_by_role("button", name=f"{site}, {side}").locator("visible=true").first


def score(page: Page, site: str, when: str, side: str, value: int) -> Locator:
    scale = page.get_by_role("group", name=f"{site}: {when}, {side}", exact=True)
    return scale.get_by_role("button", name=str(value), exact=True)


def answer(page: Page, question: str, said: str) -> Locator:
    return page.get_by_role("group", name=question, exact=True).get_by_role("button", name=said, exact=True)


def part(page: Page, name: str) -> Locator:
    return page.get_by_label("Parts of the story").get_by_role("link", name=name)


def onwards(page: Page) -> Locator:
    """What the pine button does: the part that comes next, or the route."""
    return page.locator("footer button").last


SIDES = {"left": "Left", "right": "Right", "both": "Both"}


def tell_place(page: Page, label: str, side: str) -> None:
    """A place on the chart, or behind the door that shows it."""
    expect(page.locator("figure").first).to_be_visible()
    here = page.get_by_role("button", name=f"{label}, {side}", exact=True)
    if not here.count():
        door(page, "Ankle", side).first.click()
        views = page.get_by_role("group", name=f"Closer views, {side}")
        expect(views).to_be_visible()
        here = page.get_by_role("button", name=f"{label}, {side}:")
        for view in ("outside", "inside", "behind", "shin", "above", "sole"):
            views.get_by_role("button", name=view, exact=True).click()
            if here.count():
                break
    here.first.click()


def tell(page: Page, catalogue: Catalogue, intake: dict[str, Any]) -> None:
    """A whole intake with one side, told in the order in which the story asks."""
    words = story_data().words
    complaint, pain, onset = intake["complaint"], intake.get("pain", {}), intake.get("onset", {})
    for site in complaint["sites"]:
        label = catalogue.sites[site].label
        tell_place(page, label, complaint["side"])
        for when in ("now", "worst"):
            if when in pain:
                score(page, label, when, complaint["side"], pain[when]).click()
    page.get_by_label("Counts as a complaint of the").select_option(complaint["region"])
    part(page, "When and how").click()
    if "mechanism" in onset:
        answer(page, "How did it happen?", words.mechanisms[onset["mechanism"]]).click()
    if "kind" in onset:
        asked = "Did it begin suddenly or gradually?"
        answer(page, asked, words.kinds[onset["kind"]]).click()
    if "date" in onset:
        page.get_by_label("Or the day").fill(onset["date"])
        page.get_by_label("Or the day").press("Enter")
    if "at_onset" in pain:
        scale = page.get_by_role("group", name="Pain when it happened")
        scale.get_by_role("button", name=str(pain["at_onset"]), exact=True).click()
    if "load_change" in intake:
        asked = SPOKEN["questions"]["load_change"]
        answer(page, asked, "Yes" if intake["load_change"] else "No").click()
    _ask(page, "symptoms", intake)
    part(page, "Danger").click()
    _ask(page, "red_flags", intake)
    part(page, "Before").click()
    for line in intake.get("history", []):
        answer(page, "What was it?", words.history[line["kind"]]).click()
        answer(page, "Of what?", words.regions[line["region"]]).click()
        answer(page, "Which side was it?", SIDES[line["side"]]).click()
        page.get_by_label("How often").fill(str(line["count"]))
        page.get_by_role("button", name="Add this line").click()


def _ask(page: Page, family: str, intake: dict[str, Any]) -> None:
    for said, codes in (("Yes", intake.get(family, [])), ("No", intake.get("asked", []))):
        for code in codes:
            if question := SPOKEN["questions"].get(f"{family}.{code}"):
                answer(page, question, said).click()
