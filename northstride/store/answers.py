"""Writing answers: checked against the catalogue, appended, measured, all or nothing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, Row, select, text

from northstride.core.catalogue import Catalogue
from northstride.store.actor import Actor
from northstride.store.appending import append
from northstride.store.errors import Differs
from northstride.store.folding import VALUES, AnswerRow, fold
from northstride.store.late_answers import keep_late
from northstride.store.measurements import measurement_rows, reweigh_measurements
from northstride.store.new_answer import NewAnswer, check_answers
from northstride.store.screens import lock_screen
from northstride.store.tables import Answer


@dataclass(frozen=True, slots=True)
class Written:
    """`late` are answers to a signed screen: kept as drafts for an amendment."""

    revision: int
    late: tuple[UUID, ...] = ()


def placed(
    catalogue: Catalogue,
    standing: Sequence[AnswerRow],
    answers: Sequence[NewAnswer],
    actor: Actor,
    revision: int,
) -> list[AnswerRow]:
    """The answers as rows: each in the entry it belongs to, a new entry where there is none."""
    entries: dict[tuple[str, str | None, str], UUID] = {
        (row.test, row.entry_side, row.key): row.entry_id for row in standing
    }
    rows: list[AnswerRow] = []
    for answer in answers:
        entry_side = answer.side if catalogue.tests[answer.test].sides == "each" else None
        side = answer.side if answer.field.startswith(VALUES) else entry_side
        entry_id = entries.setdefault((answer.test, entry_side, answer.key), uuid4())
        revision += 1
        at = answer.observed_at
        offset = at.utcoffset() if at else None
        rows.append(
            AnswerRow(
                answer.id,
                revision,
                answer.test,
                entry_id,
                entry_side,
                answer.key,
                side,
                answer.field,
                answer.value,
                actor.name,
                at,
                int(offset.total_seconds() // 60) if offset is not None else None,
            )
        )
    return rows


def write_answers(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    answers: Sequence[NewAnswer],
    device: str,
) -> Written:
    """Append answers under the screen's lock. Safe to repeat: an answer already there does nothing.

    Raises Refused with faults, Differs for an id that stands with other content, NotFound.
    """
    check_answers(catalogue, answers)
    screen = lock_screen(db, actor, screen_id)
    if screen.signed_at is not None:
        return Written(screen.revision, keep_late(db, actor, screen.id, answers))
    standing, known = _standing(db, actor, screen_id, answers)
    fresh = _not_yet_written(known, screen_id, answers)
    if not fresh:
        return Written(screen.revision)
    rows = placed(catalogue, standing, fresh, actor, screen.revision)
    append_rows(db, actor, catalogue, screen, standing, rows, device, "answer")
    return Written(rows[-1].revision)


COLUMNS = ", ".join(f"a.{name}" for name in (*AnswerRow._fields, "screen_id"))
STANDING = text(
    f"""
    (SELECT DISTINCT ON (a.entry_id, a.side, a.field) {COLUMNS}, true AS stands
     FROM answers a WHERE a.clinic_id = :clinic AND a.screen_id = :screen AND a.test = ANY(:tests)
     ORDER BY a.entry_id, a.side, a.field, a.revision DESC)
    UNION ALL
    (SELECT {COLUMNS}, false FROM answers a WHERE a.clinic_id = :clinic AND a.id = ANY(:ids))
    ORDER BY revision
    """  # noqa: S608  column names are the row's own
)


def _standing(
    db: Connection, actor: Actor, screen_id: UUID, answers: Sequence[NewAnswer]
) -> tuple[list[AnswerRow], dict[UUID, Row[Any]]]:
    """What stands in the tests concerned, and every answer already known by one of these ids."""
    ids = [answer.id for answer in answers]
    found = db.execute(
        STANDING,
        {
            "clinic": actor.clinic_id,
            "screen": screen_id,
            "tests": list({answer.test for answer in answers}),
            "ids": ids,
        },
    ).all()
    standing = [AnswerRow._make(row[: len(AnswerRow._fields)]) for row in found if row.stands]
    return standing, {row.id: row for row in found if not row.stands}


def _not_yet_written(
    known: dict[UUID, Row[Any]], screen_id: UUID, answers: Sequence[NewAnswer]
) -> list[NewAnswer]:
    """An id never means two things: neither another value nor another screen."""
    fresh: list[NewAnswer] = []
    for answer in {answer.id: answer for answer in answers}.values():
        row = known.get(answer.id)
        if row is None:
            fresh.append(answer)
            continue
        told = (row.screen_id, row.test, row.field, row.value)
        if told != (screen_id, answer.test, answer.field, answer.value):
            raise Differs("answer", answer.id, ["value"])
    return fresh


def append_rows(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen: Row[Any],
    standing: Sequence[AnswerRow],
    rows: Sequence[AnswerRow],
    device: str,
    verb: str,
) -> None:
    """Append rows with their measurements, revision and audit row. The screen is locked."""
    before = {(row.entry_id, row.side, row.field): row.id for row in standing}
    replaces: dict[UUID, UUID] = {}
    for row in rows:
        place = (row.entry_id, row.side, row.field)
        if place in before:
            replaces[row.id] = before[place]
        before[place] = row.id
    fresh = {row.id for row in rows}
    replaced = [old for old in replaces.values() if old not in fresh]
    touched = {row.entry_id for row in rows}
    entries = [entry for entry in fold([*standing, *rows]) if entry.id in touched]
    measurements = [
        made
        for entry in entries
        for made in measurement_rows(catalogue, entry, [row for row in rows if row.entry_id == entry.id])
    ]
    append(db, actor, screen, rows, replaces, replaced, measurements, device, verb)
    for entry in entries:
        if any(row.entry_id == entry.id and row.field in ("seen", "method") for row in rows):
            reweigh_measurements(db, catalogue, actor.clinic_id, entry)


def history_of(
    db: Connection, actor: Actor, screen_id: UUID, test: str, side: str | None, field: str
) -> Sequence[Row[Any]]:
    """Everything a field has held, newest first."""
    return db.execute(
        select(Answer.__table__)
        .where(
            Answer.clinic_id == actor.clinic_id,
            Answer.screen_id == screen_id,
            Answer.test == test,
            Answer.field == field,
            Answer.side.is_not_distinct_from(side),
        )
        .order_by(Answer.revision.desc())
        .limit(100)
    ).all()
