"""What was not asked or not looked at never comforts: monotone in ignorance, and nothing on the healthy."""

from __future__ import annotations

import json
import re
import unittest
from collections.abc import Iterator
from typing import Any
from unittest import mock

from hypothesis import assume, given, settings

from northstride.core import rules
from northstride.core.examination import Context
from northstride.core.examination.case import Case
from northstride.core.findings import URGENT, Reading, Urgency
from northstride.core.judgement.judge import judge
from northstride.core.norms.load import danger_checks, read_by_rule
from northstride.core.reading import evaluate
from northstride.core.route import make_route
from northstride.core.terms.sides import SIDES
from northstride.core.wording.plain import plain_summary
from northstride.record.read import check_record
from tests.support.ankle import done, hurt, steps, tender
from tests.support.any_record import CATALOGUE, records
from tests.support.records import record, thomas
from tests.support.stories import stories

SLOW = settings(max_examples=200)
COMFORT = ("You can train as before.", "Nothing more is needed for now.")
# What "as expected" is called in the values of a test.
NORMAL: tuple[Any, ...] = (False, [], "yes", "negative", "strong", "warm", "brisk", "same", "felt", 0)


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
        self.assertEqual(route.ask, reading.ask)
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
            self.assertTrue(any(judged.gate_over(test, side) for side in (*SIDES, None)))


class TheWorst(unittest.TestCase):
    """What a reading once said, each impossible now."""

    def said(self, *entries: dict[str, Any], **parts: Any) -> tuple[Reading, str]:
        exam = check_record(record(list(entries), **parts), CATALOGUE).exam
        reading = evaluate(exam, CATALOGUE, Context())
        plain = plain_summary(exam, reading)
        return reading, " ".join((*plain.found, *plain.training, *plain.next))

    def test_a_foot_that_cannot_take_four_steps_is_not_cleared(self) -> None:
        for region in ("leg", "knee", "ankle", "foot", "thigh"):
            reading, said = self.said(tender(), steps("no", "no"), **hurt(region))
            self.assertEqual(reading.ruled_down, (), region)
            self.assertTrue(urgent(reading), region)
            self.assertNotIn("train as before", said)

    def test_a_missing_kind_turns_nothing_off(self) -> None:
        look = done("ankle.look", deformity=True)
        wound = done("ankle.look", open_wound=True)
        weak = done("ankle.pulses", dorsalis_pedis="weak", skin="cool")
        for entry, code in (
            (look, "fracture.open_or_displaced"),
            (wound, "fracture.open_or_displaced"),
            (weak, "vascular.perfusion"),
        ):
            for purpose in ("ankle_injury", "foot_complaint"):
                reading, _ = self.said(entry, purpose=purpose, intake={"complaint": {"region": "ankle"}})
                self.assertIn(code, {flag.code for flag in reading.flags if flag.urgency in URGENT})
        reading, _ = self.said(done("ankle.anterior_drawer", laxity=1), purpose="ankle_injury")
        self.assertEqual({item.gate for item in reading.held}, {"fracture_doubt"})
        self.assertEqual([ask.item for ask in reading.ask if ask.urgent], ["onset.kind", "complaint.side"])

    def test_a_limping_child_with_little_rotation_is_not_told_to_stretch(self) -> None:
        child = {"athlete": {"ref": "T-1", "birth_date": "2013-01-01"}}
        entries = [done("hip.rom.internal_rotation_90", passive=8), thomas("right", thigh_angle=12)]
        story = {"complaint": {"region": "hip", "side": "right"}, "symptoms": ["limp"]}
        reading, said = self.said(*entries, intake=story, **child)
        self.assertIn(("danger.growth_plate_hip", "right"), urgent(reading))
        self.assertNotIn(Urgency.TRAIN, {action.urgency for action in reading.actions})
        self.assertNotIn("Stretching", said)

    def test_an_age_nobody_gave_clears_no_more_than_a_childs_does(self) -> None:
        """A limp nobody asked about keeps a child's hip open; without the age it is as open."""
        fadir = {"test": "hip.fadir", "side": "left", "values": {"result": "negative"}}
        story = {"complaint": {"region": "hip"}}
        child, unknown = {"ref": "T-1", "birth_date": "2023-01-02"}, {"ref": "T-1"}
        for athlete, asked in ((child, "symptoms.limp"), (unknown, "birth_date")):
            reading, _ = self.said(fadir, intake=story, athlete=athlete)
            self.assertEqual(reading.ruled_down, ())
            self.assertIn(asked, {ask.item for ask in reading.ask})
        told = {**story, "asked": ["limp"]}
        reading, _ = self.said(fadir, intake=told, athlete=unknown)
        self.assertEqual([item.code for item in reading.ruled_down], ["intra_articular.impingement"])
        self.assertNotIn("birth_date", {ask.item for ask in reading.ask})

    def test_a_cold_pulseless_foot_without_injury_is_an_emergency(self) -> None:
        cold = done("ankle.pulses", dorsalis_pedis="absent", posterior_tibial="absent", skin="cool", refill=5)
        for parts in ({}, {"intake": {"complaint": {"region": "foot"}, "onset": {"kind": "gradual"}}}):
            reading, said = self.said(cold, **parts)
            self.assertEqual(urgent(reading), {("vascular.perfusion", "right")})
            self.assertIn("emergency number", said)

    def test_a_torn_achilles_is_not_sent_to_the_lunge(self) -> None:
        torn = done("ankle.calf_squeeze", foot_moves="none", passive_range_checked=True)
        raw = record(
            [torn], purpose="ankle_injury", **hurt("ankle", sites=["achilles"], symptoms=["heard_pop"])
        )
        exam = check_record(raw, CATALOGUE).exam
        route = make_route(exam, CATALOGUE, Context())
        lunges = [stop for stop in route.stops if stop.test == "ankle.lunge"]
        self.assertEqual([side for stop in lunges for side in stop.sides if side == "right"], [])
        self.assertNotIn("ankle.lunge", {item.test for item in read(raw).next if item.side != "left"})

    def test_an_emergency_is_offered_neither_four_steps_nor_faber(self) -> None:
        for red in ("breathless_or_chest_pain", "fever_hot_joint", "obvious_deformity", "saddle_numbness"):
            for parts in (hurt("ankle", red_flags=[red]), hurt("hip", red_flags=[red], kind="gradual")):
                raw = record(purpose="ankle_injury", **parts)
                self.assertEqual(read(raw).next, ())
                route = make_route(check_record(raw, CATALOGUE).exam, CATALOGUE, Context())
                self.assertEqual(route.stops, ())

    def test_a_clot_still_asks_what_its_own_score_lacks(self) -> None:
        two = done("leg.clot", cancer=True, immobile=True)
        reading, _ = self.said(two, **hurt("leg"))
        self.assertEqual([(item.test, item.side) for item in reading.next], [("leg.clot", "right")])

    def test_an_ankle_injury_without_a_complaint_is_one_of_unknown_side(self) -> None:
        drawers = [done("ankle.anterior_drawer", side, laxity=0) for side in ("left", "right")]
        parts = {"purpose": "ankle_injury", "intake": {"onset": {"kind": "sudden"}}}
        reading, _ = self.said(*drawers, **parts)
        self.assertEqual(
            {(item.side, item.gate) for item in reading.held},
            {("left", "fracture_doubt"), ("right", "fracture_doubt")},
        )
        self.assertIn(("complaint.side", True), {(ask.item, ask.urgent) for ask in reading.ask})
        told = {"complaint": {"region": "ankle", "side": "right"}, "onset": {"kind": "sudden"}}
        known, _ = self.said(*drawers, **{**parts, "intake": told})
        self.assertEqual({item.side for item in known.held}, {"right"})


ENTRY, ENTRIES = Case.entry, Case.entries
# Five healthy athletes: age and sex, and what is usual for them.
HEALTHY = (("male", 24), ("female", 24), ("male", 34), ("female", 17), ("male", 50))
# Means of healthy adults: Roaas & Andersson 1982, Harvey 1998, Youdas 2005, Bennell 1998 for the lunge.
MEANS: dict[str, dict[str, Any]] = {
    "hip.rom.flexion": {"passive": 120},
    "hip.rom.extension": {"passive": 9.5},
    "hip.rom.abduction": {"passive": 39},
    "hip.rom.adduction": {"passive": 30.5},
    **{f"hip.rom.internal_rotation_{at}": {"passive": 32.5} for at in (0, 90)},
    **{f"hip.rom.external_rotation_{at}": {"passive": 33.5} for at in (0, 90)},
    "ankle.rom.dorsiflexion_knee_bent": {"passive": 15.3},
    "ankle.rom.plantarflexion": {"passive": 39.7},
    "ankle.rom.inversion": {"passive": 20},
    "ankle.rom.eversion": {"passive": 10},
    "hip.modified_thomas": {"thigh_angle": -11.9, "knee_angle": 52.5, "abduction_drift": 15.6},
    "ankle.lunge": {"distance": 110},
    "hip.craig": {"torsion": 11.5},
    "foot.standing": {"hindfoot_angle": 4, "arch": "normal"},
    "foot.navicular_drop": {"height_neutral": 50, "height_standing": 43},
    "ankle.heel_rise": {"count": 25, "heel_turns_in": True, "arch_forms": True},
    "hip.trendelenburg": {"lifts": "full", "hold": 30, "tilt_end": 2},
    "hip.leg_length": {"true_length": 890, "apparent_length": 960},
    "ankle.pulses": {"dorsalis_pedis": "strong", "posterior_tibial": "strong", "skin": "warm", "refill": 2},
}


def on_both_sides(test: str, values: dict[str, Any]) -> list[dict[str, Any]]:
    """Left at the mean, right one unit from it, which is within any error."""
    right = {c: v + 1 if type(v) in (int, float) and c != "count" else v for c, v in values.items()}
    if CATALOGUE.tests[test].sides == "both":
        return [{"test": test, "values": {c: {"left": values[c], "right": right[c]} for c in values}}]
    return [{"test": test, "side": side, "values": own} for side, own in (("left", values), ("right", right))]


class TheHealthy(unittest.TestCase):
    def test_five_healthy_athletes_give_no_flag_at_all(self) -> None:
        for sex, age in HEALTHY:
            means = {**MEANS, "hip.hamstring_90_90": {"knee_short": 39 if sex == "male" else 28}}
            entries = [entry for test, values in means.items() for entry in on_both_sides(test, values)]
            athlete = {"ref": "T-1", "birth_date": f"{2026 - age}-01-02", "sex": sex}
            reading = read(record(entries, athlete=athlete, purpose="squad_screen"))
            self.assertEqual([(f.code, f.side) for f in reading.flags], [], (sex, age))
            self.assertEqual((reading.actions, reading.ask, reading.retake), ((), (), ()))


class WhatRulesRead(unittest.TestCase):
    """The list of tests each rule of danger reads, held against what they look up."""

    # Where an injury nobody described is read from (U1), and where a palpation stands in the record.
    BONE = ("A0", "A1", "A1b", "A1c", "A1d", "H15")
    ANYWHERE = frozenset({"ankle.look", "ankle.pulses", "ankle.palpation", "ankle.weight_bearing"})

    @settings(max_examples=60)
    @given(stories())
    def test_is_all_that_they_look_up(self, raw: dict[str, Any]) -> None:
        case = Case(check_record(raw, CATALOGUE).exam, CATALOGUE, Context())
        for rule in (*rules.DANGER_RULES, *rules.LOAD_RULES):
            looked: set[str] = set()

            def entry(self: Case, test: str, *place: Any, found: set[str] = looked) -> Any:
                found.add(test)
                return ENTRY(self, test, *place)

            def entries(self: Case, test: str, lane: Any, found: set[str] = looked) -> Any:
                found.add(test)
                return ENTRIES(self, test, lane)

            with mock.patch.object(Case, "entry", entry), mock.patch.object(Case, "entries", entries):
                list(rule(case))
            numbers = re.findall(r"\b[AFHS]\d+[a-du]?\b", rule.__doc__ or "")
            # A hop counts for A2 where the bone is clear, so it asks what every rule of bone asks.
            numbers += self.BONE if rule.__name__ == "syndesmosis_by_count" else ()
            read_ = frozenset[str]().union(*(read_by_rule(number) for number in numbers))
            self.assertLessEqual(looked, read_ | self.ANYWHERE, rule.__name__)
