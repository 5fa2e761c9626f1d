"""The order of positions with the fewest turns, found exactly.

The stages keep their order. Within a stage each position is taken once, so an order of positions that
serves all its tests costs one turn for each change. Every order that could be best is tried, stage by
stage, keeping the cheapest way to end in each place; equal costs go by the usual order of positions.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import combinations, pairwise, permutations

from northstride.core.catalogue import Position
from northstride.core.terms.sides import Side

# A place the athlete is in: side-lying is two places, by the side that is tested.
Place = tuple[Position, Side | None]
Options = tuple[Place, ...]

# Turns so far, the ranks of the places passed, and the places stage by stage.
Way = tuple[int, tuple[tuple[int, int], ...], tuple[tuple[Place, ...], ...]]

USUAL: tuple[Position, ...] = ("standing", "sitting", "supine", "side_lying", "prone")


def rank(place: Place, start: Position, first: Side) -> tuple[int, int]:
    """Where a place stands in the usual order, the starting position before all, the first side first."""
    position, side = place
    return (-1 if position == start else USUAL.index(position), 0 if side in (None, first) else 1)


def turns(places: Sequence[Place], start: Position) -> int:
    """How often the athlete turns, starting from a position."""
    here: Place = (start, None)
    count = 0
    for place in places:
        count += place != here
        here = place
    return count


def fewest_turns(
    stages: Sequence[Sequence[Options]], start: Position, first: Side
) -> tuple[tuple[Place, ...], ...]:
    """For each stage the places in order. Each item of a stage is served by one of its options."""
    ways: dict[Place, Way] = {(start, None): (0, (), ())}
    for stage in stages:
        # Each with its ranks: they are the same whatever went before.
        orders = [
            (order, tuple(rank(place, start, first) for place in order)) for order in _orders(stage, first)
        ]
        reached: dict[Place, Way] = {}
        for here, (cost, ranks, way) in ways.items():
            for order, own in orders:
                end = order[-1] if order else here
                found = (cost + _changes((here, *order)), (*ranks, *own), (*way, order))
                if end not in reached or found[:2] < reached[end][:2]:
                    reached[end] = found
        ways = reached
    return min(ways.values(), key=lambda way: way[:2])[2]


def _changes(places: Sequence[Place]) -> int:
    return sum(one != other for one, other in pairwise(places))


def _orders(stage: Sequence[Options], first: Side) -> Iterator[tuple[Place, ...]]:
    """Every order of every smallest set of places that serves the stage, the first side-lying side first."""
    last = first.other
    allowed: tuple[list[Side | None], ...] = ([], [first], [last], [first, last])
    for places in _covers(stage):
        for order in permutations(places):
            if [side for position, side in order if position == "side_lying"] in allowed:
                yield order


def _covers(stage: Sequence[Options]) -> Iterator[tuple[Place, ...]]:
    """Sets of places, none of them idle, in which each item has one of its options."""
    needed = {options[0] for options in stage if len(options) == 1}
    rest = [options for options in dict.fromkeys(stage) if not needed & set(options)]
    extra = sorted({place for options in rest for place in options}, key=str)
    found: list[frozenset[Place]] = []
    for size in range(len(extra) + 1):
        for chosen in combinations(extra, size):
            more = frozenset(chosen)
            serves = all(more & set(options) for options in rest)
            if serves and not any(smaller <= more for smaller in found):
                found.append(more)
                yield (*sorted(needed, key=str), *chosen)
