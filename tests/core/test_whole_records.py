"""What holds for every record there can be, over the whole catalogue and the whole story."""

from __future__ import annotations

import json
import random
import unittest
from functools import cached_property
from typing import Any, get_args

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from northstride.core.catalogue import Test
from northstride.core.evidence.weights import evidence
from northstride.core.examination import Context, Entry, Lane, Value
from northstride.core.examination.case import Case
from northstride.core.judgement.judge import judge
from northstride.core.reading import evaluate
from northstride.core.route import make_route
from northstride.core.rules import DANGER_RULES, GATE_RULES
from northstride.core.terms.vocabulary import Gate, RedFlag
from northstride.core.wording.plain import plain_summary
from northstride.record.read import check_record
from tests.support.any_record import CATALOGUE, records
from tests.support.records import read

OTHER = {"left": "right", "right": "left", "both": "both"}
URGENCY = ["emergency", "same_day", "refer", "recheck", "train", None]
SLOW = settings(max_examples=120)


class Watched(Case):
    """A case that knows which tests it was asked for."""

    @cached_property
    def tests_asked(self) -> set[str]:
        return set()

    def entry(self, test: str, lane: Lane, key: Value | None = None) -> Entry | None:
        self.tests_asked.add(test)
        return super().entry(test, lane, key)

    def entries(self, test: str, lane: Lane) -> tuple[Entry, ...]:
        self.tests_asked.add(test)
        return super().entries(test, lane)


def read_by_danger(raw: dict[str, Any]) -> set[str]:
    """Tests that danger, and whatever shuts a gate, read of a record, held or not."""
    case = Watched(check_record(raw, CATALOGUE).exam, CATALOGUE, Context())
    for rule in (*DANGER_RULES, *GATE_RULES):
        list(rule(case))
    return case.tests_asked


def copied(raw: dict[str, Any]) -> dict[str, Any]:
    return dict(json.loads(json.dumps(raw)))


def mirrored(raw: dict[str, Any]) -> dict[str, Any]:
    """The same athlete in a mirror; side-valued choices by the catalogue's own word."""
    swapped = copied(raw)
    for entry in swapped["entries"]:
        if "side" in entry:
            entry["side"] = OTHER[entry["side"]]
        test = CATALOGUE.tests[entry["test"]]
        entry["values"] = {code: _mirrored(test, code, item) for code, item in entry["values"].items()}
    for part in (swapped["intake"].get("complaint"), *swapped["intake"].get("history", [])):
        if part and "side" in part:
            part["side"] = OTHER[part["side"]]
    return swapped


def _mirrored(test: Test, code: str, item: Any) -> Any:
    measure = test.measure(code)
    if isinstance(item, dict):
        return {OTHER[side]: own for side, own in item.items()}
    if measure is not None and isinstance(item, str):
        return measure.mirrored.get(item, item)
    if code.startswith("galeazzi"):
        return -item
    return item


def told(items: list[dict[str, Any]], *keys: str, swap: bool = False) -> set[tuple[Any, ...]]:
    def side(item: dict[str, Any]) -> Any:
        return OTHER.get(item["side"]) if swap else item["side"]

    return {(side(item), *(item.get(key) for key in keys)) for item in items}


def empty(entry: dict[str, Any], held: set[str]) -> None:
    """Takes out what held sides hide: all of a side's entry; of one for both, what was done with both."""
    own = {entry["side"]} if "side" in entry else {"left", "right"}
    if own <= held:
        entry["values"], entry["seen"] = {}, []
        entry.pop("pain", None)
    elif own & held:
        kept = {m: given for m, given in entry["values"].items() if isinstance(given, dict)}
        entry["values"] = {
            m: open_
            for m, given in kept.items()
            if (open_ := {s: v for s, v in given.items() if s not in held})
        }


class EveryRecord(unittest.TestCase):
    @SLOW
    @given(records())
    def test_is_read_the_same_each_time_and_soundly(self, raw: dict[str, Any]) -> None:
        reading = read(raw)
        self.assertEqual(reading, read(raw))
        flagged = [(flag["code"], flag["side"]) for flag in reading["flags"]]
        self.assertEqual(len(flagged), len(set(flagged)))
        self.assertEqual({(r["code"], r["side"]) for r in reading["ruled_down"]} & set(flagged), set())
        self.assertLessEqual(len(reading["next"]), 3)
        for flag in reading["flags"]:
            for reason in flag["because"]:
                self.assertRegex(reason["rule"], r"^[MRHASF]\d+[a-du]?$")
                self.assertRegex(reason["at"], r"^(entries\[\d+\]|intake\.[a-z_]+(\[\d+\])?)$")
        held = {(item["test"], item["side"]) for item in reading["held"]}
        self.assertFalse(held & {(item["test"], item["side"]) for item in reading["next"]})
        self.assertLessEqual({item["gate"] for item in reading["held"]}, set(get_args(Gate)))
        shut = {(test, item["side"], item["gate"]) for item in reading["shut"] for test in item["tests"]}
        self.assertLessEqual({(h["test"], h["side"], h["gate"]) for h in reading["held"]}, shut)

    @SLOW
    @given(records())
    def test_mirrors(self, raw: dict[str, Any]) -> None:
        here, there = read(raw), read(mirrored(raw))
        for key, facts in (
            ("flags", ("code", "strength", "urgency", "uncompared")),
            ("actions", ("code", "urgency")),
            ("ruled_down", ("code",)),
            ("retake", ("test", "reason")),
            ("held", ("test", "gate")),
        ):
            self.assertEqual(told(here[key], *facts, swap=True), told(there[key], *facts), key)

    @SLOW
    @given(records(), st.sampled_from(get_args(RedFlag)))
    def test_another_danger_sign_never_makes_it_less_urgent(self, raw: dict[str, Any], red: str) -> None:
        more = copied(raw)
        more["intake"]["red_flags"] = [*more["intake"].get("red_flags", []), red]
        before, after = read(raw), read(more)

        def highest(reading: dict[str, Any]) -> int:
            return min((URGENCY.index(flag["urgency"]) for flag in reading["flags"]), default=len(URGENCY))

        self.assertLessEqual(highest(after), highest(before))
        urgent = {
            (action["code"], action["side"])
            for action in before["actions"]
            if action["urgency"] in ("emergency", "same_day")
        }
        self.assertLessEqual(urgent, {(action["code"], action["side"]) for action in after["actions"]})

    @SLOW
    @given(records(), st.data())
    def test_unknown_is_never_read_as_negative(self, raw: dict[str, Any], data: st.DataObject) -> None:
        """Taking an answer away never clears anything that was not cleared before."""
        places = [(i, code) for i, entry in enumerate(raw["entries"]) for code in entry["values"]]
        if not places:
            return
        place, code = data.draw(st.sampled_from(places))
        less = copied(raw)
        del less["entries"][place]["values"][code]
        before, after = read(raw), read(less)
        # What stops being flagged or grave beside it may be cleared again; nothing else may.
        gone = told(before["flags"], "code") - told(after["flags"], "code")
        if not gone:
            cleared = told(after["ruled_down"], "code") - told(before["ruled_down"], "code")
            replaced = len({entry["test"] for entry in raw["entries"]}) < len(raw["entries"])
            self.assertTrue(not cleared or replaced or code == "pressed")

    @SLOW
    @given(records(), st.randoms(use_true_random=False))
    def test_the_order_of_entries_does_not_matter(self, raw: dict[str, Any], chance: random.Random) -> None:
        """Where no later entry replaces an earlier one."""
        places = [(entry["test"], entry.get("side")) for entry in raw["entries"]]
        assume(len({test for test, _ in places}) == len(places))
        shuffled = copied(raw)
        chance.shuffle(shuffled["entries"])
        here, there = read(raw), read(shuffled)
        for key, facts in (
            ("flags", ("code", "strength", "urgency", "uncompared")),
            ("actions", ("code", "urgency")),
            ("ruled_down", ("code",)),
            ("held", ("test", "gate")),
        ):
            self.assertEqual(told(here[key], *facts), told(there[key], *facts), key)

    @SLOW
    @given(records())
    def test_no_later_rule_reads_what_is_held(self, raw: dict[str, Any]) -> None:
        """Emptying held entries changes no flag but those given as recorded while held."""
        before = read(raw)
        held = {(item["test"], item["side"]) for item in before["held"]}
        assume(held)
        of_danger = read_by_danger(raw)
        held = {(test, side) for test, side in held if test not in of_danger}
        assume(held)
        emptied = copied(raw)
        for entry in emptied["entries"]:
            empty(entry, {side for test, side in held if test == entry["test"]})

        def plain(reading: dict[str, Any]) -> set[Any]:
            flags = [f for f in reading["flags"] if "recorded while held" not in f["against"]]
            return told(flags, "code", "strength")

        aloud = {(f["side"], f["code"]) for f in before["flags"] if "recorded while held" in f["against"]}
        after = {item for item in plain(read(emptied)) if (item[0], item[1]) not in aloud}
        self.assertEqual(plain(before), after)

    @SLOW
    @given(records(), records())
    def test_every_other_face_answers_for_any_record(
        self, raw: dict[str, Any], before: dict[str, Any]
    ) -> None:
        """Route, evidence, change and the athlete's words: for every record, the same each time."""
        earlier = {**before, "id": "00000000-0000-4000-8000-000000000002", "date": "2026-03-02"}
        exam, old = (check_record(each, CATALOGUE).exam for each in (raw, {**earlier, "intake": {}}))
        context = Context((old,))
        reading = evaluate(exam, CATALOGUE, context)
        self.assertEqual(reading.changes, evaluate(exam, CATALOGUE, context).changes)
        for change in reading.changes:
            self.assertEqual(change.verdict == "not_comparable", change.comparison is None)
            self.assertEqual(change.why is None, change.comparison is not None)
        states = {item.state for item in reading.criteria}
        self.assertLessEqual(states, {"met", "not_met", "not_tested"})
        self.assertEqual(bool(reading.criteria), exam.purpose == "return_to_sport")
        route = make_route(exam, CATALOGUE, context)
        held = {(item.test, item.side) for item in reading.held}
        for stop in route.stops:
            free = [side for side in stop.sides if (stop.test, side) not in held]
            self.assertTrue(stop.waits_for is not None or free == list(stop.sides))
        case = judge(exam, CATALOGUE, context).case
        for item in evidence(case, reading):
            self.assertRegex(item.at, r"^entries\[\d+\]$")
        said = plain_summary(exam, reading)
        self.assertFalse(any("{" in line for line in (*said.found, *said.training, *said.next)))
