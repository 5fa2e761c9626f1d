"""A15, A16: tibialis posterior, peroneal tendons, and how the ankle is controlled."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Settle, Strength
from northstride.core.measuring.measurement import less_than
from northstride.core.norms import limits
from northstride.core.rules.ankle.achilles import foot_does_not_move, tendon_gives_partly
from northstride.core.rules.foot.midfoot import midfoot_gives
from northstride.core.rules.foot.shape import heel_leans_out
from northstride.core.rules.hip.function import weak_by_grade, weak_by_symmetry
from northstride.core.rules.pain import hurts, hurts_at
from northstride.core.rules.palpation import tender_points
from northstride.core.rules.symmetry import weaker_side
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import whole

LIMIT = limits("ankle")

PALPATION, RISE, PERONEAL = "ankle.palpation", "ankle.heel_rise", "ankle.peroneal"
INVERSION, EVERSION, STANDING = "ankle.resisted.inversion", "ankle.resisted.eversion", "foot.standing"
BALANCE, REACH, SIDE_HOP = "ankle.balance", "ankle.reach", "ankle.side_hop"
TIBIALIS, CONTROL = "tendon.tibialis_posterior", "control.ankle"


def heel_does_not_turn_in(case: Case) -> Iterator[Finding]:
    """A15: no rise, or no turn or arch in it; with a flat foot or a sore tendon likely.

    Not beside a torn Achilles or a midfoot that gives: those stop a rise by themselves.
    """
    stopped = (*foot_does_not_move(case), *tendon_gives_partly(case), *midfoot_gives(case))
    for side in SIDES:
        entry = case.entry(RISE, side)
        if any(finding.side is side for finding in stopped):
            continue
        count = case.number(RISE, "count", side)
        failing = []
        if count is not None and count.value == 0:
            failing.append("no rise is possible")
        if entry is not None and entry.value("heel_turns_in", side) is False:
            failing.append("the heel does not turn in")
        if entry is not None and entry.value("arch_forms", side) is False:
            failing.append("the arch does not form")
        if entry is None or not failing:
            continue
        agrees = _tibialis_agrees(case, side)
        says = f"On one foot {' and '.join(failing)}" + (f"; {agrees}." if agrees else ".")
        strength = Strength.LIKELY if agrees else Strength.POSSIBLE
        settle = () if agrees else (Settle(STANDING, "A flat arch or a heel that leans out would agree."),)
        yield Finding(TIBIALIS, side, strength, Reason(entry.at, "A15", says), RISE, settle=settle)


def _tibialis_agrees(case: Case, side: Side) -> str:
    """What else speaks for the tibialis posterior, in words; empty where nothing does."""
    standing = case.value(STANDING, "arch", side)
    if standing in ("flat", "low"):
        return f"the arch is {standing}"
    if any(finding.side is side for finding in heel_leans_out(case)):
        return "the heel leans out"
    if "tibialis_posterior" in tender_points(case, side):
        return "its tendon is tender"
    weak = (*weak_by_grade(case), *weak_by_symmetry(case))
    if any(finding.test == INVERSION and finding.side is side for finding in weak):
        return "inversion is weak"
    return "inversion hurts" if hurts(case.entry(INVERSION, side)) else ""


def rises_less(case: Case) -> Iterator[Finding]:
    """A15: fewer rises than by age (20, from 40: 15, from 60: 10), or under 90 % of the other side."""
    least = _fewest_rises(case)
    code = "weakness.ankle_plantarflexors"
    counts = [case.number(RISE, "count", side) for side in SIDES]
    for side, found in zip(SIDES, counts, strict=True):
        if found is not None and less_than(found.value, least):
            because = Reason(found.at, "A15", f"{found.value:g} heel rises.")
            yield Finding(code, side, Strength.POSSIBLE, because, RISE, "count")
    yield from _less_than_other(case, RISE, code, "A15", "rises")


def _fewest_rises(case: Case) -> float:
    age = case.age
    if age is not None and age >= LIMIT["heel_rises_oldest_from"]:
        return LIMIT["heel_rises_below_oldest"]
    older = age is not None and age >= LIMIT["heel_rises_older_from"]
    return LIMIT["heel_rises_below_older" if older else "heel_rises_below"]


def _less_than_other(case: Case, test: str, code: str, rule: str, what: str) -> Iterator[Finding]:
    counts = [case.number(test, "count", side) for side in SIDES]
    found = weaker_side(*(each.value if each else None for each in counts))
    if found is not None:
        side, index = found
        entry = case.entry(test, side)
        because = Reason(
            entry.at if entry else "entries", rule, f"{whole(index)} % of the other side's {what}."
        )
        yield Finding(code, side, Strength.POSSIBLE, because, test, "count")


def peroneal_tendons(case: Case) -> Iterator[Finding]:
    """A16: a tendon that slips is likely unstable; tender or sore on eversion, irritated."""
    for side in SIDES:
        test = case.entry(PERONEAL, side)
        if test is not None and test.value("subluxes", side) is True:
            because = Reason(test.at, "A16", "The tendon slips out from behind the malleolus.")
            yield Finding("instability.peroneal_tendon", side, Strength.LIKELY, because, PERONEAL)
        palpation = case.entry(PALPATION, side)
        if palpation is not None and "peroneal_tendons" in tender_points(case, side):
            because = Reason(palpation.at, "A16", "The peroneal tendons are tender.")
            yield Finding("tendon.peroneal", side, Strength.POSSIBLE, because, PALPATION)
        for entry in (test, case.entry(EVERSION, side)):
            if entry is not None and hurts_at(entry, "behind_lateral_malleolus"):
                because = Reason(entry.at, "A16", "Eversion hurts behind the outer malleolus.")
                yield Finding("tendon.peroneal", side, Strength.POSSIBLE, because, entry.test)


def achilles_insertion(case: Case) -> Iterator[Finding]:
    """A16: tender behind the heel, where the tendon ends."""
    for side in SIDES:
        entry = case.entry(PALPATION, side)
        if entry is not None and "retrocalcaneal" in tender_points(case, side):
            because = Reason(entry.at, "A16", "Tender in front of the tendon's end.")
            yield Finding("tendon.achilles_insertion", side, Strength.POSSIBLE, because, PALPATION)


def ankle_not_steered(case: Case) -> Iterator[Finding]:
    """A16: holds, reaches or hops less than the other side by what matters."""
    left, right = (case.number(BALANCE, "hold", side) for side in SIDES)
    compared = case.compare(BALANCE, "hold", left.value, right.value) if left and right else None
    if compared is not None and compared.matters and left is not None and right is not None:
        side, at = (Side.LEFT, left.at) if compared.difference < 0 else (Side.RIGHT, right.at)
        because = Reason(at, "A16", f"Holds {whole(compared.difference)} s less on this foot.")
        yield Finding(CONTROL, side, Strength.POSSIBLE, because, BALANCE, "hold")
    left, right = (case.number(REACH, "anterior", side) for side in SIDES)
    if left is not None and right is not None:
        apart = left.value - right.value
        if not less_than(abs(apart), LIMIT["reach_differs_from"]):
            side, at = (Side.LEFT, left.at) if apart < 0 else (Side.RIGHT, right.at)
            because = Reason(at, "A16", f"Reaches {whole(apart)} mm less to the front.")
            yield Finding(CONTROL, side, Strength.POSSIBLE, because, REACH, "anterior")
    yield from _less_than_other(case, SIDE_HOP, CONTROL, "A16", "side hops")
