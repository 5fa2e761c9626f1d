"""Gates: what is held, and therefore not read, on a side; and what an override opens again."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from fnmatch import fnmatchcase
from functools import lru_cache

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Held, Shut, Urgency
from northstride.core.norms import limits
from northstride.core.norms.load import gate_data
from northstride.core.story.surgery import lately_operated
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import REGION_FAMILY, Gate

# What a fracture flag holds, where that is not the usual list.
VARIANTS: Mapping[str, tuple[str, ...]] = {
    "fracture.femur": ("fracture_doubt_femur",),
    "fracture.femoral_neck": ("fracture_doubt_femur",),
    "fracture.knee": ("fracture_doubt", "fracture_doubt_femur"),
    "fracture.apophysis": ("fracture_doubt_apophysis",),
}
LIMIT = limits("danger")


@dataclass(frozen=True, slots=True)
class Closed:
    """A gate that is shut on a side; `region` narrows surgery to where it was."""

    gate: Gate
    side: Side
    variant: str
    region: str | None = None
    until_answered: bool = False


def closed_gates(case: Case, findings: Sequence[Finding], raised: Sequence[GateRaised]) -> list[Closed]:
    """Every gate shut by the record, without those an override opened."""
    found = [
        *(_closed_by_flag(finding) for finding in findings if _shuts(finding)),
        [
            Closed(item.gate, item.side, item.variant or item.gate, None, item.until_answered)
            for item in raised
        ],
        _closed_by_history(case),
        _dislocated(case, findings),
    ]
    opened = {
        (override.gate, side)
        for override in case.exam.overrides
        for side in (SIDES if override.side == "both" else (Side(override.side),))
    }
    gates = dict.fromkeys(gate for group in found for gate in group)
    return [gate for gate in gates if (gate.gate, gate.side) not in opened]


def _sides(side: str | None) -> tuple[Side, ...]:
    """History without a side counts for both; unknown means held."""
    return SIDES if side in (None, "both") else (Side(side),)


def _shuts(finding: Finding) -> bool:
    """Any fracture flag but what A1b only refers."""
    only_referred = finding.because.rule == "A1b" and finding.urgency is Urgency.REFER
    return finding.code.startswith("fracture.") and not only_referred


def _closed_by_flag(finding: Finding) -> list[Closed]:
    variants = VARIANTS.get(finding.code, ("fracture_doubt",))
    return [Closed("fracture_doubt", side, variant) for side in _sides(finding.side) for variant in variants]


def _closed_by_history(case: Case) -> list[Closed]:
    found: list[Closed] = []
    for item in case.exam.intake.history:
        for side in _sides(item.side):
            if item.kind == "hip_replacement":
                found.append(Closed("hip_replacement", side, "hip_replacement"))
            if lately_operated(item, case.exam.date):
                found.append(Closed("recent_surgery", side, "recent_surgery", REGION_FAMILY[item.region]))
    return found


def _dislocated(case: Case, findings: Sequence[Finding]) -> list[Closed]:
    told = "obvious_deformity" in case.exam.intake.red_flags
    sides = case.sides_of_complaint if told else ()
    seen = [
        side
        for finding in findings
        if finding.because.rule == "S4" and finding.side is not None
        for side in (finding.side,)
        if case.on(side).ticked("ankle.look", "deformity")
    ]
    return [Closed("acute_dislocation", side, "acute_dislocation") for side in dict.fromkeys([*sides, *seen])]


def covers(case: Case, gate: Closed, test: str) -> bool:
    """Whether a shut gate holds this test on its side."""
    data = gate_data(gate.variant)
    if "spares" in data:
        return test not in data["spares"]
    if "families" in data:
        found = case.catalogue.tests[test]
        strained = found.family in data["families"] or _named(gate.variant, test)
        return strained and REGION_FAMILY[found.region] == gate.region
    if gate.gate == "hip_replacement" and test == "hip.faber":
        return case.value(test, "position", gate.side) != "foot_down"
    return _named(gate.variant, test)


@lru_cache(maxsize=4096)
def _named(variant: str, test: str) -> bool:
    return any(fnmatchcase(test, pattern) for pattern in gate_data(variant).get("holds", ()))


def shut_gates(case: Case, gates: Iterable[Closed]) -> tuple[Shut, ...]:
    """What each shut gate would hold: so that it is known before a test is begun."""
    covered: dict[tuple[Gate, Side], dict[str, None]] = {}
    for gate in gates:
        tests = (test for test in case.catalogue.tests if covers(case, gate, test))
        covered.setdefault((gate.gate, gate.side), {}).update(dict.fromkeys(tests))
    return tuple(Shut(gate, side, tuple(tests)) for (gate, side), tests in covered.items())


def held_tests(case: Case, gates: Iterable[Closed]) -> Iterator[Held]:
    """Entries and planned tests a gate covers: the record's order, then the plan's."""
    planned = frozenset(case.exam.planned)
    recorded = {(entry.test, lane) for entry in case.exam.entries for lane in entry.lanes}
    given: set[Held] = set()
    for test in dict.fromkeys([*(entry.test for entry in case.exam.entries), *case.exam.planned]):
        for gate in gates:
            known = test in planned or (test, gate.side) in recorded
            if known and covers(case, gate, test):
                held = Held(test, gate.side, gate.gate)
                if held not in given:
                    given.add(held)
                    yield held
