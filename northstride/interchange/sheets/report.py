"""The practitioner's report: two lanes and a spine, from the story to what nobody looked at."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from typing import Literal

from northstride import CAUTION
from northstride.core.catalogue import Catalogue
from northstride.core.wording.phrases import day_and_month, unit_after, whole_day
from northstride.core.wording.spoken import SPOKEN
from northstride.interchange.sheets.content import Basis, Cell, Line, Report, Row
from northstride.interchange.sheets.phrases import action_words, called, changed_words, head_of, once, words
from northstride.interchange.sheets.story_phrases import not_done, readable, story_lines
from northstride.record.complaint import complaint_of
from northstride.record.reading_model import (
    ActionOut,
    DifferenceOut,
    FlagOut,
    ReadingOut,
    ReasonOut,
    RuledDownOut,
    SideCode,
)

SIDES: tuple[Literal["left"], Literal["right"]] = ("left", "right")


def report(basis: Basis, catalogue: Catalogue) -> Report:
    reading = basis.reading
    return Report(
        head=head_of(basis),
        purpose=readable(basis.record.purpose),
        rows=list(_rows(basis, catalogue)),
        whole=[_of_no_side(flag) for flag in reading.flags if flag.side is None],
        sources=once(source for flag in reading.flags for source in flag.sources),
        caution=CAUTION,
    )


def _rows(basis: Basis, catalogue: Catalogue) -> Iterator[Row]:
    reading = basis.reading
    yield _story(basis, catalogue)
    yield _to_do(reading)
    yield from _flags(basis)
    yield from _gone(basis)
    yield from _ruled_down(reading)
    yield from _held(reading, catalogue)
    yield from _differences(reading, catalogue)
    yield _not_done(basis, catalogue)


def _row(
    name: str,
    cells: Mapping[SideCode, Cell],
    silent: str,
    about: Sequence[str] = (),
    code: str | None = None,
) -> Row:
    """An empty lane is never silent."""
    left, right = (cells.get(side) or Cell(lines=[silent], muted=True) for side in SIDES)
    return Row(code=code, name=name, about=list(about), left=left, right=right)


def _story(basis: Basis, catalogue: Catalogue) -> Row:
    """What is of no known side stands between the lanes, so that it is on neither."""
    complaint = complaint_of(basis.record, catalogue)
    told = story_lines(basis.record, catalogue)
    hurts = complaint.sides if complaint is not None and complaint.hurts else (None,)
    cells: dict[SideCode, Cell] = {side.value: Cell(lines=told) for side in hurts if side is not None}
    return _row("Story", cells, "nothing told of this side", () if cells else told)


def _to_do(reading: ReadingOut) -> Row:
    by_side = _by_side((item.side, _action(item, reading.flags)) for item in reading.actions)
    cells: dict[SideCode, Cell] = {side: Cell(lines=by_side[side]) for side in SIDES if by_side[side]}
    return _row("To do", cells, "nothing to arrange", by_side[None])


def _by_side(said: Iterable[tuple[SideCode, str]]) -> dict[SideCode, list[str]]:
    found: dict[SideCode, list[str]] = {None: [], "left": [], "right": []}
    for side, line in said:
        found[side].append(line)
    return found


def _action(item: ActionOut, flags: list[FlagOut]) -> str:
    name, urgency = action_words(item, flags), readable(item.urgency).capitalize()
    if item.start is not None and item.end is not None:
        return f"{urgency}: {name}, {day_and_month(item.start)} to {whole_day(item.end)}"
    return f"{urgency}: {name}" if item.end is None else f"{urgency}: {name}, by {whole_day(item.end)}"


def _gone(basis: Basis) -> Iterator[Row]:
    """Flags an amendment took away altogether: their rows would else be missed in silence."""
    flagged = {flag.code for flag in basis.reading.flags}
    taken = [change for change in basis.changed if not change.stands and change.code not in flagged]
    for code in once(change.code for change in taken):
        cells: dict[SideCode, Cell] = {
            change.side: Cell(lines=["no longer flagged", *changed_words(basis, code, change.side)])
            for change in taken
            if change.code == code
        }
        yield _row(called(code, None), cells, "no flag", code=code)


def _flags(basis: Basis) -> Iterator[Row]:
    reading = basis.reading
    for code in once(flag.code for flag in reading.flags if flag.side is not None):
        flags = [flag for flag in reading.flags if flag.code == code]
        down = {item.side: _down(item) for item in reading.ruled_down if item.code == code}
        cells = {
            flag.side: Cell(
                strength=flag.strength, lines=[*_flag_lines(flag), *changed_words(basis, code, flag.side)]
            )
            for flag in flags
        }
        reasons = [reason for flag in flags for reason in flag.because]
        yield _row(called(code, None), {**down, **cells}, "no flag", _rules(reasons), code)


def _flag_lines(flag: FlagOut) -> list[str]:
    return [
        *(reason.says for reason in flag.because),
        *(f"Against: {says}" for says in flag.against),
        *(["Not compared with the other side."] if flag.uncompared else []),
    ]


def _rules(reasons: Iterable[ReasonOut]) -> list[str]:
    return [f"rule {', '.join(once(reason.rule for reason in reasons))}"]


def _of_no_side(flag: FlagOut) -> Line:
    strength = words()["strengths"][flag.strength]
    return Line(side=None, lead=called(flag.code, None), says=f"{strength}. {' '.join(_flag_lines(flag))}")


def _down(item: RuledDownOut) -> Cell:
    return Cell(lines=["ruled down", *(reason.says for reason in item.because)])


def _ruled_down(reading: ReadingOut) -> Iterator[Row]:
    flagged = {flag.code for flag in reading.flags}
    for code in once(item.code for item in reading.ruled_down if item.code not in flagged):
        own = [item for item in reading.ruled_down if item.code == code]
        reasons = [reason for item in own for reason in item.because]
        yield _row(
            called(code, None), {item.side: _down(item) for item in own}, "not ruled down", _rules(reasons)
        )


def _held(reading: ReadingOut, catalogue: Catalogue) -> Iterator[Row]:
    for code in once(item.test for item in reading.held):
        own = [item for item in reading.held if item.test == code]
        cells: dict[SideCode, Cell] = {}
        for side in SIDES:
            gates = once(SPOKEN["gates"][item.gate] for item in own if item.side in (side, None))
            if gates:
                cells[side] = Cell(lines=[f"held. {' '.join(gates)}"])
        yield _row(catalogue.tests[code].name, cells, "not held", ["recorded, not read"])


def _differences(reading: ReadingOut, catalogue: Catalogue) -> Iterator[Row]:
    for item in reading.differences:
        if item.verdict != "within_error":
            unit = _unit(item, catalogue)
            about = [f"differ by {abs(item.difference):g}{unit}, error {item.mdc95:g}{unit}", item.source]
            yield _numbers(_measure(item, catalogue), [item], catalogue, about)
    within = [item for item in reading.differences if item.verdict == "within_error"]
    if within:
        names = ", ".join(_measure(item, catalogue) for item in within)
        yield _numbers("Within error", within, catalogue, [names])


def _numbers(name: str, items: list[DifferenceOut], catalogue: Catalogue, about: list[str]) -> Row:
    def lane(take: Callable[[DifferenceOut], float]) -> Cell:
        said = (f"{take(item):g}{_unit(item, catalogue)}".replace("-", "−") for item in items)
        return Cell(lines=[" · ".join(said)])

    left, right = lane(lambda item: item.left), lane(lambda item: item.right)
    return Row(name=name, about=about, left=left, right=right)


def _measure(item: DifferenceOut, catalogue: Catalogue) -> str:
    test = catalogue.tests[item.test]
    found = catalogue.compared(item.test, item.measure)
    return f"{test.name}, {(found.label if found else item.measure).lower()}"


def _unit(item: DifferenceOut, catalogue: Catalogue) -> str:
    found = catalogue.compared(item.test, item.measure)
    return unit_after(found.unit if found else "1")


def _not_done(basis: Basis, catalogue: Catalogue) -> Row:
    by_side = _by_side((item.side, f"{item.name}: {item.why}") for item in not_done(basis, catalogue))
    cells: dict[SideCode, Cell] = {side: Cell(lines=by_side[side]) for side in SIDES if by_side[side]}
    # Of a screen in which nobody knows what was left out, neither lane may read as complete.
    known = basis.reading.coverage.unexamined is not None
    silent = "nothing that was called for was left out" if known else "not known"
    return _row("Not examined, and why", cells, silent, by_side[None])
