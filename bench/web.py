"""The page in headless Chromium: how much script, how soon usable, how fast a key is read."""

from __future__ import annotations

import gzip
import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import BrowserContext, CDPSession, Page, Response, sync_playwright

from bench.api import Couch, durable_database
from bench.figure import Figure, median, time_each
from tests.support.live import LiveApp

CHROMIUM = "/usr/bin/chromium"
NAVIGATIONS = 9
KEYS = 40
STOPS = 30
DRAWINGS = re.compile(r"/(FigureView|MapRow|SpotsRow|SiteMap|map-row)")
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
# From the key that changes the stop to the frame that shows the next one, figure and all.
STOP_TO_STOP = """
() => new Promise((done) => {
  const name = document.querySelector("h1").textContent;
  const began = performance.now();
  const look = () => {
    const changed = document.querySelector("h1").textContent !== name;
    if (changed || performance.now() - began > 5000) done(performance.now() - began);
    else requestAnimationFrame(look);
  };
  const key = { key: "PageDown", altKey: true, bubbles: true };
  window.dispatchEvent(new KeyboardEvent("keydown", key));
  requestAnimationFrame(look);
})
"""
TWO_FRAMES = """
() => new Promise((done) => {
  const began = performance.now();
  requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - began)));
})
"""
ROUND_TRIP = """
async () => { const began = performance.now(); await fetch("/api/health"); return performance.now() - began; }
"""


WAITING = 2000
# As the page itself keeps them, for whoever is signed in.
FILL_OUTBOX = """async ([count, screen]) => {
  const { clinic_id, user_id } = await (await fetch('/api/session')).json();
  const opened = await new Promise((done, fail) => {
    const asked = indexedDB.open('north-stride');
    asked.onsuccess = () => done(asked.result);
    asked.onerror = fail;
  });
  const kept = opened.transaction('kept', 'readwrite');
  for (let order = 0; order < count; order += 1) {
    const id = crypto.randomUUID();
    const answer = { id, test: 'hip.gait', side: null, key: '', field: 'note', value: `n ${order}` };
    const key = `north-stride/outbox/${clinic_id}/${user_id}/${id}`;
    kept.objectStore('kept').put(JSON.stringify({ screen, answer, order }), key);
  }
  await new Promise((done) => { kept.oncomplete = done; });
  opened.close();
}"""


def measure_web() -> list[Figure]:
    with durable_database() as url, LiveApp(url) as app, sync_playwright() as playwright:
        couch = Couch(app.address)
        bench = f"{app.address}/screens/{couch.screen}/bench/hip.modified_thomas"
        drawing = f"{app.address}/screens/{couch.screen}/bench/ankle.palpation"
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
            Figure(
                "JavaScript for the Bench, gzipped", _script(context, bench, by_need=False), "kB", None, 150
            ),
            Figure("the same with its figures", _script(context, bench, by_need=True), "kB"),
            Figure("the same with a map", _script(context, drawing, by_need=True), "kB"),
            _navigation(context, bench, f"{app.address}/mark.svg"),
            _key(context, bench),
            _script_a_key(context, bench),
            _stop(context, bench),
        ]
        browser.close()
    return figures


def _usable(page: Page, address: str) -> None:
    page.goto(address)
    page.wait_for_selector("[class*='ask-bar']")


def _script(context: Callable[[], BrowserContext], bench: str, *, by_need: bool) -> float:
    """All that is fetched, or all but the drawings, which come when a test shows one."""
    made = context()
    page = made.new_page()
    scripts: list[bytes] = []

    def keep(answer: Response) -> None:
        if ".js" in answer.url and (by_need or not DRAWINGS.search(answer.url)):
            scripts.append(answer.body())

    page.on("response", keep)
    _usable(page, bench)
    page.wait_for_load_state("networkidle")
    made.close()
    return sum(len(gzip.compress(script)) for script in scripts) / 1000


def _navigation(context: Callable[[], BrowserContext], bench: str, bare: str) -> Figure:
    """With nothing kept from before, against one small picture from the same server, asked for alike."""
    own: list[float] = []
    floor: list[float] = []
    for _ in range(NAVIGATIONS):
        own.append(_navigated(context, lambda page: _usable(page, bench)))
        floor.append(_navigated(context, lambda page: page.goto(bare)))
    return Figure("navigation to a usable Bench, p50", median(own), "ms", median(floor), 5)


def _navigated(context: Callable[[], BrowserContext], go: Callable[[Page], object]) -> float:
    """In a browser context of its own: neither cache nor process is warm."""
    made = context()
    page = made.new_page()
    (took,) = time_each(lambda: go(page), 1)
    made.close()
    return took


def _key(context: Callable[[], BrowserContext], bench: str) -> Figure:
    made = context()
    page = made.new_page()
    _usable(page, bench)
    page.wait_for_timeout(500)
    own = [page.evaluate(KEY_TO_READING, str(key % 9 + 1)) for key in range(KEYS)]
    floor = [page.evaluate(ROUND_TRIP) for _ in range(KEYS)]
    made.close()
    return Figure("key press to updated reading, p50", median(own), "ms", median(floor), 30)


def _script_a_key(context: Callable[[], BrowserContext], bench: str) -> Figure:
    """What one key costs the page while 2,000 answers wait, against the same with none."""
    return Figure(
        "script a key, 2,000 answers waiting",
        _script_of_keys(context, bench, WAITING),
        "ms",
        _script_of_keys(context, bench, 0),
        2,
    )


def _script_of_keys(context: Callable[[], BrowserContext], bench: str, waiting: int) -> float:
    made = context()
    page = made.new_page()
    page.route("**/answers", lambda route: route.abort())
    page.route("**/preview", lambda route: route.abort())
    _usable(page, bench)
    page.evaluate(FILL_OUTBOX, [waiting, bench.split("/screens/")[1].split("/")[0]])
    page.reload()
    page.wait_for_selector("[class*='ask-bar']")
    page.wait_for_timeout(1500)
    devtools = made.new_cdp_session(page)
    devtools.send("Performance.enable")
    before = _script_seconds(devtools)
    for key in range(KEYS):
        page.keyboard.type(str(key % 9 + 1))
    found = (_script_seconds(devtools) - before) / KEYS * 1000
    made.close()
    return found


def _script_seconds(devtools: CDPSession) -> float:
    metrics = devtools.send("Performance.getMetrics")["metrics"]
    return float(next(each["value"] for each in metrics if each["name"] == "ScriptDuration"))


def _stop(context: Callable[[], BrowserContext], bench: str) -> Figure:
    """Back and forwards through the stops of the screen, against two frames of the page itself."""
    made = context()
    page = made.new_page()
    _usable(page, bench)
    page.wait_for_timeout(1500)
    own: list[float] = []
    floor: list[float] = []
    for turn in range(STOPS):
        # The hanging-leg test stands last on the route.
        way = STOP_TO_STOP if turn % 2 else STOP_TO_STOP.replace("PageDown", "PageUp")
        own.append(page.evaluate(way))
        floor.append(page.evaluate(TWO_FRAMES))
    made.close()
    return Figure("change of stop, p50", median(own), "ms", median(floor), 2.5)
