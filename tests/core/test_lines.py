"""Change lines: the first value that counts carries the band; what does not count is shown, not compared."""

from __future__ import annotations

import datetime as dt
import math
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from northstride.core.catalogue import default_catalogue
from northstride.core.course.lines import Line, Measured, line_of
from northstride.core.course.over_time import followed_measures
from northstride.core.examination import Context
from northstride.core.terms.sides import Side

CATALOGUE = default_catalogue()
THIGH = ("hip.modified_thomas", "thigh_angle", "", Side.LEFT)


def taken(day: int, value: float, **parts: Any) -> Measured:
    return Measured(f"screen {day}", dt.date(2026, 1, 1) + dt.timedelta(days=day), value, **parts)


def line(*values: Measured, sem: dict[str, float] | None = None) -> Line:
    return line_of(CATALOGUE, Context(sem=sem or {}), *THIGH, values)


def beyond(found: Line) -> list[bool | None]:
    return [point.beyond for point in found.points]


class Lines(unittest.TestCase):
    def test_each_value_is_held_against_the_first_that_counts(self) -> None:
        found = line(taken(200, 9), taken(0, 1), taken(100, 3))
        self.assertEqual([point.measured.value for point in found.points], [1, 3, 9])
        self.assertEqual(beyond(found), [None, False, True])
        self.assertEqual((found.first, found.difference, found.verdict, found.worse), (1, 8, "changed", True))
        error = CATALOGUE.measure("hip.modified_thomas", "thigh_angle").error  # type: ignore[union-attr]
        self.assertAlmostEqual(found.mdc95 or 0, 1.96 * math.sqrt(2) * error.sem)  # type: ignore[union-attr]

    def test_values_of_one_day_stand_in_the_order_the_screens_were_begun(self) -> None:
        found = line(taken(1, 9), taken(1, 2), taken(0, 1), taken(1, 5))
        self.assertEqual([point.measured.value for point in found.points], [1, 9, 2, 5])
        self.assertEqual((found.first, found.difference), (1, 4))

    def test_what_follows_from_measures_is_compared_in_its_own_unit_and_direction(self) -> None:
        drop = [taken(0, 5), taken(100, 12)]
        found = line_of(CATALOGUE, Context(), "foot.navicular_drop", "drop", "", Side.LEFT, drop)
        self.assertEqual((found.difference, found.worse, found.verdict), (7, True, "changed"))
        self.assertEqual(list(followed_measures(CATALOGUE.tests["foot.navicular_drop"])), ["drop"])

    def test_what_does_not_count_neither_carries_the_band_nor_is_compared(self) -> None:
        found = line(taken(0, -20, validity="flattered"), taken(1, 1), taken(2, 30, validity="void"))
        self.assertEqual((found.first, beyond(found)), (1, [None, None, None]))
        self.assertEqual((found.verdict, found.worse), ("not_comparable", None))

    def test_another_way_of_doing_it_breaks_the_comparison(self) -> None:
        found = line(taken(0, 1, method="hug"), taken(1, 9, method="tilt_10"), taken(2, 9))
        self.assertEqual(beyond(found), [None, None, True])

    def test_what_keeps_a_value_apart_from_the_one_before_it_that_counts(self) -> None:
        by = {"examiner": "A", "school": "mean", "method": "hug"}
        found = line(
            taken(0, 1, **by),
            taken(1, 2, **by),
            taken(2, 9, **{**by, "validity": "void", "examiner": "B"}),
            taken(3, 2, **by),
            taken(4, 2, **{**by, "examiner": "B"}),
            taken(5, 2, **{**by, "school": "median", "method": "tilt_10"}),
            taken(500, 2, **{**by, "examiner": None}),
        )
        self.assertEqual(
            [point.apart for point in found.points],
            [(), (), (), (), ("examiner",), ("method", "school", "examiner"), ("gap", "method", "school")],
        )

    def test_the_clinics_own_error_is_in_force_where_it_has_one(self) -> None:
        wide = line(taken(0, 1), taken(1, 9), sem={"thigh_angle": 5})
        self.assertEqual((wide.verdict, beyond(wide)), ("within_error", [None, False]))

    def test_one_value_is_no_change_and_none_is_no_line(self) -> None:
        self.assertEqual(line(taken(0, 1)).verdict, "not_comparable")
        empty = line()
        self.assertEqual((empty.points, empty.first, empty.mdc95), ((), None, None))

    @given(st.lists(st.floats(-40, 60), min_size=2, max_size=8), st.randoms(use_true_random=False))
    def test_order_of_taking_in_changes_nothing_and_no_noise_is_a_change(
        self, values: Any, chance: Any
    ) -> None:
        made = [taken(day, value) for day, value in enumerate(values)]
        shuffled = list(made)
        chance.shuffle(shuffled)
        found = line(*shuffled)
        self.assertEqual(found, line(*made))
        band = found.mdc95 or 0
        for point in found.points[1:]:
            self.assertEqual(point.beyond, abs(point.measured.value - values[0]) > band + 1e-9)
