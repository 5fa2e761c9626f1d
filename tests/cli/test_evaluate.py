"""`./stride evaluate` as a user runs it: exit codes, several files, standard input, text, context."""

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

SHORT = record([thomas("left", thigh_angle=8), thomas("right", thigh_angle=-4)])


class Evaluate(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def file(self, name: str, content: Any) -> str:
        path = self.folder / name
        path.write_text(content if isinstance(content, str) else json.dumps(content), encoding="utf-8")
        return str(path)

    def run_it(self, *arguments: str, text: str = "") -> subprocess.CompletedProcess[str]:
        command = [sys.executable, "-m", "northstride.cli", "evaluate", *arguments]
        return subprocess.run(command, cwd=ROOT, input=text, capture_output=True, text=True, check=False)

    def test_one_record_is_one_object(self) -> None:
        done = self.run_it(self.file("a.json", SHORT))
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        reading = json.loads(done.stdout)
        self.assertEqual(reading["record"], SHORT["id"])
        self.assertEqual(
            set(reading),
            {
                *(
                    "record",
                    "rules",
                    "fingerprint",
                    "flags",
                    "ruled_down",
                    "actions",
                    "retake",
                    "held",
                    "shut",
                    "differences",
                    "follows",
                ),
                *("next", "ask", "criteria", "changes", "coverage", "advice"),
            },
        )

    def test_faults_go_to_standard_error_and_good_records_are_still_read(self) -> None:
        bad = record([thomas("left", edge_grade=7, thigh_angle="x")])
        done = self.run_it(self.file("bad.json", bad), self.file("good.json", SHORT))
        self.assertEqual(done.returncode, 2)
        self.assertEqual(len(done.stdout.splitlines()), 1)
        lines = done.stderr.splitlines()
        self.assertEqual(len(lines), 2)
        self.assertTrue(lines[0].endswith("entries[0].values.edge_grade: 7 is not a grade from 0 to 3"))
        self.assertNotIn("Traceback", done.stderr)

    def test_a_single_file_names_paths_alone(self) -> None:
        done = self.run_it(self.file("bad.json", record([thomas("left", edge_grade=7)])))
        self.assertEqual(done.stderr, "entries[0].values.edge_grade: 7 is not a grade from 0 to 3\n")

    def test_a_missing_or_broken_file(self) -> None:
        for argument in (str(self.folder / "none.json"), self.file("broken.json", "{"), str(self.folder)):
            done = self.run_it(argument)
            self.assertEqual((done.returncode, done.stdout), (2, ""))
            self.assertNotIn("Traceback", done.stderr)

    def test_standard_input_takes_one_record_or_lines(self) -> None:
        pretty = self.run_it("-", text=json.dumps(SHORT, indent=2))
        self.assertEqual((pretty.returncode, len(pretty.stdout.splitlines())), (0, 1))
        line = json.dumps(SHORT)
        lines = self.run_it("-", text=f"{line}\n\n{line}\n")
        self.assertEqual((lines.returncode, len(lines.stdout.splitlines())), (0, 2))
        mixed = self.run_it("-", text=f"{line}\n{{\n{line}\n")
        self.assertEqual((mixed.returncode, len(mixed.stdout.splitlines())), (2, 2))
        self.assertIn("line 2", mixed.stderr)

    def test_text_says_the_same_for_people(self) -> None:
        done = self.run_it("--text", self.file("a.json", SHORT))
        for words in (
            "Hip flexors short, strong (tightness.hip_flexors)",
            "12° tighter",
            "local protocols come first",
        ):
            self.assertIn(words, done.stdout)

    def test_an_empty_list_of_what_next_says_so(self) -> None:
        said = self.run_it("--text", self.file("a.json", record())).stdout
        self.assertIn("no further test speaks of what is flagged", said)
        # WorkerPool it stands what nothing speaks about: silence is not health.
        self.assertIn("not examined: Hip joint left (nothing recorded)", said)

    def test_text_says_what_is_asked_by_when_and_by_which_rules(self) -> None:
        story = {"complaint": {"region": "leg", "side": "left"}, "onset": {"kind": "gradual"}}
        shin = {"test": "ankle.palpation", "side": "left", "values": {"tender": ["tibia_shaft"]}}
        said = self.run_it("--text", self.file("a.json", record([shin], intake=story))).stdout
        self.assertIn("Read by rules 2", said)
        self.assertIn("load_change, urgent:", said)
        self.assertIn("refer: refer.fracture_tibia left, by 2026-09-21", said)

    def test_text_says_what_changed(self) -> None:
        before = {**SHORT, "id": "00000000-0000-4000-8000-000000000002", "date": "2026-03-02"}
        now = record([thomas("left", thigh_angle=-2), thomas("right", thigh_angle=-4)])
        context = self.file("context.json", {"earlier": [before]})
        done = self.run_it("--text", "--context", context, self.file("a.json", now))
        self.assertIn("8 on 2026-03-02, -2 now, -10 (error 5.54): changed", done.stdout)
        self.assertIn("within error", done.stdout)

    def test_context_brings_own_error_figures(self) -> None:
        context = self.file("context.json", {"sem": {"thigh_angle": 6}, "earlier": [SHORT]})
        done = self.run_it("--context", context, self.file("a.json", SHORT))
        self.assertEqual(json.loads(done.stdout)["flags"][0]["strength"], "likely")

    def test_a_bad_context_or_another_athletes_is_refused(self) -> None:
        bad = self.run_it("--context", self.file("c.json", {"sem": {"x": 1}}), self.file("a.json", SHORT))
        self.assertEqual((bad.returncode, bad.stdout), (2, ""))
        self.assertIn("sem.x", bad.stderr)
        other = self.file("d.json", {"earlier": [{**SHORT, "athlete": {"ref": "T-2"}}]})
        done = self.run_it("--context", other, self.file("a.json", SHORT))
        self.assertEqual(done.returncode, 2)
        self.assertIn("earlier[0].athlete.ref", done.stderr)
