"""How findings become flags, actions and advice: side by side, and day by day."""

from __future__ import annotations

import datetime as dt
import unittest

from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Flag, Held, Reason, Recheck, Strength, Urgency
from northstride.core.judgement.merge import actions_for, advice_on, coverage, merge
from northstride.core.terms.sides import Side
from northstride.record.read import check_record
from tests.support.records import THOMAS, read_thomas, record, thomas

LEFT, RIGHT = Side.LEFT, Side.RIGHT
DAY = dt.date(2026, 9, 14)


def flag(code: str, side: Side | None, strength: Strength, urgency: Urgency | None) -> Flag:
    return Flag(code, side, strength, urgency, (Reason("x", "M2", "x"),), (), (), False, ())


def finding(
    code: str, side: Side | None, urgency: Urgency | None = None, bars: tuple[str, ...] = ()
) -> Finding:
    return Finding(
        code, side, Strength.LIKELY, Reason("x", "M2", "x"), None, None, urgency=urgency, no_training_for=bars
    )


TRAINED = flag("tightness.iliopsoas", LEFT, Strength.LIKELY, Urgency.TRAIN)


def case(*entries: dict[str, object], **parts: object) -> Case:
    catalogue = default_catalogue()
    return Case(check_record(record(list(entries), **parts), catalogue).exam, catalogue, Context())


class BothSidesHurt(unittest.TestCase):
    def against(self, **intake: object) -> bool:
        (found,) = read_thomas(thomas("left", thigh_angle=3), intake=intake)["flags"]
        return "no safe normal" in " ".join(found["against"])

    def test_is_said_however_it_was_told(self) -> None:
        old = {"region": "hip", "kind": "dislocation"}
        for intake, said in (
            ({"history": [{**old, "side": "both"}]}, True),
            ({"complaint": {"region": "hip", "side": "both"}}, True),
            ({"complaint": {"region": "hip", "side": "left"}, "history": [{**old, "side": "right"}]}, True),
            ({"complaint": {"region": "hip", "side": "left"}, "history": [{**old, "side": "left"}]}, False),
            ({"history": [{**old, "side": "left"}]}, False),
            ({"complaint": {"region": "none", "side": "both"}}, False),
        ):
            self.assertEqual(self.against(**intake), said, intake)


class WhatIsUrgentComesFirst(unittest.TestCase):
    def urgency(self, *others: Finding) -> Urgency | None:
        trained = finding("tightness.iliopsoas", LEFT)
        (found,) = (
            each
            for each in merge(case(), [trained, *others], [])
            if (each.code, each.side) == ("tightness.iliopsoas", LEFT)
        )
        return found.urgency

    def test_nothing_is_trained_beside_it(self) -> None:
        bone = "bone_stress.femur"
        self.assertEqual(self.urgency(), Urgency.TRAIN)
        for side in (LEFT, RIGHT, None):
            self.assertIsNone(self.urgency(finding(bone, side, Urgency.EMERGENCY)), side)
        self.assertIsNone(self.urgency(finding(bone, LEFT, Urgency.SAME_DAY)))
        self.assertIsNone(self.urgency(finding(bone, None, Urgency.SAME_DAY)))
        self.assertEqual(self.urgency(finding(bone, RIGHT, Urgency.SAME_DAY)), Urgency.TRAIN)

    def test_a_rule_forbids_training_on_its_own_side(self) -> None:
        for side, urgency in ((LEFT, None), (None, None), (RIGHT, Urgency.TRAIN)):
            forbids = finding("joint.sacroiliac", side, bars=("*",))
            self.assertEqual(self.urgency(forbids), urgency, side)
        other = finding("joint.sacroiliac", LEFT, bars=("tightness.hamstrings",))
        self.assertEqual(self.urgency(other), Urgency.TRAIN)

    def test_advice_waits_for_an_emergency_anywhere_and_for_today_on_its_side(self) -> None:
        for urgency, side, advised in (
            (Urgency.EMERGENCY, RIGHT, False),
            (Urgency.EMERGENCY, LEFT, False),
            (Urgency.SAME_DAY, LEFT, False),
            (Urgency.SAME_DAY, None, False),
            (Urgency.SAME_DAY, RIGHT, True),
            (Urgency.REFER, LEFT, True),
        ):
            urgent = flag("bone_stress.femur", side, Strength.LIKELY, urgency)
            found = [each.code for each in advice_on([TRAINED, urgent])]
            self.assertEqual("tightness.iliopsoas" in found, advised, (urgency, side))

    def test_the_shape_of_a_bone_is_advised_on_once_it_is_likely(self) -> None:
        for strength, advised in ((Strength.POSSIBLE, 0), (Strength.LIKELY, 1)):
            shape = flag("alignment.femoral_anteversion", LEFT, strength, None)
            self.assertEqual(len(advice_on([shape])), advised, strength)


class SecondLook(unittest.TestCase):
    def test_spans_from_the_earliest_day_to_the_last_and_names_each_test(self) -> None:
        def recheck(test: str, start: int, end: int, side: Side = LEFT) -> Recheck:
            days = (DAY + dt.timedelta(days=start), DAY + dt.timedelta(days=end))
            return Recheck("instability.atfl", side, "A4", *days, "Swelling misleads.", test)

        both = [recheck("ankle.anterior_drawer", 4, 6), recheck("ankle.talar_tilt", 5, 7)]
        exam = case().exam
        for given in (both, both[::-1]):
            (look,) = actions_for(exam, [], given)
            self.assertEqual((look.start, look.end), (DAY + dt.timedelta(days=4), DAY + dt.timedelta(days=7)))
            self.assertEqual({*look.tests}, {"ankle.anterior_drawer", "ankle.talar_tilt"})
        sides = actions_for(exam, [], [both[0], recheck("ankle.talar_tilt", 5, 7, RIGHT)])
        self.assertEqual(
            {(each.side, each.start) for each in sides}, {(LEFT, both[0].start), (RIGHT, both[1].start)}
        )


class Covered(unittest.TestCase):
    def test_what_is_held_is_done_and_what_was_done_is_not_declined(self) -> None:
        declined = {"test": THOMAS, "side": "left", "declined": "too sore"}
        planned = {"planned": [THOMAS]}
        for entries, held, expected in (
            ([], [Held(THOMAS, LEFT, "fracture_doubt")], (1, 0)),
            ([declined], [Held(THOMAS, RIGHT, "fracture_doubt")], (1, 0)),
            ([declined, thomas("right", thigh_angle=3)], [], (1, 0)),
            ([declined], [], (0, 1)),
        ):
            found = coverage(case(*entries, **planned), held, ())
            self.assertEqual((found.done, found.declined), expected, (entries, held))
