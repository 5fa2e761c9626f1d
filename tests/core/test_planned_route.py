"""A plan somebody made: its order is kept, danger comes first, what is asked for beside it is offered."""

from __future__ import annotations

import itertools
import unittest
from typing import Any

from hypothesis import given, settings

from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.route import Route, make_route, planned_with
from northstride.core.route.stops import TURN_SECONDS
from northstride.core.terms.sides import Side
from northstride.record.read import check_record
from tests.support.ankle import steps
from tests.support.any_record import records
from tests.support.records import read, record

CATALOGUE = default_catalogue()
L, R = Side.LEFT, Side.RIGHT


def exam_of(raw: dict[str, Any]) -> Any:
    return check_record(raw, CATALOGUE).exam


def route(entries: list[dict[str, Any]] | None = None, *, whole: bool = True, **parts: Any) -> Route:
    return make_route(exam_of(record(entries or [], **parts)), CATALOGUE, Context(), whole=whole)


def codes(found: Route) -> list[str]:
    return list(dict.fromkeys(stop.test for stop in found.stops))


SPRAIN = {
    "complaint": {"places": [{"site": "anterolateral", "side": "right", "now": 5}]},
    "onset": {"kind": "sudden", "date": "2026-09-12", "mechanism": "inversion"},
    "load_change": False,
}


class Order(unittest.TestCase):
    def test_the_order_of_the_plan_is_kept(self) -> None:
        planned = ["hip.fadir", "hip.gait", "hip.faber"]
        self.assertEqual(codes(route(planned=planned)), planned)

    def test_danger_checks_come_first_in_any_order_a_hand_gives(self) -> None:
        planned = ["ankle.lunge", "ankle.anterior_drawer", "ankle.palpation", "ankle.weight_bearing"]
        found = route(purpose="ankle_injury", intake=SPRAIN, planned=planned)
        self.assertEqual(codes(found)[:2], ["ankle.palpation", "ankle.weight_bearing"])
        self.assertEqual(codes(found)[2:], ["ankle.lunge", "ankle.anterior_drawer"])
        self.assertEqual([stop.stage for stop in found.stops[:2]], ["safety", "safety"])

    def test_side_lying_is_done_on_one_side_and_then_on_the_other(self) -> None:
        lying = [code for code, test in CATALOGUE.tests.items() if test.position == "side_lying"][:2]
        found = route(planned=lying, schools={"ober": "use"})
        self.assertEqual([stop.sides for stop in found.stops], [(L,), (L,), (R,), (R,)])
        self.assertEqual(found.turns, 2)

    def test_a_test_of_several_positions_takes_the_one_that_saves_turns(self) -> None:
        several = next(test for test in CATALOGUE.tests.values() if test.also_in)
        other = next(
            code
            for code, test in CATALOGUE.tests.items()
            if test.position == several.also_in[0] and not test.also_in and test.sides == "each"
        )
        found = route(planned=[other, several.code, other])
        self.assertEqual({stop.position for stop in found.stops}, {several.also_in[0]})

    @settings(max_examples=150, deadline=None)
    @given(records())
    def test_a_proposal_taken_as_the_plan_is_walked_as_it_was_proposed(self, raw: dict[str, Any]) -> None:
        raw |= {"planned": [], "entries": []}
        proposed = route_of(raw)
        planned = codes(proposed)
        walked = route_of({**raw, "planned": planned})
        if not planned:
            return
        self.assertEqual(set(codes(walked)), set(planned))
        self.assertEqual(walked.offered, ())
        # A test in side-lying stands in the plan once: its second side may cost a turn another order saves.
        self.assertLessEqual(walked.turns, proposed.turns + 1)
        first = [code for code in codes(walked) if CATALOGUE.tests[code].position != "side_lying"]
        self.assertEqual(first, [code for code in planned if CATALOGUE.tests[code].position != "side_lying"])

    @settings(max_examples=100, deadline=None)
    @given(records())
    def test_time_and_turns_add_up_with_a_plan_too(self, raw: dict[str, Any]) -> None:
        found = route_of(raw, whole=True)
        self.assertEqual(found.turns, sum(stop.turn for stop in found.stops))
        spent = sum(stop.seconds for stop in found.stops)
        self.assertEqual(found.seconds, round(spent + found.turns * TURN_SECONDS))
        for one, other in itertools.pairwise(found.stops):
            if one.position == other.position != "side_lying":
                self.assertFalse(other.turn)
            self.assertFalse(one.stage != "safety" and other.stage == "safety")


def route_of(raw: dict[str, Any], *, whole: bool = False) -> Route:
    return make_route(exam_of(raw), CATALOGUE, Context(), whole=whole)


class Offered(unittest.TestCase):
    def test_what_the_story_asks_for_beside_the_plan_is_offered_not_put_in(self) -> None:
        found = route(purpose="ankle_injury", intake=SPRAIN, planned=["ankle.lunge"])
        self.assertEqual(codes(found), ["ankle.lunge"])
        offered = {item.test: item for item in found.offered}
        self.assertEqual(offered["ankle.palpation"].stage, "safety")
        self.assertEqual(offered["ankle.anterior_drawer"].asked_for, (R,))

    def test_what_was_left_out_is_not_offered_again_and_keeps_its_reason(self) -> None:
        left_out = [{"test": "ankle.anterior_drawer", "reason": "too sore today"}]
        found = route(purpose="ankle_injury", intake=SPRAIN, planned=["ankle.lunge"], left_out=left_out)
        self.assertNotIn("ankle.anterior_drawer", {item.test for item in found.offered})
        why = {item.test: item.why for item in found.left_out}
        self.assertEqual(why["ankle.anterior_drawer"], "too sore today")

    def test_leaving_a_test_out_comforts_nobody(self) -> None:
        left_out = [{"test": "ankle.weight_bearing", "reason": "no time"}]
        parts: dict[str, Any] = {"purpose": "ankle_injury", "intake": SPRAIN, "planned": ["ankle.lunge"]}
        self.assertEqual(read(record(left_out=left_out, **parts)), read(record(**parts)))

    def test_why_speaks_of_the_side_the_story_names(self) -> None:
        places = [{"site": "lateral_hip", "side": "left"}, {"site": "groin", "side": "right"}]
        found = route(intake={"complaint": {"places": places}})
        stops = {stop.test: stop.asked_for for stop in found.stops}
        self.assertEqual(stops["hip.single_leg_stance"], (L,))
        self.assertEqual(stops["hip.adductor_squeeze"], (L, R))

    def test_a_follow_up_asks_for_what_it_is_held_against(self) -> None:
        last = exam_of(
            record(
                [
                    {"test": "ankle.lunge", "side": "left", "values": {"distance": 90}},
                    {"test": "hip.faber", "side": "left", "declined": "too sore"},
                ],
                date="2026-09-01",
            )
        )
        now = exam_of(record(purpose="follow_up"))
        found = make_route(now, CATALOGUE, Context(earlier=(last,)))
        self.assertEqual(codes(found), ["ankle.lunge"])
        self.assertEqual(codes(make_route(now, CATALOGUE, Context())), [])


class Learning(unittest.TestCase):
    def test_a_region_no_test_examines_is_learnt_on_the_whole_list(self) -> None:
        knee = {"complaint": {"region": "knee", "side": "left"}}
        told = codes(route(purpose="teaching", intake=knee))
        self.assertEqual(set(told), set(codes(route(purpose="teaching"))))


class Whole(unittest.TestCase):
    def test_the_whole_route_keeps_what_is_done(self) -> None:
        done = [steps("yes", "yes")]
        parts: dict[str, Any] = {"purpose": "ankle_injury", "intake": SPRAIN}
        planned = codes(route(**parts))
        walked = {stop.test: stop.sides for stop in route(done, planned=planned, **parts).stops}
        self.assertEqual(walked["ankle.weight_bearing"], (L, R))
        left = {stop.test: stop.sides for stop in route(done, whole=False, **parts).stops}
        self.assertEqual(left["ankle.weight_bearing"], (L,))

    def test_a_side_that_is_held_for_good_is_named_while_the_other_is_free(self) -> None:
        replaced = [{"region": "hip", "side": "left", "kind": "hip_replacement", "weeks_ago": 60}]
        found = route(intake={"history": replaced}, planned=["hip.fadir", "hip.gait"])
        stop = next(stop for stop in found.stops if stop.test == "hip.fadir")
        self.assertEqual(stop.sides, (R,))
        self.assertEqual([(held.side, held.gate) for held in stop.held], [(L, "hip_replacement")])

    def test_what_both_sides_are_held_from_is_left_out_with_its_gate(self) -> None:
        replaced = [{"region": "hip", "side": "both", "kind": "hip_replacement", "weeks_ago": 60}]
        found = route(intake={"history": replaced}, planned=["hip.fadir"])
        gates = {item.test: item.gate for item in found.left_out}
        self.assertEqual(gates["hip.fadir"], "hip_replacement")

    def test_beside_an_emergency_a_plan_waits_as_well(self) -> None:
        ill = {"red_flags": ["breathless_or_chest_pain"]}
        self.assertEqual(route(intake=ill, planned=["hip.faber", "hip.gait"]).stops, ())


class Added(unittest.TestCase):
    def plan(self, planned: list[str], code: str) -> list[str]:
        return planned_with(exam_of(record(planned=planned)), CATALOGUE, Context(), code)

    def test_a_test_more_goes_where_it_costs_no_turn_and_as_late_as_that_allows(self) -> None:
        planned = ["hip.gait", "hip.faber", "hip.fadir", "hip.ely"]
        position = CATALOGUE.tests["hip.rom.flexion"].position
        self.assertEqual(position, CATALOGUE.tests["hip.fadir"].position)
        self.assertEqual(
            self.plan(planned, "hip.rom.flexion"),
            ["hip.gait", "hip.faber", "hip.fadir", "hip.rom.flexion", "hip.ely"],
        )

    def test_one_that_stands_already_moves_to_its_best_place_and_stands_once(self) -> None:
        found = self.plan(["hip.faber", "hip.gait"], "hip.faber")
        self.assertEqual(sorted(found), ["hip.faber", "hip.gait"])

    def test_one_that_is_held_is_planned_all_the_same(self) -> None:
        replaced = {"history": [{"region": "hip", "side": "both", "kind": "hip_replacement"}]}
        exam = exam_of(record(planned=["hip.gait"], intake=replaced))
        self.assertEqual(planned_with(exam, CATALOGUE, Context(), "hip.fadir"), ["hip.gait", "hip.fadir"])
