"""The catalogue is data: loaded and checked once, a fault named with file and line."""

from __future__ import annotations

import tempfile
import unittest
from pathlib import Path
from typing import ClassVar

from northstride.core.catalogue import default_catalogue, read_catalogue
from northstride.core.rules.hip import modified_thomas
from northstride.core.terms.errors import CatalogueError
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.record.values import read_value

SOUND = """
[[test]]
code = "made.up"
name = "Made-up test"
region = "hip"
position = "standing"
sides = "each"
seconds = 20
purpose = "Shows nothing."
family = "made_up"
pain_sites = "hip"

[[test.measures]]
code = "reach"
label = "Reach"
ask = "how far"
kind = "length"
unit = "mm"
plausible = [0.0, 900.0]

[[test.steps]]
code = "only"
title = "Only"
setup = ["Stand."]
measures = ["reach"]
"""


def refusal(text: str) -> CatalogueError:
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "made.toml"
        file.write_text(text, encoding="utf-8")
        try:
            read_catalogue([file])
        except CatalogueError as error:
            return error
    raise AssertionError("the catalogue was taken")


class Faults(unittest.TestCase):
    def test_a_sound_file_is_taken(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "made.toml"
            file.write_text(SOUND, encoding="utf-8")
            self.assertEqual(list(read_catalogue([file]).tests), ["made.up"])

    def test_each_names_file_line_and_what_is_wrong(self) -> None:
        for old, new, line, says in (
            ('kind = "length"', 'kind = "weight"', 14, "kind"),
            ("plausible = [0.0, 900.0]\n", "", 14, "plausible"),
            ("seconds = 20", "seconds = 0", 3, "seconds"),
            ("seconds = 20", "secs = 20", 3, "seconds"),
            ('measures = ["reach"]', 'measures = ["reach", "depth"]', 3, "depth"),
            ('setup = ["Stand."]', 'setup = ["1","2","3","4","5","6"]', 22, "setup"),
            (
                "[[test.steps]]",
                '[[test.seen]]\ncode = "a"\nlabel = "A"\nvoids = ["b"]\n[[test.steps]]',
                3,
                "b",
            ),
            ('name = "Made-up test"', "name = ", 4, "line 4"),
        ):
            with self.subTest(new=new):
                error = refusal(SOUND.replace(old, new, 1))
                self.assertEqual((error.file, error.line), ("made.toml", line))
                self.assertIn(says, error.problem)

    def test_no_code_stands_twice(self) -> None:
        error = refusal(SOUND + SOUND)
        self.assertIn("stands twice", error.problem)


class OwnData(unittest.TestCase):
    def test_each_line_is_short_and_each_angle_says_how_it_is_laid_on(self) -> None:
        for test in default_catalogue().tests.values():
            self.assertTrue(test.purpose.endswith("."))
            for step in test.steps:
                self.assertTrue(all(len(line) <= 70 for line in step.setup), step.code)
            for measure in test.measures:
                if measure.kind == "angle" and measure.instead_of is None:
                    self.assertIsNotNone(measure.arms, measure.code)
                if measure.error is not None:
                    self.assertRegex(measure.error.source, r"assumed|\d{4}")
                    self.assertEqual(measure.error.assumed, "assumed" in measure.error.source)

    def test_each_measure_a_rule_reads_exists_and_none_is_forgotten(self) -> None:
        test = default_catalogue().tests[modified_thomas.TEST]
        rules = Path(modified_thomas.__file__).parent
        source = "".join(path.read_text(encoding="utf-8") for path in rules.glob("*.py"))
        unread = [measure.code for measure in test.measures if f'"{measure.code}"' not in source]
        self.assertEqual(unread, [])

    def test_every_flag_a_rule_gives_has_a_name(self) -> None:
        given = {
            value
            for value in vars(modified_thomas).values()
            if isinstance(value, str) and value.startswith("tightness.")
        }
        self.assertLessEqual(given, FLAG_NAMES.keys())


class WholeCatalogue(unittest.TestCase):
    RANGES: ClassVar[dict[tuple[str, str], tuple[float, float]]] = {
        ("hip.rom.flexion", "passive"): (-10, 150),
        ("hip.rom.extension", "active"): (-20, 50),
        ("hip.rom.internal_rotation_0", "passive"): (-20, 90),
        ("hip.craig", "torsion"): (-30, 60),
        ("hip.trendelenburg", "tilt_end"): (-25, 25),
        ("hip.faber", "knee_height"): (0, 300),
        ("hip.leg_length", "true_length"): (400, 1400),
        ("hip.leg_length", "galeazzi_tibia"): (-80, 80),
        ("ankle.rom.dorsiflexion_knee_bent", "passive"): (-40, 50),
        ("ankle.rom.eversion", "passive"): (-15, 45),
        ("ankle.lunge", "distance"): (0, 250),
        ("ankle.look", "girth"): (100, 900),
        ("ankle.hop", "distance"): (0, 4000),
        ("foot.standing", "hindfoot_angle"): (-30, 30),
        ("foot.rom.first_mtp_extension", "passive"): (-20, 120),
    }

    def test_every_family_is_there(self) -> None:
        codes = default_catalogue().tests
        self.assertEqual(len(codes), 117)
        regions = {code.split(".")[0] for code in codes}
        self.assertEqual(regions, {"hip", "ankle", "foot", "leg", "lumbar", "general", "subtalar"})

    def test_plausible_ranges(self) -> None:
        for (test, measure), expected in self.RANGES.items():
            found = default_catalogue().measure(test, measure)
            self.assertEqual(found.plausible if found else None, expected, (test, measure))

    def test_what_is_normal_without_measuring_is_a_value_of_its_measure(self) -> None:
        for test in default_catalogue().tests.values():
            for measure in test.measures:
                if measure.normal is not None:
                    read_value(measure, measure.normal, measure.code)

    def test_mirrored_choices_mirror_back(self) -> None:
        mirrored = [m for t in default_catalogue().tests.values() for m in t.measures if m.mirrored]
        self.assertGreaterEqual(len(mirrored), 3)
        for measure in mirrored:
            self.assertEqual({measure.mirrored[to] for to in measure.mirrored}, set(measure.mirrored))

    def test_keys_are_choices_or_grades_of_their_test(self) -> None:
        keyed = {t.code: t.key for t in default_catalogue().tests.values() if t.key}
        self.assertEqual(keyed["foot.metatarsal_shear"], "between")
        self.assertEqual(
            {*keyed.values()}, {"bone", "ankle_position", "site", "between", "toe", "which", "space", "angle"}
        )
