"""A route: the stops in order, what they cost, and what the plain order of the list would cost."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from northstride.core.catalogue import Catalogue, Position
from northstride.core.examination import Context, Examination
from northstride.core.examination.first_side import first_side_of
from northstride.core.findings import Ask
from northstride.core.judgement.judge import judge
from northstride.core.judgement.open_questions import with_questions
from northstride.core.norms import limits
from northstride.core.route.order import Options, Place, fewest_turns, turns
from northstride.core.route.plan import (
    Walked,
    in_plan_order,
    sides_in_order,
    walk_in_order,
    with_test,
)
from northstride.core.route.selection import select_tests
from northstride.core.route.wanted import STAGES, HeldSide, LeftOut, Stage, Wanted
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import Gate

TURN_SECONDS = limits("route")["turn_seconds"]


@dataclass(frozen=True, slots=True)
class Stop:
    """One test in one position. `sides` in the order they are done; empty for tests of both at once.

    `asked_for` are the sides the story asks it for: on the others it is there to compare with.
    """

    test: str
    position: Position
    sides: tuple[Side, ...]
    seconds: int
    turn: bool
    stage: Stage
    why: str
    asked_for: tuple[Side, ...]
    waits_for: Gate | None
    held: tuple[HeldSide, ...]


@dataclass(frozen=True, slots=True)
class Offer:
    """A test that is asked for and stands in no plan yet."""

    test: str
    position: Position
    seconds: int
    stage: Stage
    why: str
    asked_for: tuple[Side, ...]


@dataclass(frozen=True, slots=True)
class Route:
    """`seconds` count tests and turns. The plain figures are those of the same tests in the list's order.

    `offered` is what is asked for beside a plan somebody made. `ask` is what the story lacks, as in the
    reading.
    """

    stops: tuple[Stop, ...]
    offered: tuple[Offer, ...]
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


def make_route(exam: Examination, catalogue: Catalogue, context: Context, *, whole: bool = False) -> Route:
    """Safety first, then the story's tests with the fewest turns. The same input gives the same route.

    Where a plan was made its order is kept, and what is asked for beside it is offered. `whole` keeps the
    stops that are done.
    """
    judged, asks = with_questions(judge(exam, catalogue, context))
    wanted, left_out = select_tests(judged, whole=whole)
    first = first_side_of(judged.case.complaint, judged.case.schools["first_side"])
    start = judged.case.schools["start"]
    chosen = in_plan_order(wanted, exam.planned) if exam.planned else wanted
    visits = [visit for item in chosen for visit in _visits(item, first)]
    codes = {item.test.code for item in chosen}
    walked = walk_in_order(chosen, start, first) if exam.planned else _fewest(visits, start, first)
    stops = tuple(_stops(walked, start))
    spent = sum(stop.seconds for stop in stops)
    count, plain = sum(stop.turn for stop in stops), turns(_in_list_order(visits, catalogue), start)
    return Route(
        stops,
        tuple(_offer(item) for item in wanted if item.test.code not in codes),
        left_out,
        round(spent + count * TURN_SECONDS),
        count,
        round(spent + plain * TURN_SECONDS),
        plain,
        asks,
    )


def plan_for(exam: Examination, catalogue: Catalogue) -> list[str]:
    """What the catalogue plans for a purpose by itself, in the order of the route."""
    planned = dict.fromkeys(catalogue.plan_for(exam.purpose))
    stops = make_route(exam, catalogue, Context()).stops if planned else ()
    return list(dict.fromkeys(stop.test for stop in stops if stop.test in planned))


def _visits(wanted: Wanted, first: Side) -> Iterator[_Visit]:
    sides = sides_in_order(wanted, first)
    turned = "side_lying" in wanted.positions and bool(sides)
    for group in [(side,) for side in sides] if turned else [sides]:
        options = tuple(
            (position, group[0] if position == "side_lying" and group else None)
            for position in wanted.positions
        )
        yield _Visit(wanted, group, options)


def _in_list_order(visits: Sequence[_Visit], catalogue: Catalogue) -> list[Place]:
    """Where the same visits are, test after test as the catalogue lists them."""
    listed = {code: place for place, code in enumerate(catalogue.tests)}
    return [visit.options[0] for visit in sorted(visits, key=lambda visit: listed[visit.wanted.test.code])]


def _fewest(visits: Sequence[_Visit], start: Position, first: Side) -> Iterator[Walked]:
    """Stage after stage, each in the order of positions with the fewest turns."""
    by_stage = [[visit for visit in visits if visit.wanted.stage == stage] for stage in STAGES]
    orders = fewest_turns([[visit.options for visit in stage] for stage in by_stage], start, first)
    for stage, order in zip(by_stage, orders, strict=True):
        yield from _walk(stage, order)


def _walk(stage: Sequence[_Visit], order: Sequence[Place]) -> Iterator[Walked]:
    """The visits by place, each in the first of its own options that is on the way."""
    placed = [(visit, next(option for option in visit.options if option in order)) for visit in stage]
    for place in order:
        yield from ((visit.wanted, visit.sides, own) for visit, own in placed if own == place)


def _stops(walked: Iterable[Walked], start: Position) -> Iterator[Stop]:
    here: Place = (start, None)
    for wanted, sides, place in walked:
        yield Stop(
            wanted.test.code,
            place[0],
            sides,
            wanted.test.seconds * max(1, len(sides)),
            place != here,
            wanted.stage,
            wanted.why,
            wanted.asked_for,
            wanted.waits_for,
            wanted.held,
        )
        here = place


def _offer(wanted: Wanted) -> Offer:
    seconds = wanted.test.seconds * max(1, len(wanted.sides))
    return Offer(wanted.test.code, wanted.positions[0], seconds, wanted.stage, wanted.why, wanted.asked_for)


def planned_with(exam: Examination, catalogue: Catalogue, context: Context, code: str) -> list[str]:
    """The plan with one test more, where it costs the fewest turns. The test is in the catalogue."""
    planned = [each for each in exam.planned if each != code]
    left_out = {test: why for test, why in exam.left_out.items() if test != code}
    told = replace(exam, planned=(*planned, code), left_out=left_out)
    judged = judge(told, catalogue, context)
    wanted, _ = select_tests(judged, whole=True)
    added = next((item for item in wanted if item.test.code == code), None)
    if added is None:
        return [*planned, code]
    return with_test(planned, added, in_plan_order(wanted, planned), judged.case.schools["start"])
