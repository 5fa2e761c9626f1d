"""A route: the stops in order, what they cost, and what the plain order of the list would cost."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from northstride.core.asking import with_questions
from northstride.core.catalogue import Catalogue, Position
from northstride.core.examination import Context, Examination
from northstride.core.examination.first_side import first_side_of
from northstride.core.findings import Ask
from northstride.core.following.route.asking import STAGES, LeftOut, Wanted, asked_tests
from northstride.core.following.route.order import Options, Place, fewest_turns, turns
from northstride.core.judging import judge
from northstride.core.norms import limits
from northstride.core.sides import Side
from northstride.core.vocabulary import Gate

TURN_SECONDS = limits("route")["turn_seconds"]


@dataclass(frozen=True, slots=True)
class Stop:
    """One test in one position. `sides` in the order they are done; empty for tests of both at once."""

    test: str
    position: Position
    sides: tuple[Side, ...]
    seconds: int
    turn: bool
    why: str
    waits_for: Gate | None


@dataclass(frozen=True, slots=True)
class Route:
    """`seconds` count tests and turns. The plain figures are those of the same tests in the list's order.

    `ask` is what the story lacks, as in the reading.
    """

    stops: tuple[Stop, ...]
    left_out: tuple[LeftOut, ...]
    seconds: int
    turns: int
    plain_seconds: int
    plain_turns: int
    ask: tuple[Ask, ...]


@dataclass(frozen=True, slots=True)
class _Visit:
    """A test, or one side of it where the athlete has to be turned for the other."""

    wanted: Wanted
    sides: tuple[Side, ...]
    options: Options


def make_route(exam: Examination, catalogue: Catalogue, context: Context) -> Route:
    """Safety first, then the story's tests with the fewest turns. The same input gives the same route."""
    judged, asks = with_questions(judge(exam, catalogue, context))
    wanted, left_out = asked_tests(judged)
    first = first_side_of(judged.case.complaint, judged.case.schools["first_side"])
    start = judged.case.schools["start"]
    visits = [visit for item in wanted for visit in _visits(item, first)]
    by_stage = [[visit for visit in visits if visit.wanted.stage == stage] for stage in STAGES]
    orders = fewest_turns([[visit.options for visit in stage] for stage in by_stage], start, first)
    walked = [pair for stage, order in zip(by_stage, orders, strict=True) for pair in _walk(stage, order)]
    stops = tuple(_stops(walked, start))
    spent = sum(stop.seconds for stop in stops)
    count, plain = sum(stop.turn for stop in stops), turns([visit.options[0] for visit in visits], start)
    return Route(
        stops,
        left_out,
        round(spent + count * TURN_SECONDS),
        count,
        round(spent + plain * TURN_SECONDS),
        plain,
        asks,
    )


def plan_for(exam: Examination, catalogue: Catalogue) -> list[str]:
    """What the catalogue plans for a purpose by itself, in the order of the route."""
    planned = set(catalogue.plan_for(exam.purpose))
    stops = make_route(exam, catalogue, Context()).stops if planned else ()
    return list(dict.fromkeys(stop.test for stop in stops if stop.test in planned))


def _visits(wanted: Wanted, first: Side) -> Iterator[_Visit]:
    sides = tuple(side for side in (first, first.other) if side in wanted.sides)
    turned = "side_lying" in wanted.positions and bool(sides)
    for group in [(side,) for side in sides] if turned else [sides]:
        options = tuple(
            (position, group[0] if position == "side_lying" and group else None)
            for position in wanted.positions
        )
        yield _Visit(wanted, group, options)


def _walk(stage: Sequence[_Visit], order: Sequence[Place]) -> Iterator[tuple[_Visit, Place]]:
    """The visits by place, each in the first of its own options that is on the way."""
    placed = [(visit, next(option for option in visit.options if option in order)) for visit in stage]
    for place in order:
        yield from (pair for pair in placed if pair[1] == place)


def _stops(walked: Sequence[tuple[_Visit, Place]], start: Position) -> Iterator[Stop]:
    here: Place = (start, None)
    for visit, place in walked:
        test = visit.wanted.test
        seconds = test.seconds * max(1, len(visit.sides))
        yield Stop(
            test.code, place[0], visit.sides, seconds, place != here, visit.wanted.why, visit.wanted.waits_for
        )
        here = place
