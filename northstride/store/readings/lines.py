"""An athlete over time: each measure as a line, what happened, and what is to be done."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, select, text

from northstride.core.catalogue import Catalogue
from northstride.core.course.lines import Line, Measured, line_of
from northstride.core.course.over_time import followed_measures, way_of, worth
from northstride.core.examination import Complaint, Context
from northstride.core.examination.case import Case
from northstride.core.examination.derived import DERIVED
from northstride.core.terms.sides import SIDES, Side
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS
from northstride.record.complaint import complaint_in
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.store.actor import Actor
from northstride.store.answers.folding import fold
from northstride.store.answers.measurements import measurement_rows
from northstride.store.answers.unfolding import normal, rows_of
from northstride.store.readings.readings import NO_ERRORS
from northstride.store.screens.screens import get_screen
from northstride.store.signed.frozen import latest_signature
from northstride.store.signed.records import current_record
from northstride.store.tables import Measurement

# What an amendment changed stands in its record alone.
AMENDED = text(
    """
    SELECT screen_id FROM signatures WHERE clinic_id = :clinic AND screen_id = ANY(:screens) AND number > 0
    GROUP BY screen_id
    """
)
Place = tuple[str, str, str, str | None]


@dataclass(frozen=True, slots=True)
class Course:
    """`intakes` are the stories of the screens, newest first, as they stand after any amendment.

    `amended` are the screens that have one.
    """

    screens: Sequence[Row[Any]]
    intakes: Mapping[UUID, dict[str, Any]]
    complaints: Mapping[UUID, Complaint | None]
    lines: Sequence[Line]
    amended: frozenset[UUID]


def course_of(db: Connection, actor: Actor, catalogue: Catalogue, screens: Sequence[Row[Any]]) -> Course:
    """`screens` are all of one athlete."""
    ids = [screen.id for screen in screens]
    amended = _amended_records(db, actor, ids)
    kept = _kept_numbers(db, actor, [each for each in ids if each not in amended])
    taken: dict[Place, list[Measured]] = {}
    # As they were begun: of two of one day the later one is the later value.
    for screen in sorted(screens, key=lambda each: (each.date, each.created_at)):
        rows: list[Mapping[str, Any]] = [row._asdict() for row in kept.get(screen.id, [])]
        if screen.id in amended:
            rows = list(_numbers_in(catalogue, amended[screen.id]))
        for row in (*rows, *_derived_numbers(db, actor, catalogue, screen, rows)):
            _put(catalogue, taken, screen, row)
    context = Context(sem=NO_ERRORS)
    followed = {(code, each) for code, test in catalogue.tests.items() for each in followed_measures(test)}
    lines = [
        line_of(catalogue, context, test, measure, key, Side(side) if side else None, values)
        for (test, measure, key, side), values in sorted(
            taken.items(), key=lambda item: _order(catalogue, item[0])
        )
        if (test, measure) in followed
    ]
    intakes = {
        screen.id: (amended[screen.id].get("intake") if screen.id in amended else screen.intake) or {}
        for screen in screens
    }
    complaints = {
        screen.id: complaint_in(intakes[screen.id], screen.purpose, catalogue) for screen in screens
    }
    return Course(screens, intakes, complaints, lines, frozenset(amended))


def _order(catalogue: Catalogue, place: Place) -> tuple[int, int, str, str]:
    """As the catalogue has them; a measure it no longer has comes last."""
    test, measure, key, side = place
    tests = list(catalogue.tests)
    at = tests.index(test) if test in catalogue.tests else len(tests)
    measures = [each.code for each in catalogue.tests[test].measures] if test in catalogue.tests else []
    return at, measures.index(measure) if measure in measures else len(measures), key, side or ""


def _put(
    catalogue: Catalogue, taken: dict[Place, list[Measured]], screen: Row[Any], row: Mapping[str, Any]
) -> None:
    schools: dict[str, object] = {**DEFAULT_SCHOOLS, **(screen.schools or {})}
    how = str(schools["trial_value"])
    method = way_of(catalogue, row["test"], row["method"], schools)
    taken.setdefault((row["test"], row["measure"], row["key"], row["side"]), []).append(
        Measured(
            screen=str(screen.id),
            date=screen.date,
            value=row["median"] if how == "median" else row["mean"],
            validity=row["validity"],
            method=method,
            school=how,
            examiner=screen.examiner,
        )
    )


def _kept_numbers(db: Connection, actor: Actor, screens: Sequence[UUID]) -> dict[UUID, list[Row[Any]]]:
    """By screen."""
    found: dict[UUID, list[Row[Any]]] = {}
    if not screens:
        return found
    rows = db.execute(
        select(Measurement.__table__).where(
            Measurement.clinic_id == actor.clinic_id, Measurement.current, Measurement.screen_id.in_(screens)
        )
    )
    for row in rows:
        found.setdefault(row.screen_id, []).append(row)
    return found


def _derived_numbers(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen: Row[Any],
    rows: Sequence[Mapping[str, Any]],
) -> Iterator[Mapping[str, Any]]:
    """What follows from the numbers of a screen, where a test of it has such."""
    tests = [catalogue.tests[code] for code in {row["test"] for row in rows} if code in catalogue.tests]
    wanted = [(test.code, each.code) for test in tests for each in test.derived]
    if not wanted:
        return
    try:
        record = current_record(db, actor, catalogue, get_screen(db, actor, screen.id))
        case = Case(check_record(record, catalogue).exam, catalogue, Context())
    except InvalidRecord:
        return
    for test, code in wanted:
        for side in SIDES:
            value, entry = DERIVED[(test, code)](case, side), case.entry(test, side)
            if value is None or entry is None:
                continue
            yield {
                "test": test,
                "measure": code,
                "key": "",
                "side": side.value,
                "method": entry.method,
                "mean": value.value,
                "median": value.value,
                "validity": worth(catalogue, test, code, entry.seen),
            }


def _amended_records(db: Connection, actor: Actor, screens: Sequence[UUID]) -> dict[UUID, dict[str, Any]]:
    rows = db.execute(AMENDED, {"clinic": actor.clinic_id, "screens": list(screens)})
    return {key: latest_signature(db, actor, key).record for key in rows.scalars()}


def _numbers_in(catalogue: Catalogue, record: dict[str, Any]) -> Iterable[Mapping[str, Any]]:
    """The numbers of a record, as measurement rows have them. One today's catalogue cannot read has none."""
    try:
        checked = check_record(record, catalogue).record
    except InvalidRecord:
        return
    for entry in fold(rows_of(catalogue, checked, normal(checked)), catalogue):
        yield from measurement_rows(catalogue, entry, list(entry.standing.values()))
