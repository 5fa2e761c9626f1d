"""The return board: by how much, against the other side and the own baseline, and which tests speak."""

from __future__ import annotations

import unittest
from typing import Any

from northstride.core.course.return_board import BoardRow, return_board
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.record.board import board_row_out
from northstride.record.read import check_record
from tests.support.ankle import done
from tests.support.any_record import CATALOGUE
from tests.support.records import record

STORY: dict[str, Any] = {
    "complaint": {"region": "ankle", "side": "right", "sites": ["anterolateral"]},
    "onset": {"date": "2026-06-01", "kind": "sudden"},
    "pain": {"now": 3},
}


def both(test: str, measure: str, left: float, right: float, **more: Any) -> list[dict[str, Any]]:
    pairs = (("left", left), ("right", right))
    return [done(test, side, **{measure: value}, **more) for side, value in pairs]


def raw(*entries: dict[str, Any], purpose: str = "return_to_sport", **parts: Any) -> dict[str, Any]:
    return record(list(entries), purpose=purpose, **{"intake": STORY, **parts})


def board(now: dict[str, Any], *before: dict[str, Any]) -> dict[str, BoardRow]:
    earlier = tuple(check_record(each, CATALOGUE).exam for each in before)
    rows = return_board(check_record(now, CATALOGUE).exam, CATALOGUE, Context(earlier=earlier))
    return {row.criterion: row for row in rows}


class Board(unittest.TestCase):
    def test_no_board_for_any_other_purpose(self) -> None:
        self.assertEqual(board(raw(purpose="follow_up")), {})

    def test_what_follows_from_measures_stands_in_its_unit(self) -> None:
        def drop(day: str, standing: float, number: int, **more: Any) -> dict[str, Any]:
            heights = [
                done("foot.navicular_drop", side, height_neutral=45, height_standing=standing)
                for side in ("left", "right")
            ]
            own = f"00000000-0000-4000-8000-{number:012d}"
            return raw(*heights, date=day, id=own, **more)

        before = drop("2026-03-01", 40, 2, purpose="squad_screen", intake={})
        held = board(drop("2026-09-14", 30, 1), before)["own_baseline"].own
        assert held is not None
        self.assertEqual((held.measure, held.unit, held.value, held.against), ("drop", "mm", 15, 5))

    def test_states_are_those_of_the_reading(self) -> None:
        now = raw(*both("ankle.heel_rise", "count", 28, 19), *both("ankle.lunge", "distance", 115, 72))
        exam = check_record(now, CATALOGUE).exam
        read = {item.criterion: item.state for item in evaluate(exam, CATALOGUE, Context()).criteria}
        self.assertEqual({row.criterion: row.state for row in board(now).values()}, read)
        self.assertEqual(len(read), 11)

    def test_by_how_much_against_the_other_side(self) -> None:
        found = board(
            raw(
                *both("ankle.heel_rise", "count", 28, 21),
                *both("ankle.lunge", "distance", 115, 72),
                *both("ankle.reach", "anterior", 650, 600),
            )
        )
        rise, lunge, reach = (found[name].other for name in ("heel_rise", "lunge", "reach_anterior"))
        assert rise
        assert lunge
        assert reach
        self.assertEqual((rise.value, rise.against, rise.by, rise.limit), (21, 28, 75, 90))
        self.assertEqual((lunge.side, lunge.by, lunge.unit, lunge.enough), ("right", -43, "mm", False))
        self.assertEqual((reach.by, reach.limit, reach.enough), (-50, 40, False))
        pain = found["pain_now"].other
        assert pain
        self.assertEqual((pain.value, pain.limit, pain.enough), (3, 2, False))

    def test_the_worst_of_several_stands_for_them(self) -> None:
        found = board(
            raw(
                *both("ankle.rom.plantarflexion", "passive", 50, 49),
                *both("ankle.rom.dorsiflexion_knee_bent", "passive", 20, 4),
                *both("ankle.resisted.inversion", "force", 200, 196),
                *both("ankle.resisted.eversion", "force", 200, 150),
            )
        )
        ranges, strength = found["passive_ranges"].other, found["resisted_strength"].other
        assert ranges
        assert strength
        self.assertEqual(ranges.test, "ankle.rom.dorsiflexion_knee_bent")
        self.assertEqual(
            (strength.test, strength.by, strength.enough), ("ankle.resisted.eversion", 75, False)
        )

    def test_only_what_is_from_before_the_injury_is_an_own_baseline(self) -> None:
        now = raw(*both("ankle.lunge", "distance", 115, 72))
        before = raw(
            *both("ankle.lunge", "distance", 116, 110), purpose="squad_screen", date="2026-03-01", intake={}
        )
        since = raw(*both("ankle.lunge", "distance", 116, 40), purpose="follow_up", date="2026-08-01")
        for each, key in ((before, "b"), (since, "c")):
            each["id"] = f"00000000-0000-4000-8000-00000000000{key}"
        own = board(now, before, since)["lunge"].own
        assert own
        self.assertEqual((own.against, own.by, own.enough, str(own.since)), (110, -38, False, "2026-03-01"))
        self.assertEqual(board(now, before)["own_baseline"].state, "not_met")
        self.assertIsNone(board(now, since)["lunge"].own)
        self.assertEqual(board(now, since)["own_baseline"].state, "not_tested")

    def test_what_was_not_measured_says_nothing_and_names_its_tests(self) -> None:
        found = board(raw())
        self.assertIsNone(found["hop"].other)
        self.assertEqual(found["hop"].state, "not_tested")
        self.assertEqual(found["hop"].tests, ("ankle.hop",))
        self.assertEqual(found["lunge"].tests, ("ankle.lunge",))
        self.assertIn("ankle.resisted.eversion", found["resisted_strength"].tests)
        self.assertEqual(found["pain_now"].tests, ())

    def test_it_is_rounded_once(self) -> None:
        told = board_row_out(board(raw(*both("ankle.heel_rise", "count", 27, 23)))["heel_rise"])
        assert told.other
        self.assertEqual(told.other.by, 85.2)
