"""Ready to return: met, not met, not tested. The tool lists; the practitioner decides."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

from northstride.core.examination.case import Case
from northstride.core.findings import URGENT, Ask, Criterion, Difference, Strength
from northstride.core.findings.change import Change, ChangeVerdict
from northstride.core.judgement.judge import Judgement
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.norms import limits
from northstride.core.rules.hip.function import RESISTED, torque_of
from northstride.core.rules.pain import hurts, painless
from northstride.core.rules.symmetry import against_uninvolved, involved_side
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import ReturnCriterion

LIMIT = limits("return")
REACH_DIFFERS = limits("ankle")["reach_differs_from"]
FULL_GRADE = f"{LIMIT['full_grade']:g}"

State = Literal["met", "not_met", "not_tested"]
Judged = tuple[bool, str]
LENGTH_FAMILIES = ("hip_flexor_length", "outer_thigh_length", "hamstring_length")
RISE, HOP, SIDE_HOP, REACH, LUNGE = (
    "ankle.heel_rise",
    "ankle.hop",
    "ankle.side_hop",
    "ankle.reach",
    "ankle.lunge",
)


def return_criteria(
    judged: Judgement, asks: Sequence[Ask], differences: Sequence[Difference], changes: Sequence[Change]
) -> tuple[Criterion, ...]:
    """Each criterion met, not met or not tested; none is assumed. Empty for any other purpose."""
    case = judged.case
    if case.exam.purpose != "return_to_sport":
        return ()
    return (
        _no_urgent_flag(judged, asks),
        _within(case, "passive_ranges", [d for d in differences if d.measure == "passive"]),
        _within(case, "lunge", [d for d in differences if d.test == LUNGE]),
        _within(case, "muscle_length", [d for d in differences if is_muscle_length(case, d.test)]),
        _criterion("resisted_strength", _strength(case)),
        _criterion("heel_rise", _by_symmetry(case, RISE, "count")),
        _criterion("hop", _hops(case, HOP, "distance")),
        _criterion("side_hop", _hops(case, SIDE_HOP, "count")),
        _criterion("reach_anterior", _reach(case)),
        _criterion("own_baseline", _own_baseline(case, changes)),
        _criterion("pain_now", _pain_now(case)),
    )


def _criterion(name: ReturnCriterion, judged: Iterable[Judged]) -> Criterion:
    """Met where every part of it is; the first that is not, or else the first, says where it stands."""
    parts = list(judged)
    if not parts:
        return Criterion(name, "not_tested", None)
    failed = next((at for met, at in parts if not met), None)
    return Criterion(name, "met" if failed is None else "not_met", failed or parts[0][1])


def _sides(case: Case) -> tuple[Side, ...]:
    """The involved side; both where the complaint is on both or on none."""
    involved = involved_side(case)
    return SIDES if involved is None else (involved,)


def _no_urgent_flag(judged: Judgement, asks: Sequence[Ask]) -> Criterion:
    """No open emergency, same-day or strong instability flag on the involved side.

    Not tested while a gate of doubt is shut there or an urgent question is open.
    """
    name: ReturnCriterion = "no_urgent_flag"
    case = judged.case
    for flag in judged.flags:
        here = flag.side is None or flag.side in _sides(case)
        loose = flag.kind == "instability" and flag.strength is Strength.STRONG
        if here and (flag.urgency in URGENT or loose):
            return Criterion(name, "not_met", flag.because[0].at)
    shut = any(gate.gate != "hip_replacement" and gate.side in _sides(case) for gate in judged.gates)
    if shut or any(ask.urgent for ask in asks):
        return Criterion(name, "not_tested", None)
    examined = next(
        (entry for entry in case.exam.entries if entry.done and any(map(entry.covers, _sides(case)))), None
    )
    return Criterion(name, "met", examined.at) if examined else Criterion(name, "not_tested", None)


def _within(case: Case, name: ReturnCriterion, differences: Sequence[Difference]) -> Criterion:
    return _criterion(name, [(not found.comparison.matters, _at(case, found.test)) for found in differences])


def _at(case: Case, test: str) -> str:
    entries = (entry for side in (*_sides(case), *SIDES, None) for entry in case.entries(test, side))
    return next((entry.at for entry in entries), "entries")


def is_muscle_length(case: Case, test: str) -> bool:
    return case.catalogue.tests[test].family in LENGTH_FAMILIES


def _strength(case: Case) -> Iterable[Judged]:
    """Symmetry of 90 or more, or grade 5 on the involved side."""
    for test in RESISTED:
        index = against_uninvolved(case, *(torque_of(case, test, side) for side in SIDES))
        grades = [case.value(test, "grade", side) for side in _sides(case)]
        if index is None and not any(isinstance(grade, str) for grade in grades):
            continue
        strong = index is not None and not less_than(index, LIMIT["symmetry_from"])
        full = index is None and all(grade == FULL_GRADE for grade in grades)
        yield strong or full, _at(case, test)


def _by_symmetry(case: Case, test: str, measure: str) -> Iterable[Judged]:
    found = [case.number(test, measure, side) for side in SIDES]
    index = against_uninvolved(case, *(each.value if each else None for each in found))
    if index is not None:
        yield not less_than(index, LIMIT["symmetry_from"]), _at(case, test)


def _hops(case: Case, test: str, measure: str) -> Iterable[Judged]:
    """90 or more and painless. A hop that is not possible or hurts is not met; pain not asked, not tested."""
    entries = [case.entry(test, side) for side in _sides(case)]
    for side, entry in zip(_sides(case), entries, strict=True):
        if entry is not None and (hurts(entry) or entry.value("able", side) is False):
            yield False, entry.at
    index = list(_by_symmetry(case, test, measure))
    if any(not met for met, _ in index) or all(painless(entry) for entry in entries):
        yield from index


def _reach(case: Case) -> Iterable[Judged]:
    left, right = (case.number(REACH, "anterior", side) for side in SIDES)
    if left is not None and right is not None:
        yield (
            less_than(abs(left.value - right.value), limits("ankle")["reach_differs_from"]),
            _at(case, REACH),
        )


def _own_baseline(case: Case, changes: Sequence[Change]) -> Iterable[Judged]:
    """No change beyond error for the worse, against the athlete's own baseline where there is one."""
    for change in changes:
        here = change.side is None or change.side in _sides(case)
        if here and change.baseline.own and change.comparison is not None:
            worse = change.verdict is ChangeVerdict.CHANGED and change.worse is True
            yield not worse, change.at


def _pain_now(case: Case) -> Iterable[Judged]:
    now = case.exam.intake.pain_now
    if now is not None:
        yield not more_than(now, LIMIT["pain_up_to"]), "intake.pain"
