"""M1 to M9, each at, just under and just over its lines; what spoils a position; the schools."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.records import read, read_thomas, record, strengths, thomas

ILIOPSOAS = "tightness.iliopsoas"
RECTUS = "tightness.rectus_femoris"
FLEXORS = "tightness.hip_flexors"
TFL = "tightness.tfl_itb"
SARTORIUS = "tightness.sartorius"


class OneSide(unittest.TestCase):
    """What the left side alone reads as."""

    def assert_reads(self, expected: dict[str, str], seen: list[str] | None = None, **values: Any) -> None:
        found = strengths(read_thomas(thomas("left", seen, **values)))
        self.assertEqual(found, {(code, "left"): strength for code, strength in expected.items()})


class HowShort(OneSide):
    def test_m1_sizes(self) -> None:
        for thigh, strength in (
            (-0.1, None),
            (0, None),
            (0.1, "possible"),
            (5, "possible"),
            (5.1, "likely"),
            (15, "likely"),
            (15.1, "strong"),
        ):
            with self.subTest(thigh=thigh):
                self.assert_reads({FLEXORS: strength} if strength else {}, thigh_angle=thigh)

    def test_the_mean_of_the_trials_is_sized(self) -> None:
        self.assert_reads({FLEXORS: "possible"}, thigh_angle=[4, 5, 6])
        self.assert_reads({FLEXORS: "likely"}, thigh_angle=[4, 5, 6.1])

    def test_the_median_where_the_school_says_so(self) -> None:
        entry = thomas("left", thigh_angle=[4, 4, 8])
        by_mean = read_thomas(entry, schools={"trial_value": "mean"})
        by_median = read_thomas(entry, schools={"trial_value": "median"})
        self.assertEqual(strengths(by_mean), {(FLEXORS, "left"): "likely"})
        self.assertEqual(strengths(by_median), {(FLEXORS, "left"): "possible"})

    def test_no_knee_straight_asks_for_it(self) -> None:
        reading = read_thomas(thomas("left", thigh_angle=3))
        self.assertEqual(reading["flags"][0]["settle"], ["hip.modified_thomas"])
        (wanted,) = reading["next"]
        self.assertEqual((wanted["test"], wanted["side"]), ("hip.modified_thomas", "left"))


class WhichMuscle(OneSide):
    def test_m2_knee_straight_lets_it_down_the_rectus(self) -> None:
        for straight in (0, -0.1, -6):
            self.assert_reads({RECTUS: "likely"}, thigh_angle=8, thigh_angle_knee_straight=straight)

    def test_m2_stays_up_the_iliopsoas(self) -> None:
        for straight in (8, 4, 3):
            with self.subTest(straight=straight):
                self.assert_reads({ILIOPSOAS: "likely"}, thigh_angle=8, thigh_angle_knee_straight=straight)

    def test_m2_both_where_it_drops_more_than_five_and_stays_above(self) -> None:
        self.assert_reads(
            {ILIOPSOAS: "possible", RECTUS: "likely"}, thigh_angle=8, thigh_angle_knee_straight=2.9
        )
        self.assert_reads(
            {ILIOPSOAS: "likely", RECTUS: "strong"}, thigh_angle=22, thigh_angle_knee_straight=6
        )

    def test_m2_float_noise_is_no_second_muscle(self) -> None:
        self.assert_reads({ILIOPSOAS: "likely"}, thigh_angle=8.3, thigh_angle_knee_straight=3.3)

    def test_a_normal_thigh_names_nothing_whatever_the_knee_straight_says(self) -> None:
        self.assert_reads({}, thigh_angle=0, thigh_angle_knee_straight=4)
        self.assert_reads({}, thigh_angle_knee_straight=9)


# A clinic whose own errors are small sees a difference of 5° as real, and as too small to matter.
SMALL_ERRORS = {"sem": {"knee_angle": 1, "abduction_drift": 1}}


class BesideTheOther(unittest.TestCase):
    """What the left reads as where the right differs beyond error and by too little to lift anything."""

    def left(self, measure: str, value: float, apart: float, **parts: Any) -> dict[Any, str]:
        beside = ("thigh_angle", "thigh_angle_knee_straight", "rotation_drift")
        values: dict[str, Any] = {key: parts.pop(key) for key in beside if key in parts}
        other: dict[str, Any] = {measure: value + apart}
        entries = [thomas("left", None, **values, **{measure: value}), thomas("right", None, **other)]
        found = strengths(read(record(entries, **parts), SMALL_ERRORS))
        return {code: strength for (code, side), strength in found.items() if side == "left"}


class KneeBend(BesideTheOther):
    def test_m3_sizes(self) -> None:
        for knee, strength in (
            (90.1, None),
            (90, None),
            (89.9, "possible"),
            (70, "possible"),
            (69.9, "likely"),
            (20, "likely"),
        ):
            with self.subTest(knee=knee):
                found = self.left("knee_angle", knee, 5)
                self.assertEqual(found, {RECTUS: strength} if strength else {})

    def test_m3_follows_the_schools_pass_mark(self) -> None:
        for mark, strength in ((80, "possible"), (90, "possible"), (100, "likely")):
            found = self.left("knee_angle", 79, 5, schools={"knee_pass": mark})
            self.assertEqual(found.get(RECTUS), strength)
        self.assertEqual(self.left("knee_angle", 80, 5, schools={"knee_pass": 80}), {})

    def test_m3_reads_the_shortfall_as_well(self) -> None:
        self.assertEqual(self.left("knee_shortfall", 20, 15), {RECTUS: "possible"})
        self.assertEqual(self.left("knee_shortfall", 20.1, 15), {RECTUS: "likely"})
        self.assertEqual(self.left("knee_shortfall", 0, 5), {})

    def test_m2_and_m3_agree(self) -> None:
        both: dict[str, Any] = {"thigh_angle": 8, "thigh_angle_knee_straight": -2}
        self.assertEqual(self.left("knee_angle", 72, 5, **both), {RECTUS: "likely"})
        self.assertEqual(self.left("knee_angle", 69, 5, **both), {RECTUS: "strong"})
        weak: dict[str, Any] = {"thigh_angle": 3, "thigh_angle_knee_straight": -2}
        self.assertEqual(self.left("knee_angle", 69, 5, **weak), {RECTUS: "likely"})


class Drifts(BesideTheOther):
    def assert_reads(self, expected: dict[str, str], **values: Any) -> None:
        found = strengths(read_thomas(thomas("left", **values)))
        self.assertEqual(found, {(code, "left"): strength for code, strength in expected.items()})

    def test_m4_sizes(self) -> None:
        for drift, strength in ((15, None), (15.1, "possible"), (25, "possible"), (25.1, "likely")):
            with self.subTest(drift=drift):
                found = self.left("abduction_drift", drift, -5)
                self.assertEqual(found, {TFL: strength} if strength else {})

    def test_m4_internal_rotation(self) -> None:
        for drift, turn, strength in (
            (5, -5, None),
            (5.1, -5, "possible"),
            (15, -5, "possible"),
            (15, -4.9, None),
            (15.1, -5, "likely"),
            (25, -5, "likely"),
            (25.1, -5, "strong"),
        ):
            with self.subTest(drift=drift, turn=turn):
                found = self.left("abduction_drift", drift, -5, rotation_drift=turn)
                self.assertEqual(found, {TFL: strength} if strength else {})

    def test_m5_external_rotation_names_sartorius_and_takes_the_drift(self) -> None:
        self.assert_reads({SARTORIUS: "possible"}, rotation_drift=10)
        self.assert_reads({}, rotation_drift=9.9)
        self.assert_reads({SARTORIUS: "likely"}, rotation_drift=10, abduction_drift=5.1)
        self.assert_reads({SARTORIUS: "possible"}, rotation_drift=10, abduction_drift=5)

    def test_m5_internal_rotation_without_drift(self) -> None:
        self.assert_reads({TFL: "possible"}, rotation_drift=-10, abduction_drift=5)
        self.assert_reads({TFL: "possible"}, rotation_drift=-10)
        self.assert_reads({}, rotation_drift=-9.9)


class Crossing(OneSide):
    def test_m6(self) -> None:
        for across, strength in ((10, None), (9.9, "possible"), (0, "possible"), (-0.1, "likely")):
            with self.subTest(across=across):
                self.assert_reads({TFL: strength} if strength else {}, adduction_available=across)

    def test_m6_the_rising_thigh_counts_as_short(self) -> None:
        self.assert_reads({TFL: "possible"}, seen=["thigh_rises_when_crossing"], adduction_available=20)
        self.assert_reads({TFL: "likely"}, seen=["thigh_rises_when_crossing"], adduction_available=-4)

    def test_a_moving_pelvis_voids_the_crossing_and_only_that(self) -> None:
        for seen in ("pelvis_shift", "trunk_shift"):
            entry = thomas("left", [seen], adduction_available=2, abduction_drift=16, thigh_angle=3)
            reading = read_thomas(entry)
            self.assertEqual(strengths(reading), {(FLEXORS, "left"): "possible", (TFL, "left"): "possible"})
            (drift,) = [f for f in reading["flags"] if f["code"] == TFL]
            self.assertEqual([reason["rule"] for reason in drift["because"]], ["M4"])
            self.assertIn(
                {"test": "hip.modified_thomas", "side": "left", "reason": "pelvis_moved"}, reading["retake"]
            )


class SpoiltPosition(unittest.TestCase):
    ARCHES = ("lumbar_arch", "anterior_tilt", "other_leg_slips")

    def test_a_normal_value_counts_for_nothing_and_is_taken_again(self) -> None:
        for seen in self.ARCHES:
            reading = read_thomas(thomas("right", [seen], thigh_angle=-4, knee_angle=93))
            self.assertEqual(reading["flags"], [])
            self.assertEqual([item["reason"] for item in reading["retake"]], ["back_not_flat"])

    def test_a_tight_value_still_counts(self) -> None:
        reading = read_thomas(thomas("left", ["lumbar_arch"], thigh_angle=8))
        self.assertEqual(strengths(reading), {(FLEXORS, "left"): "likely"})
        self.assertIn("tighter still", reading["flags"][0]["against"][0])

    def test_a_normal_knee_straight_counts_as_not_taken(self) -> None:
        spoilt = read_thomas(thomas("left", ["lumbar_arch"], thigh_angle=8, thigh_angle_knee_straight=-3))
        self.assertEqual(strengths(spoilt), {(FLEXORS, "left"): "likely"})
        tight = read_thomas(thomas("left", ["lumbar_arch"], thigh_angle=8, thigh_angle_knee_straight=5))
        self.assertEqual(strengths(tight), {(ILIOPSOAS, "left"): "likely"})

    def test_a_normal_side_takes_no_part_in_the_comparison(self) -> None:
        left = thomas("left", thigh_angle=8, thigh_angle_knee_straight=6)
        fair = read_thomas(left, thomas("right", thigh_angle=-6))
        spoilt = read_thomas(left, thomas("right", ["lumbar_arch"], thigh_angle=-6))
        self.assertEqual(strengths(fair)[(ILIOPSOAS, "left")], "strong")
        self.assertEqual(strengths(spoilt)[(ILIOPSOAS, "left")], "likely")
        self.assertEqual(spoilt["differences"], [])

    def test_back_pain_points_elsewhere(self) -> None:
        reading = read_thomas(thomas("left", ["back_pain"], thigh_angle=-8))
        self.assertEqual(strengths(reading), {("elsewhere.lumbar", "left"): "possible"})

    def test_trials_that_disagree_are_taken_again_and_still_read(self) -> None:
        reading = read_thomas(thomas("left", thigh_angle=[4, 9.6]))
        self.assertEqual([item["reason"] for item in reading["retake"]], ["trials_disagree"])
        self.assertEqual(strengths(reading), {(FLEXORS, "left"): "likely"})
        self.assertEqual(read_thomas(thomas("left", thigh_angle=[4, 9.5]))["retake"], [])


class SidesDiffer(unittest.TestCase):
    def test_m9_thigh_lifts_what_the_tighter_side_has(self) -> None:
        left = thomas("left", thigh_angle=4, thigh_angle_knee_straight=2)
        for right, strength in ((-1.5, "possible"), (-1.9, "possible"), (-2, "likely")):
            reading = read_thomas(left, thomas("right", thigh_angle=right))
            self.assertEqual(strengths(reading)[(ILIOPSOAS, "left")], strength)

    def test_m9_lifts_both_muscles(self) -> None:
        left = thomas("left", thigh_angle=14, thigh_angle_knee_straight=4)
        found = strengths(read_thomas(left, thomas("right", thigh_angle=-6)))
        self.assertEqual(found[(ILIOPSOAS, "left")], "likely")
        self.assertEqual(found[(RECTUS, "left")], "strong")

    def test_m9_makes_a_flag_where_the_tighter_side_has_none(self) -> None:
        reading = read_thomas(thomas("left", thigh_angle=-12), thomas("right", thigh_angle=-3))
        self.assertEqual(strengths(reading), {(FLEXORS, "right"): "possible"})
        self.assertFalse(reading["flags"][0]["uncompared"])

    def test_m9_knee_lifts_the_rectus_of_the_smaller_bend(self) -> None:
        for left, right, expected in (
            (100, 80.5, "likely"),
            (100, 80.7, None),
            (115, 95.5, "possible"),
            (115, 95.7, None),
            (95, 69.9, "strong"),
        ):
            with self.subTest(left=left, right=right):
                reading = read_thomas(thomas("left", knee_angle=left), thomas("right", knee_angle=right))
                self.assertEqual(strengths(reading).get((RECTUS, "right")), expected)

    def test_m9_compares_a_bend_with_a_shortfall(self) -> None:
        reading = read_thomas(thomas("left", knee_angle=99), thomas("right", knee_shortfall=10))
        self.assertEqual(strengths(reading), {})
        wide = read_thomas(thomas("left", knee_angle=105), thomas("right", knee_shortfall=10))
        self.assertEqual(strengths(wide), {(RECTUS, "right"): "likely"})

    def test_m9_drift_lifts_the_flag_that_drift_gave(self) -> None:
        reading = read_thomas(thomas("left", abduction_drift=17), thomas("right", abduction_drift=8))
        self.assertEqual(strengths(reading), {(TFL, "left"): "likely"})
        near = read_thomas(thomas("left", abduction_drift=17), thomas("right", abduction_drift=8.8))
        self.assertEqual(strengths(near), {})

    def test_m9_rotation_lifts_each_side_towards_its_own_flag(self) -> None:
        reading = read_thomas(thomas("left", rotation_drift=12), thomas("right", rotation_drift=-12))
        self.assertEqual(strengths(reading), {(SARTORIUS, "left"): "likely", (TFL, "right"): "likely"})

    def test_at_most_one_step_for_a_flag(self) -> None:
        left = thomas("left", thigh_angle=3, thigh_angle_knee_straight=-4, knee_angle=85)
        reading = read_thomas(left, thomas("right", thigh_angle=-12, knee_angle=110))
        self.assertEqual(strengths(reading)[(RECTUS, "left")], "likely")

    def test_a_drift_difference_alone_names_nothing(self) -> None:
        reading = read_thomas(thomas("left", abduction_drift=4), thomas("right", abduction_drift=-9))
        self.assertEqual(reading["flags"], [])

    def test_the_clinics_own_error_figure_replaces_the_catalogues(self) -> None:
        raw = record([thomas("left", thigh_angle=4), thomas("right", thigh_angle=-3)])
        self.assertEqual(strengths(read(raw))[(FLEXORS, "left")], "likely")
        for name in ("thigh_angle", "hip.modified_thomas.thigh_angle"):
            own = read(raw, {"sem": {name: 3}})
            self.assertEqual(strengths(own)[(FLEXORS, "left")], "possible")
            self.assertEqual(own["differences"][0]["source"], "the clinic's own study")


class AthletesAsAGroup(unittest.TestCase):
    """M8: alike within error is how athletes hang; the error of the knee is 19.4°, of the drift 8.3°."""

    def both(self, left: dict[str, Any], right: dict[str, Any], **parts: Any) -> dict[Any, str]:
        return strengths(read_thomas(thomas("left", **left), thomas("right", **right), **parts))

    def test_what_both_sides_show_alike_says_nothing_for_any_purpose(self) -> None:
        for purpose in ("squad_screen", "hip_complaint", "follow_up"):
            for measure, one, other in (("knee_angle", 40, 59), ("abduction_drift", 25, 17)):
                found = self.both({measure: one}, {measure: other}, purpose=purpose)
                self.assertEqual(found, {}, (purpose, measure))

    def test_past_one_athlete_in_twenty_it_is_capped(self) -> None:
        knees = self.both({"knee_angle": 39.9}, {"knee_angle": 45})
        self.assertEqual(knees, {(RECTUS, "left"): "possible", (RECTUS, "right"): "possible"})
        drifts = self.both({"abduction_drift": 25.1}, {"abduction_drift": 20})
        self.assertEqual(drifts, {(TFL, "left"): "possible", (TFL, "right"): "possible"})

    def test_each_apart(self) -> None:
        found = self.both(
            {"knee_angle": 30, "abduction_drift": 18}, {"knee_angle": 30, "abduction_drift": 18}
        )
        self.assertEqual(found, {(RECTUS, "left"): "possible", (RECTUS, "right"): "possible"})

    def test_a_complaint_in_front_caps_that_side_and_says_why(self) -> None:
        for complaint, complained in (
            ({"region": "hip", "side": "left"}, True),
            ({"region": "knee", "side": "both"}, True),
            ({"region": "thigh"}, True),
            ({"region": "hip", "side": "left", "sites": ["groin"]}, True),
            ({"region": "ankle", "side": "left", "sites": ["anterior_thigh"]}, True),
            ({"region": "hip", "side": "left", "sites": ["buttock"]}, False),
            ({"region": "hip", "side": "right"}, False),
            ({"region": "ankle", "side": "left"}, False),
            ({"region": "none"}, False),
        ):
            reading = read_thomas(
                thomas("left", knee_angle=60),
                thomas("right", knee_angle=60),
                intake={"complaint": complaint},
            )
            found = strengths(reading)
            self.assertEqual(found.get((RECTUS, "left")), "possible" if complained else None, complaint)
            for flag in reading["flags"]:
                self.assertIn("Harvey 1998", flag["against"][0])
                self.assertIn("Harvey 1998", flag["sources"])

    def test_one_side_alone_is_capped_and_sides_that_differ_are_read_in_full(self) -> None:
        one = read_thomas(thomas("left", knee_angle=60))
        self.assertEqual(strengths(one), {(RECTUS, "left"): "possible"})
        self.assertIn("Only one side", one["flags"][0]["against"][0])
        self.assertEqual(
            strengths(read_thomas(thomas("left", abduction_drift=30))), {(TFL, "left"): "possible"}
        )
        apart = self.both({"knee_angle": 60}, {"knee_angle": 80})
        self.assertEqual(apart, {(RECTUS, "left"): "strong", (RECTUS, "right"): "possible"})

    def test_capped_before_merging(self) -> None:
        """The capped knee is no second voice, so thigh and knee together gain no step."""
        leg = {"thigh_angle": 8, "thigh_angle_knee_straight": -2, "knee_angle": 35}
        found = self.both(leg, leg)
        self.assertEqual(found, {(RECTUS, "left"): "likely", (RECTUS, "right"): "likely"})

    def test_a_knee_that_fails_by_eye(self) -> None:
        school = {"schools": {"thomas": "pass_fail"}}
        both = self.both({"knee": "fail"}, {"knee": "fail"}, **school)
        self.assertEqual(both, {(RECTUS, "left"): "possible", (RECTUS, "right"): "possible"})
        one = strengths(read_thomas(thomas("left", knee="fail"), **school))
        self.assertEqual(one, {(RECTUS, "left"): "possible"})
        apart = self.both({"knee": "fail"}, {"knee": "pass"}, **school)
        self.assertEqual(apart, {(RECTUS, "left"): "likely"})
        degrees = self.both({"knee_angle": 85}, {"knee_angle": 90}, **school)
        self.assertEqual(degrees, {(RECTUS, "left"): "likely"})


class Schools(unittest.TestCase):
    def by_eye(self, school: str, seen: list[str] | None = None, **values: Any) -> dict[Any, str]:
        return strengths(read_thomas(thomas("left", seen, **values), schools={"thomas": school}))

    def test_m7_edge_grades(self) -> None:
        for grade, strength in ((1, "possible"), (2, "likely"), (3, "strong")):
            self.assertEqual(self.by_eye("edge_grade", edge_grade=grade), {(FLEXORS, "left"): strength})
        self.assertEqual(self.by_eye("edge_grade", edge_grade=0), {})

    def test_m7_fails(self) -> None:
        for part, code, strength in (
            ("thigh", FLEXORS, "likely"),
            ("knee", RECTUS, "possible"),
            ("cross", TFL, "likely"),
        ):
            failed: dict[str, Any] = {part: "fail"}
            passed: dict[str, Any] = {part: "pass"}
            self.assertEqual(self.by_eye("pass_fail", **failed), {(code, "left"): strength})
            self.assertEqual(self.by_eye("pass_fail", **passed), {})

    def test_m7_degrees_of_a_pass_fail_clinic_are_fails(self) -> None:
        self.assertEqual(self.by_eye("pass_fail", thigh_angle=1), {(FLEXORS, "left"): "likely"})
        self.assertEqual(self.by_eye("pass_fail", thigh_angle=0), {})
        self.assertEqual(self.by_eye("pass_fail", knee_angle=89), {(RECTUS, "left"): "possible"})
        self.assertEqual(self.by_eye("pass_fail", knee_angle=90), {})

    def test_m7_only_the_schools_own_measures_are_read(self) -> None:
        self.assertEqual(self.by_eye("edge_grade", thigh_angle=20, thigh="fail"), {})
        self.assertEqual(self.by_eye("degrees", edge_grade=3, thigh="fail"), {})
        self.assertEqual(self.by_eye("pass_fail", edge_grade=3, abduction_drift=30), {})

    def test_m7_a_moving_pelvis_voids_the_crossing(self) -> None:
        self.assertEqual(self.by_eye("pass_fail", ["pelvis_shift"], cross="fail"), {})

    def test_changing_the_school_reads_the_same_values_anew(self) -> None:
        values: dict[str, Any] = {"thigh_angle": 20, "edge_grade": 1}
        self.assertEqual(self.by_eye("degrees", **values), {(FLEXORS, "left"): "strong"})
        self.assertEqual(self.by_eye("edge_grade", **values), {(FLEXORS, "left"): "possible"})
