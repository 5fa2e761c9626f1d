"""Each item of the catalogue is read by a rule or listed as only kept and trended, and none is both."""

from __future__ import annotations

import dataclasses
import unittest
from collections.abc import Iterator
from random import Random
from typing import Any

from northstride.core import rules
from northstride.core.catalogue import Measure, Test, default_catalogue
from northstride.core.examination import Context, Entry, Examination, Lane, Pain, Trials, Value
from northstride.core.examination.case import Case
from northstride.core.norms import kept_items
from northstride.core.terms.sides import SIDES, Side
from northstride.record.read import check_record
from tests.support.records import record

CATALOGUE = default_catalogue()
ENOUGH = 300


class Watched(dict[tuple[str, Lane], Value]):
    """An entry's values that remember which measures were asked for."""

    def __init__(self, test: str, values: dict[tuple[str, Lane], Value], read: set[str]) -> None:
        super().__init__(values)
        self.test, self.read = test, read

    def get(self, key: Any, default: Any = None) -> Any:
        self.read.add(f"{self.test}.{key[0]}")
        return super().get(key, default)


class WatchedCodes(frozenset[str]):
    """Seen codes that remember which were looked for. Made by `watched`."""

    test: str
    read: set[str]

    def __contains__(self, code: object) -> bool:
        self.read.add(f"{self.test}.{code}")
        return super().__contains__(code)

    def __and__(self, other: Any) -> frozenset[str]:
        self.read.update(f"{self.test}.{code}" for code in other)
        return super().__and__(other)


def watched_codes(test: Test, chance: Random, read: set[str]) -> WatchedCodes:
    codes = WatchedCodes(item.code for item in test.seen if chance.random() < 0.5)
    codes.test, codes.read = test.code, read
    return codes


def value(measure: Measure, chance: Random) -> Value:
    low, high = measure.plausible or (0, 0)
    if measure.numeric:
        return Trials((chance.choice((low, (low + high) / 2, high, chance.uniform(low, high))),))
    if measure.kind == "grade":
        return chance.randint(int(low), int(high))
    if measure.kind == "flag":
        return chance.random() < 0.5
    if measure.kind == "strength":
        return chance.choice(("3", "4", "5"))
    codes = [choice.code for choice in measure.choices]
    return (
        tuple(chance.sample(codes, min(2, len(codes)))) if measure.kind == "choices" else chance.choice(codes)
    )


def entry(test: Test, side: Side, place: int, chance: Random, read: set[str]) -> Entry:
    lane: Lane = side if test.sides == "each" else None
    values: dict[tuple[str, Lane], Value] = {}
    # ExportStream some out shows what rules read where the first choice is missing.
    for measure in test.measures:
        for each in (lane,) if lane or not measure.per_side else SIDES:
            if chance.random() < 0.7:
                values[(measure.code, each)] = value(measure, chance)
    site = chance.choice(sorted(CATALOGUE.sites))
    pain = Pain(chance.random() < 0.7, site=site, familiar=True)
    key = values.get((test.key or "", lane))
    kept = Watched(test.code, values, read)
    return Entry(f"entries[{place}]", test.code, lane, kept, pain, watched_codes(test, chance, read), key=key)


STORIES: tuple[dict[str, Any], ...] = (
    {"complaint": {"region": "ankle", "side": "right"}, "onset": {"kind": "sudden", "date": "2026-09-10"}},
    {"complaint": {"region": "groin", "side": "both"}, "onset": {"kind": "gradual"}, "load_change": True},
)


def everything(read: set[str]) -> Iterator[Examination]:
    """Many whole examinations, in each school that reads measures of its own. The same ones each time."""
    chance = Random(20260914)  # noqa: S311 no secret is made of it
    for turn in range(ENOUGH):
        school = ("degrees", "pass_fail", "edge_grade")[turn % 3]
        symptoms = ["giving_way", "limp", "first_step_pain"]
        raw = record(
            schools={"thomas": school, "ober": "use"},
            athlete={"ref": "T-1", "birth_date": "1990-01-01", "sex": "male", "body_mass_kg": 70},
            intake={
                **STORIES[turn % 2],
                "symptoms": symptoms if turn % 4 else [],
                "history": [{"region": "ankle", "kind": "sprain", "side": "right", "count": 2}],
            },
        )
        exam = check_record(raw, CATALOGUE).exam
        entries = [
            entry(test, side, place, chance, read)
            for place, test in enumerate(CATALOGUE.tests.values())
            for side in (SIDES if test.sides == "each" else (Side.RIGHT,))
        ]
        yield dataclasses.replace(exam, entries=tuple(entries))


def read_by_rules() -> set[str]:
    read: set[str] = set()
    lists = [found for name, found in vars(rules).items() if name.endswith("_RULES")]
    for exam in everything(read):
        case = Case(exam, CATALOGUE, Context())
        findings = [f for rule in (*rules.DANGER_RULES, *rules.FINDING_RULES) for f in rule(case)]
        for rule in (rule for found in lists for rule in found):
            takes_two = rule.__code__.co_argcount == 2
            list(rule(case, findings) if takes_two else rule(case))
    return read


class EveryItem(unittest.TestCase):
    def test_is_read_by_a_rule_or_listed_as_only_kept(self) -> None:
        items = {
            f"{code}.{item}"
            for code, test in CATALOGUE.tests.items()
            for item in (*(m.code for m in test.measures), *(seen.code for seen in test.seen))
        }
        acting = {
            f"{code}.{seen.code}"
            for code, test in CATALOGUE.tests.items()
            for seen in test.seen
            if seen.retake or seen.flatters or seen.voids
        }
        keys = {f"{code}.{test.key}" for code, test in CATALOGUE.tests.items() if test.key}
        # The gate of a replaced hip reads in which position it was done.
        keys.add("hip.faber.position")
        read, kept = read_by_rules(), set(kept_items())
        self.assertEqual(read - items, set(), "a rule reads what no test has")
        self.assertEqual(kept - items, set(), "listed as kept, but no test has it")
        self.assertEqual(items - read - acting - keys - kept, set(), "neither read nor listed")
        self.assertEqual(kept & (read | acting), set(), "listed as only kept, but read")

    def test_every_measure_that_can_be_normal_without_measuring_says_so(self) -> None:
        """What needs measuring, naming or choosing has no normal; everything else has one."""
        chosen = {"end_feel", "pressed", "passive_range_checked", "band", "site", "score"}
        for code, test in CATALOGUE.tests.items():
            for measure in test.measures:
                known = measure.normal is not None
                if measure.numeric or measure.code == test.key:
                    self.assertFalse(known and measure.kind == "angle", f"{code}.{measure.code}")
                elif measure.code not in chosen - {"end_feel"} and code != "ankle.fibula_spring":
                    wanted = measure.code != "other_diagnosis_as_likely"
                    self.assertEqual(known, wanted, f"{code}.{measure.code}")
