"""Data that names something is held against what there is; numbers stand as data, each in its unit."""

from __future__ import annotations

import ast
import importlib
import re
import tempfile
import tomllib
import unittest
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any, get_args
from unittest import mock

from northstride import core
from northstride.core import data_check
from northstride.core.catalogue import default_catalogue, read_catalogue
from northstride.core.catalogue.kinds import KIND_FACTS, MeasureKind
from northstride.core.judgement.open_questions import URGENT_FAMILIES, ages_apart
from northstride.core.norms import limit_at, with_limits
from northstride.core.norms.limit import FAMILIES, UNITS, bare_numbers
from northstride.core.route.selection import route_data
from northstride.core.terms.errors import CatalogueError
from northstride.core.wording.spoken import FILE, SPOKEN, read_spoken
from northstride.record.schema import SCHEMAS
from northstride.record.values import READERS

CORE = Path(core.__file__).parent
FIGURES = CORE / "catalogue" / "figures.toml"
CATALOGUE = default_catalogue()
# Counts of hands, sides and lists, and what arithmetic is made of.
BARE = {0, 1, -1, 2, 7, 12, 100, 365.25}


def trees() -> Iterator[tuple[Path, ast.Module]]:
    for file in sorted((CORE / "rules").rglob("*.py")):
        yield file, ast.parse(file.read_text(encoding="utf-8"))


def limits_of(file: Path) -> Mapping[str, float]:
    """The norms a module calls LIMIT, its own or another's."""
    name = ".".join(file.relative_to(CORE.parents[1]).with_suffix("").parts)
    return getattr(importlib.import_module(name), "LIMIT", {})


# How long a scale or a list is, and whom a norm was measured in: no limit of a rule.
SCALES = re.compile(r" of \d+|adults of 30 to 40|grade 3 or less")


def said_in(tree: ast.Module) -> Iterator[str]:
    """Sentences a rule says; what explains the code is none."""
    explained = {
        node.body[0].value
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.FunctionDef | ast.ClassDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    constants = (node for node in ast.walk(tree) if isinstance(node, ast.Constant) and node not in explained)
    for said in (str(node.value) for node in constants):
        if " " in said and said.rstrip()[-1:] in (".", "?", ":"):
            yield said


class Norms(unittest.TestCase):
    def test_a_number_in_a_rules_sentence_is_the_reference_of_a_limit(self) -> None:
        said = [(file.name, sentence) for file, tree in trees() for sentence in said_in(tree)]
        self.assertGreater(len(said), 150)
        found = [(name, says) for name, says in said if [*bare_numbers(SCALES.sub("", says))]]
        self.assertEqual(found, [])

    def test_every_norm_a_rule_names_exists(self) -> None:
        walked = 0
        for file, tree in trees():
            known = limits_of(file)
            for node in ast.walk(tree):
                if not (isinstance(node, ast.Subscript) and isinstance(node.value, ast.Name)):
                    continue
                if node.value.id == "LIMIT" and isinstance(node.slice, ast.Constant):
                    self.assertIn(node.slice.value, known, file.name)
                    walked += 1
        self.assertGreater(walked, 60)

    def test_every_norm_is_read_and_has_unit_and_source(self) -> None:
        source = "".join(file.read_text(encoding="utf-8") for file in CORE.rglob("*.py"))
        said = "".join(file.read_text(encoding="utf-8") for file in CORE.rglob("*.toml"))
        for file in sorted((CORE / "norms").glob("*.toml")):
            raw = tomllib.loads(file.read_text(encoding="utf-8"))
            for key, block in raw.items():
                if isinstance(block, dict) and "value" in block:
                    with self.subTest(norm=f"{file.stem}.{key}"):
                        self.assertIn(block["unit"], UNITS)
                        self.assertRegex(block["source"], r"assumed|clinical|\d{4}|convention|kept")
                        named = {f"{file.stem}.{key}{end}" for end in ("}", ":word}", '"')}
                        aged = "age" in key.split("_") and file.stem in URGENT_FAMILIES
                        read = f'"{key}"' in source or aged or any(name in said for name in named)
                        self.assertTrue(read)

    def test_no_line_of_judgement_stands_in_a_rule(self) -> None:
        """A comparison with a bare number is a norm that has not been given a name, a unit and a source."""
        found: list[str] = []
        for file, tree in trees():
            for node in ast.walk(tree):
                if not isinstance(node, ast.Compare):
                    continue
                for side in (node.left, *node.comparators):
                    number = side.value if isinstance(side, ast.Constant) else None
                    if (
                        isinstance(number, (int, float))
                        and not isinstance(number, bool)
                        and number not in BARE
                    ):
                        found.append(f"{file.name}:{node.lineno}: {number}")
        self.assertEqual(found, [])


class UnknownNames(unittest.TestCase):
    def refused(self, name: str, data: Any) -> str:
        with (
            mock.patch.object(data_check, name, return_value=data),
            self.assertRaises(data_check.UnknownNames) as raised,
        ):
            data_check.check_data(CATALOGUE)
        return str(raised.exception)

    def test_ours_names_nothing_unknown(self) -> None:
        data_check.check_data(CATALOGUE)

    def test_gates_asks_and_what_is_kept(self) -> None:
        gates = {"clot_doubt": {"holds": ("ankle.nothing.*",), "families": ("nobody",)}}
        said = self.refused("all_gates", gates)
        self.assertIn("names no test: ankle.nothing.*", said)
        self.assertIn("names no family: nobody", said)
        ask = {"why": "x", "tests": ["hip.nothing"], "mood": "low"}
        said = self.refused("route_data", {"ask": [ask], "families": {"first": ["nobody"]}})
        for words in ("no condition mood", "no test hip.nothing", "first names no family: nobody"):
            self.assertIn(words, said)
        self.assertIn("hip.gait.mood", self.refused("kept_items", ("hip.gait.mood",)))

    def test_a_figure_of_what_is_not_there_is_named_with_file_and_line(self) -> None:
        """A drawing, a measure, a step and a test that nobody knows; a hand that pushes nowhere."""
        text = FIGURES.read_text(encoding="utf-8")
        for old, new, says in (
            ('kind = "thigh_across"', 'kind = "nobody_draws_it"', "nobody_draws_it|figure"),
            ('["thigh_drop"]', '["nothing"]', r"figures\.toml:\d+: hip.ober: .*nothing"),
            ('step = "drift"', 'step = "nowhere"', "a figure of no step"),
            ('test = "hip.ely"', 'test = "hip.nobody"', "a figure of no test"),
            ('about = "knee_centre", ', "", "along a direction"),
        ):
            with self.subTest(new), tempfile.TemporaryDirectory() as folder:
                self.assertIn(old, text)
                changed = Path(folder, FIGURES.name)
                changed.write_text(text.replace(old, new, 1), encoding="utf-8")
                others = [file for file in FIGURES.parent.glob("*.toml") if file != FIGURES]
                with self.assertRaisesRegex(CatalogueError, says):
                    read_catalogue([*sorted(others), changed])

    def test_words_without_a_code_and_codes_without_words(self) -> None:
        text = FILE.read_text(encoding="utf-8")
        with self.assertRaisesRegex(KeyError, "clot_doubt.*nobody"):
            read_spoken(text.replace("clot_doubt =", "nobody ="))


class NumbersStandOnce(unittest.TestCase):
    def test_a_sentence_says_the_limit_it_names(self) -> None:
        self.assertEqual(
            with_limits("Within {danger.surgery_holds_weeks:word} weeks."), "Within twelve weeks."
        )
        self.assertEqual(with_limits("{return.symmetry_from} %, {leg}"), "90 %, {leg}")
        self.assertIn("Surgery within twelve weeks", SPOKEN["gates"]["recent_surgery"])
        self.assertIn("four steps", " ".join(ask["why"] for ask in route_data()["ask"]))
        for unknown in ("{danger.nothing}", "{nobody.at_all}", "{return.symmetry_from:word}"):
            with self.assertRaises(KeyError):
                with_limits(unknown)

    def test_a_bare_number_and_a_limit_given_twice_stop_everything(self) -> None:
        for patched, data, says in (
            ("sentences", {"spoken.toml: gates.x": "Within twelve weeks."}, "gates.x: 'twelve weeks'"),
            ("sentences", {"asks.toml: 3": "Hop 90 %"}, "asks.toml: 3: '9'"),
            (
                "limit_blocks",
                {"ankle": ("reach",), "return": ("reach",)},
                "return.toml: reach stands in ankle",
            ),
        ):
            with (
                self.subTest(says),
                mock.patch.object(data_check, patched, return_value=data),
                self.assertRaisesRegex(data_check.UnknownNames, says),
            ):
                data_check.check_data(CATALOGUE)

    def test_every_file_of_limits_is_a_family(self) -> None:
        of_limits = {
            file.stem
            for file in (CORE / "norms").glob("*.toml")
            if all("value" in block for block in tomllib.loads(file.read_text(encoding="utf-8")).values())
        }
        self.assertEqual(set(FAMILIES), of_limits)

    def test_an_age_is_tried_on_each_side_of_every_urgent_line(self) -> None:
        tried = ages_apart()
        lines = [limit_at(f"danger.{name}") for name in ("growth_age_from", "illness_age_below")]
        lines += [limit_at("danger.growth_age_to") + 1, limit_at("bone_and_blood.apophysis_age_to") + 1]
        for line in lines:
            self.assertIn(line, tried)
        self.assertLess(tried[0], limit_at("bone_and_blood.rule_age_from"))


class Kinds(unittest.TestCase):
    def test_each_is_described_once_everywhere(self) -> None:
        kinds = set(get_args(MeasureKind))
        for table in (KIND_FACTS, READERS, SCHEMAS):
            self.assertEqual(set(table), kinds)
        self.assertEqual({m.kind for test in CATALOGUE.tests.values() for m in test.measures} - kinds, set())
