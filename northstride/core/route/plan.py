"""The way through a plan somebody made: its order is kept, danger checks first, with the fewest turns.

A test that can be done in several positions takes the one that saves turns; tests in side-lying that follow
each other are done on one side and then all on the other.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import groupby

from northstride.core.catalogue import Position
from northstride.core.route.order import Place
from northstride.core.route.wanted import Wanted
from northstride.core.terms.sides import Side

# Turns so far, and the position of each test.
Way = tuple[int, tuple[Position, ...]]
Walked = tuple[Wanted, tuple[Side, ...], Place]


def in_plan_order(wanted: Sequence[Wanted], planned: Sequence[str]) -> list[Wanted]:
    """Those of the plan in its order, but danger checks before everything else."""
    turn = {code: place for place, code in enumerate(planned)}
    chosen = [item for item in wanted if item.test.code in turn]
    return sorted(chosen, key=lambda item: (item.stage != "safety", turn[item.test.code]))


def walk_in_order(wanted: Sequence[Wanted], start: Position, first: Side) -> Iterator[Walked]:
    """Each test with the sides done at once and where the athlete is; side-lying is two places."""
    positions = _fewest_turns(wanted, start)
    for position, group in groupby(zip(wanted, positions, strict=True), key=lambda pair: pair[1]):
        items = [item for item, _ in group]
        if position != "side_lying":
            for item in items:
                yield item, sides_in_order(item, first), (position, None)
            continue
        for side in (first, first.other):
            for item in items:
                if side in item.sides:
                    yield item, (side,), (position, side)
        for item in items:
            if not item.sides:
                yield item, (), (position, None)


def sides_in_order(wanted: Wanted, first: Side) -> tuple[Side, ...]:
    return tuple(side for side in (first, first.other) if side in wanted.sides)


def _fewest_turns(wanted: Sequence[Wanted], start: Position) -> tuple[Position, ...]:
    """The position of each test; of equal ways the one whose tests lie in their own first positions."""
    ways: dict[Position, Way] = {start: (0, ())}
    for item in wanted:
        reached: dict[Position, Way] = {}
        for position in item.positions:
            options = [
                (turns + _cost(here, position, item), (*passed, position))
                for here, (turns, passed) in ways.items()
            ]
            reached[position] = min(options, key=lambda way: way[0])
        ways = reached
    return min(ways.values(), key=lambda way: way[0])[1]


def _cost(here: Position, there: Position, item: Wanted) -> int:
    """Lying down on a side and turning to the other are two turns."""
    if here == there:
        return 0
    return 2 if there == "side_lying" and len(item.sides) == 2 else 1


def with_test(planned: Sequence[str], added: Wanted, wanted: Sequence[Wanted], start: Position) -> list[str]:
    """The plan with one test more, as late as possible among the places that cost the fewest turns."""
    known = {item.test.code: item for item in wanted}
    code = added.test.code
    best: tuple[int, list[str]] | None = None
    for place in range(len(planned), -1, -1):
        tried = [*planned[:place], code, *planned[place:]]
        items = [added if each == code else known[each] for each in tried if each in known or each == code]
        cost = _turns(items, start)
        if best is None or cost < best[0]:
            best = (cost, tried)
    return best[1] if best else [code]


def _turns(items: Sequence[Wanted], start: Position) -> int:
    here, count = start, 0
    for item, position in zip(items, _fewest_turns(items, start), strict=True):
        count += _cost(here, position, item)
        here = position
    return count
