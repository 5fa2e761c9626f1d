"""S1 to S9, each firing, just short, and with something unknown; gates, overrides, what is held."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.records import read, record, strengths, thomas

FADIR = {"test": "hip.fadir", "side": "left", "values": {"result": "positive"}}
GROIN_PAIN = {"present": True, "site": "groin", "familiar": True}


def story(region: str = "hip", side: str | None = "left", **intake: Any) -> dict[str, Any]:
    complaint = {"region": region, "sites": intake.pop("sites", [])}
    if side is not None:
        complaint["side"] = side
    return {"intake": {"complaint": complaint, **intake}}


def born(year: int, month: int = 9, day: int = 14) -> dict[str, Any]:
    return {"athlete": {"ref": "T-1", "birth_date": f"{year}-{month:02d}-{day:02d}"}}


def rotation(side: str, passive: float, **more: Any) -> dict[str, Any]:
    return {"test": "hip.rom.internal_rotation_90", "side": side, "values": {"passive": passive}, **more}


class FromTheStory(unittest.TestCase):
    def assert_flags(self, reading: dict[str, Any], *expected: tuple[str, str | None, str, str]) -> None:
        found = {(f["code"], f["side"], f["strength"], f["urgency"]) for f in reading["flags"]}
        self.assertEqual(found, set(expected))

    def test_s1_to_s3_and_s8_fire_on_their_red_flags_alone(self) -> None:
        for red, code, side, strength, urgency in (
            ("breathless_or_chest_pain", "danger.chest", None, "strong", "emergency"),
            ("saddle_numbness", "danger.cauda_equina", None, "strong", "emergency"),
            ("bladder_or_bowel", "danger.cauda_equina", None, "strong", "emergency"),
            ("fever_hot_joint", "danger.infected_joint", "left", "strong", "emergency"),
            ("cancer_history", "danger.serious_illness", None, "possible", "refer"),
            ("weight_loss", "danger.serious_illness", None, "possible", "refer"),
            ("night_pain_unrelieved", "danger.serious_illness", None, "possible", "refer"),
        ):
            with self.subTest(red=red):
                reading = read(record(**story(red_flags=[red])))
                self.assert_flags(reading, (code, side, strength, urgency))
                self.assertEqual(reading["actions"][0]["urgency"], urgency)

    def test_asked_and_answered_no_is_no_danger(self) -> None:
        reading = read(record(**story(asked=["saddle_numbness", "breathless_or_chest_pain"])))
        self.assertEqual(reading["flags"], [])

    def test_s4_told_or_seen_after_a_sudden_injury(self) -> None:
        flag = ("fracture.open_or_displaced", "left", "strong", "emergency")
        for red in ("obvious_deformity", "open_fracture"):
            self.assert_flags(read(record(**story("ankle", red_flags=[red]))), flag)
        for seen in ("deformity", "open_wound"):
            look = {"test": "ankle.look", "side": "left", "values": {seen: True}}
            sudden = story("ankle", onset={"kind": "sudden"})
            self.assert_flags(read(record([look], **sudden)), flag)
            gradual = story("ankle", onset={"kind": "gradual"})
            self.assert_flags(read(record([look], **gradual)))
            self.assert_flags(read(record([look], **story("ankle"))))

    def test_s5_needs_groin_load_and_groin_pain(self) -> None:
        told = story("hip", sites=["groin"], load_change=True)
        for test, values, strength in (
            ("hip.rom.internal_rotation_0", {"passive": 40}, "possible"),
            ("hip.fulcrum", {"result": "positive"}, "possible"),
            ("ankle.side_hop", {"count": 3}, "likely"),
            ("ankle.hop", {"able": True}, "likely"),
        ):
            for pain in (GROIN_PAIN, {"present": True, "familiar": True}):
                entry = {"test": test, "side": "left", "values": values, "pain": pain}
                reading = read(record([entry], **told))
                self.assert_flags(reading, ("fracture.femoral_neck", "left", strength, "same_day"))
        unplaced = {**entry, "pain": {"present": True}}
        self.assert_flags(read(record([unplaced], **told)))
        elsewhere = {**entry, "pain": {"present": True, "site": "knee"}}
        self.assert_flags(read(record([elsewhere], **told)))
        for short in (story("hip", sites=["groin"]), story("hip", load_change=True)):
            self.assert_flags(read(record([entry], **short)))

    def test_s6_age_limp_site_and_rotation(self) -> None:
        told = story("hip", symptoms=["limp"])
        flag = ("danger.growth_plate_hip", "left", "likely", "same_day")
        for entries, year, expected in (
            ([rotation("left", 14.9)], 2014, [flag]),
            ([rotation("left", 15)], 2014, []),
            ([rotation("left", 30), rotation("right", 40.1)], 2014, [flag]),
            ([rotation("left", 31), rotation("right", 40)], 2014, []),
            ([rotation("left", 10)], 2018, [flag]),
            ([rotation("left", 10)], 2010, [flag]),
            ([rotation("left", 10)], 2009, []),
        ):
            with self.subTest(entries=entries, year=year):
                reading = read(record(entries, **told, **born(year)))
                growing = [f for f in reading["flags"] if f["code"].startswith("danger.")]
                self.assert_flags({"flags": growing}, *expected)
        for short in (story("ankle", symptoms=["limp"]), story("hip")):
            reading = read(record([rotation("left", 10)], **short, **born(2014)))
            self.assertEqual([f for f in reading["flags"] if f["code"].startswith("danger.")], [])

    def test_s6b_holds_and_asks_where_rotation_or_age_is_missing(self) -> None:
        reading = read(record([FADIR], **story("hip", symptoms=["limp"]), **born(2014)))
        self.assertEqual(reading["flags"], [])
        self.assertIn({"test": "hip.fadir", "side": "left", "gate": "growth_plate_doubt"}, reading["held"])
        self.assertEqual(reading["next"][0]["test"], "hip.rom.internal_rotation_90")
        childhood = [{"region": "hip", "kind": "childhood_hip"}]
        unknown = read(record([FADIR], **story("hip", symptoms=["limp"], history=childhood)))
        self.assertEqual([item["gate"] for item in unknown["held"]], ["growth_plate_doubt"])
        grown = read(record([FADIR], **story("hip", symptoms=["limp"], history=childhood), **born(1990)))
        self.assertEqual(grown["held"], [])

    def test_s7_under_eight_with_a_limp(self) -> None:
        limp = story("foot", symptoms=["limp"])
        flag = ("danger.limping_child", "left", "possible", "same_day")
        self.assert_flags(read(record(**limp, **born(2018, 9, 15))), flag)
        self.assert_flags(read(record(**limp, **born(2018, 9, 14))))
        self.assert_flags(read(record(**story("foot"), **born(2020))))

    def test_s9_needs_the_groin(self) -> None:
        red: dict[str, Any] = {"red_flags": ["steroid_or_alcohol_history"]}
        groin = read(record(**story("hip", sites=["groin"], **red)))
        self.assert_flags(groin, ("danger.femoral_head", "left", "possible", "refer"))
        self.assert_flags(read(record(**story("hip", **red))))

    def test_a_danger_sign_never_lowers_what_is_urgent(self) -> None:
        entries = [thomas("left", thigh_angle=20)]
        before = read(record(entries, **story()))
        after = read(record(entries, **story(red_flags=["breathless_or_chest_pain"])))
        self.assertEqual(after["flags"][0]["urgency"], "emergency")
        self.assertLessEqual(set(strengths(before)), set(strengths(after)))


class Gates(unittest.TestCase):
    def held(self, *entries: dict[str, Any], **parts: Any) -> set[tuple[str, str, str]]:
        reading = read(record(list(entries), **parts))
        return {(item["test"], item["side"], item["gate"]) for item in reading["held"]}

    @staticmethod
    def hip_test(test: str, side: str = "left", **values: Any) -> dict[str, Any]:
        return {"test": test, "side": side, "values": values or {"result": "negative"}}

    def test_a_replaced_hip_holds_its_side_and_spares_the_foot_down(self) -> None:
        history = [{"region": "hip", "side": "left", "kind": "hip_replacement", "weeks_ago": 200}]
        parts = {"intake": {"history": history}}
        entries = [
            self.hip_test("hip.fadir"),
            self.hip_test("hip.fadir", "right"),
            self.hip_test("hip.faber", position="crossed"),
            self.hip_test("hip.thigh_thrust"),
        ]
        self.assertEqual(
            self.held(*entries, **parts),
            {("hip.fadir", "left", "hip_replacement"), ("hip.faber", "left", "hip_replacement")},
        )
        self.assertEqual(self.held(self.hip_test("hip.faber", position="foot_down"), **parts), set())

    def test_history_without_a_side_counts_for_both(self) -> None:
        history = [{"region": "hip", "kind": "hip_replacement", "weeks_ago": 200}]
        entries = [self.hip_test("hip.fadir", side) for side in ("left", "right")]
        found = self.held(*entries, intake={"history": history})
        self.assertEqual({side for _, side, _ in found}, {"left", "right"})

    def test_surgery_holds_for_twelve_weeks_or_without_a_date(self) -> None:
        entry = thomas("left", thigh_angle=20)
        for when, expected in (
            ({"weeks_ago": 11.9}, True),
            ({"weeks_ago": 12}, False),
            ({"date": "2026-06-23"}, True),
            ({"date": "2026-06-22"}, False),
            ({}, True),
        ):
            history = [{"region": "hip", "side": "left", "kind": "surgery", **when}]
            with self.subTest(when=when):
                reading = read(record([entry], intake={"history": history}))
                self.assertEqual(bool(reading["held"]), expected)
                self.assertEqual(reading["flags"] == [], expected)
        ankle = [{"region": "ankle", "side": "left", "kind": "surgery"}]
        self.assertEqual(self.held(entry, intake={"history": ankle}), set())

    def test_an_obvious_deformity_holds_all_but_looking_and_danger_checks(self) -> None:
        found = self.held(
            thomas("left", thigh_angle=20),
            thomas("right", thigh_angle=20),
            {"test": "ankle.pulses", "side": "left", "values": {"dorsalis_pedis": "strong"}},
            **story("ankle", red_flags=["obvious_deformity"]),
        )
        self.assertEqual(found, {("hip.modified_thomas", "left", "acute_dislocation")})

    def test_a_femoral_flag_holds_the_hip_and_leaves_ligaments(self) -> None:
        pain = rotation("left", 40, pain=GROIN_PAIN)
        drawer = {"test": "ankle.anterior_drawer", "side": "left", "values": {"laxity": 0}}
        told = story("hip", sites=["groin"], load_change=True)
        found = self.held(pain, FADIR, drawer, self.hip_test("hip.resisted.flexion", grade="5"), **told)
        self.assertEqual(
            found,
            {
                ("hip.fadir", "left", "fracture_doubt"),
                ("hip.resisted.flexion", "left", "fracture_doubt"),
            },
        )

    def test_another_break_holds_ligaments_and_leaves_the_hip(self) -> None:
        drawer = {"test": "ankle.stress_atfl", "side": "left", "values": {"laxity": 0}}
        play = {"test": "ankle.play.fibula", "side": "right", "values": {"grade": 3}}
        told = story("ankle", red_flags=["open_fracture"])
        self.assertEqual(
            self.held(drawer, play, FADIR, **told), {("ankle.stress_atfl", "left", "fracture_doubt")}
        )

    def test_an_override_opens_one_side_and_is_no_excuse_for_another_gate(self) -> None:
        history = [{"region": "hip", "kind": "hip_replacement", "weeks_ago": 200}]
        entries = [self.hip_test("hip.fadir", side) for side in ("left", "right")]

        def opened(gate: str, side: str) -> set[str]:
            override = {"gate": gate, "side": side, "reason": "surgeon agreed", "by": "K. Aalto"}
            found = self.held(*entries, intake={"history": history}, overrides=[override])
            return {side for _, side, _ in found}

        self.assertEqual(opened("hip_replacement", "left"), {"right"})
        self.assertEqual(opened("hip_replacement", "both"), set())
        self.assertEqual(opened("clot_doubt", "both"), {"left", "right"})

    def test_a_planned_test_is_listed_without_an_entry_and_counts_as_done(self) -> None:
        history = [{"region": "hip", "side": "left", "kind": "hip_replacement", "weeks_ago": 200}]
        reading = read(record(planned=["hip.fadir"], intake={"history": history}))
        self.assertEqual(reading["held"], [{"test": "hip.fadir", "side": "left", "gate": "hip_replacement"}])
        self.assertEqual(reading["coverage"], {"planned": 1, "done": 1, "declined": 0, "open": []})

    def test_a_held_entry_is_not_read_nor_compared(self) -> None:
        history = [{"region": "hip", "side": "left", "kind": "surgery"}]
        entries = [thomas("left", ["lumbar_arch"], thigh_angle=20), thomas("right", thigh_angle=-5)]
        reading = read(record(entries, intake={"history": history}))
        self.assertEqual((reading["flags"], reading["differences"], reading["retake"]), ([], [], []))

    def test_what_belongs_to_no_side_is_held_with_either(self) -> None:
        back = {"test": "lumbar.screen", "values": {"reproduces": True}}
        told = story("hip", "right")
        self.assertEqual(len(read(record([back], **told))["flags"]), 1)
        look = {"test": "ankle.look", "side": "left", "values": {"deformity": True}}
        told["intake"]["onset"] = {"kind": "sudden"}
        flags = read(record([back, look], **told))["flags"]
        self.assertEqual({flag["code"] for flag in flags}, {"fracture.open_or_displaced"})

    def test_a_squeeze_of_both_hips_is_not_read_where_one_of_them_is_held(self) -> None:
        """It has no side of its own, so the complaint's side, or any where none was said, decides."""
        own_pain = {**GROIN_PAIN, "familiar": True}
        squeeze = {"test": "hip.adductor_squeeze", "values": {"angle": 45}, "pain": own_pain}
        rotated = rotation("left", 40, pain=GROIN_PAIN)
        for side in ("left", None):
            sound = story("hip", side, sites=["groin"])
            self.assertIn(
                "tendon.adductor", {flag["code"] for flag in read(record([squeeze], **sound))["flags"]}
            )
            told = story("hip", side, sites=["groin"], load_change=True)
            reading = read(record([squeeze, rotated], **told))
            self.assertEqual({flag["code"] for flag in reading["flags"]}, {"fracture.femoral_neck"})
