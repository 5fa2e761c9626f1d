"""S1 to S9, each firing, just short, and with something unknown; gates, overrides, what is held."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.records import read, record, strengths, thomas

GROWTH = "danger.growth_plate_hip"
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
            # U1: nobody said how it began: read as an injury, and asked.
            unknown = read(record([look], **story("ankle")))
            self.assert_flags(unknown, flag)
            self.assertIn("onset.kind", [item["item"] for item in unknown["ask"]])

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
        for short in (
            story("hip", sites=["groin"], load_change=False),
            story("hip", sites=["buttock"], load_change=True),
        ):
            self.assert_flags(read(record([entry], **short)))

    def test_s5_reads_a_load_nobody_asked_about_as_yes_and_asks(self) -> None:
        hop = {"test": "ankle.hop", "side": "left", "values": {"able": True}, "pain": GROIN_PAIN}
        reading = read(record([hop], **story("hip", sites=["groin"])))
        self.assert_flags(reading, ("fracture.femoral_neck", "left", "possible", "same_day"))
        self.assertEqual([(a["item"], a["urgent"]) for a in reading["ask"]], [("load_change", True)])
        unplaced = read(record([hop], **story("hip", load_change=True)))
        self.assertIn(("complaint.sites", True), [(a["item"], a["urgent"]) for a in unplaced["ask"]])

    def test_s6_age_site_and_rotation(self) -> None:
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
        elsewhere = story("ankle", symptoms=["limp"])
        reading = read(record([rotation("left", 10)], **elsewhere, **born(2014)))
        self.assertEqual([f for f in reading["flags"] if f["code"].startswith("danger.")], [])

    def test_s6_limping_or_not(self) -> None:
        """Every limp sign, and pain on the rotation, makes it likely; none of them leaves it possible."""
        steps = {
            "test": "ankle.weight_bearing",
            "side": "left",
            "values": {"now": "yes", "after_injury": "yes"},
        }
        no_steps = {**steps, "side": "right", "values": {"now": "no"}}
        for more, strength in (
            ([], "possible"),
            ([steps], "possible"),
            *(
                ([{"test": "hip.gait", "values": {"pattern": [pattern]}}], "likely")
                for pattern in ("antalgic", "lurch", "drop", "stiff_hip", "short_leg", "toe_out")
            ),
            ([{"test": "hip.gait", "values": {"pattern": {"left": ["drop"]}}}], "likely"),
            ([{"test": "hip.gait", "values": {"pattern": ["smooth", "toe_in"]}}], "possible"),
        ):
            reading = read(record([rotation("left", 8), *more], **story("hip"), **born(2013)))
            (flag,) = [f for f in reading["flags"] if f["code"] == GROWTH]
            self.assertEqual((flag["strength"], flag["urgency"]), (strength, "same_day"), more)
        sore = read(record([rotation("left", 8, pain={"present": True})], **story("knee"), **born(2013)))
        self.assertEqual(strengths(sore)[(GROWTH, "left")], "likely")
        self.assertNotIn("train", {a["urgency"] for a in sore["actions"]})
        unstable = read(record([rotation("left", 8), no_steps], **story("hip"), **born(2013)))
        self.assertEqual(unstable["flags"][0]["urgency"], "emergency")

    def test_s6u_no_steps_at_this_age_is_an_emergency_and_the_hip_is_left_alone(self) -> None:
        no_steps = {"test": "ankle.weight_bearing", "side": "left", "values": {"now": "no"}}
        gait = {"test": "hip.gait", "values": {"pattern": ["antalgic"]}}
        for age, region, fires in (
            (2018, "hip", True),
            (2010, "knee", True),
            (2009, "hip", False),
            (2013, "ankle", False),
        ):
            reading = read(record([no_steps], **story(region), **born(age)))
            found = [
                (f["side"], f["strength"], f["urgency"]) for f in reading["flags"] if f["code"] == GROWTH
            ]
            self.assertEqual(found, [("left", "likely", "emergency")] if fires else [], (age, region))
        reading = read(record([no_steps, FADIR, rotation("left", 30), gait], **story("hip"), **born(2013)))
        held = {(item["test"], item["gate"]) for item in reading["held"]}
        for test in ("hip.fadir", "hip.rom.internal_rotation_90", "hip.gait"):
            self.assertIn((test, "growth_plate_doubt"), held)
        self.assertEqual(reading["next"], [])
        knee_injury = story("knee", onset={"kind": "sudden", "date": "2026-09-13"})
        knee = read(record([no_steps], **knee_injury, **born(2013)))
        self.assertNotIn("emergency", {flag["urgency"] for flag in knee["flags"]})
        self.assertEqual(
            read(record([no_steps], **story("hip", None), **born(2013)))["flags"][0]["side"], None
        )

    def test_s6b_holds_and_asks_where_rotation_or_age_is_missing(self) -> None:
        limp = story("hip", symptoms=["limp"])
        steps = {"test": "ankle.weight_bearing", "side": "left", "values": {"now": "yes"}}
        gait = {"test": "hip.gait", "values": {"pattern": ["antalgic"]}}
        for entries, asked in (
            ([FADIR], ["ankle.weight_bearing", "hip.rom.internal_rotation_90"]),
            ([FADIR, steps], ["hip.rom.internal_rotation_90"]),
            ([FADIR, gait], ["hip.rom.internal_rotation_90"]),
        ):
            reading = read(record(entries, **limp, **born(2014)))
            self.assertEqual(reading["flags"], [])
            self.assertIn(
                {"test": "hip.fadir", "side": "left", "gate": "growth_plate_doubt"}, reading["held"]
            )
            self.assertEqual([item["test"] for item in reading["next"]][: len(asked)], asked)
        both = [rotation("left", 40), rotation("right", 40), FADIR]
        self.assertEqual(read(record(both, **limp, **born(2014)))["held"], [])
        one = read(record(both[::2], **story("hip"), **born(2014)))
        self.assertEqual([item["gate"] for item in one["held"]], ["growth_plate_doubt"])
        self.assertEqual(
            [(n["test"], n["side"]) for n in one["next"]][1:2], [("hip.rom.internal_rotation_90", "right")]
        )

    def test_what_a_gate_would_hold_is_known_of_tests_nobody_planned(self) -> None:
        limp = story("hip", symptoms=["limp"])
        (shut,) = read(record([], **limp, **born(2014)))["shut"]
        self.assertEqual((shut["gate"], shut["side"]), ("growth_plate_doubt", "left"))
        self.assertIn("hip.fadir", shut["tests"])
        self.assertNotIn("ankle.pulses", shut["tests"])
        opened = {"gate": "growth_plate_doubt", "side": "left", "reason": "film clear", "by": "A"}
        self.assertEqual(read(record([], **limp, **born(2014), overrides=[opened]))["shut"], [])

    def test_u4_a_limp_or_a_childhood_hip_of_unknown_age_is_held_and_the_age_asked(self) -> None:
        unknown = {"athlete": {"ref": "T-1"}}
        childhood = [{"region": "hip", "kind": "childhood_hip"}]
        for told in (story("hip", symptoms=["limp"]), story("hip", history=childhood)):
            reading = read(record([FADIR], **told, **unknown))
            self.assertEqual({item["gate"] for item in reading["held"]}, {"growth_plate_doubt"})
            self.assertIn(("birth_date", True), [(a["item"], a["urgent"]) for a in reading["ask"]])
            self.assertEqual(read(record([FADIR], **told, **born(1990)))["held"], [])
        self.assertEqual(read(record([FADIR], **story("hip"), **unknown))["held"], [])

    def test_s3_is_asked_where_a_child_cannot_take_steps(self) -> None:
        no_steps = {"test": "ankle.weight_bearing", "side": "left", "values": {"now": "no"}}
        told: dict[str, Any] = {"asked": ["fever_hot_joint"]}
        nothing: dict[str, Any] = {}
        for year, intake, asked in ((2011, nothing, True), (2010, nothing, False), (2013, told, False)):
            reading = read(record([no_steps], **story("hip", **intake), **born(year, 9, 14)))
            items = [item["item"] for item in reading["ask"]]
            self.assertEqual("red_flags.fever_hot_joint" in items, asked, (year, intake))

    def test_s3_holds_everything_but_looking_and_danger_checks(self) -> None:
        for side, sides in (("left", {"left"}), (None, {"left", "right"})):
            entries = [
                {"test": "hip.fadir", "side": each, "values": {"result": "negative"}}
                for each in ("left", "right")
            ]
            reading = read(record(entries, **story("hip", side, red_flags=["fever_hot_joint"])))
            self.assertEqual(
                {(h["side"], h["gate"]) for h in reading["held"]}, {(s, "infection_doubt") for s in sides}
            )

    def test_s2b_weak_feet_on_both_sides(self) -> None:
        def weak(motion: str, side: str, grade: str) -> dict[str, Any]:
            return {"test": f"ankle.resisted.{motion}", "side": side, "values": {"grade": grade}}

        cauda = "danger.cauda_equina"
        for entries, fires in (
            ([weak("dorsiflexion", "left", "3"), weak("plantarflexion", "right", "3")], True),
            ([weak("plantarflexion", "left", "2+"), weak("plantarflexion", "right", "0")], True),
            ([weak("dorsiflexion", "left", "3+"), weak("dorsiflexion", "right", "3")], False),
            ([weak("inversion", "left", "2"), weak("inversion", "right", "2")], False),
            ([weak("dorsiflexion", "left", "2"), weak("plantarflexion", "left", "2")], False),
        ):
            reading = read(record(entries))
            found = [(f["side"], f["strength"], f["urgency"]) for f in reading["flags"] if f["code"] == cauda]
            self.assertEqual(found, [(None, "possible", "same_day")] if fires else [], entries)
            asked = {a["item"] for a in reading["ask"] if a["urgent"]}
            wanted = {"red_flags.saddle_numbness", "red_flags.bladder_or_bowel"}
            self.assertEqual(wanted <= asked, fires)
            self.assertNotIn("train", {a["urgency"] for a in reading["actions"]} if fires else set())

    def test_s8_two_signs_or_such_night_pain_under_25_are_seen_within_two_days(self) -> None:
        for red, year, strength, last in (
            (["cancer_history"], 1990, "possible", "2026-09-28"),
            (["weight_loss"], 2005, "possible", "2026-09-28"),
            (["weight_loss", "cancer_history"], 1990, "likely", "2026-09-16"),
            (["night_pain_unrelieved"], 2001, "possible", "2026-09-28"),
            (["night_pain_unrelieved"], 2002, "likely", "2026-09-16"),
        ):
            reading = read(record(**story(red_flags=red), **born(year, 9, 14)))
            self.assert_flags(reading, ("danger.serious_illness", None, strength, "refer"))
            self.assertEqual(reading["actions"][0]["to"], last, (red, year))
        unknown = read(record(athlete={"ref": "T-1"}, **story(red_flags=["night_pain_unrelieved"])))
        self.assertEqual([(a["item"], a["urgent"]) for a in unknown["ask"]], [("birth_date", False)])
        self.assertEqual(unknown["actions"][0]["to"], "2026-09-28")

    def test_s7_reads_every_limp_sign(self) -> None:
        gait = {"test": "hip.gait", "values": {"pattern": ["antalgic"]}}
        steps = {"test": "ankle.weight_bearing", "side": "right", "values": {"now": "no"}}
        flag = ("danger.limping_child", "left", "possible", "same_day")
        for entry in (gait, steps):
            self.assert_flags(read(record([entry], **story("foot"), **born(2020))), flag)
        toes = {"test": "hip.gait", "values": {"pattern": ["toe_out"]}}
        self.assert_flags(read(record([toes], **story("foot"), **born(2020))))

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
        covered = {key: reading["coverage"][key] for key in ("planned", "done", "declined", "open")}
        self.assertEqual(covered, {"planned": 1, "done": 1, "declined": 0, "open": []})

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
