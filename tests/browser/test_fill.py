"""Every measure and key of every test, on both sides, leaves the bench as it was entered."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from itertools import islice
from typing import Any

from playwright.sync_api import Page, expect

from northstride.core.catalogue import Test, default_catalogue
from tests.support.browser import BrowserCase
from tests.support.filling import SIDES, Place, fill
from tests.support.kinds import record

CATALOGUE = default_catalogue()
# A long record reads slowly on a slow machine: many short ones say the same.
ON_ONE_SCREEN = 9


class Fill(BrowserCase):
    def test_at_the_desk(self) -> None:
        self.fill_all(1280, 800)

    def test_on_a_phone(self) -> None:
        self.fill_all(390, 844)

    def fill_all(self, width: int, height: int) -> None:
        page = self.page()
        page.set_viewport_size({"width": width, "height": height})
        self.sign_in(page)
        done: set[str] = set()
        for tests in batched(CATALOGUE.tests.values(), ON_ONE_SCREEN):
            page.goto(f"{self.app.address}/people")
            self.import_record(page, record())
            written = self.filled(page, tests)
            done |= {place[0] for place in written}
            kept = kept_in(self.exported(page))
            wrong = {
                place: (value, kept.get(place))
                for place, value in written.items()
                if kept.get(place) != value
            }
            self.assertEqual(wrong, {})
            # And nothing besides: no value came where none was entered.
            self.assertEqual(set(kept) - set(written), set())
        self.assertEqual(done, set(CATALOGUE.tests))

    def filled(self, page: Page, tests: tuple[Test, ...]) -> dict[Place, Any]:
        at = f"/screens/{self.screen_id(page)}/bench/"
        page.goto(f"{self.app.address}{at}{tests[0].code}")
        schools = page.evaluate("id => fetch(`/api/screens/${id}`).then(r => r.json())", self.screen_id(page))
        written: dict[Place, Any] = {}
        for test in tests:
            self.go(page, at, test)
            written |= dict(fill(page, test, schools["schools"]))
        self.saved(page)
        return written

    def exported(self, page: Page) -> dict[str, Any]:
        return dict(
            page.evaluate(
                "id => fetch(`/api/screens/${id}/record`).then(r => r.json())", self.screen_id(page)
            )
        )

    def go(self, page: Page, at: str, test: Test) -> None:
        page.evaluate(
            "to => { history.replaceState(null, '', to); dispatchEvent(new PopStateEvent('popstate')); }",
            at + test.code,
        )
        expect(page.get_by_role("heading", level=1, name=test.name, exact=True)).to_be_attached()


def batched(tests: Iterable[Test], count: int) -> Iterator[tuple[Test, ...]]:
    left = iter(tests)
    while batch := tuple(islice(left, count)):
        yield batch


def kept_in(exported: dict[str, Any]) -> dict[Place, Any]:
    """Every value of an exported record by test, lane, key and measure."""
    found: dict[Place, Any] = {}
    for entry in exported["entries"]:
        test = CATALOGUE.tests[entry["test"]]
        values = dict(entry["values"])
        key = str(values.pop(test.key, "")) if test.key else ""
        for code, value in values.items():
            if entry.get("side") is None and isinstance(value, dict) and value and set(value) <= set(SIDES):
                found |= {(test.code, side, key, code): part for side, part in value.items()}
            else:
                found[test.code, entry.get("side"), key, code] = value
        if entry.get("pain"):
            found[test.code, entry.get("side"), key, "pain"] = entry["pain"]["present"]
    return found
