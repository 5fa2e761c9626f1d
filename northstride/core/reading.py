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
    CAP_RULES,
    DANGER_RULES,
    FINDING_RULES,
    GATE_RULES,
    RECHECK_RULES,
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
    caps = [cap for rule in CAP_RULES for cap in rule(case, findings)]
    rechecks = list(dict.fromkeys(item for rule in RECHECK_RULES for item in rule(everything)))
    flags = merge(case, findings, steps, caps, rechecks)
    asked = [item for item in raised if isinstance(item, Next)]
    asked += [item for rule in ASK_RULES for item in rule(case)]
    again = [item for rule in RETAKE_RULES for item in rule(case)]
    return Reading(
        record=exam.id,
        rules=RULES_VERSION,
        flags=tuple(flags),
        ruled_down=tuple(ruled_down(case, flags)),
        actions=actions_for(flags, rechecks),
        retake=tuple(dict.fromkeys([*retakes(case), *again])),
        held=held,
        differences=tuple(side_differences(case)),
        next=next_tests(flags, asked, held),
        criteria=(),
        coverage=coverage(case, held),
        advice=advice_on(flags),
    )


def ruled_down(case: Case, flags: Sequence[Flag]) -> Iterator[RuledDown]:
    """What is cleared: never a flagged code, and nothing beside a flag that keeps it open."""
    flagged = {(flag.code, flag.side) for flag in flags}
    for rule in RULED_DOWN_RULES:
        for item in rule(case):
            beside = any(flag.side in (item.side, None) and _keeps_open(flag, item) for flag in flags)
            if (item.code, item.side) not in flagged and not beside:
                yield item


def _keeps_open(flag: Flag, cleared: RuledDown) -> bool:
    """A fracture flag keeps every code of its side open, a danger flag those of the hip."""
    return flag.kind == "fracture" or (flag.kind == "danger" and not cleared.code.startswith("fracture."))


def _closed(held: Sequence[Held]) -> frozenset[tuple[str, Side]]:
    return frozenset((item.test, item.side) for item in held if item.side is not None)


def _shown_while_held(everything: Case, case: Case, findings: Sequence[Finding]) -> Iterator[Finding]:
    """What a held entry already shows is not lost where it asks for help today: likely at most."""
    if not case.held:
        return
    for rule in FINDING_RULES:
        for finding in rule(everything):
            strength = min(finding.strength, Strength.LIKELY)
            if finding.urgency in URGENT and not _said_already(finding, strength, findings):
                yield replace(finding, strength=strength, against=(*finding.against, WHILE_HELD))


def _said_already(finding: Finding, strength: Strength, findings: Sequence[Finding]) -> bool:
    return any(
        (known.code, known.side, known.urgency) == (finding.code, finding.side, finding.urgency)
        and known.strength >= strength
        for known in findings
    )
