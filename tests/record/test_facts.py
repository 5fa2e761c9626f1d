"""Facts: a head taken apart and put together again is the same head, in whatever order hands write."""

from __future__ import annotations

import random
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from northstride.core.catalogue import default_catalogue
from northstride.core.examination.first_side import first_side_of
from northstride.record.complaint import complaint_in
from northstride.record.fact_fields import ROUTE, STORY, FactPlace, fact_faults
from northstride.record.facts import Head, facts_of, head_of, with_fact
from northstride.store.answers.folding import canonical
from tests.support.any_record import records
from tests.support.records import faults, read, record, strengths

CATALOGUE = default_catalogue()
EMPTY: Head = {"purpose": "squad_screen"}


def story(field: str, side: str | None = None, key: str = "") -> FactPlace:
    return FactPlace(STORY, side, key, field)


def route(field: str) -> FactPlace:
    return FactPlace(ROUTE, None, "", field)


def told(*facts: tuple[FactPlace, Any], head: Head = EMPTY) -> Head:
    for place, value in facts:
        head = with_fact(head, place, value, "K. Aalto")
    return head


def unordered(head: Head) -> Any:
    """A head whose lists of codes are sets: in which order it was asked says nothing."""
    found = canonical(head_of(head))
    intake = found.get("intake", {})
    for name in ("symptoms", "red_flags", "confounders", "asked"):
        if name in intake:
            intake[name] = sorted(intake[name])
    for name in ("sites", "places"):
        if name in intake.get("complaint", {}):
            intake["complaint"][name] = sorted(intake["complaint"][name], key=str)
    intake["history"] = sorted(
        ({name: value for name, value in line.items() if name != "id"} for line in intake.get("history", [])),
        key=str,
    )
    return {**found, "intake": intake}


class RoundTrip(unittest.TestCase):
    @settings(max_examples=300, deadline=None)
    @given(records(), st.randoms(use_true_random=False))
    def test_any_head_is_made_of_its_facts_in_any_order(
        self, raw: dict[str, Any], dice: random.Random
    ) -> None:
        raw["planned"] = list(dict.fromkeys(raw["planned"]))
        facts = [*facts_of(raw).items()]
        dice.shuffle(facts)
        again = told(*facts)
        self.assertEqual(unordered(again), unordered(raw))
        for place, value in facts:
            self.assertEqual(fact_faults(CATALOGUE, place, value, "answers[0]"), [], place)

    @settings(max_examples=100, deadline=None)
    @given(records())
    def test_taking_every_fact_back_leaves_nothing(self, raw: dict[str, Any]) -> None:
        head = head_of(raw)
        for place in facts_of(raw):
            head = with_fact(head, place, None, None)
        # A screen always has a purpose.
        self.assertEqual(canonical(head), {"purpose": raw["purpose"]})

    def test_a_fact_told_twice_is_told_once(self) -> None:
        place = (story("red_flags.weight_loss"), True)
        self.assertEqual(told(place), told(place, place))

    def test_the_head_that_was_given_stays_as_it_was(self) -> None:
        before = told((story("here", "left", "groin"), True))
        told((story("now", "left", "groin"), 7), head=before)
        self.assertEqual(before["intake"]["complaint"]["places"], [{"site": "groin", "side": "left"}])


class Asked(unittest.TestCase):
    def test_yes_no_and_open_are_three_answers(self) -> None:
        place = story("symptoms.limp")
        self.assertEqual(told((place, True))["intake"], {"symptoms": ["limp"]})
        self.assertEqual(told((place, False))["intake"], {"asked": ["limp"]})
        self.assertEqual(told((place, True), (place, False))["intake"], {"asked": ["limp"]})
        self.assertIsNone(told((place, False), (place, None))["intake"])

    def test_a_line_of_history_takes_back_that_there_was_none(self) -> None:
        head = told(
            (story("history.none"), True), (story("history", key="a1"), {"region": "hip", "kind": "sprain"})
        )
        self.assertEqual(head["intake"], {"history": [{"region": "hip", "kind": "sprain", "id": "a1"}]})

    def test_lines_of_a_file_keep_their_names_when_one_goes(self) -> None:
        lines = [{"region": "hip", "kind": kind} for kind in ("sprain", "fracture", "surgery")]
        head = told((story("history", key="line1"), None), head={**EMPTY, "intake": {"history": lines}})
        head = told((story("history", key="line3"), None), head=head)
        self.assertEqual([line["kind"] for line in head["intake"]["history"]], ["fracture"])


class Places(unittest.TestCase):
    def test_the_last_place_takes_a_side_that_spoke_of_it_along(self) -> None:
        here = story("here", "left", "groin")
        head = told((here, True), (story("complaint.side"), "left"), (here, None))
        self.assertIsNone(head["intake"])

    def test_what_is_told_of_a_place_makes_it_one(self) -> None:
        """Two hands: how much may arrive before that it hurts at all."""
        head = told((story("worst", "right", "calf"), 6), (story("here", "right", "calf"), True))
        self.assertEqual(
            head["intake"]["complaint"]["places"], [{"site": "calf", "side": "right", "worst": 6}]
        )

    def test_places_count_as_sites_side_and_pain_of_the_complaint(self) -> None:
        groin = [{"test": "hip.faber", "side": "left", "pain": {"present": True, "site": "groin"}}]
        written = {"complaint": {"region": "groin", "side": "left", "sites": ["groin"]}, "pain": {"now": 5}}
        placed = {"complaint": {"places": [{"site": "groin", "side": "left", "now": 5}]}}
        one, other = read(record(groin, intake=written)), read(record(groin, intake=placed))
        self.assertEqual(one, other)
        self.assertTrue(one["coverage"]["unexamined"])

    def test_places_on_both_sides_stand_for_both(self) -> None:
        places = [{"site": "calf", "side": side} for side in ("left", "right")]
        ill = {"complaint": {"places": places}, "red_flags": ["fever_hot_joint"]}
        found = strengths(read(record(intake=ill, purpose="ankle_injury")))
        self.assertEqual({side for code, side in found if code == "danger.infected_joint"}, {"left", "right"})

    def test_a_place_beats_that_nothing_hurts(self) -> None:
        place = {"site": "groin", "side": "left"}
        told = {"complaint": {"region": "none", "places": [place]}}
        placed = {"complaint": {"places": [place]}}
        self.assertEqual(read(record(intake=told)), read(record(intake=placed)))
        for intake in (told, placed):
            self.assertEqual(self.first_side(intake), "right")

    def first_side(self, intake: dict[str, Any]) -> str:
        return first_side_of(complaint_in(intake, "hip_complaint", CATALOGUE), "uninjured")

    def test_the_sound_side_is_first_where_the_places_leave_one(self) -> None:
        places = [{"site": "groin", "side": side} for side in ("right", "right", "left")]
        self.assertEqual(self.first_side({"complaint": {"places": places[:2]}}), "left")
        self.assertEqual(self.first_side({"complaint": {"places": places}}), "left")

    def test_the_most_anybody_wrote_of_the_pain_counts(self) -> None:
        places = [{"site": "groin", "side": "left", "now": now} for now in (1,)]
        intake = {"complaint": {"places": places}, "pain": {"now": 4}}
        criteria = read(record(intake=intake, purpose="return_to_sport"))["criteria"]
        self.assertEqual(next(c["state"] for c in criteria if c["criterion"] == "pain_now"), "not_met")

    def test_a_complaint_names_a_region_a_site_or_a_place(self) -> None:
        self.assertIn("intake.complaint", faults(record(intake={"complaint": {"side": "left"}})))
        self.assertEqual(faults(record(intake={"complaint": {"sites": ["groin"]}})), {})
        unknown = record(intake={"complaint": {"places": [{"site": "elbow", "side": "left"}]}})
        self.assertEqual([*faults(unknown)], ["intake.complaint.places[0].site"])


class Plan(unittest.TestCase):
    def test_a_reorder_keeps_what_another_hand_put_in(self) -> None:
        head = told(
            (route("order"), ["hip.faber", "hip.fadir"]),
            (route("planned.hip.gait"), True),
            (route("order"), ["hip.fadir", "hip.faber"]),
        )
        self.assertEqual(head["planned"], ["hip.fadir", "hip.faber", "hip.gait"])

    def test_what_is_left_out_leaves_the_plan_and_no_order_brings_it_back(self) -> None:
        order = (route("order"), ["hip.faber", "hip.fadir"])
        head = told(order, (route("left_out.hip.fadir"), "sore enough"), order)
        self.assertEqual(head["planned"], ["hip.faber"])
        self.assertEqual(head["left_out"], [{"test": "hip.fadir", "reason": "sore enough", "by": "K. Aalto"}])
        back = told((route("planned.hip.fadir"), True), head=head)
        self.assertEqual((back["planned"], back["left_out"]), (["hip.faber", "hip.fadir"], []))

    def test_the_start_is_this_screens_own(self) -> None:
        head = told((route("start"), "sitting"), head={**EMPTY, "schools": {"ober": "use"}})
        self.assertEqual(head["schools"], {"ober": "use", "start": "sitting"})
        self.assertEqual(told((route("start"), None), head=head)["schools"], {"ober": "use"})


class Faults(unittest.TestCase):
    def test_each_fault_stands_at_its_own_place(self) -> None:
        for place, value, path in (
            (story("red_flags.toothache"), True, "field"),
            (story("red_flags.weight_loss"), "yes", "value"),
            (story("red_flags.weight_loss", "left"), True, "side"),
            (story("here", "left", "elbow"), True, "key"),
            (story("now", None, "groin"), 3, "side"),
            (story("now", "left", "groin"), 11, "value"),
            (story("now", "left", "groin"), True, "value"),
            (story("onset.date"), "yesterday", "value"),
            (story("history", key="a1"), {"region": "hip"}, "value.kind"),
            (story("history", key="a1"), {"region": "hip", "kind": "sprain", "count": 0}, "value.count"),
            (story("morning_stiffness_min"), 2000, "value"),
            (story("consent.guardian"), "x" * 300, "value"),
            (route("planned.hip.dance"), True, "field"),
            (route("order"), ["hip.faber", "hip.dance"], "value"),
            (route("left_out.hip.faber"), " ", "value"),
            (FactPlace(ROUTE, None, "k", "order"), ["hip.faber"], "field"),
        ):
            with self.subTest(place=place):
                found = [fault.path for fault in fact_faults(CATALOGUE, place, value, "answers[2]")]
                self.assertEqual(found, [f"answers[2].{path}"])

    def test_open_is_always_sound(self) -> None:
        for place in (story("now", "left", "groin"), story("onset.date"), route("left_out.hip.faber")):
            self.assertEqual(fact_faults(CATALOGUE, place, None, "x"), [])
