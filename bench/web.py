"""The page in headless Chromium: how much script, how soon usable, how fast a key is read."""

from __future__ import annotations

import gzip
from collections.abc import Callable
from typing import Any

from playwright.sync_api import BrowserContext, Page, sync_playwright

from bench.api import Couch, durable_database
from bench.figure import Figure, median, time_each
from tests.support.live import LiveApp

CHROMIUM = "/usr/bin/chromium"
NAVIGATIONS = 9
KEYS = 40
# From the key to the reading that knows it, as the page itself sees it.
KEY_TO_READING = """
(digit) => new Promise((done) => {
  const field = document.activeElement;
  const reads = document.querySelector(".reads");
  const began = performance.now();
  const watch = new MutationObserver(() => {
    if (reads.getAttribute("aria-busy") !== "false") return;
    watch.disconnect();
    done(performance.now() - began);
  });
  watch.observe(reads, { attributes: true, attributeFilter: ["aria-busy"] });
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  set.call(field, digit);
  field.dispatchEvent(new Event("input", { bubbles: true }));
})
"""
ROUND_TRIP = """
async () => { const began = performance.now(); await fetch("/api/health"); return performance.now() - began; }
"""


def measure_web() -> list[Figure]:
    with durable_database() as url, LiveApp(url) as app, sync_playwright() as playwright:
        couch = Couch(app.address)
        bench = f"{app.address}/screens/{couch.screen}/bench/hip.modified_thomas"
        browser = playwright.chromium.launch(executable_path=CHROMIUM)

        def context() -> BrowserContext:
            made = browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
            name, value = couch.cookie.split("=", 1)
            cookie: Any = {"name": name, "value": value, "url": app.address}
            made.add_cookies([cookie])
            # A hand was here just now: else the page opens locked.
            made.add_init_script("localStorage.setItem('north-stride/used', String(Date.now()))")
            return made

        figures = [
            Figure("JavaScript for the Bench, gzipped", _script(context, bench), "kB", None, 200),
            _navigation(context, bench, f"{app.address}/mark.svg"),
            _key(context, bench),
        ]
        browser.close()
    return figures


def _usable(page: Page, address: str) -> None:
    page.goto(address)
    page.wait_for_selector("input[class*='number-input']:focus")


def _script(context: Callable[[], BrowserContext], bench: str) -> float:
    made = context()
    page = made.new_page()
    scripts: list[bytes] = []
    page.on("response", lambda answer: scripts.append(answer.body()) if ".js" in answer.url else None)
    _usable(page, bench)
    page.wait_for_load_state("networkidle")
    made.close()
    return sum(len(gzip.compress(script)) for script in scripts) / 1000


def _navigation(context: Callable[[], BrowserContext], bench: str, bare: str) -> Figure:
    """A cold cache each time, against one small picture from the same server."""
    own: list[float] = []
    floor: list[float] = []
    for _ in range(NAVIGATIONS):
        made = context()
        page = made.new_page()
        own += time_each(lambda page=page: _usable(page, bench), 1)  # type: ignore[misc]
        floor += time_each(lambda page=page: page.goto(bare), 1)  # type: ignore[misc]
        made.close()
    return Figure(
        "navigation to a usable Bench, p50", median(own), "ms", median(floor), 1000, limits_value=True
    )


def _key(context: Callable[[], BrowserContext], bench: str) -> Figure:
    made = context()
    page = made.new_page()
    _usable(page, bench)
    page.wait_for_timeout(500)
    own = [page.evaluate(KEY_TO_READING, str(key % 9 + 1)) for key in range(KEYS)]
    floor = [page.evaluate(ROUND_TRIP) for _ in range(KEYS)]
    made.close()
    return Figure(
        "key press to updated reading, p50", median(own), "ms", median(floor), 100, limits_value=True
    )
