"""Which tests a purpose and a story ask for, each with its why, and why every other is left out."""

from __future__ import annotations

import tomllib
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from pathlib import Path
from typing import Any

from northstride.core.catalogue import Position, Test
from northstride.core.examination import Complaint
from northstride.core.examination.case import Case
from northstride.core.judgement.judge import Judgement
from northstride.core.norms import limit_at, with_limits
from northstride.core.route.offered import may_be_offered
from northstride.core.route.wanted import CalledFor, HeldSide, LeftOut, Stage, Wanted
from northstride.core.rules.onset import fresh
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import REGION_FAMILY, USUAL_REGION, Gate

FILE = Path(__file__).parent / "asks.toml"
# What an ask may depend on; `_holds` reads each.
ASK_CONDITIONS = frozenset(
    {
        *("purposes", "regions", "sites", "groin", "symptoms", "mechanisms", "fresh", "load_change"),
        "age_to",
    }
)
NOT_ASKED = "The story does not ask for it."
DONE = "Done."
URGENT_FIRST = "Something urgent comes first."


@lru_cache
def route_data() -> Mapping[str, Any]:
    """What is asked for, the limits it names filled in."""
    data = tomllib.loads(FILE.read_text(encoding="utf-8"))
    asks = [{**ask, "why": with_limits(ask["why"])} for ask in data["ask"]]
    return {**data, "ask": asks}


def select_tests(judged: Judgement, *, whole: bool = False) -> tuple[tuple[Wanted, ...], tuple[LeftOut, ...]]:
    """What is wanted in the catalogue's order, and everything else with its reason.

    `whole` keeps what is done already.
    """
    case = judged.case
    reasons = {**_reasons(case), **_called_first(judged)}
    wanted: list[Wanted] = []
    left: list[LeftOut] = []
    for code, test in case.catalogue.tests.items():
        if code in case.exam.left_out:
            left.append(LeftOut(code, case.exam.left_out[code]))
            continue
        if code not in reasons:
            left.append(LeftOut(code, NOT_ASKED))
            continue
        item = _placed(judged, test, reasons[code], whole=whole)
        if isinstance(item, LeftOut):
            left.append(item)
        else:
            wanted.append(item)
    return tuple(wanted), tuple(left)


def _called_first(judged: Judgement) -> dict[str, CalledFor]:
    """What the rules ask before anything else is on the route for safety, whatever the story says."""
    found: dict[str, CalledFor] = {}
    for item in judged.asked:
        if item.rule is not None:
            sides = found[item.test].sides if item.test in found else ()
            own = () if item.side is None else (item.side,)
            why = found[item.test].why if item.test in found else item.why
            found[item.test] = CalledFor(True, why, tuple(dict.fromkeys((*sides, *own))))
    return found


def _reasons(case: Case) -> dict[str, CalledFor]:
    """Each test asked for, with the first reason given."""
    if case.exam.purpose == "teaching":
        return dict.fromkeys(_of_the_region(case), CalledFor(False, "The whole list, for learning."))
    told = _with_usual_region(case)
    found: dict[str, CalledFor] = {}
    for ask in route_data()["ask"]:
        if _holds(told, ask):
            asked = CalledFor(bool(ask.get("safety")), ask["why"], _sides_told(told, ask))
            for code in ask["tests"]:
                if code in case.catalogue.tests:
                    found.setdefault(code, asked)
    if case.exam.purpose == "follow_up":
        for code in _held_against(case):
            found.setdefault(code, CalledFor(False, route_data()["held_against"]))
    # A plan somebody made stands in place of what the catalogue plans for the purpose.
    usual = case.catalogue.plan_for(case.exam.purpose)
    for code in case.exam.planned or usual:
        found.setdefault(code, CalledFor(False, route_data()["planned" if code in usual else "chosen"]))
    return found


def _sides_told(case: Case, ask: Mapping[str, Any]) -> tuple[Side, ...]:
    """Where the story asks for it: the side of the site it names, else the complaint's. Empty for neither."""
    complaint = case.complaint
    if complaint is None or complaint.region == "none":
        return ()
    named = {place.side for place in complaint.places if place.site in ask.get("sites", ())}
    return tuple(side for side in SIDES if side in named) or (
        case.sides_of_complaint if complaint.side is not None else ()
    )


def _held_against(case: Case) -> Sequence[str]:
    """Tests with values in the screen before this one: what a follow-up compares with."""
    if not case.context.earlier:
        return ()
    last = case.context.earlier[-1]
    known = (entry.test for entry in last.entries if entry.done and entry.values)
    return tuple(dict.fromkeys(code for code in known if code in case.catalogue.tests))


def tests_called_for(case: Case) -> frozenset[str]:
    """Every test the purpose and the story ask for, done or not, held or not."""
    return frozenset(_reasons(case))


def _of_the_region(case: Case) -> Sequence[str]:
    complaint = case.complaint
    if complaint is None or complaint.region == "none":
        return tuple(case.catalogue.tests)
    family = REGION_FAMILY[complaint.region]
    tests = case.catalogue.tests
    own = tuple(code for code, test in tests.items() if REGION_FAMILY[test.region] == family)
    # Nothing here examines a knee: its story is learnt on the whole list.
    return own or tuple(tests)


def _with_usual_region(case: Case) -> Case:
    """A purpose that names a region stands in for a story that names none."""
    usual = USUAL_REGION.get(case.exam.purpose)
    if usual is None or case.has_complaint:
        return case
    told = case.complaint
    complaint = Complaint(usual, told.side if told else None, told.sites if told else ())
    return replace(case, exam=replace(case.exam, intake=replace(case.exam.intake, complaint=complaint)))


def _holds(case: Case, ask: Mapping[str, Any]) -> bool:
    """Whether every condition of an ask holds. What the story does not say does not hold."""
    intake = case.exam.intake
    complaint, onset = case.complaint, intake.onset
    sites = set(complaint.sites) if complaint else set()
    conditions: Mapping[str, Callable[[Any], bool]] = {
        "purposes": lambda want: case.exam.purpose in want,
        "regions": lambda want: complaint is not None and complaint.region in want,
        "sites": lambda want: bool(sites & set(want)),
        "groin": lambda want: case.complains_of(frozenset({"groin"}), frozenset({"groin"})) is want,
        "symptoms": lambda want: bool(intake.symptoms & set(want)),
        "mechanisms": lambda want: onset is not None and onset.mechanism in want,
        "fresh": lambda want: fresh(case) is want,
        "load_change": lambda want: intake.load_change is want,
        "age_to": lambda want: case.age is None or case.age <= limit_at(want),
    }
    return all(conditions[key](want) for key, want in ask.items() if key not in ("why", "tests", "safety"))


def _stage(case: Case, test: Test, *, safety: bool) -> Stage:
    """With a complaint function comes last; without one it need not wait."""
    families = route_data()["families"]
    if safety:
        return "safety"
    if test.family in families["first"]:
        return "first"
    last = case.has_complaint and test.family in families["last"]
    return "last" if last else "middle"


def _placed(judged: Judgement, test: Test, called: CalledFor, *, whole: bool) -> Wanted | LeftOut:
    case, why = judged.case, called.why
    if test.code == "hip.ober" and case.schools["ober"] == "skip":
        return LeftOut(test.code, "This clinic skips it.")
    positions: tuple[Position, ...] = (test.position, *test.also_in)
    if "pregnant" in case.exam.intake.confounders and test.position == "prone":
        if test.instead_of_prone is None or test.instead_of_prone_in is None:
            return LeftOut(test.code, "Not prone while pregnant.")
        positions, why = (test.instead_of_prone_in,), f"{why} {test.instead_of_prone}"
    if test.on_one_leg and "cannot_balance" in case.exam.intake.confounders:
        why = f"{why} With support."
    sides = _sides_of_both(judged, test, whole) if test.sides == "both" else _sides_left(judged, test, whole)
    if isinstance(sides, LeftOut):
        return sides
    return Wanted(
        test,
        sides,
        positions,
        _stage(case, test, safety=called.safety),
        why,
        called.sides,
        _waits_for(judged, test, sides),
        _sides_held(judged, test),
    )


def _sides_of_both(judged: Judgement, test: Test, whole: bool) -> tuple[Side, ...] | LeftOut:
    """No side by name, or why a test of both at once is left out."""
    done = any(judged.case.entries(test.code, lane) for lane in (None, *SIDES))
    if done:
        return () if whole else LeftOut(test.code, DONE)
    if not may_be_offered(judged, test.code, None):
        return LeftOut(test.code, URGENT_FIRST)
    if gate := _held_for_good(judged, test, None):
        return _held(test, gate)
    return ()


def _sides_left(judged: Judgement, test: Test, whole: bool) -> tuple[Side, ...] | LeftOut:
    """The sides that are neither held for good nor, unless the `whole` is wanted, done."""
    gates = {side: _held_for_good(judged, test, side) for side in SIDES}
    done = {side for side in SIDES if _recorded(judged.case, test, side)}
    free = [side for side, gate in gates.items() if gate is None]
    shut = next((gate for gate in gates.values() if gate is not None), None)
    undone = {side for side in free if _asked(judged, test, side) or side not in done}
    offered = {side for side in undone if may_be_offered(judged, test.code, side)}
    kept = offered | (done if whole else set())
    if kept:
        return tuple(side for side in SIDES if side in kept)
    if not free and shut is not None:
        return _held(test, shut)
    return LeftOut(test.code, URGENT_FIRST if undone else DONE)


def _sides_held(judged: Judgement, test: Test) -> tuple[HeldSide, ...]:
    if test.sides == "both":
        return ()
    gates = ((side, _held_for_good(judged, test, side)) for side in SIDES)
    return tuple(HeldSide(side, gate) for side, gate in gates if gate is not None)


def _asked(judged: Judgement, test: Test, side: Side) -> bool:
    """A rule still asks for a part of it, though something of it stands."""
    return any((item.test, item.side) == (test.code, side) for item in judged.asked)


def _held(test: Test, gate: Gate) -> LeftOut:
    return LeftOut(test.code, f"Held: {gate.replace('_', ' ')}.", gate)


def _recorded(case: Case, test: Test, side: Side) -> bool:
    return any(entry.done and entry.test == test.code and entry.covers(side) for entry in case.exam.entries)


def _held_for_good(judged: Judgement, test: Test, side: Side | None) -> Gate | None:
    gate = judged.gate_over(test.code, side)
    return None if gate is None or gate.until_answered else gate.gate


def _waits_for(judged: Judgement, test: Test, sides: tuple[Side, ...]) -> Gate | None:
    gates = (judged.gate_over(test.code, side) for side in sides or (None,))
    return next((gate.gate for gate in gates if gate is not None), None)
