"""Agreement against published worked tables, and against a second derivation of each figure."""

from __future__ import annotations

import math
import unittest
from typing import Any

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.special import fdtri

from northstride.core.measuring.agreement import (
    agreement_of_categories,
    agreement_of_numbers,
    by_agreement,
    by_consistency,
    mean_squares,
)
from northstride.core.terms.errors import ConstantValues, TooFewValues

# Shrout & Fleiss 1979, table 2: six targets, four judges.
SHROUT_FLEISS = [[9, 2, 5, 8], [6, 1, 3, 2], [8, 4, 6, 8], [7, 1, 2, 6], [10, 5, 6, 9], [6, 2, 4, 7]]
# Bland & Altman 1986, table 1: peak flow by a large and by a mini meter, first readings, l/min.
LARGE = [494, 395, 516, 434, 476, 557, 413, 442, 650, 433, 417, 656, 267, 478, 178, 423, 427]
MINI = [512, 430, 520, 428, 500, 600, 364, 380, 658, 445, 432, 626, 260, 477, 259, 350, 451]
# Fleiss 1981, table 13.1: shares of 100 subjects rated by two raters into three categories.
FLEISS = [[75, 1, 4], [5, 4, 1], [0, 0, 10]]

numbers = st.lists(st.lists(st.integers(-40, 90), min_size=3, max_size=3), min_size=4, max_size=12)


def pairs_of(counts: list[list[int]]) -> list[list[int]]:
    return [[one, other] for one, row in enumerate(counts) for other, n in enumerate(row) for _ in range(n)]


class PublishedTables(unittest.TestCase):
    def test_shrout_and_fleiss_1979(self) -> None:
        found = mean_squares(SHROUT_FLEISS)
        for value, printed in (
            (found.between_subjects, 11.24),
            (found.between_columns, 32.49),
            (found.error, 1.02),
        ):
            self.assertAlmostEqual(value, printed, places=2)
        self.assertAlmostEqual(by_agreement(found).value, 0.29, places=2)
        self.assertAlmostEqual(by_consistency(found).value, 0.71, places=2)

    def test_the_intervals_of_the_same_table(self) -> None:
        """As McGraw & Wong 1996 give them for these data."""
        found = mean_squares(SHROUT_FLEISS)
        agreement, consistency = by_agreement(found), by_consistency(found)
        self.assertAlmostEqual(agreement.low, 0.02, places=2)
        self.assertAlmostEqual(agreement.high, 0.76, places=2)
        self.assertAlmostEqual(consistency.low, 0.34, places=2)
        self.assertAlmostEqual(consistency.high, 0.95, places=2)

    def test_bland_and_altman_1986(self) -> None:
        (limits,) = agreement_of_numbers([list(row) for row in zip(LARGE, MINI, strict=True)]).limits
        self.assertAlmostEqual(limits.bias, -2.1, places=1)
        self.assertAlmostEqual(limits.sd, 38.8, places=1)
        # Printed with 2 SD; ours is 1.96 SD.
        self.assertAlmostEqual(limits.bias - 2 * limits.sd, -79.7, places=0)
        self.assertAlmostEqual(limits.high - limits.low, 2 * 1.96 * limits.sd)

    def test_fleiss_1981(self) -> None:
        (found,) = agreement_of_categories(pairs_of(FLEISS), [0, 1, 2], ordered=False)
        self.assertAlmostEqual(found.kappa, 0.68, places=2)
        self.assertAlmostEqual(found.observed, 0.89)
        self.assertIsNone(found.linear)


class SecondDerivation(unittest.TestCase):
    @given(numbers)
    def test_mean_squares_by_least_squares(self, table: list[list[int]]) -> None:
        """The same sums from fitting subjects and columns as dummies."""
        values = np.array(table, dtype=float)
        assume(np.ptp(values.mean(axis=1)) > 0.1)
        n, k = values.shape
        subjects, columns = np.kron(np.eye(n), np.ones((k, 1))), np.kron(np.ones((n, 1)), np.eye(k))

        def left(*parts: Any) -> float:
            design = np.hstack([np.ones((n * k, 1)), *parts])
            fitted = design @ np.linalg.lstsq(design, values.ravel(), rcond=None)[0]
            return float(((values.ravel() - fitted) ** 2).sum())

        found = mean_squares(table)
        both = left(subjects, columns)
        self.assertAlmostEqual(found.error * (n - 1) * (k - 1), both, delta=1e-5)
        self.assertAlmostEqual(found.between_subjects * (n - 1), left(columns) - both, delta=1e-5)
        self.assertAlmostEqual(found.between_columns * (k - 1), left(subjects) - both, delta=1e-5)

    @given(numbers)
    def test_the_sem_by_variance_components(self, table: list[list[int]]) -> None:
        """SEM = SD·√(1 − ICC), with the SD of the components ICC(2,1) is made of."""
        assume(np.ptp(np.array(table).mean(axis=1)) > 0.1)
        found, squares = agreement_of_numbers(table), mean_squares(table)
        n, k = squares.subjects, squares.columns
        assume(squares.between_columns > squares.error)
        subjects = (squares.between_subjects - squares.error) / k
        spread = subjects + (squares.between_columns - squares.error) / n + squares.error
        self.assertAlmostEqual(found.sem**2, spread * (1 - found.agreement.value), delta=1e-6)
        self.assertAlmostEqual(found.mdc95, 1.96 * math.sqrt(2) * found.sem, delta=1e-9)

    @given(st.lists(st.tuples(st.integers(0, 3), st.integers(0, 3)), min_size=4, max_size=40))
    def test_quadratic_kappa_is_lins_concordance(self, pairs: list[tuple[int, int]]) -> None:
        """Lin 1989: 2·cov / (var + var + bias²), with the variances of the whole sample."""
        one, other = (np.array(side, dtype=float) for side in zip(*pairs, strict=True))
        lower = one.var() + other.var() + (one.mean() - other.mean()) ** 2
        assume(lower > 1e-6 and len({*one, *other}) > 1)
        concordance = 2 * np.cov(one, other, bias=True)[0, 1] / lower
        (found,) = agreement_of_categories([list(pair) for pair in pairs], [0, 1, 2, 3], ordered=True)
        self.assertAlmostEqual(float(found.quadratic or 0), concordance, delta=1e-9)

    @given(st.lists(st.tuples(st.booleans(), st.booleans()), min_size=3, max_size=30))
    def test_two_categories_weigh_alike(self, pairs: list[tuple[bool, bool]]) -> None:
        assume(len({side for pair in pairs for side in pair}) > 1)
        (found,) = agreement_of_categories([list(pair) for pair in pairs], [False, True], ordered=True)
        self.assertAlmostEqual(found.kappa, found.linear or 0, delta=1e-12)
        self.assertAlmostEqual(found.kappa, found.quadratic or 0, delta=1e-12)

    @given(numbers, st.integers(-20, 20))
    def test_a_steady_shift_hurts_agreement_and_not_consistency(
        self, table: list[list[int]], by: int
    ) -> None:
        assume(np.ptp(np.array(table).mean(axis=1)) > 0.1)
        moved = [[row[0] + by, *row[1:]] for row in table]
        one, other = mean_squares(table), mean_squares(moved)
        self.assertAlmostEqual(by_consistency(one).value, by_consistency(other).value, delta=1e-9)
        for interval in (by_agreement(one), by_consistency(one)):
            self.assertLessEqual(interval.low, interval.high + 1e-9)


class LessThanNothing(unittest.TestCase):
    """What is left of a variance after the error is taken out can be negative: then it is nought."""

    def test_examiners_who_differ_by_less_than_error_add_nothing_to_it(self) -> None:
        found = agreement_of_numbers([[2, 3], [5, 4], [7, 8], [9, 8]])
        self.assertGreater(found.sem_within, 0.5)
        self.assertEqual(found.sem, found.sem_within)

    def test_the_interval_of_a_negative_coefficient_is_that_of_nought(self) -> None:
        found = mean_squares([[2, 7], [5, 3], [3, 5], [7, 2], [8, 0]])
        interval = by_agreement(found)
        self.assertLess(interval.value, 0)
        n, k, error, rows = 5, 2, found.error, found.between_subjects
        rest = k * found.between_columns + (k * n - k - n) * error
        # At nought the degrees of freedom are those of the error.
        upper, lower = (fdtri(*freedom, 0.975) for freedom in ((4, 4), (4, 4)))
        self.assertAlmostEqual(interval.low, n * (rows - upper * error) / (upper * rest + n * rows))
        self.assertAlmostEqual(interval.high, n * (lower * rows - error) / (rest + n * lower * rows))


class Refused(unittest.TestCase):
    def test_too_few_and_constant(self) -> None:
        for table, needed, got in (([[1, 2], [3, 4]], 3, 2), ([[1], [2], [3]], 2, 1)):
            with self.assertRaises(TooFewValues) as few:
                agreement_of_numbers(table)
            self.assertEqual((few.exception.needed, few.exception.got), (needed, got))
        with self.assertRaises(ConstantValues) as alike:
            agreement_of_numbers([[1, 2], [2, 1], [1, 2]])
        self.assertEqual(alike.exception.what, "subjects")
        with self.assertRaises(ConstantValues):
            agreement_of_categories([["a", "a"]] * 4, ["a", "b"], ordered=False)

    def test_full_agreement(self) -> None:
        found = agreement_of_numbers([[1, 1], [2, 2], [5, 5]])
        self.assertEqual((found.agreement.value, found.consistency.low, found.sem), (1.0, 1.0, 0.0))
        shifted = agreement_of_numbers([[1, 2], [2, 3], [5, 6]])
        self.assertEqual(shifted.consistency.value, 1.0)
        self.assertLess(shifted.agreement.value, 1.0)
