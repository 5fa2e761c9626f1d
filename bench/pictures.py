"""Takes the pictures under docs/screenshots from the demo data: `python -m bench.pictures`."""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import Browser, Locator, Page, sync_playwright

from northstride.api.demo_accounts import DEMO_ACCOUNTS
from northstride.cli.steps import ROOT
from northstride.demo.load import load_demo
from tests.support.browser import CHROMIUM, SIZE
from tests.support.database import fresh_database
from tests.support.live import LiveApp
from tests.support.telling import answer, begin, door, onwards, part, point, score

FOLDER = ROOT / "docs" / "screenshots"
SETTLE_MS = 700
# The bar at the head of every place, in pixels.
BAR = 52


def main() -> int:
    url = fresh_database()
    load_demo(url)
    FOLDER.mkdir(exist_ok=True)
    with LiveApp(url, demo=True) as app, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM)
        by_keyboard(browser, app.address)
        places(browser, app.address)
        by_kind(browser, app.address)
        story_and_route(browser, app.address)
        browser.close()
    return 0


def shot(page: Page, name: str) -> None:
    page.wait_for_timeout(SETTLE_MS)
    page.screenshot(path=Path(FOLDER, f"{name}.png"))


def top_of(part: Locator) -> float:
    """How far down its place begins, from the top of what scrolls."""
    box = part.bounding_box()
    return box["y"] - BAR if box else 0


def enter(page: Page, address: str) -> None:
    login = next(account.login for account in DEMO_ACCOUNTS if account.role == "practitioner")
    page.goto(address)
    page.get_by_role("button", name=f"Enter as practitioner {login}").click()
    page.get_by_role("heading", level=1).wait_for()
    page.wait_for_url("**/day")


def go(page: Page, place: str) -> None:
    page.get_by_label("Places", exact=True).get_by_role("link", name=place).click()


def open_people(page: Page, address: str) -> None:
    enter(page, address)
    go(page, "People")


def open_bench(page: Page, address: str) -> None:
    """Nora Skoglie's screen stands open; its last test is the hanging leg."""
    enter(page, address)
    page.get_by_label("Open on the couch").get_by_role("link", name="Nora Skoglie").click()
    page.get_by_role("link", name="Bench").click()
    page.wait_for_url("**/bench")
    page.get_by_label("Route").get_by_role("link", name="Modified Thomas test").click()


def by_keyboard(browser: Browser, address: str) -> None:
    page = browser.new_page(viewport=SIZE)
    page.goto(address)
    shot(page, "sign-in")
    open_bench(page, address)
    for value in ("8 9 8", "-4", "84", "95", "-2", "-6"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    shot(page, "bench")
    page.get_by_role("button", name="Places and more").click()
    page.get_by_role("button", name="Dim").click()
    page.get_by_role("button", name="Places and more").click()
    shot(page, "bench-dim")
    page.context.close()


def places(browser: Browser, address: str) -> None:
    """Day, People, Reading, Sheet, Athlete, Tests, Settings: from the demo as it is loaded."""
    page = browser.new_page(viewport=SIZE)
    enter(page, address)
    shot(page, "day")
    go(page, "Tests")
    page.get_by_label("Any name, place or muscle").fill("atfl")
    page.get_by_label("Catalogue").get_by_role("link", name="Anterior drawer").click()
    page.get_by_label("How much it can say").wait_for()
    shot(page, "tests")
    go(page, "Settings")
    page.get_by_label("Parts of the settings").get_by_role("link", name="Schools").click()
    shot(page, "settings")
    go(page, "People")
    page.get_by_role("button", name="Seniors").click()
    page.get_by_role("button", name="Ilse Varga").click()
    shot(page, "people")
    page.get_by_label("Chosen athlete").get_by_role("link", name="Ilse Varga").click()
    board = page.get_by_role("region", name="Ready to return")
    board.get_by_role("row").nth(11).wait_for()
    page.locator("main").evaluate("(main, top) => { main.scrollTop = top; }", top_of(board))
    shot(page, "return-board")
    go(page, "People")
    page.get_by_role("button", name="Everyone").click()
    page.get_by_role("button", name="Tilde Marenhus").click()
    page.get_by_label("Chosen athlete").get_by_role("link", name="Tilde Marenhus").click()
    page.get_by_label("Over time").wait_for()
    shot(page, "athlete")
    go(page, "Day")
    page.get_by_role("alert").get_by_role("link", name="Oskar Bremer").click()
    page.get_by_label("Not examined", exact=True).wait_for()
    shot(page, "reading")
    page.get_by_label("Path of this screen").get_by_role("link", name="Sheet").click()
    page.get_by_role("img", name="Letter, page 1 of 1").wait_for()
    shot(page, "sheet")
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{address}/day")
    shot(page, "day-phone")
    page.context.close()


def story_and_route(browser: Browser, address: str) -> None:
    """An ankle two days after it rolled: where, danger, the way through; and held in one hand."""
    page = browser.new_page(viewport=SIZE)
    open_people(page, address)
    begin(page, "Sanna Vaukola", "Ankle, lower leg")
    point(page, "Calf", "right").click()
    door(page, "Ankle", "right").first.click()
    point(page, "Front of outer ankle", "right").click()
    score(page, "Front of outer ankle", "now", "right", 5).click()
    score(page, "Front of outer ankle", "worst", "right", 7).click()
    shot(page, "story")
    part(page, "When and how").click()
    answer(page, "How did it happen?", "Rolled inwards").click()
    answer(page, "Since when?", "2 days ago").click()
    part(page, "Danger").click()
    page.get_by_role("button", name="All read out").click()
    answer(page, "Short of breath, or pain in the chest?", "Yes").click()
    page.get_by_role("alert").wait_for()
    shot(page, "story-danger")
    answer(page, "Short of breath, or pain in the chest?", "No").click()
    page.get_by_role("alert").wait_for(state="detached")
    onwards(page).click()
    onwards(page).click()
    page.wait_for_url("**/route")
    shot(page, "route")
    page.context.close()


def by_kind(browser: Browser, address: str) -> None:
    """Maps, a clock, a count and the rest as expected, at desk, tablet and phone."""
    page = browser.new_page(viewport=SIZE)
    open_bench(page, address)
    at = page.url.rsplit("/", 1)[0]
    page.goto(f"{at}/ankle.palpation")
    page.get_by_role("button", name="ATFL, left").click()
    page.keyboard.press("Alt+a")
    for name in ("ATFL", "Sinus tarsi"):
        page.get_by_role("button", name=f"{name}, right").click()
    page.get_by_role("button", name="ATFL, right").click()
    shot(page, "bench-map")
    page.goto(f"{at}/ankle.anterior_drawer")
    page.get_by_role("button", name="0 as expected").first.click()
    page.get_by_role("group", name="Laxity, right").get_by_role("button", name="2 clearly more").click()
    page.keyboard.press("Alt+r")
    shot(page, "bench-rest")
    page.get_by_role("button", name="Cancel").click()
    page.set_viewport_size({"width": 820, "height": 1180})
    page.goto(f"{at}/ankle.heel_rise")
    for _ in range(3):
        page.get_by_role("button", name="+1, one more, left").click()
    shot(page, "bench-count-tablet")
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{at}/hip.single_leg_stance")
    page.get_by_role("button", name="Start, hold for 30 s, left").click()
    shot(page, "bench-clock-phone")
    page.context.close()


if __name__ == "__main__":
    sys.exit(main())
