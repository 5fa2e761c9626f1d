"""A route as it leaves the core: ready for JSON, and in lines for people."""

from __future__ import annotations

from northstride.core.catalogue import Catalogue, Position
from northstride.core.route import Route, Stage
from northstride.core.terms.vocabulary import Gate
from northstride.record.model import Record
from northstride.record.reading_model import AskOut, Out, SideCode

NAMES_SHOWN = 12


class HeldOnOut(Out):
    side: SideCode
    gate: Gate


class StopOut(Out):
    test: str
    position: Position
    sides: list[SideCode]
    seconds: int
    turn: bool
    stage: Stage
    why: str
    asked_for: list[SideCode]
    waits_for: Gate | None
    held: list[HeldOnOut]


class OfferOut(Out):
    test: str
    position: Position
    seconds: int
    stage: Stage
    why: str
    asked_for: list[SideCode]


class LeftOutOut(Out):
    test: str
    why: str
    gate: Gate | None


class RouteOut(Out):
    record: str
    stops: list[StopOut]
    offered: list[OfferOut]
    left_out: list[LeftOutOut]
    seconds: int
    turns: int
    plain_seconds: int
    plain_turns: int
    ask: list[AskOut]


def route_out(record: str, route: Route) -> RouteOut:
    return RouteOut(
        record=record,
        stops=[
            StopOut(
                test=stop.test,
                position=stop.position,
                sides=[side.value for side in stop.sides],
                seconds=stop.seconds,
                turn=stop.turn,
                stage=stop.stage,
                why=stop.why,
                asked_for=[side.value for side in stop.asked_for],
                waits_for=stop.waits_for,
                held=[HeldOnOut(side=held.side.value, gate=held.gate) for held in stop.held],
            )
            for stop in route.stops
        ],
        offered=[
            OfferOut(
                test=item.test,
                position=item.position,
                seconds=item.seconds,
                stage=item.stage,
                why=item.why,
                asked_for=[side.value for side in item.asked_for],
            )
            for item in route.offered
        ],
        left_out=[LeftOutOut(test=item.test, why=item.why, gate=item.gate) for item in route.left_out],
        seconds=route.seconds,
        turns=route.turns,
        plain_seconds=route.plain_seconds,
        plain_turns=route.plain_turns,
        ask=[AskOut(item=item.item, why=item.why, urgent=item.urgent) for item in route.ask],
    )


def route_text(record: Record, route: RouteOut, catalogue: Catalogue) -> str:
    """What to do in order, and what is left out for a reason of its own."""
    lines = [f"{record.athlete.ref} · {record.date.isoformat()} · {record.purpose.replace('_', ' ')}"]
    lines += [f"Ask {item.item}{', urgent' if item.urgent else ''}: {item.why}" for item in route.ask]
    for place, stop in enumerate(route.stops, 1):
        if stop.turn or place == 1:
            lines.append(_lying(stop))
        sides = " then ".join(str(side) for side in stop.sides) or "both at once"
        lines.append(f"  {place}. {catalogue.tests[stop.test].name}, {sides}, {stop.seconds} s: {stop.why}")
        if stop.waits_for is not None:
            lines.append(f"     waits until {stop.waits_for.replace('_', ' ')} is cleared")
    lines.append(f"{_minutes(route.seconds)} with {route.turns} turns")
    lines.append(f"in the list's own order {_minutes(route.plain_seconds)} with {route.plain_turns} turns")
    lines += [f"Offered: {catalogue.tests[item.test].name}: {item.why}" for item in route.offered]
    reasons: dict[str, list[str]] = {}
    for item in route.left_out:
        reasons.setdefault(item.why, []).append(catalogue.tests[item.test].name)
    lines += [f"Left out: {why} {_named(names)}" for why, names in reasons.items()]
    return "\n".join(lines)


def _lying(stop: StopOut) -> str:
    """The position; where the athlete is turned for each side, for which."""
    if stop.position == "side_lying" and len(stop.sides) == 1:
        return f"Side-lying for the {stop.sides[0]}"
    return stop.position.replace("_", "-").capitalize()


def _named(names: list[str]) -> str:
    """By name where they are few; the JSON names them all."""
    return ", ".join(names) if len(names) <= NAMES_SHOWN else f"{len(names)} tests."


def _minutes(seconds: int) -> str:
    return f"{seconds // 60} min {seconds % 60:02d} s"
