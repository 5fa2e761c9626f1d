"""What the core works out and the browser too, from the very same cases."""

from __future__ import annotations

import datetime as dt
import json
import unittest
from pathlib import Path
from typing import Any

from northstride.core.catalogue import default_catalogue
from northstride.core.catalogue.polarity import side_spoken_of
from northstride.core.examination import Context
from northstride.core.examination.case import Case
from northstride.core.examination.derived import torque
from northstride.core.terms.age import age_on
from northstride.core.terms.sides import Side
from northstride.core.wording.phrases import plain, whole
from northstride.interchange.values.cells import factor_of
from northstride.record.read import check_record
from tests.support.records import record

CASES = Path(__file__).parent.parent / "cases"
CATALOGUE = default_catalogue()
ABDUCTION = "hip.resisted.abduction"


def cases(name: str) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = json.loads((CASES / f"{name}.json").read_text(encoding="utf-8"))
    return found


class BothLanguagesAgree(unittest.TestCase):
    def test_on_torque(self) -> None:
        for case in cases("torques"):
            named = {"force": case["force"], "lever_arm": case["lever"]}
            values = {name: value for name, value in named.items() if value is not None}
            raw = record([{"test": ABDUCTION, "side": "left", "values": values}])
            examination = Case(check_record(raw, CATALOGUE).exam, CATALOGUE, Context())
            found = torque(examination, ABDUCTION, Side.LEFT)
            self.assertEqual(None if found is None else found.value, case["torque"], case)

    def test_on_the_side_a_difference_speaks_of(self) -> None:
        for case in cases("spoken_sides"):
            found = side_spoken_of(case["polarity"], case["left"] - case["right"])
            self.assertEqual(found, case["side"], case)

    def test_on_age(self) -> None:
        for case in cases("ages"):
            born = None if case["born"] is None else dt.date.fromisoformat(case["born"])
            self.assertEqual(age_on(born, dt.date.fromisoformat(case["on"])), case["age"], case)

    def test_on_lengths(self) -> None:
        reach = CATALOGUE.tests["ankle.reach"].measures[0]
        for case in cases("lengths"):
            self.assertAlmostEqual(case["typed"] * factor_of(reach, case["unit"]), case["mm"])

    def test_on_how_numbers_are_said(self) -> None:
        for case in cases("said_numbers"):
            self.assertEqual(
                (plain(case["value"]), whole(case["value"])), (case["said"], case["whole"]), case
            )
