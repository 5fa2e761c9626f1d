"""`./stride agreement` as a user runs it: the table, the error file it writes, every fault in one go."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

from northstride.cli.steps import ROOT
from tests.support.records import record, thomas

THIGH = {"test": "hip.modified_thomas", "measure": "thigh_angle"}
ROWS = {"A": (4, 6), "B": (-3, -1), "C": (9, 12), "D": (-10, -9), "E": (1, 1)}


def measurements(rows: dict[str, tuple[Any, ...]], **what: str) -> list[dict[str, Any]]:
    examiners = ("K. Aalto", "M. Rist")
    return [
        {"subject": subject, "side": "left", "by": by, **what, "value": value}
        for subject, values in rows.items()
        for by, value in zip(examiners, values, strict=False)
    ]


class Agreement(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def run_it(self, items: Any, *arguments: str) -> subprocess.CompletedProcess[str]:
        path = self.folder / "measured.json"
        content = items
        if isinstance(items, list):
            content = {"format": "north-stride/agreement", "version": 1, "measurements": items}
        path.write_text(json.dumps(content), encoding="utf-8")
        command = [sys.executable, "-m", "northstride.cli", "agreement", str(path), *arguments]
        return subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)

    def test_numbers_and_grades(self) -> None:
        laxity = {"test": "ankle.anterior_drawer", "measure": "laxity"}
        grades = {"A": (0, 0), "B": (1, 2), "C": (2, 2), "D": (0, 1)}
        done = self.run_it([*measurements(ROWS, **THIGH), *measurements(grades, **laxity)])
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        numbers, categories = json.loads(done.stdout)["measures"]
        self.assertEqual((numbers["subjects"], numbers["columns"]), (5, ["K. Aalto", "M. Rist"]))
        self.assertEqual(numbers["limits"][0]["bias"], -1.6)
        self.assertGreater(numbers["icc_consistency"]["value"], numbers["icc_agreement"]["value"])
        (kappa,) = categories["kappa"]
        self.assertEqual(kappa["observed"], 0.5)
        self.assertGreater(kappa["quadratic"], kappa["kappa"])

    def test_the_file_it_writes_is_a_context(self) -> None:
        """What a clinic measured replaces the catalogue's figure in the next reading."""
        own = self.folder / "own.json"
        self.assertEqual(self.run_it(measurements(ROWS, **THIGH), "--sem", str(own)).returncode, 0)
        sem = json.loads(own.read_text())["sem"]["hip.modified_thomas.thigh_angle"]
        sides = record([thomas("left", thigh_angle=8), thomas("right", thigh_angle=1)])
        file = self.folder / "a.json"
        file.write_text(json.dumps(sides), encoding="utf-8")
        command = [sys.executable, "-m", "northstride.cli", "evaluate", str(file), "--context", str(own)]
        done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=True)
        (difference,) = json.loads(done.stdout)["differences"]
        self.assertAlmostEqual(difference["mdc95"], 1.96 * 2**0.5 * sem, places=1)
        self.assertEqual(difference["source"], "the clinic's own study")

    def test_text_for_people(self) -> None:
        done = self.run_it(measurements(ROWS, **THIGH), "--text")
        for words in ("ICC(2,1)", "SEM", "5 subjects", "K. Aalto − M. Rist"):
            self.assertIn(words, done.stdout)

    def test_repeats_of_one_examiner(self) -> None:
        items = [
            {"subject": subject, "by": "K. Aalto", "occasion": occasion, **THIGH, "value": value}
            for subject, values in ROWS.items()
            for occasion, value in enumerate(values, 1)
        ]
        (found,) = json.loads(self.run_it(items).stdout)["measures"]
        self.assertEqual(found["columns"], ["K. Aalto", "K. Aalto (2)"])

    def test_faults_all_in_one_go_with_their_place(self) -> None:
        good = measurements(ROWS, **THIGH)
        for items, says in (
            (
                [{**good[0], "value": "x"}, {**good[1], "measure": "none"}],
                ["measurements[0].value", "measurements[1].measure"],
            ),
            ([{**good[0], "value": True}], ["measurements[0].value"]),
            ([{**good[0], "value": 200}], ["measurements[0].value"]),
            (good[:-1], ["was not measured by M. Rist"]),
            ([*good, good[0]], ["stands twice"]),
            (good[:4], ["needs at least 3 subjects"]),
            (measurements(dict.fromkeys(ROWS, (5, 5)), **THIGH), ["all subjects are alike"]),
            ([{**good[0], "wrong": 1}], ["measurements[0].wrong"]),
            ({"format": "north-stride/screen"}, ["format", "version", "measurements"]),
            ([{**item, "value": "looks_full"} for item in good], ["seen, not measured"]),
        ):
            done = self.run_it(items)
            self.assertEqual((done.returncode, done.stdout), (2, ""))
            self.assertNotIn("Traceback", done.stderr)
            for words in says:
                self.assertIn(words, done.stderr)
