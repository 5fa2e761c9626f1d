"""Fills one test at the bench by its data alone: every measure, every key, both sides."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from playwright.sync_api import Locator, Page, expect

from northstride.core.catalogue import Measure, Step, Test, default_catalogue

SIDES = ("left", "right")
# A repeat of a handful is tapped as a number.
TALLY_UP_TO = 10
Place = tuple[str, str | None, str, str]
Written = Iterator[tuple[Place, Any]]


def fill(page: Page, test: Test, schools: dict[str, Any]) -> Written:
    """Writes everything there is to write; yields what was written: test, lane, key, measure and value."""
    steps = [
        step
        for step in test.steps
        if step.school is None or schools.get(step.school.key) in step.school.among
    ]
    for number, step in enumerate(steps):
        for part in (_step, _other_ways):
            if len(steps) > 1:
                page.locator("[class*='step-tabs'] button").nth(number).click()
            yield from part(page, test, step)


def _step(page: Page, test: Test, step: Step) -> Written:
    rows = [measure for code in step.measures if is_row(test, measure := measure_of(test, code))]
    on_map = step.map.measures if step.map else []
    below = [measure for measure in rows if measure.code not in on_map]
    for key, label in keys_of(test):
        if not rows:
            yield from _pain(page, test, key, label)
        for measure in [measure for measure in rows if measure.code in on_map]:
            yield from _spot(page, test, step, measure, key, label)
        for measure in below:
            called = label or measure.label
            if label and len(below) > 1:
                called = f"{label}: {measure.label.lower()}"
            for side in lanes_of(test, measure):
                for code, value in _row(page, measure, called, side):
                    yield (test.code, side, key, code), value
                    if measure.about_person:
                        yield (test.code, "right", key, code), value


def _other_ways(page: Page, test: Test, step: Step) -> Written:
    """What can stand in a row's place: the other is offered, and keeps what it holds."""
    for code in step.measures:
        measure = measure_of(test, code)
        if measure.instead_of or measure.either_or:
            page.get_by_role("button", name=measure.label, exact=True).click()
            for side in SIDES:
                for own, value in _row(page, measure, measure.label, side):
                    yield (test.code, side, "", own), value


def _pain(page: Page, test: Test, key: str, label: str) -> Written:
    for side in SIDES:
        name = f"Pain, {label}, {side}" if label else f"Pain, {side}"
        page.get_by_role("group", name=name, exact=True).get_by_role("button", name="Hurts").click()
        lane = None if test.sides == "both" else side
        yield (test.code, lane, key, "pain"), True


def _spot(page: Page, test: Test, step: Step, measure: Measure, key: str, label: str) -> Written:
    """Two taps on its place: the second of the answers, the expected one standing first."""
    codes = [choice.code for choice in measure.choices]
    first = measure.normal if measure.normal in codes else codes[0]
    second = next(code for code in codes if code != first)
    assert step.map is not None
    region = page.get_by_role("region", name=step.map.ask, exact=True)
    for side in SIDES:
        lane = region.locator(f"[class*='map-lanes'] > .lane-{side}")
        if lane.bounding_box()["width"] < 100:  # type: ignore[index]
            lane.click(position={"x": 8, "y": 8})
        point = lane.get_by_role("button", name=f"{label or measure.label}, {side}:")
        point.click()
        point.click()
        yield (test.code, side, key, measure.code), second


def _row(page: Page, measure: Measure, called: str, side: str | None) -> Iterator[tuple[str, Any]]:
    name = f"{called}, {side or 'both'}"
    if measure.map:
        yield from _press(page.get_by_role("region", name=measure.label, exact=True), measure, side or "left")
    elif measure.numeric and not is_tapped(measure):
        value = number_of(measure)
        field = page.get_by_label(name, exact=True)
        field.fill(str(value))
        field.press("Enter")
        yield measure.code, value
    else:
        label, value = last_option(measure)
        group = page.get_by_role("group", name=name, exact=True)
        group.get_by_role("button", name=label, exact=True).click()
        yield measure.code, value


def _press(place: Locator, measure: Measure, side: str) -> Iterator[tuple[str, Any]]:
    """The first point of the first view: pressed and tender, or seen there."""
    lane = place.locator(f"[class*='map-lanes'] > .lane-{side}")
    lane.click(position={"x": 8, "y": 8})
    point = lane.locator("[class*='point']").first
    expect(point).to_be_visible()
    label = (point.get_attribute("aria-label") or "").split(f", {side}")[0]
    code = next(choice.code for choice in measure.choices if choice.label == label)
    point.click()
    if measure.map and measure.map.pressed:
        point.click()
        yield measure.map.pressed, [code]
    yield measure.code, [code]


def last_option(measure: Measure) -> tuple[str, Any]:
    """The last thing that can be said, as its plate says it."""
    if measure.kind == "flag":
        return "Yes", True
    if measure.choices:
        last = measure.choices[-1]
        return last.label, [last.code] if measure.kind == "choices" else last.code
    if measure.kind == "strength":
        return "4", "4"
    top = max(measure.allowed) if measure.allowed else int((measure.plausible or (0, 0))[1])
    return (f"{top} {measure.grades[-1]}" if measure.grades else str(top)), top


def measure_of(test: Test, code: str) -> Measure:
    measure = test.measure(code)
    assert measure is not None
    return measure


def lanes_of(test: Test, measure: Measure) -> tuple[str | None, ...]:
    if test.sides == "both" and not measure.per_side:
        return (None,)
    return SIDES[:1] if measure.about_person else SIDES


def keys_of(test: Test) -> list[tuple[str, str]]:
    """Each bone, toe, space or position with its words; one without any where the test has none."""
    if test.key is None:
        return [("", "")]
    measure = measure_of(test, test.key)
    if measure.choices:
        return [(choice.code, choice.label) for choice in measure.choices]
    low, high = measure.plausible or (0, 0)
    return [(str(number), str(number)) for number in measure.allowed or range(int(low), int(high) + 1)]


def is_row(test: Test, measure: Measure) -> bool:
    """Not the key, not the second way of reading, not what a map answers along with another."""
    along = {other.map.pressed for other in test.measures if other.map}
    second = measure.instead_of or measure.either_or
    return measure.code != test.key and second is None and measure.code not in along


def is_tapped(measure: Measure) -> bool:
    high = (measure.plausible or (0, 0))[1]
    return measure.kind == "grade" or (measure.kind == "count" and high <= TALLY_UP_TO)


def number_of(measure: Measure) -> int:
    low, high = measure.plausible or (0, 100)
    return round((low + high) / 2)


def kept_in(exported: dict[str, Any]) -> dict[Place, Any]:
    """Every value of an exported record by test, lane, key and measure."""
    found: dict[Place, Any] = {}
    for entry in exported["entries"]:
        test = default_catalogue().tests[entry["test"]]
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
