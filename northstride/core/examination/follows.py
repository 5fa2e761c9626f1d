"""What follows from values and is worth a look, though no flag comes of it: one list for every reader."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from northstride.core.catalogue import Catalogue
from northstride.core.examination.case import Case, Observed
from northstride.core.examination.derived import (
    REACH,
    THOMAS,
    active_lag,
    adductor_ratio,
    bent_minus_straight,
    reach_composite,
    rotation_arc,
    thigh_drop,
    torque,
    torque_per_mass,
)
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import FollowsUnit

Find = Callable[[Case, Side], Observed | None]


@dataclass(frozen=True, slots=True)
class Rule:
    """`tests`: what it is made of; the first is the one it is shown with."""

    code: str
    label: str
    unit: FollowsUnit
    tests: tuple[str, ...]
    find: Find


@dataclass(frozen=True, slots=True)
class Follows:
    """`left` and `right` in `unit`; None where a part is missing, or something seen spoils it."""

    code: str
    label: str
    unit: FollowsUnit
    test: str
    left: float | None
    right: float | None


def what_follows(case: Case) -> tuple[Follows, ...]:
    """Each that is known of a side at least, in the order of the catalogue."""
    return tuple(_known(case))


def _known(case: Case) -> Iterator[Follows]:
    recorded = {entry.test for entry in case.exam.entries}
    for rule in _rules(case.catalogue):
        if rule.tests[0] not in recorded:
            continue
        left, right = (_sound(case, rule, side) for side in SIDES)
        if left is not None or right is not None:
            yield Follows(rule.code, rule.label, rule.unit, rule.tests[0], left, right)


def _sound(case: Case, rule: Rule, side: Side) -> float | None:
    tests = [case.catalogue.tests[test] for test in rule.tests if test in case.catalogue.tests]
    parts = ((test.code, measure.code) for test in tests for measure in test.measures)
    if any(case.is_void(*part, side) or case.is_flattered(*part, side) for part in parts):
        return None
    found = rule.find(case, side)
    return None if found is None else found.value


def _rules(catalogue: Catalogue) -> Iterator[Rule]:
    """Those of one test stand beside each other."""
    for code, test in catalogue.tests.items():
        measures = {measure.code for measure in test.measures}
        if {"passive", "active"} <= measures:
            yield Rule("active_lag", "Active lag", "deg", (code,), _of(active_lag, code))
        if {"force", "lever_arm"} <= measures:
            yield Rule("torque", "Torque", "N·m", (code,), _of(torque, code))
            yield Rule("torque_per_mass", "Torque per mass", "N·m/kg", (code,), _of(torque_per_mass, code))
        yield from (rule for rule in FIXED if rule.tests[0] == code)


def _of(find: Callable[[Case, str, Side], Observed | None], test: str) -> Find:
    return lambda case, side: find(case, test, side)


def _arc(hip: str) -> Rule:
    tests = (f"hip.rom.internal_rotation_{hip}", f"hip.rom.external_rotation_{hip}")
    return Rule(
        f"rotation_arc_{hip}",
        f"Rotation arc, hip at {hip}°",
        "deg",
        tests,
        lambda case, side: rotation_arc(case, side, hip),
    )


STRAIGHT, BENT = "ankle.rom.dorsiflexion_knee_straight", "ankle.rom.dorsiflexion_knee_bent"
# What is made of more than one test, or of one alone.
FIXED = (
    _arc("0"),
    _arc("90"),
    Rule("bent_minus_straight", "Knee bent minus straight", "deg", (BENT, STRAIGHT), bent_minus_straight),
    Rule("thigh_drop", "Thigh drops as the knee is straightened", "deg", (THOMAS,), thigh_drop),
    Rule(
        "adductor_ratio",
        "Adductor to abductor torque",
        "1",
        ("hip.resisted.adduction", "hip.resisted.abduction"),
        adductor_ratio,
    ),
    Rule(
        "reach_composite",
        "Reaches by leg length",
        "percent",
        (REACH, "hip.leg_length"),
        reach_composite,
    ),
)
