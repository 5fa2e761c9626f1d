"""A reading for people: the same content as the JSON, in lines."""

from __future__ import annotations

from collections.abc import Iterator

from northstride import CAUTION
from northstride.core.catalogue import Catalogue
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.record.model import Record
from northstride.record.reading_model import (
    ActionOut,
    AskOut,
    ChangeOut,
    DifferenceOut,
    FlagOut,
    FollowsOut,
    ReadingOut,
    UnexaminedOut,
)

NOTHING = "  none"
NOTHING_LEFT = "no further test speaks of what is flagged"


def reading_text(record: Record, reading: ReadingOut, catalogue: Catalogue) -> str:
    return "\n".join(_lines(record, reading, catalogue))


def _lines(record: Record, reading: ReadingOut, catalogue: Catalogue) -> Iterator[str]:
    yield f"{record.athlete.ref} · {record.date.isoformat()} · {record.purpose.replace('_', ' ')}"
    yield f"Read by rules {reading.rules}"
    yield "Flags"
    yield from (line for flag in reading.flags for line in _flag(flag))
    if not reading.flags:
        yield NOTHING
    for title, lines in (
        ("Ruled down", [f"{item.code} {item.side or ''}".strip() for item in reading.ruled_down]),
        ("Actions", [_action(item) for item in reading.actions]),
        ("Do again", [f"{item.test} {item.side or ''}: {item.reason}" for item in reading.retake]),
        ("Held", [f"{item.test} {item.side or ''}: {item.gate}" for item in reading.held]),
        ("Left against right", [_difference(item, catalogue) for item in reading.differences]),
        ("By arithmetic", [_follows(item, catalogue) for item in reading.follows or []]),
        ("Since before", [_change(item, catalogue) for item in reading.changes]),
        ("Asked first", [_ask(item) for item in reading.ask or []]),
        ("Next", [f"{item.test} {item.side or ''}: {item.why}" for item in reading.next] or [NOTHING_LEFT]),
        ("To return", [f"{item.criterion}: {item.state}" for item in reading.criteria]),
    ):
        if lines:
            yield title
            yield from (f"  {line}" for line in lines)
    covered = reading.coverage
    yield f"Planned {covered.planned}, done {covered.done}, declined {covered.declined}"
    yield from (f"  open: {test}" for test in covered.open)
    yield from (_unexamined(item) for item in covered.unexamined or [])
    yield from (f"  option for {item.code}: {option}" for item in reading.advice for option in item.options)
    yield CAUTION


def _flag(flag: FlagOut) -> Iterator[str]:
    name = FLAG_NAMES.get(flag.code, flag.code)
    yield f"  {flag.side or 'no side'}: {name}, {flag.strength} ({flag.code})"
    yield from (f"    {reason.says} [{reason.rule}, {reason.at}]" for reason in flag.because)
    yield from (f"    against: {says}" for says in flag.against)
    if flag.uncompared:
        yield "    not compared with the other side"
    if flag.settle:
        yield f"    would settle it: {', '.join(flag.settle)}"


def _action(item: ActionOut) -> str:
    line = f"{item.urgency.replace('_', ' ')}: {item.code} {item.side or ''}".strip()
    if item.start is not None:
        return f"{line}, {item.start.isoformat()} to {item.end}"
    return line if item.end is None else f"{line}, by {item.end.isoformat()}"


def _ask(item: AskOut) -> str:
    return f"{item.item}{', urgent' if item.urgent else ''}: {item.why}"


def _unexamined(item: UnexaminedOut) -> str:
    why = {"not_recorded": "nothing recorded", "held": "held", "declined": "declined"}[item.why]
    return f"  not examined: {item.name} {item.side or ''}".rstrip() + f" ({why})"


def _name(catalogue: Catalogue, test: str, code: str) -> str:
    found = catalogue.compared(test, code)
    return found.label if found else code


def _change(item: ChangeOut, catalogue: Catalogue) -> str:
    name = f"{_name(catalogue, item.test, item.measure)} {item.side or ''}".strip()
    verdict = item.verdict.replace("_", " ")
    if item.before is None or item.now is None or item.difference is None:
        return f"{name}: {verdict}. {item.why or ''}".strip()
    words = [verdict] + (["for the worse"] if item.worse and item.verdict == "changed" else [])
    words += ["another examiner"] if item.same_examiner is False else []
    words += ["still growing"] if item.growing else []
    said = ", ".join(words)
    then = f"{item.before:g} on {item.baseline.date.isoformat()}"
    return f"{name}: {then}, {item.now:g} now, {item.difference:+g} (error {item.mdc95:g}): {said}"


def _follows(item: FollowsOut, catalogue: Catalogue) -> str:
    left, right = ("unknown" if value is None else f"{value:g}" for value in (item.left, item.right))
    unit = "" if item.unit == "1" else f" {item.unit}"
    return f"{catalogue.tests[item.test].name}, {item.label.lower()}: {left} / {right}{unit}"


def _difference(item: DifferenceOut, catalogue: Catalogue) -> str:
    name = _name(catalogue, item.test, item.measure)
    verdict = item.verdict.replace("_", " ")
    return f"{name}: {item.left:g} / {item.right:g}, {item.difference:+g} (error {item.mdc95:g}): {verdict}"
