"""What the rules make of an examination: danger first, then gates, then what is not held."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context, Examination
from northstride.core.examination.case import Case
from northstride.core.examination.differences import retakes
from northstride.core.findings import (
    Action,
    Finding,
    Flag,
    GateRaised,
    Held,
    Next,
    Retake,
    RuledDown,
    Strength,
    Urgency,
)
from northstride.core.gates import Closed, closed_gates, covers, held_tests
from northstride.core.putting_together import actions_for, merge
from northstride.core.rules import (
    ASK_RULES,
    CAP_RULES,
    DANGER_RULES,
    FINDING_RULES,
    GATE_RULES,
    READ_WHILE_HELD,
    RECHECK_RULES,
    RETAKE_RULES,
    RULED_DOWN_RULES,
    STEP_RULES,
)
from northstride.core.sides import Side

URGENT = (Urgency.EMERGENCY, Urgency.SAME_DAY)
WHILE_HELD = "recorded while held"


@dataclass(frozen=True, slots=True)
class Judgement:
    """`case` is the examination without what is held; `gates` are those that are shut; `asked` is what
    rules ask first.
    """

    case: Case
    flags: tuple[Flag, ...]
    ruled_down: tuple[RuledDown, ...]
    actions: tuple[Action, ...]
    retake: tuple[Retake, ...]
    held: tuple[Held, ...]
    gates: tuple[Closed, ...]
    asked: tuple[Next, ...]

    def holds(self, test: str, side: Side | None) -> bool:
        """Whether a shut gate covers a test on a side, recorded, planned or neither."""
        return self.gate_over(test, side) is not None

    def gate_over(self, test: str, side: Side | None) -> Closed | None:
        """The gate that covers a test, one that no answer will open before one that an answer may."""
        return min(self._covering(test, side), key=lambda gate: gate.until_answered, default=None)

    def _covering(self, test: str, side: Side | None) -> Iterator[Closed]:
        return (gate for gate in self.gates if side in (gate.side, None) and covers(self.case, gate, test))


def judge(exam: Examination, catalogue: Catalogue, context: Context) -> Judgement:
    """Danger first, on every entry; then gates decide what is held; then the other rules read what is
    not; then steps, then caps, and one flag per code and side.
    """
    everything = Case(exam, catalogue, context)
    danger = [finding for rule in DANGER_RULES for finding in rule(everything)]
    raised = [item for rule in GATE_RULES for item in rule(everything)]
    gates = closed_gates(everything, danger, [item for item in raised if isinstance(item, GateRaised)])
    held = tuple(held_tests(everything, gates))
    case = everything.without(_closed(held)) if held else everything
    findings = [*danger, *(finding for rule in FINDING_RULES for finding in rule(case))]
    findings += _shown_while_held(everything, case, findings)
    steps = [step for rule in STEP_RULES for step in rule(case, findings)]
    caps = [cap for rule in CAP_RULES for cap in rule(case, findings)]
    rechecks = list(dict.fromkeys(item for rule in RECHECK_RULES for item in rule(everything)))
    flags = merge(case, findings, steps, caps, rechecks)
    asked = [item for item in raised if isinstance(item, Next)]
    asked += [item for rule in ASK_RULES for item in rule(case)]
    again = [item for rule in RETAKE_RULES for item in rule(case)]
    return Judgement(
        case=case,
        flags=tuple(flags),
        ruled_down=tuple(_ruled_down(case, flags)),
        actions=actions_for(flags, rechecks),
        retake=tuple(dict.fromkeys([*retakes(case), *again])),
        held=held,
        gates=tuple(gates),
        asked=tuple(asked),
    )


def _ruled_down(case: Case, flags: Sequence[Flag]) -> Iterator[RuledDown]:
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
    for rule in READ_WHILE_HELD if case.held else ():
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
