"""What was not asked or not looked at never comforts: monotone in ignorance, and nothing on the healthy."""

from __future__ import annotations

import json
import unittest
from collections.abc import Iterator
from typing import Any

from hypothesis import HealthCheck, assume, given, settings

from northstride.core.examination import Context
from northstride.core.findings import Reading, Urgency
from northstride.core.following.plain import plain_summary
from northstride.core.following.route import make_route
from northstride.core.judging import URGENT, judge
from northstride.core.norms.load import danger_checks, read_by_rule
from northstride.core.reading import evaluate
from northstride.record.read import check_record
from tests.support.any_record import CATALOGUE, records
from tests.support.stories import stories

SLOW = settings(max_examples=200, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much])
COMFORT = ("You can train as before.", "Nothing more is needed for now.")
# What "as expected" is called in the values of a test.
NORMAL = (False, [], "yes", "negative", "strong", "warm", "brisk", "same", "felt", 0)


def read(raw: dict[str, Any]) -> Reading:
    return evaluate(check_record(raw, CATALOGUE).exam, CATALOGUE, Context())


def copied(raw: dict[str, Any]) -> dict[str, Any]:
    return dict(json.loads(json.dumps(raw)))


def without_a_fact(raw: dict[str, Any]) -> Iterator[tuple[str, dict[str, Any]]]:
    """The same record with one thing fewer known, each in turn."""
    for fact in ("birth_date", "sex"):
        less = copied(raw)
        if less["athlete"].pop(fact, None) is not None:
            yield fact, less
    for part, fact in (
        ("complaint", "side"),
        ("complaint", "sites"),
        ("onset", "kind"),
        ("onset", "date"),
        ("onset", "mechanism"),
    ):
        less = copied(raw)
        if less["intake"].get(part, {}).pop(fact, None):
            yield f"{part}.{fact}", less
    less = copied(raw)
    if less["intake"].pop("load_change", None) is not None:
        yield "load_change", less
    for place, item in enumerate(raw["intake"].get("asked", [])):
        less = copied(raw)
        del less["intake"]["asked"][place]
        yield f"asked.{item}", less
    for place, entry in enumerate(raw["entries"]):
        for code, answer in entry["values"].items():
            if answer in NORMAL and not isinstance(answer, float):
                less = copied(raw)
                del less["entries"][place]["values"][code]
                yield f"entries[{place}].{code}", less


def urgent(reading: Reading) -> set[tuple[str, Any]]:
    return {(flag.code, flag.side) for flag in reading.flags if flag.urgency in URGENT}


class MonotoneInIgnorance(unittest.TestCase):
    @SLOW
    @given(stories())
    def test_what_is_urgent_stands_or_is_asked_or_is_held(self, raw: dict[str, Any]) -> None:
        tests = [(entry["test"], entry["side"]) for entry in raw["entries"]]
        # A later entry of the same place replaces an earlier one: taking it away would bring that back.
        assume(len(tests) == len(set(tests)))
        before = read(raw)
        for fact, less in without_a_fact(raw):
            after = read(less)
            asked = any(ask.urgent for ask in after.ask)
            for code, side in urgent(before):
                stands = any(code == other and side in (place, None) for other, place in urgent(after))
                stands = stands or (code, None) in urgent(after)
                held = any(side in (doubt.side, None) for doubt in after.doubts)
                self.assertTrue(stands or asked or held, f"without {fact}: {code} {side}")
            more = {(c.code, c.side) for c in after.ruled_down} - {
                (c.code, c.side) for c in before.ruled_down
            }
            self.assertFalse(more, f"without {fact}: {more}")

    @SLOW
    @given(stories())
    def test_the_summary_never_reassures_while_anything_urgent_is_open(self, raw: dict[str, Any]) -> None:
        exam = check_record(raw, CATALOGUE).exam
        reading = evaluate(exam, CATALOGUE, Context())
        said = plain_summary(exam, reading)
        open_ = urgent(reading) or any(ask.urgent for ask in reading.ask) or reading.doubts
        if open_:
            self.assertFalse({*COMFORT} & {*said.training, *said.next})
            self.assertNotIn(
                "without hurry", " ".join(said.next) if urgent(reading) and not reading.actions else ""
            )
        if any(flag.urgency is Urgency.EMERGENCY for flag in reading.flags):
            self.assertEqual(said.training, ())


class BesideSomethingUrgent(unittest.TestCase):
    def check(self, raw: dict[str, Any]) -> None:
        exam = check_record(raw, CATALOGUE).exam
        judged = judge(exam, CATALOGUE, Context())
        reading, route = evaluate(exam, CATALOGUE, Context()), make_route(exam, CATALOGUE, Context())
        offered = [(item.test, item.side) for item in reading.next]
        offered += [(stop.test, side) for stop in route.stops for side in stop.sides or (None,)]
        emergencies = [flag for flag in reading.flags if flag.urgency is Urgency.EMERGENCY]
        if emergencies:
            rules = {reason.rule for flag in emergencies for reason in flag.because}
            asked = {(item.test, item.side) for item in judged.asked if item.rule in rules}
            self.assertLessEqual({*offered}, asked)
            self.assertNotIn(Urgency.TRAIN, {action.urgency for action in reading.actions})
            self.assertEqual(reading.advice, ())
        for flag in reading.flags:
            if flag.urgency is not Urgency.SAME_DAY or emergencies:
                continue
            here = [f for f in reading.flags if f.urgency is Urgency.SAME_DAY]
            rules = {reason.rule for other in here for reason in other.because} | danger_checks()
            allowed = frozenset[str]().union(*(read_by_rule(rule) for rule in rules))
            beside = {test for test, side in offered if flag.side in (side, None) or side is None}
            self.assertLessEqual(beside, allowed, flag.code)
            trained = {a.side for a in reading.actions if a.urgency is Urgency.TRAIN}
            self.assertFalse(trained & {flag.side, None} if flag.side else trained, flag.code)

    @SLOW
    @given(stories())
    def test_in_stories(self, raw: dict[str, Any]) -> None:
        self.check(raw)

    @SLOW
    @given(records())
    def test_in_any_record(self, raw: dict[str, Any]) -> None:
        self.check(raw)


class RouteAndReading(unittest.TestCase):
    @SLOW
    @given(stories())
    def test_agree_on_every_gate_and_question(self, raw: dict[str, Any]) -> None:
        exam = check_record(raw, CATALOGUE).exam
        judged, route = judge(exam, CATALOGUE, Context()), make_route(exam, CATALOGUE, Context())
        reading = evaluate(exam, CATALOGUE, Context())
        on_route = {(stop.test, side) for stop in route.stops for side in stop.sides or (None,)}
        for item in reading.next:
            if any((item.test, item.side) == (a.test, a.side) and a.rule for a in judged.asked):
                self.assertIn((item.test, item.side), on_route)
        for stop in route.stops:
            for side in stop.sides or (None,):
                gate = judged.gate_over(stop.test, side)
                # A stop that is held waits for the gate that holds it; one held for good is no stop.
                self.assertTrue(gate is None or (gate.until_answered and stop.waits_for is not None))
        urgent_first = {item.test for item in route.left_out if item.why.startswith("Held")}
        for test in urgent_first:
            self.assertTrue(any(judged.gate_over(test, side) for side in ("left", "right", None)))


if __name__ == "__main__":
    unittest.main()
