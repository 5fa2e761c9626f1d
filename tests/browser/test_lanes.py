"""Which lane stands first: chosen once, then everywhere, and nothing of a side changes but its place."""

from __future__ import annotations

import json
import re
from typing import Any
from uuid import uuid4

from playwright.sync_api import FilePayload, Page, expect

from northstride.core.catalogue import default_catalogue
from tests.support.browser import BrowserCase
from tests.support.records import record

# Every lane beside, or over, the nearest lane of the other side: where one stands last, its words.
LANES_AS_DRAWN = """first => {
  const last = first === "left" ? "right" : "left";
  const wrong = [];
  let pairs = 0;
  for (const lane of document.querySelectorAll(`.lane-${first}:is(.at-start, .at-end)`)) {
    let other = null;
    for (let up = lane.parentElement; up && !other; up = up.parentElement)
      other = up.querySelector(`.lane-${last}`);
    const [own, beside] = [lane, other].map(each => each?.getBoundingClientRect());
    if (!beside || own.width === 0 || beside.width === 0) continue;
    pairs += 1;
    const before = Math.abs(own.top - beside.top) < 4 ? own.left < beside.left : own.top < beside.top;
    const follows = lane.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_FOLLOWING;
    if (!before || !follows) wrong.push(lane.className + ": " + lane.textContent.slice(0, 40));
  }
  return { pairs, wrong };
}"""
# One of each way in which a lane is drawn at the bench.
EXAMINED = (
    *("hip.modified_thomas", "ankle.palpation", "ankle.pulses", "ankle.sensation", "ankle.squeeze"),
    *("ankle.hop", "ankle.anterior_drawer", "foot.posture_index", "ankle.heel_rise"),
)
SIZES: tuple[Any, ...] = ({"width": 1280, "height": 800}, {"width": 390, "height": 844})
# Both sides speak in it: flags, what is held, differences and what is not examined each have a row.
ANKLE = [
    {"test": "ankle.anterior_drawer", "side": "right", "values": {"laxity": 2, "end_feel": "soft"}},
    {"test": "ankle.anterior_drawer", "side": "left", "values": {"laxity": 0, "end_feel": "firm"}},
    {"test": "ankle.lunge", "side": "left", "values": {"distance": 120}},
    {"test": "ankle.lunge", "side": "right", "values": {"distance": 60}},
]


class WhichLaneFirst(BrowserCase):
    def at_reading(self, page: Page, name: str) -> str:
        told = {
            "complaint": {"region": "ankle", "side": "right", "sites": ["anterolateral"]},
            "onset": {"date": "2026-09-04", "kind": "sudden", "mechanism": "inversion"},
        }
        athlete = {"ref": f"NS-{uuid4().hex[:8]}"}
        file = record(ANKLE, id=str(uuid4()), purpose="ankle_injury", athlete=athlete, intake=told)
        content = json.dumps(file).encode()
        payload = FilePayload(name="screen.json", mimeType="application/json", buffer=content)
        self.import_file(page, payload, name)
        return self.screen_id(page)

    def drawn(self, page: Page, first: str, at_least: int = 1) -> None:
        expect(page.locator(".lane-left").first).to_be_visible()
        for size in SIZES:
            page.set_viewport_size(size)
            found = page.evaluate(LANES_AS_DRAWN, first)
            self.assertEqual(found["wrong"], [], f"{page.url} {size}")
            self.assertGreaterEqual(found["pairs"], at_least, page.url)
        page.set_viewport_size(SIZES[0])

    def walk(self, page: Page, first: str, name: str) -> None:
        self.drawn(page, first)
        screen = self.at_reading(page, name)
        expect(page.get_by_role("heading", name=f"Reading of {name}")).to_be_attached()
        self.drawn(page, first, at_least=5)
        page.get_by_role("link", name=name).first.click()
        expect(page.get_by_role("heading", name="Flags now")).to_be_visible()
        self.drawn(page, first)
        page.goto(f"{self.app.address}/screens/{screen}/story")
        expect(page.get_by_role("heading", name="Where does it hurt?")).to_be_visible()
        self.drawn(page, first)
        page.goto(f"{self.app.address}/screens/{screen}/route")
        expect(page.get_by_label("The way through")).to_be_visible()
        self.drawn(page, first)
        for test in EXAMINED:
            page.goto(f"{self.app.address}/screens/{screen}/bench/{test}")
            called = default_catalogue().tests[test].name
            expect(page.get_by_role("heading", name=called, exact=True)).to_be_visible()
            self.drawn(page, first)

    def test_the_left_until_somebody_chooses(self) -> None:
        page = self.page()
        self.sign_in(page)
        self.walk(page, "left", "Tuva Holm")

    def test_the_right_in_every_place_and_every_tab(self) -> None:
        page = self.page()
        self.sign_in(page)
        other = page.context.new_page()
        self.watch(other)
        other.goto(f"{self.app.address}/people")
        expect(other.get_by_label("Athletes")).to_be_visible()
        page.goto(f"{self.app.address}/settings/device")
        page.get_by_role("button", name="right lane").click()
        expect(page.get_by_role("button", name="right lane")).to_have_attribute("aria-pressed", "true")
        expect(other.get_by_label("Athletes")).to_contain_text(re.compile("right.*left"))
        self.drawn(other, "right")
        page.goto(f"{self.app.address}/people")
        expect(page.get_by_label("Athletes")).to_be_visible()
        self.walk(page, "right", "Ture Holm")
