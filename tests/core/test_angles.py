"""Dial readings: every convention, both directions, and what no limb can show."""

from __future__ import annotations

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from northstride.core.measuring.angles import Dial, DialReading, angle_of, check_plausible
from northstride.core.terms.errors import ReadingOutOfRange


class AngleOfDial(unittest.TestCase):
    def test_literal_answers(self) -> None:
        for dial, reading, direction, expected in (
            (Dial.ZERO, 8, 1, 8),
            (Dial.ZERO, 8, -1, -8),
            (Dial.NINETY, 98, 1, 8),
            (Dial.NINETY, 98, -1, -8),
            (Dial.ONE_EIGHTY, 172, 1, 8),
            (Dial.ONE_EIGHTY, 172, -1, -8),
        ):
            with self.subTest(dial=dial, direction=direction):
                self.assertEqual(angle_of(DialReading(reading, dial, direction)), expected)  # type: ignore[arg-type]

    @given(angle=st.floats(-40, 90), direction=st.sampled_from([1, -1]))
    def test_what_a_dial_shows_reads_back(self, angle: float, direction: int) -> None:
        """Derived the other way round: put the limb at an angle, see what each dial shows."""
        shows = {
            Dial.ZERO: angle * direction,
            Dial.NINETY: 90 + angle * direction,
            Dial.ONE_EIGHTY: 180 - angle * direction,
        }
        for dial, reading in shows.items():
            back = angle_of(DialReading(reading, dial, direction))  # type: ignore[arg-type]
            self.assertTrue(math.isclose(back, angle, abs_tol=1e-9))


class PlausibleRange(unittest.TestCase):
    def test_the_edges_belong(self) -> None:
        check_plausible(-40, -40, 90)
        check_plausible(90, -40, 90)

    def test_just_outside_is_refused_with_its_fields(self) -> None:
        for value in (-40.1, 90.1):
            with self.subTest(value=value), self.assertRaises(ReadingOutOfRange) as raised:
                check_plausible(value, -40, 90)
            self.assertEqual(
                (raised.exception.value, raised.exception.low, raised.exception.high), (value, -40, 90)
            )

    def test_names_the_dial_it_was_probably_read_from(self) -> None:
        with self.assertRaises(ReadingOutOfRange) as raised:
            check_plausible(172, -40, 90, DialReading(172, Dial.ZERO, 1))
        self.assertEqual(raised.exception.suggestion, "read on a 180-at-neutral dial it is 8°")

    def test_a_bare_number_counts_as_read_from_zero(self) -> None:
        with self.assertRaises(ReadingOutOfRange) as raised:
            check_plausible(95, -40, 90)
        self.assertEqual(raised.exception.suggestion, "read on a 90-at-neutral dial it is 5°")

    def test_names_none_where_none_fits(self) -> None:
        with self.assertRaises(ReadingOutOfRange) as raised:
            check_plausible(999, -40, 90)
        self.assertIsNone(raised.exception.suggestion)
