"""R1 to R4 and the other tests of muscle length: at, under and over each line."""

from __future__ import annotations

import unittest
from typing import Any

from northstride.core.measuring.measurement import smallest_real_change
from northstride.core.norms import mean_range
from tests.support.records import Reading, read, record, strengths

ERROR_3 = smallest_real_change(3)
ERROR_35 = smallest_real_change(3.5)


def rom(motion: str, side: str = "left", **values: Any) -> dict[str, Any]:
    pain = values.pop("pain", None)
    entry = {"test": f"hip.rom.{motion}", "side": side, "values": values}
    return {**entry, "pain": pain} if pain else entry


def adult(sex: str = "female") -> dict[str, Any]:
    return {"athlete": {"ref": "T-1", "birth_date": "1996-01-01", "sex": sex}}


class PublishedMeans(unittest.TestCase):
    """Soucie 2011, table of mean passive range, a sample of each column and row."""

    def test_sample(self) -> None:
        for motion, age, sex, expected in (
            ("hip_flexion", 2, "male", 131.1),
            ("hip_flexion", 8, "female", 140.8),
            ("hip_extension", 9, "male", 18.2),
            ("hip_extension", 19, "female", 20.5),
            ("ankle_dorsiflexion", 20, "male", 12.7),
            ("ankle_dorsiflexion", 44, "female", 13.8),
            ("ankle_plantarflexion", 45, "male", 49.4),
            ("ankle_plantarflexion", 69, "female", 56.5),
            ("hip_flexion", 1, "male", None),
            ("hip_flexion", 70, "male", None),
            ("hip_flexion", None, "male", None),
            ("hip_flexion", 30, "other", None),
            ("hip_abduction", 30, "male", None),
        ):
            self.assertEqual(mean_range(motion, age, sex), expected, (motion, age, sex))


class RangeCase(unittest.TestCase):
    def flags(self, *entries: dict[str, Any], **parts: Any) -> dict[Any, str]:
        return strengths(read(record(list(entries), **parts)))


class AgainstNorm(RangeCase):
    def test_r1_at_its_lines(self) -> None:
        for value, expected in (
            (45 - ERROR_3 + 0.01, None),
            (45 - ERROR_3 - 0.01, "possible"),
            (45 - ERROR_3 - 9.99, "possible"),
            (45 - ERROR_3 - 10.01, "likely"),
        ):
            found = self.flags(rom("abduction", passive=value))
            self.assertEqual(found.get(("mobility.hip_abduction", "left")), expected, value)

    def test_r1_takes_the_smaller_reference(self) -> None:
        self.assertEqual(self.flags(rom("flexion", passive=120 - ERROR_35 + 0.1), **adult()), {})
        below = rom("extension", passive=17.4 - ERROR_3 - 0.1)
        self.assertEqual(self.flags(below, **adult("male")), {("mobility.hip_extension", "left"): "possible"})
        above = rom("extension", passive=17.4 - ERROR_3 + 0.1)
        self.assertEqual(self.flags(above, **adult("male")), {})
        self.assertEqual(self.flags(above), {("mobility.hip_extension", "left"): "possible"})

    def test_r1_follows_the_school_of_extension(self) -> None:
        entry = rom("extension", passive=20)
        self.assertEqual(self.flags(entry), {})
        wide = self.flags(entry, schools={"hip_extension_norm": 30})
        self.assertEqual(wide, {("mobility.hip_extension", "left"): "possible"})

    def test_r1_says_when_only_the_active_range_was_taken(self) -> None:
        reading = read(record([rom("abduction", active=20)]))
        self.assertIn("Only active taken", reading["flags"][0]["because"][0]["says"])

    def test_r3_is_a_reason_and_no_step(self) -> None:
        pain = {"present": True, "familiar": True}
        plain = read(record([rom("abduction", passive=34)]))
        told = read(record([rom("abduction", passive=34, end_feel="bony_block", pain=pain)]))
        self.assertEqual(strengths(plain), strengths(told))
        says = told["flags"][0]["because"][0]["says"]
        self.assertIn("bony block", says)
        self.assertIn("their own pain", says)

    def test_two_hip_positions_give_one_flag_the_higher(self) -> None:
        found = self.flags(rom("internal_rotation_90", passive=35), rom("internal_rotation_0", passive=20))
        self.assertEqual(found, {("mobility.hip_internal_rotation", "left"): "likely"})

    def test_the_big_toe_has_no_margin(self) -> None:
        for value, expected in ((65, None), (64.9, "possible"), (50, "possible"), (49.9, "likely")):
            toe = {"test": "foot.rom.first_mtp_extension", "side": "left", "values": {"passive": value}}
            self.assertEqual(self.flags(toe).get(("mobility.first_mtp_extension", "left")), expected)

    def test_dorsiflexion_with_the_knee_straight_is_not_read_here(self) -> None:
        straight = {
            "test": "ankle.rom.dorsiflexion_knee_straight",
            "side": "left",
            "values": {"passive": -10},
        }
        self.assertEqual(self.flags(straight), {})


class AgainstOtherSide(RangeCase):
    def test_r2_lifts_makes_and_counts_once(self) -> None:
        made = self.flags(rom("abduction", passive=45), rom("abduction", "right", passive=55.1))
        self.assertEqual(made, {("mobility.hip_abduction", "left"): "possible"})
        near = self.flags(rom("abduction", passive=45), rom("abduction", "right", passive=54.9))
        self.assertEqual(near, {})
        lifted = self.flags(rom("abduction", passive=34), rom("abduction", "right", passive=50))
        self.assertEqual(lifted, {("mobility.hip_abduction", "left"): "likely"})
        twice = self.flags(
            *(rom(f"internal_rotation_{at}", passive=36) for at in (90, 0)),
            *(rom(f"internal_rotation_{at}", "right", passive=50) for at in (90, 0)),
        )
        self.assertEqual(twice, {("mobility.hip_internal_rotation", "left"): "likely"})

    def test_r4_lag_with_passive_in_range(self) -> None:
        code = ("weakness.hip_abductors", "left")
        self.assertEqual(self.flags(rom("abduction", passive=45, active=34.9)), {code: "possible"})
        self.assertEqual(self.flags(rom("abduction", passive=45, active=35)), {})
        short = self.flags(rom("abduction", passive=30, active=10))
        self.assertEqual(set(short), {("mobility.hip_abduction", "left")})

    def test_r4_the_big_toe(self) -> None:
        toe = "foot.rom.first_mtp_extension"
        for passive, active, expected in (
            (65, 54.9, {"weakness.toe_extensors": "possible"}),
            (65, 55, {}),
            (64, 40, {"mobility.first_mtp_extension": "possible"}),
        ):
            found = self.flags(
                {"test": toe, "side": "left", "values": {"passive": passive, "active": active}}
            )
            self.assertEqual({code: strength for (code, _), strength in found.items()}, expected)


class OtherLengths(RangeCase):
    def one(self, test: str, seen: list[str] | None = None, **values: Any) -> dict[str, Any]:
        return {"test": test, "side": "left", "values": values, "seen": seen or []}

    def test_thomas(self) -> None:
        code = ("tightness.hip_flexion_contracture", "left")
        for value, expected in ((0, None), (0.1, "possible"), (5.1, "likely"), (15.1, "strong")):
            self.assertEqual(self.flags(self.one("hip.thomas", thigh_angle=value)).get(code), expected)
        spoilt = read(record([self.one("hip.thomas", ["lumbar_arch"], thigh_angle=8)]))
        self.assertIn("not flat", spoilt["flags"][0]["against"][0])
        self.assertEqual(spoilt["retake"][0]["reason"], "back_not_flat")

    def test_ely(self) -> None:
        code = ("tightness.rectus_femoris", "left")
        for value, expected in ((120, None), (119.9, "possible"), (90, "possible"), (89.9, "likely")):
            self.assertEqual(self.flags(self.one("hip.ely", knee_angle=value)).get(code), expected)

    def test_ober_only_where_used_and_never_more_than_possible(self) -> None:
        entry = self.one("hip.ober", thigh_drop=30)
        self.assertEqual(self.flags(entry), {})
        used = self.flags(entry, schools={"ober": "use"})
        self.assertEqual(used, {("tightness.tfl_itb", "left"): "possible"})

    def test_hamstrings(self) -> None:
        code = ("tightness.hamstrings", "left")
        for value, expected in ((20, None), (20.1, "possible"), (30, "possible"), (30.1, "likely")):
            self.assertEqual(
                self.flags(self.one("hip.hamstring_90_90", knee_short=value)).get(code), expected
            )

    def test_the_low_back(self) -> None:
        code = ("elsewhere.lumbar", "left")
        raised = self.one("hip.straight_leg_raise", angle=40, foot_up_worse=True)
        self.assertEqual(self.flags(raised), {code: "possible"})
        pain = {**self.one("hip.straight_leg_raise", angle=40), "pain": {"present": True, "site": "lumbar"}}
        self.assertEqual(self.flags(pain), {code: "possible"})
        self.assertEqual(self.flags(self.one("hip.straight_leg_raise", angle=40)), {})
        screen = {"test": "lumbar.screen", "values": {"reproduces": True}}
        complaint = {"intake": {"complaint": {"region": "hip", "side": "left"}}}
        reading: Reading = read(record([screen], **complaint))
        self.assertEqual(strengths(reading), {code: "likely"})
        self.assertEqual(reading["actions"][0]["code"], "refer.elsewhere_lumbar")
        self.assertEqual(self.flags(screen), {("elsewhere.lumbar", None): "likely"})
