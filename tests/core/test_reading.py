"""Whole readings: what holds for every record, and how the parts are put together."""

from __future__ import annotations

import importlib
import inspect
import json
import pkgutil
import unittest
from types import CodeType
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from northstride.core import rules
from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.core.examination import Context
from northstride.core.examination.first_side import first_side_of
from northstride.core.reading import evaluate
from northstride.record.complaint import complaint_in
from northstride.record.read import check_record
from tests.support.records import THOMAS, read, read_thomas, record, strengths, thomas

TEST = default_catalogue().tests[THOMAS]
OTHER = {"left": "right", "right": "left", "both": "both"}


def number(low: float, high: float) -> st.SearchStrategy[Any]:
    one = st.integers(int(low), int(high)) | st.floats(low, high).map(lambda x: round(x, 1))
    return one | st.lists(one, min_size=1, max_size=3)


def values() -> st.SearchStrategy[dict[str, Any]]:
    options: dict[str, st.SearchStrategy[Any]] = {}
    for measure in TEST.measures:
        low, high = measure.plausible or (0, 0)
        if measure.numeric:
            options[measure.code] = number(low, high)
        elif measure.kind == "grade":
            options[measure.code] = st.integers(int(low), int(high))
        else:
            options[measure.code] = st.sampled_from([choice.code for choice in measure.choices])
    return st.fixed_dictionaries({}, optional=options)


entries = st.lists(
    st.fixed_dictionaries(
        {
            "test": st.just(THOMAS),
            "side": st.sampled_from(["left", "right"]),
            "values": values(),
            "seen": st.lists(st.sampled_from([item.code for item in TEST.seen]), unique=True),
        }
    ),
    max_size=4,
)
schools = st.fixed_dictionaries(
    {},
    optional={
        "thomas": st.sampled_from(["degrees", "pass_fail", "edge_grade"]),
        "knee_pass": st.sampled_from([80, 90, 100]),
        "trial_value": st.sampled_from(["mean", "median"]),
    },
)
purposes = st.sampled_from(["squad_screen", "hip_complaint", "follow_up"])
complaints = st.none() | st.fixed_dictionaries(
    {"region": st.sampled_from(["hip", "ankle", "none"]), "side": st.sampled_from(["left", "right", "both"])}
)


@st.composite
def records(draw: st.DrawFn) -> dict[str, Any]:
    complaint = draw(complaints)
    parts = {"intake": {"complaint": complaint}} if complaint else {}
    return record(draw(entries), purpose=draw(purposes), schools=draw(schools), planned=[THOMAS], **parts)


def mirrored(raw: dict[str, Any]) -> dict[str, Any]:
    swapped = json.loads(json.dumps(raw))
    for entry in swapped["entries"]:
        entry["side"] = OTHER[entry["side"]]
    complaint = swapped.get("intake", {}).get("complaint")
    if complaint:
        complaint["side"] = OTHER[complaint["side"]]
    return dict(swapped)


def told(reading: dict[str, Any], key: str) -> set[str]:
    return {json.dumps(item, sort_keys=True) for item in reading[key]}


class EveryRecord(unittest.TestCase):
    @settings(max_examples=150)
    @given(records())
    def test_mirrors_when_the_sides_are_swapped(self, raw: dict[str, Any]) -> None:
        here, there = read(raw), read(mirrored(raw))
        for key in ("flags", "actions", "retake", "next"):
            swapped = [{**item, "side": OTHER[item["side"]]} for item in here[key]]
            self.assertEqual(told({key: swapped}, key), told(there, key))
        for one, other in zip(here["differences"], there["differences"], strict=True):
            self.assertEqual((one["left"], one["right"]), (other["right"], other["left"]))
            self.assertEqual(one["difference"], -other["difference"])
            self.assertEqual(one["verdict"], other["verdict"])

    @settings(max_examples=80)
    @given(records())
    def test_is_the_same_each_time_and_sound(self, raw: dict[str, Any]) -> None:
        reading = read(raw)
        self.assertEqual(reading, read(raw))
        flagged = [(flag["code"], flag["side"]) for flag in reading["flags"]]
        self.assertEqual(len(flagged), len(set(flagged)))
        for flag in reading["flags"]:
            self.assertEqual(flag["kind"], flag["code"].split(".")[0])
            self.assertTrue(flag["because"])
            for reason in flag["because"]:
                self.assertRegex(reason["rule"], r"^M[0-9]$")
                place = int(reason["at"].removeprefix("entries[").removesuffix("]"))
                self.assertLess(place, len(raw["entries"]))

    @settings(max_examples=80)
    @given(records(), st.sampled_from(["note", "pain", "declined"]))
    def test_what_no_rule_reads_changes_nothing(self, raw: dict[str, Any], kind: str) -> None:
        extra: dict[str, Any] = {"test": THOMAS, "side": "left", "declined": "no time"}
        changed = json.loads(json.dumps(raw))
        if kind == "declined":
            changed["entries"].append(extra)
        for entry in changed["entries"]:
            if kind == "note":
                entry["note"] = "cold hands"
            elif kind == "pain" and (entry.get("values") or entry.get("seen")):
                # An entry with nothing else in it would be a test done that was not done before.
                entry["pain"] = {"present": False}
        kept = ("flags", "actions", "retake", "differences", "next")
        before, after = read(raw), read(changed)
        self.assertEqual([before[key] for key in kept], [after[key] for key in kept])

    @settings(max_examples=80)
    @given(records())
    def test_no_sentence_names_a_disease_as_a_fact(self, raw: dict[str, Any]) -> None:
        text = json.dumps(read(raw)).lower()
        for word in ("diagnos", "osteoarthritis", "tear", "injur"):
            self.assertNotIn(word, text)


class PuttingTogether(unittest.TestCase):
    def test_a_later_entry_replaces_an_earlier_one(self) -> None:
        reading = read_thomas(thomas("left", thigh_angle=20, knee_angle=70), thomas("left", thigh_angle=-5))
        self.assertEqual(reading["flags"], [])

    def test_a_declined_entry_never_replaces_a_value(self) -> None:
        declined = {"test": THOMAS, "side": "left", "declined": "too sore"}
        reading = read_thomas(thomas("left", thigh_angle=3), declined)
        self.assertEqual(strengths(reading), {("tightness.hip_flexors", "left"): "possible"})
        after = read_thomas(declined, thomas("left", thigh_angle=3))
        self.assertEqual(strengths(after), {("tightness.hip_flexors", "left"): "possible"})

    def test_values_per_side_in_one_entry(self) -> None:
        entry = {"test": THOMAS, "values": {"thigh_angle": {"left": [8, 9], "right": -4}}}
        reading = read_thomas(entry)
        self.assertEqual(strengths(reading), {("tightness.hip_flexors", "left"): "strong"})
        self.assertEqual(reading["differences"][0]["difference"], 12.5)

    def test_a_later_entry_of_one_side_leaves_the_other_side_of_an_entry_for_both(self) -> None:
        both = {"test": THOMAS, "values": {"thigh_angle": {"left": 3, "right": 4}}}
        reading = read_thomas(both, thomas("left", thigh_angle=-1))
        self.assertEqual(strengths(reading), {("tightness.hip_flexors", "right"): "possible"})

    def test_dial_readings_are_read(self) -> None:
        raw = {"reading": 172, "dial": "one_eighty_neutral", "direction": 1}
        reading = read_thomas(thomas("left", thigh_angle=[raw, 9]))
        self.assertEqual(strengths(reading), {("tightness.hip_flexors", "left"): "likely"})

    def test_what_looks_full_is_no_number(self) -> None:
        reading = read_thomas(thomas("left", knee_angle="looks_full"), thomas("right", knee_angle=85))
        self.assertEqual(strengths(reading), {("tightness.rectus_femoris", "right"): "possible"})
        self.assertEqual(reading["differences"], [])

    def test_what_is_asked_of_the_person_compares_nothing(self) -> None:
        """Written for both legs at once, it says nothing of the other one."""
        signs = {"whole_leg_swollen": True, "deep_vein_tenderness": True, "cancer": False}
        calf = [{"test": "leg.clot", "side": "left", "values": signs}]
        person = [*calf, {"test": "leg.clot", "side": "right", "values": {"cancer": False}}]
        both = [
            *calf,
            {"test": "leg.clot", "side": "right", "values": {"cancer": False, "whole_leg_swollen": False}},
        ]
        story = {"complaint": {"region": "leg", "side": "left", "sites": ["calf"]}}
        for entries, expected in ((calf, True), (person, True), (both, False)):
            flags = read(record(entries, purpose="ankle_injury", intake=story))["flags"]
            flag = next(item for item in flags if item["code"] == "vascular.deep_vein_thrombosis")
            self.assertEqual(flag["uncompared"], expected, entries)

    def test_uncompared_until_the_other_side_has_the_same(self) -> None:
        one = read_thomas(thomas("left", thigh_angle=3))
        self.assertTrue(one["flags"][0]["uncompared"])
        other_measure = read_thomas(thomas("left", thigh_angle=3), thomas("right", knee_angle=95))
        self.assertTrue(other_measure["flags"][0]["uncompared"])
        both = read_thomas(thomas("left", thigh_angle=3), thomas("right", thigh_angle=0))
        self.assertFalse(both["flags"][0]["uncompared"])

    def test_both_sides_hurt_is_said(self) -> None:
        history = [{"region": "hip", "side": side, "kind": "dislocation"} for side in ("left", "right")]
        reading = read_thomas(thomas("left", thigh_angle=3), intake={"history": history})
        self.assertIn("no safe normal", " ".join(reading["flags"][0]["against"]))
        ankles = [{**item, "region": "ankle"} for item in history]
        elsewhere = read_thomas(thomas("left", thigh_angle=3), intake={"history": ankles})
        self.assertEqual(elsewhere["flags"][0]["against"], [])

    def test_actions_and_advice_follow_strength(self) -> None:
        possible = read_thomas(thomas("left", thigh_angle=3, thigh_angle_knee_straight=2))
        self.assertEqual((possible["actions"], possible["advice"]), ([], []))
        likely = read_thomas(thomas("left", thigh_angle=8, thigh_angle_knee_straight=6))
        self.assertEqual(
            likely["actions"],
            [
                {
                    "code": "train.tightness_iliopsoas",
                    "side": "left",
                    "urgency": "train",
                    "because": ["M2"],
                    "says": None,
                    "tests": ["hip.modified_thomas"],
                }
            ],
        )
        self.assertEqual(likely["advice"][0]["code"], "tightness.iliopsoas")

    def test_flags_stand_by_urgency_strength_code_and_side(self) -> None:
        reading = read_thomas(
            thomas("right", thigh_angle=20, thigh_angle_knee_straight=18, abduction_drift=17),
            thomas("left", knee_angle=85, thigh_angle=19, thigh_angle_knee_straight=17),
        )
        self.assertEqual(
            [(flag["code"], flag["side"]) for flag in reading["flags"]],
            [
                ("tightness.iliopsoas", "left"),
                ("tightness.iliopsoas", "right"),
                ("tightness.rectus_femoris", "left"),
                ("tightness.tfl_itb", "right"),
            ],
        )

    def test_numbers_are_rounded_at_the_edge_only(self) -> None:
        reading = read_thomas(thomas("left", thigh_angle=[8, 9, 8]), thomas("right", thigh_angle=-4))
        (difference,) = reading["differences"]
        self.assertEqual((difference["left"], difference["difference"]), (8.33, 12.33))
        self.assertEqual(difference["mdc95"], 5.54)
        self.assertIn("assumed", difference["source"])


class Coverage(unittest.TestCase):
    def test_done_declined_and_open(self) -> None:
        declined = {"test": THOMAS, "side": "left", "declined": "too sore"}
        for entries_, expected in (
            ([], (1, 0, 0, [THOMAS])),
            ([thomas("left", thigh_angle=3)], (1, 1, 0, [])),
            ([declined], (1, 0, 1, [])),
            ([declined, thomas("right", thigh_angle=3)], (1, 1, 0, [])),
            ([thomas("left")], (1, 0, 0, [THOMAS])),
        ):
            found = read(record(entries_, planned=[THOMAS, THOMAS]))["coverage"]
            self.assertEqual((found["planned"], found["done"], found["declined"], found["open"]), expected)


class OtherCatalogues(unittest.TestCase):
    def test_rules_ask_nothing_of_tests_a_catalogue_does_not_have(self) -> None:
        nothing = Catalogue({}, {})
        exam = check_record(record(), default_catalogue()).exam
        self.assertEqual(evaluate(exam, nothing, Context()).flags, ())


class OneVisibleOrder(unittest.TestCase):
    """Every rule stands in the list once, and says which numbers it follows."""

    def test_every_public_rule_is_listed_once_and_no_other(self) -> None:
        lists = [found for name, found in vars(rules).items() if name.endswith("_RULES")]
        listed = [rule for found in lists for rule in found]
        self.assertEqual(len(listed), len(set(listed)))
        written = set()
        for info in pkgutil.walk_packages(rules.__path__, f"{rules.__name__}."):
            module = importlib.import_module(info.name)
            for name, function in inspect.getmembers(module, inspect.isfunction):
                own = function.__module__ == module.__name__ and not name.startswith("_")
                if own and _reads_a_case_alone(function):
                    written.add(function)
        self.assertEqual({rule.__name__ for rule in listed}, {rule.__name__ for rule in written})

    def test_every_rule_cites_its_number(self) -> None:
        lists = [found for name, found in vars(rules).items() if name.endswith("_RULES")]
        for rule in (rule for found in lists for rule in found):
            self.assertRegex(rule.__doc__ or "", r"^[MRHASFU]\d+[a-du]?\b", rule.__name__)

    def test_every_rule_that_may_ask_for_help_today_reads_what_is_held(self) -> None:
        held = (*rules.LOAD_RULES, *rules.FINDING_RULES)
        urgent = {rule.__name__ for rule in held if _may_be_urgent(rule, set())}
        # A heel rise only looks whether those flags stand.
        urgent -= {"heel_does_not_turn_in"}
        self.assertEqual(urgent, {rule.__name__ for rule in rules.READ_WHILE_HELD})


def _may_be_urgent(function: Any, seen: set[Any]) -> bool:
    """Whether a rule, or any function of the rules it calls, speaks of today or of an emergency."""
    seen.add(function)
    if any(word in inspect.getsource(function) for word in ("Urgency.SAME_DAY", "Urgency.EMERGENCY")):
        return True
    named = [function.__globals__.get(name) for name in _names(function.__code__)]
    called = [found for found in named if inspect.isfunction(found) and found not in seen]
    return any(_may_be_urgent(found, seen) for found in called if found.__module__.startswith(rules.__name__))


def _names(code: CodeType) -> set[str]:
    inner = [const for const in code.co_consts if isinstance(const, CodeType)]
    return set(code.co_names).union(*(_names(each) for each in inner))


def _reads_a_case_alone(function: Any) -> bool:
    """The shape of a rule: a case, perhaps the findings, and what it yields."""
    shape = inspect.signature(function)
    names = [name.lstrip("_") for name in shape.parameters]
    return names in (["case"], ["case", "findings"]) and str(shape.return_annotation).startswith("Iterator")


class FirstSide(unittest.TestCase):
    def test_the_sound_side_first_otherwise_left(self) -> None:
        def hurt(side: str, region: str = "hip") -> dict[str, Any]:
            return {"complaint": {"region": region, "side": side}}

        for intake, school, expected in (
            (None, {}, "left"),
            (hurt("left"), {}, "right"),
            (hurt("right"), {}, "left"),
            (hurt("both"), {}, "left"),
            (hurt("left", "none"), {}, "left"),
            (hurt("left"), {"first_side": "left"}, "left"),
        ):
            told = complaint_in(intake, "hip_complaint", default_catalogue())
            self.assertEqual(first_side_of(told, school.get("first_side", "uninjured")), expected)
