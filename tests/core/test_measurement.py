"""Arithmetic of error and difference: two derivations and a literal answer each."""

from __future__ import annotations

import json
import math
import statistics
import unittest
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.examination.comparison import compare_values
from northstride.core.measuring.angles import Dial, DialReading, angle_of
from northstride.core.measuring.measurement import (
    Comparison,
    Verdict,
    compare_sides,
    less_than,
    more_than,
    sem_from_agreement,
    smallest_real_change,
    spread,
    symmetry_index,
    trials_disagree,
    value_of_trials,
)
from northstride.core.terms.errors import NotARatioScale, TooFewValues

CASES = Path(__file__).parent.parent / "cases"
values = st.lists(st.floats(-100, 100), min_size=1, max_size=9)


class ValueOfTrials(unittest.TestCase):
    def test_literal(self) -> None:
        self.assertAlmostEqual(value_of_trials([8, 9, 8], "mean"), 25 / 3)
        self.assertEqual(value_of_trials([8, 12, 9], "median"), 9)
        self.assertEqual(value_of_trials([8, 12], "median"), 10)

    def test_what_the_browser_shows_is_what_the_core_reads(self) -> None:
        """The browser's own test reads the same file."""
        for case in json.loads((CASES / "shown_numbers.json").read_text()):
            trials = [
                angle_of(DialReading(trial["reading"], Dial(trial["dial"]), trial["direction"]))
                if isinstance(trial, dict)
                else trial
                for trial in case["trials"]
            ]
            self.assertAlmostEqual(value_of_trials(trials, "mean"), case["mean"])
            self.assertAlmostEqual(value_of_trials(trials, "median"), case["median"])

    @given(values)
    def test_mean_balances_the_trials(self, trials: list[float]) -> None:
        mean = value_of_trials(trials, "mean")
        self.assertAlmostEqual(sum(trial - mean for trial in trials), 0, places=6)

    @given(values)
    def test_median_splits_the_trials(self, trials: list[float]) -> None:
        median = value_of_trials(trials, "median")
        below = sum(trial < median for trial in trials)
        above = sum(trial > median for trial in trials)
        self.assertLessEqual(max(below, above), len(trials) / 2)

    def test_none_is_refused(self) -> None:
        with self.assertRaises(TooFewValues) as raised:
            value_of_trials([], "mean")
        self.assertEqual((raised.exception.needed, raised.exception.got), (1, 0))
        with self.assertRaises(TooFewValues):
            spread([])


class ErrorOfMeasurement(unittest.TestCase):
    def test_literal(self) -> None:
        self.assertAlmostEqual(smallest_real_change(2), 5.543717, places=6)
        self.assertAlmostEqual(sem_from_agreement(5, 0.84), 2.0)

    @given(st.floats(0.1, 20))
    def test_is_the_95_percent_limit_of_a_difference_of_two(self, sem: float) -> None:
        variance_of_difference = sem**2 + sem**2
        self.assertAlmostEqual(smallest_real_change(sem), 1.96 * variance_of_difference**0.5)

    @given(st.floats(0.1, 20), st.floats(0, 0.99))
    def test_is_what_agreement_leaves_unexplained(self, sd: float, icc: float) -> None:
        self.assertAlmostEqual(sem_from_agreement(sd, icc) ** 2, sd**2 - icc * sd**2)

    def test_trials_disagree_beyond_error_only(self) -> None:
        limit = smallest_real_change(2)
        self.assertFalse(trials_disagree([0, limit], 2))
        self.assertTrue(trials_disagree([0, limit + 0.01], 2))
        self.assertFalse(trials_disagree([0, limit - 0.01], 2))
        self.assertFalse(trials_disagree([40], 2))


class SideDifference(unittest.TestCase):
    def test_three_verdicts_at_their_edges(self) -> None:
        mdc95 = smallest_real_change(2)
        for difference, threshold, expected in (
            (mdc95, 6, Verdict.WITHIN_ERROR),
            (mdc95 + 0.01, 6, Verdict.REAL_SMALL),
            (5.99, 6, Verdict.REAL_SMALL),
            (6, 6, Verdict.REAL_MATTERS),
            (6.01, 6, Verdict.REAL_MATTERS),
            (mdc95 + 0.01, 5, Verdict.REAL_MATTERS),
        ):
            with self.subTest(difference=difference, threshold=threshold):
                for sign in (1, -1):
                    found = compare_sides(sign * difference, 0, 2, threshold)
                    self.assertIs(found.verdict, expected)
                    self.assertEqual(found.difference, sign * difference)

    @given(st.floats(-60, 60), st.floats(-60, 60), st.floats(0.5, 10), st.floats(1, 20))
    def test_mirrors(self, left: float, right: float, sem: float, threshold: float) -> None:
        here = compare_sides(left, right, sem, threshold)
        there = compare_sides(right, left, sem, threshold)
        self.assertEqual(here.verdict, there.verdict)
        self.assertEqual(here.difference, -there.difference)


class SymmetryIndex(unittest.TestCase):
    def test_weaker_over_stronger_when_no_side_is_involved(self) -> None:
        for left, right in ((90, 100), (100, 90)):
            found = symmetry_index(left, right, ratio_scale=True, measure="force", involved=None)
            self.assertEqual(found, 90)

    def test_involved_over_uninvolved_otherwise(self) -> None:
        for involved, expected in (("left", 125.0), ("right", 80.0)):
            found = symmetry_index(100, 80, ratio_scale=True, measure="force", involved=involved)  # type: ignore[arg-type]
            self.assertEqual(found, expected)

    def test_is_refused_for_an_angle(self) -> None:
        with self.assertRaises(NotARatioScale) as raised:
            symmetry_index(1, 2, ratio_scale=False, measure="thigh_angle", involved=None)
        self.assertEqual(raised.exception.measure, "thigh_angle")

    def test_nothing_over_nothing_is_no_number(self) -> None:
        self.assertIsNone(symmetry_index(0, 0, ratio_scale=True, measure="force", involved=None))


class Tolerance(unittest.TestCase):
    def test_float_noise_does_not_pass_a_limit(self) -> None:
        self.assertGreater(8.3 - 3.3, 5)
        self.assertFalse(more_than(8.3 - 3.3, 5))
        self.assertFalse(less_than(0.1 + 0.2 - 0.3 + 5, 5))
        self.assertTrue(more_than(5.001, 5))
        self.assertTrue(less_than(4.999, 5))
        self.assertTrue(math.isclose(statistics.fmean([5.1, 4.9, 5.0]), 5))


class PercentOfAForce(unittest.TestCase):
    """Errors in percent are of the values themselves; what a clinic measured is in the measure's unit."""

    def compare(
        self, test: str, measure: str, one: float, other: float, sem: float | None = None
    ) -> Comparison:
        context = Context(sem={} if sem is None else {f"{test}.{measure}": sem})
        found = compare_values(default_catalogue(), context, test, measure, one, other)
        assert found is not None
        return found

    def test_what_matters_is_a_part_of_the_larger_whichever_side_it_is_on(self) -> None:
        for one, other in ((50.0, 40.0), (40.0, 50.0)):
            found = self.compare("ankle.heel_rise", "count", one, other)
            self.assertEqual(found.threshold, 5)
            self.assertEqual(found.mdc95, smallest_real_change(1.5))

    def test_the_error_is_a_part_of_both(self) -> None:
        found = self.compare("hip.resisted.abduction", "force", 100, 200)
        self.assertEqual(found.mdc95, smallest_real_change(7.5))
        self.assertEqual(found.threshold, 20)

    def test_a_clinics_own_error_is_no_percentage(self) -> None:
        found = self.compare("hip.resisted.abduction", "force", 100, 200, sem=20)
        self.assertEqual(found.mdc95, smallest_real_change(20))
