"""What the sheets say: of every worked example, never more comfort than the reading, and in plain words."""

from __future__ import annotations

import json
import unittest
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import textstat

from northstride.cli.steps import ROOT
from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.interchange.paper.pdf import pages_job
from northstride.interchange.paper.setting import set_in_type
from northstride.interchange.sheets.athlete import athlete_sheet
from northstride.interchange.sheets.content import AthleteSheet, Basis, Clinic, Letter, Report
from northstride.interchange.sheets.each import EDITABLE, sheet_of
from northstride.interchange.sheets.letter import MOST_FOUND, letter
from northstride.interchange.sheets.report import report
from northstride.record.read import check_record
from northstride.record.reading import reading_out
from northstride.record.reading_reader import reading_in

CATALOGUE = default_catalogue()
EXAMPLES = sorted((ROOT / "docs" / "examples").glob("*.json"))
TARNHOLT = Clinic("Tarnholt mountain club", "4 Hut Lane", "555 0142", "555 0199", "112")
# School years a reader needs; twelve-year-olds have six or seven behind them.
MOST_GRADE = 6.5


def basis_of(file: Path) -> Basis:
    checked = check_record(json.loads(file.read_text()), CATALOGUE)
    reading = reading_out(evaluate(checked.exam, CATALOGUE, Context()), CATALOGUE)
    return Basis(TARNHOLT, "Ilse Varga", checked.record, reading, None)


def each_basis() -> Iterator[tuple[str, Basis]]:
    for file in EXAMPLES:
        yield file.stem, basis_of(file)


def lines_of(sheet: AthleteSheet) -> list[str]:
    said = [line.says for line in sheet.stands_out]
    parts = (sheet.alone, said, sheet.to_do, sheet.come_back, sheet.call_now, sheet.call_same_day)
    return [line for part in parts for line in part]


class Saying(unittest.TestCase):
    def test_every_finding_stands_in_its_own_lane_and_in_the_letter(self) -> None:
        self.assertGreater(len(EXAMPLES), 10)
        for name, basis in each_basis():
            with self.subTest(name):
                shown, told = report(basis, CATALOGUE), letter(basis, CATALOGUE)
                for flag in basis.reading.flags:
                    if flag.side is None:
                        self.assertTrue(any(FLAG_NAMES[flag.code] == line.lead for line in shown.whole))
                        continue
                    (row,) = [row for row in shown.rows if row.code == flag.code]
                    cell = row.left if flag.side == "left" else row.right
                    self.assertEqual(cell.strength, flag.strength)
                    self.assertEqual(cell.lines[0], flag.because[0].says)
                self.assertEqual(len(told.found), min(MOST_FOUND, len(told.found) + told.more))
                self.assertGreaterEqual(len(told.found) + told.more, len(basis.reading.flags))

    def test_what_cannot_wait_is_asked_first_and_alone(self) -> None:
        for name, basis in each_basis():
            urgent = {action.urgency for action in basis.reading.actions} & {"emergency", "same_day"}
            if urgent:
                with self.subTest(name):
                    asked = letter(basis, CATALOGUE).asked
                    self.assertRegex(asked, "today" if "emergency" not in urgent else "emergency")

    def test_no_sheet_comforts_where_something_was_not_looked_at(self) -> None:
        for name, basis in each_basis():
            missing = basis.reading.coverage.unexamined or []
            if not missing:
                continue
            with self.subTest(name):
                told = letter(basis, CATALOGUE)
                self.assertTrue(told.not_done)
                self.assertIn(missing[0].name, report(basis, CATALOGUE).rows[-1].model_dump_json())
                sheet = athlete_sheet(basis, CATALOGUE)
                self.assertTrue(sheet.not_yet or sheet.alone)

    def test_what_a_frozen_reading_did_not_keep_is_said_to_be_unknown(self) -> None:
        _, basis = next(each_basis())
        coverage = basis.reading.coverage.model_copy(update={"unexamined": None})
        old = replace(basis, reading=basis.reading.model_copy(update={"coverage": coverage}))
        row = report(old, CATALOGUE).rows[-1]
        self.assertIn("not known", (*row.left.lines, *row.right.lines))
        self.assertIn("All else", letter(old, CATALOGUE).not_done[0])
        self.assertIn("did not write down", athlete_sheet(old, CATALOGUE).not_yet[0])

    def test_the_athletes_sheet_is_in_everyday_words(self) -> None:
        terms = {name.split()[0] for name in FLAG_NAMES.values() if name.split()[0].isupper()}
        self.assertIn("ATFL", terms)
        for name, basis in each_basis():
            with self.subTest(name):
                said = " ".join(lines_of(athlete_sheet(basis, CATALOGUE)))
                self.assertLessEqual(textstat.automated_readability_index(said), MOST_GRADE)
                self.assertLessEqual(textstat.coleman_liau_index(said), MOST_GRADE)
                self.assertEqual([term for term in terms if term in said], [])

    def test_an_athletes_sheet_that_stops_short_says_so(self) -> None:
        _, basis = next(
            (name, basis) for name, basis in each_basis() if not athlete_sheet(basis, CATALOGUE).alone
        )
        flags = [*basis.reading.flags[:1] * 8]
        many = replace(basis, reading=basis.reading.model_copy(update={"flags": flags}))
        shown = athlete_sheet(many, CATALOGUE).stands_out
        self.assertEqual(len(shown), 7)
        self.assertIn("There is more (2)", shown[-1].says)

    def test_a_reading_comes_back_as_it_was_kept(self) -> None:
        for name, basis in each_basis():
            with self.subTest(name):
                kept = basis.reading
                again = reading_out(reading_in(kept), CATALOGUE)
                empty: dict[str, object] = {"differences": [], "follows": [], "changes": [], "criteria": []}
                gone = {**empty, "fingerprint": kept.fingerprint}
                self.assertEqual(again.model_copy(update=gone), kept.model_copy(update=gone))


class OnePage(unittest.TestCase):
    def test_a_letter_stays_one_page_with_every_line_as_long_as_it_may_be(self) -> None:
        for name, basis in each_basis():
            own = {field: ("Words of ours. " * 60)[:most] for field, most in EDITABLE["letter"].items()}
            told = sheet_of("letter", replace(basis, edited=own), CATALOGUE)
            with self.subTest(name):
                for paper in ("a4", "us-letter"):
                    self.assertEqual(len(set_in_type(pages_job(told, paper))), 1, paper)

    def test_every_sheet_can_be_set(self) -> None:
        kinds: dict[type, int] = {Report: 0, Letter: 0, AthleteSheet: 0}
        for _, basis in each_basis():
            for kind in EDITABLE:
                sheet = sheet_of(kind, basis, CATALOGUE)
                self.assertGreaterEqual(len(set_in_type(pages_job(sheet, "a4"))), 1)
                kinds[type(sheet)] += 1
        self.assertEqual(set(kinds.values()), {len(EXAMPLES)})
