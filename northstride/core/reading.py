"""From an examination to a reading: a pure function of examination, catalogue and context."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from northstride.core.case import Case
from northstride.core.catalogue import Catalogue
from northstride.core.differences import retakes, side_differences
from northstride.core.examination import Context, Examination
from northstride.core.findings import (
    Finding,
    Flag,
    GateRaised,
    Held,
    Next,
    Reading,
    RuledDown,
    Strength,
    Urgency,
)
from northstride.core.gates import closed_gates, held_tests
from northstride.core.putting_together import actions_for, advice_on, coverage, merge, next_tests
from northstride.core.rules import (
    ASK_RULES,
    DANGER_RULES,
    FINDING_RULES,
    GATE_RULES,
    RETAKE_RULES,
    RULED_DOWN_RULES,
    RULES_VERSION,
    STEP_RULES,
)
from northstride.core.sides import Side

URGENT = (Urgency.EMERGENCY, Urgency.SAME_DAY)
WHILE_HELD = "recorded while held"


def evaluate(exam: Examination, catalogue: Catalogue, context: Context) -> Reading:
    """Read a whole examination. Never raises for a checked one; the same input gives the same output.

    Danger first, on every entry; then gates decide what is held; then the other rules read what is
    not; then steps, and one flag per code and side.
    """
    everything = Case(exam, catalogue, context)
    danger = [finding for rule in DANGER_RULES for finding in rule(everything)]
    raised = [item for rule in GATE_RULES for item in rule(everything)]
    gates = closed_gates(everything, danger, [item for item in raised if isinstance(item, GateRaised)])
    held = tuple(held_tests(everything, gates))
    case = replace(everything, held=_closed(held))
    findings = [*danger, *(finding for rule in FINDING_RULES for finding in rule(case))]
    findings += _shown_while_held(everything, case, findings)
    steps = [step for rule in STEP_RULES for step in rule(case, findings)]
    flags = merge(case, findings, steps)
    asked = [item for item in raised if isinstance(item, Next)]
    asked += [item for rule in ASK_RULES for item in rule(case)]
    again = [item for rule in RETAKE_RULES for item in rule(case)]
    return Reading(
        record=exam.id,
        rules=RULES_VERSION,
        flags=tuple(flags),
        ruled_down=tuple(ruled_down(case, flags)),
        actions=actions_for(flags),
        retake=tuple(dict.fromkeys([*retakes(case), *again])),
        held=held,
        differences=tuple(side_differences(case)),
        next=next_tests(flags, asked, held),
        criteria=(),
        coverage=coverage(case, held),
        advice=advice_on(flags),
    )


def ruled_down(case: Case, flags: Sequence[Flag]) -> Iterator[RuledDown]:
    """What is cleared: never a flagged code, and no hip code beside a fracture or danger flag."""
    flagged = {(flag.code, flag.side) for flag in flags}
    grave = [flag for flag in flags if flag.kind in ("fracture", "danger")]
    for rule in RULED_DOWN_RULES:
        for item in rule(case):
            beside = any(flag.side in (item.side, None) for flag in grave)
            if (item.code, item.side) not in flagged and not beside:
                yield item


def _closed(held: Sequence[Held]) -> frozenset[tuple[str, Side]]:
    return frozenset((item.test, item.side) for item in held if item.side is not None)


def _shown_while_held(everything: Case, case: Case, findings: Sequence[Finding]) -> Iterator[Finding]:
    """What a held entry already shows is not lost where it asks for help today: likely at most."""
    if not case.held:
        return
    known = {(finding.code, finding.side) for finding in findings}
    for rule in FINDING_RULES:
        for finding in rule(everything):
            if finding.urgency in URGENT and (finding.code, finding.side) not in known:
                strength = min(finding.strength, Strength.LIKELY)
                yield replace(finding, strength=strength, against=(*finding.against, WHILE_HELD))
