"""From an examination to a reading: a pure function of examination, catalogue and context."""

from __future__ import annotations

from northstride.core.case import Case
from northstride.core.catalogue import Catalogue
from northstride.core.differences import retakes, side_differences
from northstride.core.examination import Context, Examination
from northstride.core.findings import Reading
from northstride.core.putting_together import actions_for, advice_on, coverage, merge, next_tests
from northstride.core.rules import FINDING_RULES, RULES_VERSION, STEP_RULES


def evaluate(exam: Examination, catalogue: Catalogue, context: Context) -> Reading:
    """Read a whole examination. Never raises for a checked one; the same input gives the same output.

    Findings first, then the steps that see them, then one flag per code and side.
    """
    case = Case(exam, catalogue, context)
    findings = [finding for rule in FINDING_RULES for finding in rule(case)]
    steps = [step for rule in STEP_RULES for step in rule(case, findings)]
    flags = merge(case, findings, steps)
    return Reading(
        record=exam.id,
        rules=RULES_VERSION,
        flags=tuple(flags),
        ruled_down=(),
        actions=actions_for(flags),
        retake=tuple(retakes(case)),
        held=(),
        differences=tuple(side_differences(case)),
        next=next_tests(flags),
        criteria=(),
        coverage=coverage(case),
        advice=advice_on(flags),
    )
