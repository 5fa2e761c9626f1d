"""What the rules make of an examination: danger first, then gates, then what is not held."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context, Examination
from northstride.core.examination.case import Case
from northstride.core.findings import (
    URGENT,
    Action,
    Finding,
    Flag,
    GateRaised,
    Held,
    Next,
    Question,
    Retake,
    RuledDown,
    Strength,
)
from northstride.core.judgement.differences import retakes
from northstride.core.judgement.gates import Closed, closed_gates, covers, held_tests
from northstride.core.judgement.merge import actions_for, merge
from northstride.core.judgement.unreadable import read_or_name
from northstride.core.rules import (
    CAP_RULES,
    DANGER_RULES,
    FINDING_RULES,
    GATE_RULES,
    LOAD_GATES,
    LOAD_RULES,
    NEXT_RULES,
    QUESTION_RULES,
    READ_WHILE_HELD,
    RECHECK_RULES,
    RETAKE_RULES,
    RULED_DOWN_RULES,
    STEP_RULES,
)
from northstride.core.rules.foot.midfoot import midfoot_keeps_bone_open
from northstride.core.terms.sides import Side

WHILE_HELD = "recorded while held"


@dataclass(frozen=True, slots=True)
class Judgement:
    """`case` is the examination without what is held, `everything` with it; `gates` are those that are
    shut; `asked` is what rules ask first, `questions` what they miss in the story.
    """

    case: Case
    everything: Case
    flags: tuple[Flag, ...]
    ruled_down: tuple[RuledDown, ...]
    actions: tuple[Action, ...]
    retake: tuple[Retake, ...]
    held: tuple[Held, ...]
    gates: tuple[Closed, ...]
    asked: tuple[Next, ...]
    questions: tuple[Question, ...]

    def holds(self, test: str, side: Side | None) -> bool:
        """Whether a shut gate covers a test on a side, recorded, planned or neither."""
        return self.gate_over(test, side) is not None

    def gate_over(self, test: str, side: Side | None) -> Closed | None:
        """The gate that covers a test, one that no answer will open before one that an answer may."""
        return min(self._covering(test, side), key=lambda gate: gate.until_answered, default=None)

    def _covering(self, test: str, side: Side | None) -> Iterator[Closed]:
        return (gate for gate in self.gates if side in (gate.side, None) and covers(self.case, gate, test))


def judge(exam: Examination, catalogue: Catalogue, context: Context) -> Judgement:
    """Danger first, on every entry; then its gates decide what is held; then what must not be loaded, with
    gates of its own; then the other rules read what is left; then steps, then caps, and one flag per code
    and side. Raises NotReadable.
    """
    return read_or_name(_judge, exam, catalogue, context)


def _judge(exam: Examination, catalogue: Catalogue, context: Context) -> Judgement:
    everything = Case(exam, catalogue, context)
    danger = [finding for rule in DANGER_RULES for finding in rule(everything)]
    raised = [item for rule in GATE_RULES for item in rule(everything)]
    gates = closed_gates(everything, danger, [item for item in raised if isinstance(item, GateRaised)])
    held = tuple(held_tests(everything, gates))
    case = _without(everything, held)
    findings = [*danger, *_read(everything, case, gates)]
    steps = [step for rule in STEP_RULES for step in rule(case, findings)]
    caps = [cap for rule in CAP_RULES for cap in rule(case, findings)]
    rechecks = list(dict.fromkeys(item for rule in RECHECK_RULES for item in rule(everything)))
    flags = merge(case, findings, steps, caps, rechecks)
    asked = [item for item in raised if isinstance(item, Next)]
    asked += [item for rule in NEXT_RULES for item in rule(case)]
    again = [item for rule in RETAKE_RULES for item in rule(case)]
    return Judgement(
        case=case,
        everything=everything,
        flags=tuple(flags),
        ruled_down=tuple(_ruled_down(everything, case, flags)),
        actions=actions_for(exam, flags, rechecks),
        retake=tuple(dict.fromkeys([*retakes(case), *again])),
        held=held,
        gates=tuple(gates),
        asked=tuple(asked),
        questions=_questions(everything),
    )


def _without(everything: Case, held: Sequence[Held]) -> Case:
    places = frozenset((item.test, item.side) for item in held if item.side is not None)
    return everything.without(places) if places else everything


def _read(everything: Case, case: Case, gates: Sequence[Closed]) -> list[Finding]:
    """What must not be loaded reads what danger does not hold; the others read what is not held at all."""
    of_danger = [gate for gate in gates if gate.gate not in LOAD_GATES]
    before_loading = case
    if len(of_danger) < len(gates):
        before_loading = _without(everything, tuple(held_tests(everything, of_danger)))
    findings = [finding for rule in LOAD_RULES for finding in rule(before_loading)]
    findings += [finding for rule in FINDING_RULES for finding in rule(case)]
    return [*findings, *_shown_while_held(everything, case, findings)]


def _questions(everything: Case) -> tuple[Question, ...]:
    """Each once, for the first reason there is."""
    found = [question for rule in QUESTION_RULES for question in rule(everything)]
    first = {question.item: question for question in reversed(found)}
    return tuple(question for question in found if first[question.item] is question)


def _ruled_down(everything: Case, case: Case, flags: Sequence[Flag]) -> Iterator[RuledDown]:
    """What is cleared: never a flagged code, nothing beside a flag that keeps it open, and nothing that a
    held entry speaks for.
    """
    candidates = [item for rule in RULED_DOWN_RULES for item in rule(case)]
    flagged: set[tuple[str, Side | None]] = {(flag.code, flag.side) for flag in flags}
    if candidates and case.held:
        flagged |= {(f.code, f.side) for rule in FINDING_RULES for f in rule(everything)}
    flagged |= {("fracture.midfoot", side) for side in midfoot_keeps_bone_open(everything)}
    for item in candidates:
        beside = any(flag.side in (item.side, None) and _keeps_open(flag, item) for flag in flags)
        if not beside and not {(item.code, item.side), (item.code, None)} & flagged:
            yield item


def _keeps_open(flag: Flag, cleared: RuledDown) -> bool:
    """A fracture flag keeps every code of its side open, a danger flag those of the hip."""
    return flag.kind == "fracture" or (flag.kind == "danger" and not cleared.code.startswith("fracture."))


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
