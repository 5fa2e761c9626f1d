"""Every test of the catalogue at every size: both lanes, what is asked and the way on are in the window."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect

from northstride.core.catalogue import Test, default_catalogue
from tests.support.browser import BrowserCase
from tests.support.kinds import record
from tests.support.waiting import go

SIZES = ((1280, 800), (1180, 820), (820, 1180), (390, 844), (640, 400))

# What is wrong with how a test stands in the window, in words.
LOOK = """() => {
  const wrong = [];
  const box = node => node.getBoundingClientRect();
  const shown = node => box(node).width > 0 && getComputedStyle(node).visibility !== 'hidden';
  if (document.documentElement.scrollWidth > innerWidth) wrong.push('scrolls sideways');
  const inView = (name, node) => {
    if (!node) return wrong.push(`no ${name}`);
    const { top, bottom, left, right } = box(node);
    if (top < 0 || bottom > innerHeight + 1 || left < -1 || right > innerWidth + 1)
      wrong.push(`${name} at ${[left, top, right, bottom].map(Math.round)}`);
  };
  inView('ask bar', document.querySelector("[class*='ask-bar']"));
  inView('next', document.getElementById('bench-next'));
  for (const side of ['left', 'right']) {
    const lanes = [...document.querySelectorAll(`.lane-${side}`)].filter(shown);
    if (!lanes.some(lane => box(lane).width >= 60)) wrong.push(`no ${side} lane`);
    if (lanes.some(lane => box(lane).left < -1 || box(lane).right > innerWidth + 1))
      wrong.push(`${side} lane is cut off`);
  }
  for (const drawing of document.querySelectorAll("svg[class*='drawing']")) {
    const { width, height } = drawing.viewBox.baseVal;
    if (Math.abs(box(drawing).width / box(drawing).height / (width / height) - 1) > 0.02)
      wrong.push('the points of a drawing lie beside it');
  }
  const leans = node => node.closest("[class*='map-lanes']");
  const controls = [...document.querySelectorAll('button, a, input, select, textarea')].filter(shown);
  for (const control of controls.filter(node => !leans(node))) {
    const { left, right } = box(control);
    if (left < -1 || right > innerWidth + 1) wrong.push(`${control.textContent} is out of the window`);
  }
  for (const control of document.querySelectorAll("[class*='bench-middle'] button")) {
    if (!shown(control) || leans(control)) continue;
    control.scrollIntoView({ block: 'center' });
    const { left, top, width, height } = box(control);
    const there = document.elementFromPoint(left + width / 2, top + height / 2);
    if (!control.contains(there) && !there?.contains(control))
      wrong.push(`${control.textContent} lies under ${there?.className}`);
  }
  document.querySelector("[aria-label='Set-up and reading so far']").lastElementChild?.scrollIntoView();
  inView('ask bar at the end', document.querySelector("[class*='ask-bar']"));
  inView('next at the end', document.getElementById('bench-next'));
  return wrong;
}"""


class EveryTest(BrowserCase):
    def test_stands_in_the_window(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.import_record(page, record())
        at = f"/screens/{self.screen_id(page)}/bench/"
        page.goto(f"{self.app.address}{at}ankle.look")
        wrong: dict[str, Any] = {}
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            for test in default_catalogue().tests.values():
                self.go(page, at, test)
                if found := page.evaluate(LOOK):
                    wrong[f"{test.code} at {width} x {height}"] = found
        self.assertEqual(wrong, {})

    def go(self, page: Page, at: str, test: Test) -> None:
        go(page, at + test.code)
        expect(page.get_by_role("heading", level=1, name=test.name, exact=True)).to_be_visible()
