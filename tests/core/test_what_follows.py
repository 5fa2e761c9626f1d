"""What follows from values by arithmetic: shown with its test, and never where a part is worth nothing."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.records import read, record

INTERNAL, EXTERNAL = "hip.rom.internal_rotation_90", "hip.rom.external_rotation_90"
STRAIGHT, BENT = "ankle.rom.dorsiflexion_knee_straight", "ankle.rom.dorsiflexion_knee_bent"
THOMAS, SPOILS = "hip.modified_thomas", "lumbar_arch"
ADDUCTION, ABDUCTION = "hip.resisted.adduction", "hip.resisted.abduction"


def entry(test: str, side: str = "left", seen: list[str] | None = None, **values: Any) -> dict[str, Any]:
    return {"test": test, "side": side, "values": values, "seen": seen or []}


def follows(*entries: dict[str, Any], **parts: Any) -> dict[tuple[str, str], tuple[object, object, str]]:
    found = read(record(list(entries), **parts))["follows"]
    return {(item["code"], item["test"]): (item["left"], item["right"], item["unit"]) for item in found}


class WhatFollows(unittest.TestCase):
    def test_rotation_arc_adds_both_rotations_taken_alike(self) -> None:
        found = follows(entry(INTERNAL, passive=32), entry(EXTERNAL, passive=71, active=60))
        self.assertEqual(found[("rotation_arc_90", INTERNAL)], (103, None, "deg"))
        self.assertNotIn(
            ("rotation_arc_90", INTERNAL), follows(entry(INTERNAL, passive=32), entry(EXTERNAL, active=60))
        )

    def test_active_lag_is_of_one_test(self) -> None:
        found = follows(entry(INTERNAL, passive=32, active=20), entry(INTERNAL, "right", passive=30))
        self.assertEqual(found, {("active_lag", INTERNAL): (12, None, "deg")})

    def test_the_bent_knee_is_held_against_the_straight_one(self) -> None:
        found = follows(entry(STRAIGHT, passive=4), entry(BENT, passive=16))
        self.assertEqual(found, {("bent_minus_straight", BENT): (12, None, "deg")})

    def test_torque_and_its_ratio(self) -> None:
        entries = [entry(ADDUCTION, force=100, lever_arm=400), entry(ABDUCTION, force=125, lever_arm=400)]
        found = follows(*entries)
        self.assertEqual(found[("torque", ADDUCTION)], (40, None, "N·m"))
        self.assertEqual(found[("adductor_ratio", ADDUCTION)], (0.8, None, "1"))
        self.assertNotIn(("torque_per_mass", ADDUCTION), found)
        heavy = follows(*entries, athlete={"ref": "T-1", "birth_date": "1990-05-02", "body_mass_kg": 80})
        self.assertEqual(heavy[("torque_per_mass", ADDUCTION)], (0.5, None, "N·m/kg"))
        self.assertEqual(follows(entry(ADDUCTION, force=100)), {})

    def test_reaches_by_leg_length(self) -> None:
        reach = entry("ankle.reach", anterior=600, posteromedial=900, posterolateral=1200)
        leg = entry("hip.leg_length", true_length=900)
        self.assertEqual(follows(reach, leg)[("reach_composite", "ankle.reach")], (100, None, "percent"))
        self.assertEqual(follows(reach), {})

    def test_what_was_seen_to_spoil_a_part_spoils_the_whole(self) -> None:
        sound = entry(THOMAS, thigh_angle=-4, thigh_angle_knee_straight=-16)
        self.assertEqual(follows(sound), {("thigh_drop", THOMAS): (12, None, "deg")})
        self.assertEqual(follows({**sound, "seen": [SPOILS]}), {})

    def test_no_flag_comes_of_it(self) -> None:
        plain = read(record([entry(INTERNAL, passive=40), entry(EXTERNAL, passive=45)]))
        self.assertTrue(plain["follows"])
        self.assertEqual(plain["flags"], [])
