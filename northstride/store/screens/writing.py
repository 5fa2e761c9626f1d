"""Writing answers: checked against the catalogue, appended, measured, all or nothing."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid5

from sqlalchemy import Connection, Row, text

from northstride.core.catalogue import Catalogue
from northstride.record.fact_fields import is_fact
from northstride.store.actor import Actor
from northstride.store.answers.appending import append
from northstride.store.answers.folding import AnswerRow, EntryPlace, fold
from northstride.store.answers.late import keep_late
from northstride.store.answers.measurements import measurement_rows, reweigh_measurements
from northstride.store.answers.new_answer import (
    NewAnswer,
    answer_side,
    check_answers,
    entry_place,
    fact_place,
)
from northstride.store.answers.order import (
    Arrival,
    Clash,
    check_may_decide,
    check_times,
    in_order,
    open_clashes,
    slot_of,
)
from northstride.store.answers.same_answer import not_yet_written
from northstride.store.errors import NotFound
from northstride.store.screens.facts import keep_facts
from northstride.store.screens.screens import answers_of, lock_screen

MOST_HISTORY = 100


@dataclass(frozen=True, slots=True)
class Written:
    """`late` are answers to a signed screen: kept as drafts for an amendment.

    `beside` were seen before what stands at their place, and did not take it. `skew`: how far the device's
    clock is behind ours, in seconds, where that is worth saying.
    """

    revision: int
    late: tuple[UUID, ...] = ()
    beside: tuple[UUID, ...] = ()
    skew: int | None = None


def placed(
    catalogue: Catalogue,
    screen_id: UUID,
    standing: Sequence[AnswerRow],
    answers: Sequence[NewAnswer],
    arrival: Arrival,
    revision: int,
) -> list[AnswerRow]:
    """The answers as rows: each in the entry that stands at its place, a new entry where there is none.

    What was seen before what stands at its place stays beside it.
    """
    entries: dict[EntryPlace, UUID] = {entry.place: entry.id for entry in fold(standing, catalogue)}
    rows: list[AnswerRow] = []
    for number, answer in enumerate(answers, revision + 1):
        place = entry_place(catalogue, answer)
        entry_id = entries.setdefault(place, entry_id_at(screen_id, place))
        at = answer.observed_at
        offset = at.utcoffset() if at else None
        rows.append(
            AnswerRow(
                answer.id,
                number,
                answer.test,
                entry_id,
                place[1],
                answer.key,
                answer_side(catalogue, answer),
                answer.field,
                answer.value,
                arrival.by,
                at,
                int(offset.total_seconds() // 60) if offset is not None else None,
                arrival.device,
                arrival.seen_at(answer),
            )
        )
    return in_order(catalogue, standing, rows)


def entry_id_at(screen_id: UUID, place: EntryPlace) -> UUID:
    """Made from screen and place: two devices that begin the same entry make the same one."""
    test, side, key = place
    return uuid5(screen_id, f"entry {test} {side or ''} {key}")


def write_answers(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    answers: Sequence[NewAnswer],
    device: str,
    clock: dt.datetime | None = None,
) -> Written:
    """Append answers under the screen's lock. Safe to repeat: an answer already there does nothing.

    `clock` is the device's own time at sending. Raises Refused with faults, Differs for an id that stands
    with other content, NotFound.
    """
    check_answers(catalogue, answers)
    screen = lock_screen(db, actor, screen_id)
    arrival = Arrival.told(actor.name, device, clock)
    if screen.signed_at is not None:
        late = keep_late(db, actor, catalogue, screen.id, answers)
        return Written(screen.revision, late, skew=arrival.told_skew)
    standing, known = _standing(db, actor, screen_id, answers)
    fresh = not_yet_written(catalogue, known, screen_id, answers)
    kept = tuple(row.id for row in known.values() if row.beside)
    if not fresh:
        return Written(screen.revision, beside=kept, skew=arrival.told_skew)
    check_times(screen.created_at, screen.date, arrival, answers)
    rows = placed(catalogue, screen_id, standing, fresh, arrival, screen.revision)
    check_may_decide(catalogue, actor.role, clashes_of(db, actor, screen_id), rows)
    taking = [answer for answer, row in zip(fresh, rows, strict=True) if not row.beside]
    if any(is_fact(answer.test) for answer in taking):
        keep_facts(db, actor, catalogue, screen_id, answers, taking, rows[-1].revision)
    append_rows(db, actor, catalogue, screen, standing, rows, device, "answer")
    kept += tuple(row.id for row in rows if row.beside)
    return Written(rows[-1].revision, beside=kept, skew=arrival.told_skew)


CLASHING = text(
    "SELECT EXISTS (SELECT 1 FROM answers WHERE clinic_id = :clinic AND screen_id = :screen"
    " AND clash IS NOT NULL)"
)


def clashes_of(db: Connection, actor: Actor, screen_id: UUID) -> list[Clash]:
    """Two answers to one question that nobody has decided between. Most screens have none, ever."""
    asked = {"clinic": actor.clinic_id, "screen": screen_id}
    if not db.execute(CLASHING, asked).scalar_one():
        return []
    return open_clashes(answers_of(db, actor, screen_id))


COLUMNS = ", ".join(
    "coalesce(a.seen_at, a.recorded_at) AS seen_at" if name == "seen_at" else f"a.{name}"
    for name in (*AnswerRow._fields, "screen_id")
)
STANDING = text(
    f"""
    (SELECT DISTINCT ON (a.entry_id, a.side, a.field) {COLUMNS}, true AS stands
     FROM answers a
     WHERE a.clinic_id = :clinic AND a.screen_id = :screen AND a.test = ANY(:tests) AND NOT a.beside
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
    before = {slot_of(row): row.id for row in standing}
    replaces: dict[UUID, UUID] = {}
    for row in rows:
        place = slot_of(row)
        if row.beside:
            continue
        if place in before:
            replaces[row.id] = before[place]
        before[place] = row.id
    fresh = {row.id for row in rows}
    replaced = [old for old in replaces.values() if old not in fresh]
    touched = {row.entry_id for row in rows}
    entries = [entry for entry in fold([*standing, *rows], catalogue) if entry.id in touched]
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
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    asked: NewAnswer,
) -> list[AnswerRow]:
    """Everything the place of `asked` has held, newest first. Raises NotFound for no such test."""
    if asked.test not in catalogue.tests and not is_fact(asked.test):
        raise NotFound("test", asked.test)
    rows = answers_of(db, actor, screen_id, asked.test)
    if is_fact(asked.test):
        here = fact_place(asked)
        return [row for row in rows if (row.test, row.side, row.key, row.field) == here][::-1][:MOST_HISTORY]
    place, side = entry_place(catalogue, asked), answer_side(catalogue, asked)
    own = {entry.id for entry in fold(rows, catalogue) if entry.place == place}
    found = [row for row in rows if (row.entry_id in own, row.side, row.field) == (True, side, asked.field)]
    return found[::-1][:MOST_HISTORY]
