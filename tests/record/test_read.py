"""Reading a record: every fault in one go, each with its path, value and a plain word."""

from __future__ import annotations

import json
import unittest
from typing import Any

from northstride.core.catalogue import default_catalogue
from northstride.record.context import check_context
from northstride.record.json_text import InvalidRecord, parse_json
from northstride.record.read import check_record
from tests.support.records import THOMAS, faults, record, thomas

FULL = record(
    [
        {
            "id": "0c3d0000-0000-4000-8000-000000000001",
            "at": "2026-09-14T09:12:40+02:00",
            "test": THOMAS,
            "side": "left",
            "values": {"thigh_angle": [8, 9], "knee_angle": 84},
            "pain": {"present": True, "nrs": 3, "site": "groin", "familiar": True},
            "seen": ["lumbar_arch"],
            "method": "hands",
            "by": "K. Aalto",
            "by_exception": False,
            "note": "",
        }
    ],
    purpose="squad_screen",
    athlete={
        "ref": "NS-014",
        "birth_date": "2003-05-02",
        "sex": "female",
        "sport": "orienteering",
        "dominant_side": "right",
        "body_mass_kg": 61.5,
        "height_cm": 170,
    },
    examiner="K. Aalto",
    schools={"thomas": "degrees", "knee_pass": 90},
    intake={
        "complaint": {"region": "hip", "side": "right", "sites": ["groin"]},
        "onset": {"date": "2026-09-12", "kind": "sudden", "mechanism": "inversion"},
        "pain": {"now": 4, "worst": 6, "at_onset": 6},
        "symptoms": ["giving_way"],
        "morning_stiffness_min": None,
        "load_change": False,
        "red_flags": [],
        "confounders": [],
        "asked": ["saddle_numbness", "numbness", "pregnant"],
        "history": [{"region": "ankle", "side": "right", "kind": "sprain", "count": 3}],
    },
    planned=[THOMAS],
    consent={"given": True, "guardian": None, "chaperone": None},
    overrides=[{"gate": "fracture_doubt", "side": "left", "reason": "radiograph clear", "by": "K. Aalto"}],
)


def changed(path: list[Any], value: Any) -> dict[str, Any]:
    copy: Any = json.loads(json.dumps(FULL))
    here = copy
    for part in path[:-1]:
        here = here[part]
    here[path[-1]] = value
    return dict(copy)


ENTRY = ["entries", 0]
VALUES = [*ENTRY, "values"]


class Sound(unittest.TestCase):
    def test_the_whole_format_is_taken(self) -> None:
        self.assertEqual(faults(FULL), {})

    def test_only_the_head_must_be_there(self) -> None:
        self.assertEqual(faults(record()), {})
        for key in ("format", "version", "id", "date", "purpose", "athlete", "entries"):
            short = {name: value for name, value in record().items() if name != key}
            self.assertEqual(faults(short), {key: "is missing"})
        self.assertEqual(faults(record(athlete={})), {"athlete.ref": "is missing"})


class OneFault(unittest.TestCase):
    CASES: tuple[tuple[list[Any], Any, str, str], ...] = (
        (["format"], "other", "format", '"other"'),
        (["version"], 2, "version", "2"),
        (["version"], True, "version", "true"),
        (["id"], "not-a-uuid", "id", "not-a-uuid"),
        (["date"], "14.9.2026", "date", "YYYY-MM-DD"),
        (["date"], "2026-02-30", "date", "2026-02-30"),
        (["date"], 20260914, "date", "20260914"),
        (["date"], "2026-09-14T00:00:00", "date", "YYYY-MM-DD"),
        (["purpose"], "fun", "purpose", '"fun"'),
        (["colour"], "blue", "colour", "unknown key"),
        (["athlete", "name"], "x", "athlete.name", "unknown key"),
        (["athlete", "ref"], "", "athlete.ref", "empty"),
        (["athlete", "ref"], "  ", "athlete.ref", "empty"),
        (["athlete", "birth_date"], "2026-09-15", "athlete.birth_date", "after the screen"),
        (["athlete", "body_mass_kg"], True, "athlete.body_mass_kg", "true"),
        (["athlete", "body_mass_kg"], "61", "athlete.body_mass_kg", '"61"'),
        (["athlete", "body_mass_kg"], 0, "athlete.body_mass_kg", "0"),
        (["athlete", "sex"], "f", "athlete.sex", '"f"'),
        (["schools", "thomas"], "guess", "schools.thomas", '"guess"'),
        (["schools", "knee_pass"], 85, "schools.knee_pass", "85"),
        (["schools", "mood"], "good", "schools.mood", "unknown key"),
        (["intake", "complaint", "region"], "head", "intake.complaint.region", '"head"'),
        (["intake", "complaint", "side"], "middle", "intake.complaint.side", '"middle"'),
        (["intake", "complaint", "sites", 0], "nose", "intake.complaint.sites[0]", '"nose"'),
        (["intake", "onset", "date"], "2026-09-15", "intake.onset.date", "after the screen"),
        (["intake", "onset", "kind"], "slow", "intake.onset.kind", '"slow"'),
        (["intake", "pain", "now"], 11, "intake.pain.now", "11"),
        (["intake", "pain", "now"], 4.5, "intake.pain.now", "4.5"),
        (["intake", "symptoms", 0], "sneezing", "intake.symptoms[0]", '"sneezing"'),
        (["intake", "red_flags"], "none", "intake.red_flags", '"none"'),
        (["intake", "load_change"], "no", "intake.load_change", '"no"'),
        (["intake", "asked", 1], "weather", "intake.asked[1]", '"weather"'),
        (["intake", "history", 0, "kind"], "flu", "intake.history[0].kind", '"flu"'),
        (["intake", "history", 0, "count"], 0, "intake.history[0].count", "0"),
        (["planned", 0], "hip.unknown", "planned[0]", "not a test"),
        (["consent", "given"], 1, "consent.given", "1"),
        (["overrides", 0, "gate"], "rain", "overrides[0].gate", '"rain"'),
        (["overrides", 0, "reason"], " ", "overrides[0].reason", "empty"),
        (["overrides", 0, "by"], "", "overrides[0].by", "empty"),
        ([*ENTRY, "test"], "hip.nothing", "entries[0].test", "not a test in the catalogue"),
        ([*ENTRY, "side"], "both", "entries[0].side", '"both"'),
        ([*ENTRY, "side"], None, "entries[0].values.thigh_angle", "needs a side"),
        ([*ENTRY, "mood"], "good", "entries[0].mood", "unknown key"),
        ([*ENTRY, "at"], "2026-09-14T09:12:40", "entries[0].at", "2026-09-14T09:12:40"),
        ([*ENTRY, "id"], "7", "entries[0].id", '"7"'),
        ([*ENTRY, "seen", 0], "rainbow", "entries[0].seen[0]", '"rainbow"'),
        ([*ENTRY, "pain", "site"], "nose", "entries[0].pain.site", '"nose"'),
        ([*ENTRY, "pain", "nrs"], True, "entries[0].pain.nrs", "true"),
        ([*ENTRY, "pain", "present"], "yes", "entries[0].pain.present", '"yes"'),
        ([*ENTRY, "declined"], "sore", "entries[0].declined", "values stand beside it"),
        ([*VALUES, "length"], 3, "entries[0].values.length", "unknown measure"),
        ([*VALUES, "thigh_angle"], "8", "entries[0].values.thigh_angle", '"8" is not a number'),
        ([*VALUES, "thigh_angle"], True, "entries[0].values.thigh_angle", "true is not a number"),
        ([*VALUES, "thigh_angle"], None, "entries[0].values.thigh_angle", "null is not a number"),
        ([*VALUES, "thigh_angle"], 90.1, "entries[0].values.thigh_angle", "90.1 is outside -40 to 90"),
        ([*VALUES, "thigh_angle"], [], "entries[0].values.thigh_angle", "no trial"),
        ([*VALUES, "thigh_angle"], [8, "x"], "entries[0].values.thigh_angle[1]", '"x" is not a number'),
        ([*VALUES, "thigh_angle"], [1] * 11, "entries[0].values.thigh_angle", "11 trials"),
        ([*VALUES, "thigh_angle"], {"left": 8}, "entries[0].values.thigh_angle.reading", "missing"),
        ([*VALUES, "edge_grade"], 4, "entries[0].values.edge_grade", "4 is not a grade from 0 to 3"),
        ([*VALUES, "edge_grade"], 1.5, "entries[0].values.edge_grade", "1.5 is not a grade"),
        ([*VALUES, "edge_grade"], True, "entries[0].values.edge_grade", "true is not a grade"),
        ([*VALUES, "thigh"], "perhaps", "entries[0].values.thigh", '"perhaps" is not one of pass, fail'),
        ([*VALUES, "thigh"], True, "entries[0].values.thigh", "true is not one of"),
    )

    def test_ten_trials_are_read_and_eleven_are_not(self) -> None:
        self.assertEqual(faults(changed([*VALUES, "thigh_angle"], [1] * 10)), {})

    def test_each_is_named_at_its_path_with_its_value(self) -> None:
        for path, value, place, says in self.CASES:
            with self.subTest(path=path, value=value):
                found = faults(changed(path, value))
                self.assertIn(place, found)
                self.assertIn(says, found[place])
                expected = {place}
                if path == [*ENTRY, "side"] and value is None:
                    expected.add("entries[0].values.knee_angle")
                if value == {"left": 8}:
                    expected |= {
                        f"{place.removesuffix('.reading')}.{key}" for key in ("dial", "direction", "left")
                    }
                self.assertEqual(set(found), expected)

    def test_dials(self) -> None:
        def dial(**parts: Any) -> dict[str, str]:
            raw = {"reading": 172, "dial": "one_eighty_neutral", "direction": 1, **parts}
            return faults(changed([*VALUES, "thigh_angle"], raw))

        at = "entries[0].values.thigh_angle"
        self.assertEqual(dial(), {})
        self.assertIn("-1", dial(direction=0)[f"{at}.direction"])
        self.assertIn("true", dial(direction=True)[f"{at}.direction"])
        self.assertIn('"45"', dial(dial="45")[f"{at}.dial"])
        self.assertIn("361", dial(reading=361)[f"{at}.reading"])
        wrong = dial(dial="zero_neutral")[at]
        self.assertIn("172 on this dial would be 172°", wrong)
        self.assertIn("read on a 180-at-neutral dial it is 8°", wrong)


class SeveralFaults(unittest.TestCase):
    def test_all_in_one_go(self) -> None:
        bad = record(
            [thomas("left", thigh_angle=999, edge_grade=7), {"test": "x", "side": "up", "values": 3}],
            purpose="fun",
            date="yesterday",
            extra=1,
        )
        self.assertEqual(
            set(faults(bad)),
            {
                "purpose",
                "date",
                "extra",
                "entries[0].values.thigh_angle",
                "entries[0].values.edge_grade",
                "entries[1].test",
                "entries[1].side",
                "entries[1].values",
            },
        )


class NoRecordAtAll(unittest.TestCase):
    def refused(self, text: str | bytes) -> dict[str, str]:
        try:
            check_record(parse_json(text), default_catalogue())
        except InvalidRecord as invalid:
            return {fault.path: fault.problem for fault in invalid.faults}
        return {}

    def test_what_json_allows_and_a_record_does_not(self) -> None:
        text = json.dumps(record([thomas("left", thigh_angle=8)]))
        for old, new, path in (
            ("8}", "NaN}", "entries[0].values.thigh_angle"),
            ("8}", "1e999}", "entries[0].values.thigh_angle"),
            ('"T-1"', '"\\ud800"', "athlete.ref"),
            ('"T-1"', '"a\\u0000b"', "athlete.ref"),
            ('"T-1"', '"T-1", "ref": "T-2"', "athlete.ref"),
            ('"T-1"', '"a\\u0007b"', "athlete.ref"),
        ):
            with self.subTest(new=new):
                self.assertIn(path, self.refused(text.replace(old, new, 1)))

    def test_other_things(self) -> None:
        for text in ("", "{", "[]", "null", "3", b"\xff\xfe", "[" * 5000, '{"a":' * 60 + "1" + "}" * 60):
            with self.subTest(text=text[:12]):
                self.assertEqual(len(self.refused(text)) >= 1, True)

    def test_a_digit_giant_is_refused_not_raised(self) -> None:
        text = json.dumps(record([thomas("left", thigh_angle=8)])).replace("8}", "9" * 5000 + "}")
        self.assertTrue(self.refused(text))
        long = json.dumps(record([thomas("left", thigh_angle=8)])).replace("8}", "9" * 400 + "}")
        self.assertTrue(self.refused(long))


class ContextFile(unittest.TestCase):
    def refused(self, raw: object) -> set[str]:
        try:
            check_context(raw, default_catalogue())
        except InvalidRecord as invalid:
            return {fault.path for fault in invalid.faults}
        return set()

    def test_sound_and_refused(self) -> None:
        self.assertEqual(self.refused({}), set())
        self.assertEqual(self.refused({"earlier": [FULL], "sem": {"thigh_angle": 1.5}}), set())
        self.assertEqual(self.refused([]), {"$"})
        self.assertEqual(self.refused({"later": 1}), {"later"})
        self.assertEqual(
            self.refused(
                {"earlier": [{**FULL, "date": "x"}], "sem": {"mood": 1, "thigh_angle": 0, "knee_angle": True}}
            ),
            {"earlier[0].date", "sem.mood", "sem.thigh_angle", "sem.knee_angle"},
        )
