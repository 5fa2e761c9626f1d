"""What the purpose and the story call for and nothing recorded speaks about: silence is not health."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from northstride.core.findings import Unexamined
from northstride.core.judgement.judge import Judgement
from northstride.core.norms.load import Structure, structures
from northstride.core.route.selection import tests_called_for
from northstride.core.terms.sides import SIDES, Side


def unexamined(judged: Judgement) -> tuple[Unexamined, ...]:
    """Structures called for and not spoken about, in the order of the data, left before right.

    With a complaint on its sides, without one on both.
    """
    called = tests_called_for(judged.case)
    return tuple(
        item
        for structure in structures()
        if called & {*structure.tests}
        for item in _silent_sides(judged, structure, called)
    )


def _silent_sides(judged: Judgement, structure: Structure, called: frozenset[str]) -> Iterator[Unexamined]:
    catalogue = judged.case.catalogue
    tests = tuple(code for code in structure.tests if code in catalogue.tests)
    both_at_once = all(catalogue.tests[code].sides == "both" for code in tests)
    wanted = tuple(code for code in tests if code in called)
    sides = judged.case.sides_of_complaint if judged.case.has_complaint else SIDES
    for side in (None,) if both_at_once else sides:
        if not any(_read(judged, code, side) for code in tests):
            yield Unexamined(structure.code, side, _why(judged, tests, wanted, side), wanted)


def _read(judged: Judgement, test: str, side: Side | None) -> bool:
    lanes = (None, *SIDES) if side is None else (side, None)
    return any(judged.case.entries(test, lane) for lane in lanes)


def _why(
    judged: Judgement, tests: tuple[str, ...], wanted: tuple[str, ...], side: Side | None
) -> Literal["not_recorded", "held", "declined"]:
    entries = [
        entry
        for entry in judged.everything.exam.entries
        if entry.test in tests and (side is None or entry.covers(side))
    ]
    if any(entry.declined is not None for entry in entries):
        return "declined"
    return "held" if all(judged.holds(test, side) for test in wanted) else "not_recorded"
