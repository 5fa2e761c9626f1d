"""One entry of a record written at the bench, as a hand would: every value, pain, and what was pressed."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from playwright.sync_api import Locator, Page, expect

from northstride.core.catalogue import Catalogue, Measure, Test
from tests.support.filling import is_row, is_tapped, keys_of, measure_of
from tests.support.waiting import go

Entry = dict[str, Any]


def enter(page: Page, screen: str, catalogue: Catalogue, entry: Entry) -> None:
    test = catalogue.tests[entry["test"]]
    go(page, f"/screens/{screen}/bench/{test.code}")
    expect(page.locator("[class*='bench-title'] h1")).to_have_text(test.name)
    own = entry.get("values", {})
    key = str(own.get(test.key, "")) if test.key else ""
    for code, value in own.items():
        if code == test.key:
            continue
        for side, part in _by_side(entry.get("side"), value):
            _write(page, test, measure_of(test, code), side, key, part)
    if pain := entry.get("pain"):
        _hurts(page, catalogue, entry["side"], pain)


def _by_side(side: str | None, value: Any) -> Iterator[tuple[str | None, Any]]:
    if side is None and isinstance(value, dict):
        yield from value.items()
    else:
        yield side, value


def _write(page: Page, test: Test, measure: Measure, side: str | None, key: str, value: Any) -> None:
    step = next(step for step in test.steps if measure.code in step.measures)
    if len(test.steps) > 1:
        page.locator("[class*='step-tabs'] button").nth(test.steps.index(step)).click()
    label = dict(keys_of(test)).get(key, "")
    if step.map and measure.code in step.map.measures:
        _spot(page, step.map.ask, label or measure.label, side or "left", _words(measure, value))
    elif measure.map:
        _press(page, measure, side or "left", value)
    else:
        rows = [each for code in step.measures if is_row(test, each := measure_of(test, code))]
        called = label or measure.label
        if label and len(rows) > 1:
            called = f"{label}: {measure.label.lower()}"
        _row(page, measure, f"{called}, {side or 'both'}", value)


def _row(page: Page, measure: Measure, name: str, value: Any) -> None:
    if measure.numeric and not is_tapped(measure):
        trials = value if isinstance(value, list) else [value]
        field = page.get_by_label(name, exact=True)
        field.fill(" ".join(str(trial) for trial in trials))
        field.press("Enter")
        return
    group = page.get_by_role("group", name=name, exact=True)
    for one in value if isinstance(value, list) else [value]:
        group.get_by_role("button", name=_words(measure, one), exact=True).click()


def _words(measure: Measure, value: Any) -> str:
    """A value as its plate says it."""
    if measure.kind == "flag":
        return "Yes" if value else "No"
    if measure.choices:
        return next(choice.label for choice in measure.choices if choice.code == value)
    if measure.grades:
        low = int((measure.plausible or (0, 0))[0])
        return f"{value} {measure.grades[int(value) - low]}"
    return str(value)


def _lane(region: Locator, side: str) -> Locator:
    lane = region.locator(f"[class*='map-lanes'] > .lane-{side}")
    lane.click(position={"x": 8, "y": 8})
    return lane


def _spot(page: Page, ask: str, label: str, side: str, said: str) -> None:
    """Taps a place on the drawing until it says so."""
    region = page.get_by_role("region", name=ask, exact=True)
    point = _lane(region, side).get_by_role("button", name=f"{label}, {side}:")
    for _ in range(8):
        if said.lower() in (point.get_attribute("aria-label") or "").split(":")[-1].lower():
            return
        point.click()
    raise AssertionError(f"{label}, {side} never says {said}")


def _press(page: Page, measure: Measure, side: str, codes: list[str]) -> None:
    """Each of these found on one of the views; where it is pressed for, the rest of each view pressed too."""
    region = page.get_by_role("region", name=measure.label, exact=True)
    expect(region.locator(f".lane-{side} [class*='point']").first).to_be_visible()
    views = region.get_by_label("View", exact=True).locator("option").count()
    left = [next(choice.label for choice in measure.choices if choice.code == code) for code in codes]
    rest = region.get_by_role("button", name=f", {side}").filter(has_text="Rest pressed")
    for view in range(views):
        region.get_by_role("group", name="Views").locator("button").nth(view).click()
        for label in list(left):
            point = _lane(region, side).get_by_role("button", name=f"{label}, {side}:")
            if point.count():
                point.click()
                if measure.map and measure.map.pressed:
                    point.click()
                left.remove(label)
        if measure.map and measure.map.pressed:
            rest.click()
    if not codes and not (measure.map and measure.map.pressed):
        region.get_by_role("button", name=f"None of these, {side}").click()
    assert not left, left


def _hurts(page: Page, catalogue: Catalogue, side: str, pain: dict[str, Any]) -> None:
    page.get_by_role("button", name=f"Pain?, {side}").click()
    card = page.locator("[class*='tool-card'], [role='dialog'], .popover").last
    card.get_by_role("button", name="Hurts" if pain["present"] else "No pain", exact=True).click()
    if "nrs" in pain:
        score = card.get_by_role("group", name="How much, 0 to 10")
        score.get_by_role("button", name=str(pain["nrs"]), exact=True).click()
    if "site" in pain:
        where = card.get_by_role("group", name="Where", exact=True)
        where.get_by_role("button", name=catalogue.sites[pain["site"]].label, exact=True).click()
    if "familiar" in pain:
        own = card.get_by_role("group", name="Is it your pain?")
        own.get_by_role("button", name="Yes" if pain["familiar"] else "No", exact=True).click()
    card.get_by_role("button", name="Done", exact=True).click()
