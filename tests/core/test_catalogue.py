"""The catalogue is data: loaded and checked once, a fault named with file and line."""

from __future__ import annotations

import tempfile
import unittest
from pathlib import Path

from northstride.core.catalogue import default_catalogue, read_catalogue
from northstride.core.errors import CatalogueError
from northstride.core.flag_names import FLAG_NAMES
from northstride.core.rules import modified_thomas

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
