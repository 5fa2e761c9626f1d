"""The route: what a story asks for, safety first, the fewest turns, and the same route each time."""

from __future__ import annotations

import itertools
import random
import unittest
from typing import Any, get_args

from hypothesis import given, settings
from hypothesis import strategies as st

from northstride.core.catalogue import Position, default_catalogue
from northstride.core.examination import Context
from northstride.core.route import Route, make_route
from northstride.core.route.order import Place, fewest_turns, turns
from northstride.core.route.selection import FILE, route_data
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import Mechanism, Purpose, Symptom
from northstride.record.read import check_record
from tests.support.ankle import done, hurt, steps, tender
from tests.support.records import record

CATALOGUE = default_catalogue()


def route(entries: list[dict[str, Any]] | None = None, **parts: Any) -> Route:
    exam = check_record(record(entries or [], **parts), CATALOGUE).exam
    return make_route(exam, CATALOGUE, Context())


def tests_of(found: Route) -> list[str]:
    return list(dict.fromkeys(stop.test for stop in found.stops))


def why_not(found: Route, test: str) -> str:
    return next(item.why for item in found.left_out if item.test == test)


class Selection(unittest.TestCase):
    def test_a_squad_is_lean_and_under_six_minutes(self) -> None:
        found = route(purpose="squad_screen")
        self.assertEqual(
            set(tests_of(found)), {"hip.gait", "hip.squat", "ankle.lunge", "hip.modified_thomas"}
        )
        self.assertLess(found.seconds, 6 * 60)
        self.assertEqual(found.turns, 1)
        self.assertEqual(found.stops[0].sides, ())
        self.assertTrue(all(stop.sides in ((), (Side.LEFT, Side.RIGHT)) for stop in found.stops))

    def test_each_complaint_has_its_own(self) -> None:
        for purpose, region, sites, wanted, unwanted in (
            ("hip_complaint", "groin", ["groin"], "hip.adductor_squeeze", "ankle.anterior_drawer"),
            ("hip_complaint", "hip", ["lateral_hip"], "hip.single_leg_stance", "hip.adductor_squeeze"),
            ("hip_complaint", "hip", ["buttock"], "hip.thigh_thrust", "hip.single_leg_stance"),
            ("ankle_injury", "ankle", ["anterolateral"], "ankle.anterior_drawer", "hip.fadir"),
            ("ankle_injury", "ankle", ["above_lateral_malleolus"], "ankle.cotton", "ankle.anterior_drawer"),
            ("ankle_injury", "leg", ["achilles"], "ankle.calf_squeeze", "ankle.cotton"),
            ("foot_complaint", "foot", ["heel_medial"], "foot.plantar_fascia", "foot.web_squeeze"),
            ("foot_complaint", "foot", ["web_space"], "foot.web_squeeze", "foot.plantar_fascia"),
            ("return_to_sport", "ankle", [], "ankle.side_hop", "hip.fadir"),
            ("return_to_sport", "groin", [], "hip.step_down", "ankle.anterior_drawer"),
        ):
            complaint = {"region": region, "side": "right", "sites": sites}
            found = tests_of(route(purpose=purpose, intake={"complaint": complaint}))
            with self.subTest(purpose=purpose, sites=sites):
                self.assertIn(wanted, found)
                self.assertNotIn(unwanted, found)

    def test_a_purpose_without_a_story_takes_its_usual_region(self) -> None:
        self.assertIn("hip.fadir", tests_of(route(purpose="hip_complaint")))
        self.assertIn("ankle.look", tests_of(route(purpose="ankle_injury")))
        self.assertIn("foot.standing", tests_of(route(purpose="foot_complaint")))

    def test_teaching_has_the_whole_list(self) -> None:
        everything = route(purpose="teaching")
        self.assertEqual(set(tests_of(everything)), set(CATALOGUE.tests) - {"hip.ober"})
        used = route(purpose="teaching", schools={"ober": "use"})
        self.assertIn("hip.ober", tests_of(used))
        hip = tests_of(route(purpose="teaching", intake={"complaint": {"region": "hip"}}))
        self.assertTrue(all(CATALOGUE.tests[code].region == "hip" for code in hip))

    def test_every_test_is_on_the_route_or_left_out_with_a_reason(self) -> None:
        found = route(purpose="squad_screen", schools={"ober": "use"})
        self.assertEqual(set(tests_of(found)) | {item.test for item in found.left_out}, set(CATALOGUE.tests))
        self.assertTrue(all(stop.why for stop in found.stops))
        self.assertTrue(all(item.why for item in found.left_out))
        self.assertEqual(why_not(route(purpose="teaching"), "hip.ober"), "This clinic skips it.")

    def test_every_ask_names_what_there_is(self) -> None:
        known = {"purposes": Purpose, "symptoms": Symptom, "mechanisms": Mechanism}
        keys = {"why", "tests", "safety", "regions", "sites", "groin", "fresh", "load_change", "age_to"}
        for ask in route_data()["ask"]:
            self.assertLessEqual(set(ask), keys | set(known), f"{FILE.name}: {ask['why']}")
            self.assertLessEqual(set(ask["tests"]), set(CATALOGUE.tests))
            self.assertLessEqual(set(ask.get("sites", [])), set(CATALOGUE.sites))
            for key, literal in known.items():
                self.assertLessEqual(set(ask.get(key, [])), set(get_args(literal)))
        families = {test.family for test in CATALOGUE.tests.values()}
        for stage in ("first", "last"):
            self.assertLessEqual(set(route_data()["families"][stage]), families)


class Safety(unittest.TestCase):
    def test_a_fresh_injury_is_cleared_before_anything_is_loaded(self) -> None:
        found = route(purpose="ankle_injury", **hurt(sites=["anterolateral"]))
        order = tests_of(found)
        for first in ("ankle.weight_bearing", "ankle.palpation", "ankle.pulses", "ankle.sensation"):
            self.assertLess(order.index(first), order.index("ankle.anterior_drawer"))
        drawer = next(stop for stop in found.stops if stop.test == "ankle.anterior_drawer")
        self.assertEqual(drawer.waits_for, "fracture_doubt")
        self.assertEqual(drawer.sides, (Side.LEFT, Side.RIGHT))

    def test_a_broken_bone_leaves_the_loaded_side_out(self) -> None:
        entries = [tender("lateral_malleolus_posterior"), steps("no", "no")]
        found = route(entries, purpose="ankle_injury", **hurt(sites=["anterolateral"]))
        drawer = next(stop for stop in found.stops if stop.test == "ankle.anterior_drawer")
        self.assertEqual(drawer.sides, (Side.LEFT,))
        both = [*entries, done("ankle.palpation", "left", tender=["medial_malleolus_posterior"])]
        again = route(both, purpose="ankle_injury", **hurt(sites=["anterolateral"]))
        self.assertEqual(why_not(again, "ankle.anterior_drawer"), "Held: fracture doubt.")

    def test_calf_and_growing_hip_come_first(self) -> None:
        calf = route(purpose="follow_up", intake={"complaint": {"region": "leg", "sites": ["calf"]}})
        self.assertEqual(calf.stops[0].test, "leg.clot")
        child: dict[str, Any] = {"athlete": {"ref": "T-1", "birth_date": "2013-01-01"}}
        story = {"complaint": {"region": "knee", "side": "left"}, "symptoms": ["limp"]}
        limping = route(purpose="hip_complaint", intake=story, **child)
        order = tests_of(limping)
        self.assertEqual(order[:2], ["ankle.weight_bearing", "hip.rom.internal_rotation_90"])
        fadir = next(stop for stop in limping.stops if stop.test == "hip.fadir")
        self.assertEqual(fadir.waits_for, "growth_plate_doubt")

    def test_with_a_complaint_function_comes_last(self) -> None:
        complaint = {"region": "hip", "side": "left", "sites": ["lateral_hip"]}
        order = tests_of(route(purpose="hip_complaint", intake={"complaint": complaint}))
        for test in ("hip.single_leg_stance", "hip.trendelenburg"):
            self.assertGreater(order.index(test), order.index("hip.fadir"))

    def test_replaced_hip_pregnancy_and_balance(self) -> None:
        told = {"complaint": {"region": "hip", "side": "right", "sites": ["lateral_hip", "posterior_thigh"]}}
        replaced = {
            **told,
            "history": [{"region": "hip", "side": "right", "kind": "hip_replacement", "weeks_ago": 90}],
        }
        fadir = next(s for s in route(intake=replaced).stops if s.test == "hip.fadir")
        self.assertEqual(fadir.sides, (Side.LEFT,))
        expecting = route(intake={**told, "confounders": ["pregnant", "cannot_balance"]})
        extension = next(s for s in expecting.stops if s.test == "hip.resisted.extension")
        self.assertEqual(extension.position, "side_lying")
        self.assertIn("Side-lying", extension.why)
        self.assertNotIn("prone", {stop.position for stop in expecting.stops})
        stance = next(s for s in expecting.stops if s.test == "hip.single_leg_stance")
        self.assertIn("support", stance.why)
        teaching = route(purpose="teaching", intake={"confounders": ["pregnant"]})
        self.assertEqual(why_not(teaching, "hip.craig"), "Not prone while pregnant.")

    def test_what_is_done_is_left_out_by_side(self) -> None:
        lunge = done("ankle.lunge", "left", distance=100)
        found = route([lunge], purpose="squad_screen")
        stop = next(stop for stop in found.stops if stop.test == "ankle.lunge")
        self.assertEqual(stop.sides, (Side.RIGHT,))
        both = route([lunge, done("ankle.lunge", distance=100)], purpose="squad_screen")
        self.assertEqual(why_not(both, "ankle.lunge"), "Done.")


class Order(unittest.TestCase):
    def test_the_sound_side_first(self) -> None:
        for side, school, expected in (
            ("left", {}, Side.RIGHT),
            ("right", {}, Side.LEFT),
            ("left", {"first_side": "left"}, Side.LEFT),
        ):
            complaint = {"region": "hip", "side": side, "sites": ["groin"]}
            found = route(intake={"complaint": complaint}, schools=school)
            self.assertTrue(all(stop.sides[0] is expected for stop in found.stops if stop.sides))

    def test_side_lying_turns_once_for_each_side(self) -> None:
        complaint = {"region": "hip", "side": "left", "sites": ["lateral_hip", "buttock"]}
        found = route(intake={"complaint": complaint, "symptoms": ["clicking"]})
        lying = [stop for stop in found.stops if stop.position == "side_lying"]
        self.assertEqual(len(lying), 6)
        self.assertEqual([stop.sides for stop in lying], [(Side.RIGHT,)] * 3 + [(Side.LEFT,)] * 3)
        self.assertEqual(sum(stop.turn for stop in lying), 2)

    def test_the_school_of_the_start(self) -> None:
        complaint = {"region": "ankle", "side": "left", "sites": ["medial"]}
        told = {"complaint": complaint, "onset": {"kind": "gradual"}, "load_change": False}
        standing = route(purpose="ankle_injury", intake=told)
        sitting = route(purpose="ankle_injury", intake=told, schools={"start": "sitting"})
        self.assertFalse(sitting.stops[0].turn)
        self.assertEqual(sitting.stops[0].position, "sitting")
        self.assertLessEqual(sitting.turns, standing.turns)

    def test_costs_add_up(self) -> None:
        found = route(purpose="teaching")
        self.assertEqual(found.turns, sum(stop.turn for stop in found.stops))
        spent = sum(stop.seconds for stop in found.stops)
        self.assertEqual(found.seconds, spent + 20 * found.turns)
        self.assertEqual(found.plain_seconds, spent + 20 * found.plain_turns)
        self.assertLess(found.turns, found.plain_turns)

    @settings(max_examples=60)
    @given(st.randoms(use_true_random=False))
    def test_no_order_of_any_kind_has_fewer_turns(self, chance: random.Random) -> None:
        """Against every order of every small set of stops, tried one by one."""
        places: list[Place] = [(position, None) for position in ("standing", "sitting", "supine", "prone")]
        stages = [
            [tuple(chance.sample(places, chance.choice((1, 1, 2)))) for _ in range(chance.randint(0, 3))]
            for _ in range(2)
        ]
        start: Position = chance.choice(("standing", "sitting"))
        orders = fewest_turns(stages, start, Side.LEFT)
        for stage, order in zip(stages, orders, strict=True):
            self.assertTrue(all(set(options) & set(order) for options in stage))
        found = turns([place for order in orders for place in order], start)
        best = min(turns([*one, *two], start) for one in _walks(stages[0]) for two in _walks(stages[1]))
        self.assertEqual(found, best)

    @settings(max_examples=60)
    @given(
        st.sampled_from(get_args(Purpose)),
        st.sampled_from(["hip", "groin", "knee", "leg", "ankle", "foot", "none"]),
        st.lists(st.sampled_from(sorted(CATALOGUE.sites)), max_size=3, unique=True),
        st.sampled_from(["left", "right", "both"]),
    )
    def test_any_story_has_a_sound_route_the_same_each_time(
        self, purpose: str, region: str, sites: list[str], side: str
    ) -> None:
        intake = {"complaint": {"region": region, "side": side, "sites": sites}, "onset": {"kind": "sudden"}}
        found = route(purpose=purpose, intake=intake)
        self.assertEqual(found, route(purpose=purpose, intake=intake))
        done_on = [(stop.test, each) for stop in found.stops for each in stop.sides or (None,)]
        self.assertEqual(len(done_on), len(set(done_on)))
        self.assertLessEqual(found.turns, found.plain_turns + 2)


def _walks(stage: list[tuple[Place, ...]]) -> list[tuple[Place, ...]]:
    """Every choice of one option for each item, in every order."""
    return [order for chosen in itertools.product(*stage) for order in itertools.permutations(chosen)] or [()]
