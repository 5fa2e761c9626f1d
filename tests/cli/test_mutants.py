"""What a mutation run chooses, and how its survivors are told. The run itself takes minutes a module."""

from __future__ import annotations

import unittest

from northstride.cli.mutants import (
    CORE,
    STATE,
    Mutants,
    candidates,
    changed_lines,
    chosen,
    of_report,
    statuses,
)

DIFF = """--- northstride/core/terms/age.py
+++ northstride/core/terms/age.py
@@ -1,3 +1,3 @@
 def age_on(born, day):
-    if born is None:
+    if born is not None:
         return None
"""


def mutant(status: str, line: int, replacement: str) -> dict[str, object]:
    return {
        "status": status,
        "mutatorName": "EqualityOperator",
        "replacement": replacement,
        "location": {"start": {"line": line, "column": 1}, "end": {"line": line, "column": 9}},
    }


class MutationRun(unittest.TestCase):
    def test_modules_are_bounded_and_the_same_for_the_same_seed(self) -> None:
        modules = candidates(CORE)
        self.assertEqual(chosen(modules, 7, 3), chosen(modules, 7, 3))
        self.assertEqual(len(chosen(modules, 7, 3)), 3)
        self.assertNotEqual([chosen(modules, seed, 3) for seed in range(9)], [chosen(modules, 7, 3)] * 9)
        self.assertEqual(chosen(modules[:2], 7, 5), modules[:2])

    def test_what_may_be_changed_is_code_and_no_test(self) -> None:
        for part, suffix in ((CORE, ".py"), (STATE, ".ts")):
            found = candidates(part)
            self.assertGreater(len(found), 30)
            self.assertTrue(all(name.startswith(part) and name.endswith(suffix) for name in found))
            self.assertFalse([name for name in found if ".test." in name or "__init__" in name])

    def test_what_became_of_each_is_read_from_the_list(self) -> None:
        listed = "    a.b.x_age_on__mutmut_1: killed\n    a.b.x_age_on__mutmut_2: not checked\n\n"
        self.assertEqual(
            statuses(listed),
            [("a.b.x_age_on__mutmut_1", "killed"), ("a.b.x_age_on__mutmut_2", "not checked")],
        )

    def test_a_survivor_is_told_by_what_was_changed(self) -> None:
        self.assertEqual(changed_lines(DIFF), "- if born is None: + if born is not None:")

    def test_of_a_report_those_count_that_were_tried_and_nobody_noticed(self) -> None:
        made = [
            mutant("Killed", 3, "a < b"),
            mutant("Survived", 4, "a <= b"),
            mutant("NoCoverage", 5, "true"),
            mutant("Timeout", 6, "false"),
            mutant("Ignored", 7, "''"),
        ]
        report: dict[str, object] = {"files": {"src/state/a.ts": {"mutants": made}}}
        told = ["src/state/a.ts:4: EqualityOperator a <= b", "src/state/a.ts:5: EqualityOperator true"]
        self.assertEqual(of_report(report), Mutants(4, told))
