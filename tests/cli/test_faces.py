"""`./stride route`, `evidence` and `summary` as a user runs them: JSON, text, faults."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

from northstride.cli.steps import ROOT
from tests.support.ankle import done
from tests.support.records import record

SQUEEZE = done("ankle.calf_squeeze", foot_moves="none", passive_range_checked=True)
RECORD = record([SQUEEZE, done("ankle.achilles_gap", gap=True)], purpose="ankle_injury")


class Faces(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def run_it(self, command: str, raw: Any, *arguments: str) -> subprocess.CompletedProcess[str]:
        path = self.folder / "record.json"
        path.write_text(json.dumps(raw), encoding="utf-8")
        whole = [sys.executable, "-m", "northstride.cli", command, str(path), *arguments]
        return subprocess.run(whole, cwd=ROOT, capture_output=True, text=True, check=False)

    def test_route(self) -> None:
        done_ = self.run_it("route", RECORD)
        route = json.loads(done_.stdout)
        self.assertEqual((done_.returncode, route["record"]), (0, RECORD["id"]))
        self.assertEqual(route["turns"], sum(stop["turn"] for stop in route["stops"]))
        self.assertTrue(all(item["why"] for item in (*route["stops"], *route["left_out"])))
        text = self.run_it("route", RECORD, "--text").stdout
        for words in ("in the list's own order", "turns", "Left out"):
            self.assertIn(words, text)

    def test_route_for_people_names_the_side_it_turns_for_and_counts_what_is_many(self) -> None:
        story = {
            "complaint": {"region": "groin", "side": "left", "sites": ["groin"]},
            "symptoms": ["clicking"],
        }
        text = self.run_it("route", record([], purpose="hip_complaint", intake=story), "--text").stdout
        self.assertLess(text.index("Side-lying for the right"), text.index("Side-lying for the left"))
        self.assertRegex(text, r"Left out: The story does not ask for it\. \d+ tests\.")
        sprain = json.loads((ROOT / "docs" / "examples" / "lateral-sprain-day-2.json").read_text())
        self.assertIn("Left out: Done. Anterior drawer", self.run_it("route", sprain, "--text").stdout)

    def test_evidence(self) -> None:
        found = json.loads(self.run_it("evidence", RECORD, "--start", "0.3").stdout)
        squeeze, gap = found["signs"]
        self.assertEqual(
            (squeeze["result"], squeeze["least"], squeeze["counts"]), ("positive", "a lot", True)
        )
        self.assertEqual(squeeze["ratio"], {"least": 14, "most": 14})
        self.assertEqual(squeeze["probability"], {"start": 0.3, "low": 0.85, "high": 0.85})
        self.assertEqual((gap["counts"], gap["probability"]), (False, None))
        self.assertIn("check before relying", found["label"])
        unmoved = json.loads(self.run_it("evidence", RECORD).stdout)["signs"]
        self.assertEqual({sign["probability"] for sign in unmoved}, {None})
        self.assertIn(
            "it could move to 85", self.run_it("evidence", RECORD, "--start", "0.3", "--text").stdout
        )

    def test_a_start_that_is_no_probability_is_refused(self) -> None:
        for start in ("0", "1", "1.5", "nan"):
            done_ = self.run_it("evidence", RECORD, "--start", start)
            self.assertEqual((done_.returncode, done_.stdout), (2, ""))
            self.assertIn("not a probability", done_.stderr)

    def test_a_figure_without_a_bound_is_null(self) -> None:
        stance = done("hip.single_leg_stance", hold=12, pain={"present": True, "site": "lateral_hip"})
        (sign,) = json.loads(self.run_it("evidence", record([stance])).stdout)["signs"]
        self.assertEqual(sign["ratio"], {"least": 13, "most": None})

    def test_summary(self) -> None:
        said = json.loads(self.run_it("summary", RECORD).stdout)
        self.assertEqual(set(said), {"record", "found", "training", "next"})
        self.assertIn("You are seen by a doctor today.", said["next"])
        self.assertIn("What was found", self.run_it("summary", RECORD, "--text").stdout)

    def test_faults_end_with_2_and_no_traceback(self) -> None:
        bad = record([done("ankle.anterior_drawer", laxity=5)])
        for command in ("route", "evidence", "summary"):
            done_ = self.run_it(command, bad)
            self.assertEqual((done_.returncode, done_.stdout), (2, ""))
            self.assertIn("entries[0].values.laxity", done_.stderr)
            self.assertNotIn("Traceback", done_.stderr)
