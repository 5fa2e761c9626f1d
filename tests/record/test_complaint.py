"""One complaint as told: put together once, and read by all alike."""

from __future__ import annotations

import re
import unittest
from pathlib import Path
from typing import Any

from northstride.cli.steps import ROOT
from northstride.core.examination import Complaint, Context
from northstride.core.examination.first_side import first_side_of
from northstride.core.reading import evaluate
from northstride.core.route import make_route
from northstride.interchange.sheets.content import Basis, Clinic
from northstride.interchange.sheets.letter import letter
from northstride.interchange.sheets.report import report
from northstride.record.complaint import complaint_in, complaint_of, complaint_out
from northstride.record.model import IntakePart
from northstride.record.read import check_record
from northstride.record.reading import reading_out
from northstride.record.reading_model import ReadingOut
from tests.support.any_record import CATALOGUE
from tests.support.records import record

PLACE = {"site": "anterolateral", "side": "right", "now": 4, "worst": 7}


def basis(intake: dict[str, Any], purpose: str = "ankle_injury") -> Basis:
    checked = check_record(record(intake=intake, purpose=purpose), CATALOGUE)
    reading = ReadingOut.model_validate(reading_out(evaluate(checked.exam, CATALOGUE, Context()), CATALOGUE))
    return Basis(Clinic("Tarnholt"), "Ilse Varga", checked.record, reading, None)


class AsTold(unittest.TestCase):
    def told(self, intake: dict[str, Any]) -> Complaint:
        found = complaint_in(intake, "ankle_injury", CATALOGUE)
        assert found is not None
        return found

    def test_side_region_and_pain_follow_from_the_places(self) -> None:
        found = self.told({"complaint": {"places": [PLACE]}, "pain": {"now": 2}})
        self.assertEqual((found.region, found.side, found.sites), ("ankle", "right", ("anterolateral",)))
        self.assertEqual((found.now, found.worst), (4, 7))
        both = self.told({"complaint": {"side": "left", "places": [PLACE]}})
        self.assertEqual([side.value if side else None for side in both.sides], ["left", "right"])

    def test_a_place_beats_that_nothing_hurts(self) -> None:
        found = self.told({"complaint": {"region": "none", "places": [PLACE]}})
        self.assertTrue(found.hurts)
        said = letter(basis({"complaint": {"region": "none", "places": [PLACE]}}), CATALOGUE)
        self.assertNotIn("Nothing hurts.", said.why)

    def test_a_document_nobody_can_read_has_no_complaint(self) -> None:
        elbow = {"complaint": {"sites": ["elbow"]}}
        unread: list[dict[str, Any] | None] = [None, {}, {"complaint": {}}, elbow]
        for intake in unread:
            self.assertIsNone(complaint_in(intake, "ankle_injury", CATALOGUE))

    def test_the_rules_read_the_same_one(self) -> None:
        intake = {"complaint": {"places": [PLACE]}, "pain": {"now": 2, "worst": 9}}
        checked = check_record(record(intake=intake, purpose="ankle_injury"), CATALOGUE)
        told = complaint_of(checked.record, CATALOGUE)
        self.assertEqual(checked.exam.intake.complaint, told)
        self.assertEqual((checked.exam.intake.pain_now, checked.exam.intake.pain_worst), (4, 9))


class OnPaperAndOnTheWay(unittest.TestCase):
    """Told by its place alone, the side was lost on report, letter, course and the head of Reading."""

    def setUp(self) -> None:
        self.intake = {"complaint": {"places": [PLACE]}}
        self.basis = basis(self.intake)

    def test_letter(self) -> None:
        said = letter(self.basis, CATALOGUE)
        self.assertEqual(said.about, "right ankle")
        self.assertEqual(said.why[0], "Ankle, right: anterolateral right. Pain 4 now, 7 at worst, of 10.")

    def test_report(self) -> None:
        story = report(self.basis, CATALOGUE).rows[0]
        self.assertEqual((story.left.lines, story.left.muted), (["nothing told of this side"], True))
        self.assertIn("anterolateral", story.right.lines[0])
        unsided = report(basis({"complaint": {"sites": ["anterolateral"]}}), CATALOGUE).rows[0]
        self.assertTrue(unsided.left.muted and unsided.right.muted)
        self.assertIn("anterolateral", unsided.about[0])

    def test_route_and_first_side(self) -> None:
        exam = check_record(record(intake=self.intake, purpose="ankle_injury"), CATALOGUE).exam
        stops = make_route(exam, CATALOGUE, Context()).stops
        self.assertIn("right", {str(side) for stop in stops for side in stop.asked_for})
        self.assertEqual({str(stop.sides[0]) for stop in stops if len(stop.sides) == 2}, {"left"})
        self.assertEqual(first_side_of(exam.intake.complaint, "uninjured"), "left")

    def test_out_for_the_browser(self) -> None:
        out = complaint_out(complaint_in(self.intake, "ankle_injury", CATALOGUE))
        assert out is not None
        self.assertEqual((out.region, out.side, out.now, out.places[0].worst), ("ankle", "right", 4, 7))


class ReadOnce(unittest.TestCase):
    # What takes the raw fields apart, checks them, or puts them together.
    MAY = {
        "record/complaint.py",
        "record/facts.py",
        "record/read.py",
        "record/fact_fields.py",
        "record/model.py",
    }
    RAW = re.compile(r"""intake\.complaint\b|\[["']complaint["']\]|get\(["']complaint["']\)""")

    def test_the_raw_fields_are_read_nowhere_else(self) -> None:
        package = ROOT / "northstride"
        files = [
            file
            for part in ("record", "interchange", "store", "api")
            for file in (package / part).rglob("*.py")
        ]
        self.assertGreater(len(files), 100)
        found = {str(file.relative_to(package)) for file in files if self.RAW.search(_code(file))}
        self.assertEqual(found - self.MAY, set())
        self.assertIn("complaint", IntakePart.model_fields)

    def test_nor_in_the_browser(self) -> None:
        files = [file for kind in ("*.ts", "*.tsx") for file in (ROOT / "web" / "src").rglob(kind)]
        found = {
            file.name
            for file in files
            if "intake?.complaint" in file.read_text() or "intake.complaint" in file.read_text()
        }
        self.assertEqual(found, set())


def _code(file: Path) -> str:
    return file.read_text(encoding="utf-8")
