"""Writing answers: checked against the catalogue, appended, measured, all or nothing."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid4

import orjson
from pydantic import ValidationError
from sqlalchemy import Connection, Row, insert, select, text

from northstride.core.catalogue import Catalogue
from northstride.core.errors import Fault
from northstride.record.entries import entry_faults
from northstride.record.model import EntryPart
from northstride.record.read import model_faults
from northstride.store.actor import Actor, audit
from northstride.store.appending import append
from northstride.store.errors import Differs, Refused
from northstride.store.folding import FIELDS, VALUES, AnswerRow, fold
from northstride.store.measurements import measurement_rows, reweigh_measurements
from northstride.store.screens import lock_screen
from northstride.store.tables import Answer, LateAnswer


@dataclass(frozen=True, slots=True)
class NewAnswer:
    """One changed field. `value` None clears it. `side` is the lane; `key` tells like entries apart."""

    id: UUID
    test: str
    side: str | None
    field: str
    value: Any
    key: str = ""
    observed_at: dt.datetime | None = None


@dataclass(frozen=True, slots=True)
class Written:
    """`late` are answers to a signed screen: kept as drafts for an amendment."""

    revision: int
    late: tuple[UUID, ...] = ()


def answer_faults(catalogue: Catalogue, answer: NewAnswer, path: str) -> list[Fault]:
    """Every fault of one answer, each at its own place."""
    test = catalogue.tests.get(answer.test)
    if test is None:
        return [Fault(f"{path}.test", answer.test, f'"{answer.test}" is not a test in the catalogue')]
    if answer.side is None and test.sides == "each":
        return [Fault(f"{path}.side", None, "needs a side")]
    measure = answer.field.removeprefix(VALUES)
    is_value = answer.field.startswith(VALUES) and test.measure(measure) is not None
    if not is_value and answer.field not in FIELDS:
        return [Fault(f"{path}.field", answer.field, f'"{answer.field}" is not a field of this test')]
    if answer.value is None:
        return []
    raw: dict[str, Any] = {"test": answer.test}
    entry_side = answer.side if test.sides == "each" else None
    if entry_side is not None:
        raw["side"] = entry_side
    if is_value:
        lane_value = answer.value if answer.side == entry_side else {answer.side: answer.value}
        raw["values"] = {measure: lane_value}
    else:
        raw[answer.field] = answer.value
    found = [*entry_faults(catalogue, raw, "")]
    try:
        EntryPart.model_validate_json(orjson.dumps(raw))
    except ValidationError as error:
        found += model_faults(error)
    return [Fault(_place(fault.path, answer, path), fault.value, fault.problem) for fault in _once(found)]


def _once(faults: list[Fault]) -> list[Fault]:
    return list({fault.path.lstrip("."): fault for fault in reversed(faults)}.values())[::-1]


def _place(found: str, answer: NewAnswer, path: str) -> str:
    inner = found.lstrip(".").removeprefix(answer.field)
    if inner.startswith(f".{answer.side}"):
        inner = inner.removeprefix(f".{answer.side}")
    return f"{path}.value{inner}"


def check_answers(catalogue: Catalogue, answers: Sequence[NewAnswer]) -> None:
    """Raises Refused with all faults of all answers."""
    faults = [
        fault
        for place, answer in enumerate(answers)
        for fault in answer_faults(catalogue, answer, f"answers[{place}]")
    ]
    if faults:
        raise Refused(faults)


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
        return _keep_late(db, actor, screen, answers)
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


def _keep_late(db: Connection, actor: Actor, screen: Row[Any], answers: Sequence[NewAnswer]) -> Written:
    """Never dropped: what was already written before signing is done, the rest waits for an amendment."""
    ids = [answer.id for answer in answers]
    known = set(
        db.execute(select(Answer.id).where(Answer.clinic_id == actor.clinic_id, Answer.id.in_(ids))).scalars()
    )
    known |= set(
        db.execute(
            select(LateAnswer.id).where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.id.in_(ids))
        ).scalars()
    )
    fresh = [answer for answer in answers if answer.id not in known]
    if fresh:
        db.execute(
            insert(LateAnswer),
            [
                {
                    "clinic_id": actor.clinic_id,
                    "id": answer.id,
                    "screen_id": screen.id,
                    "body": as_json(answer),
                    "user_id": actor.user_id,
                    "by_name": actor.name,
                }
                for answer in fresh
            ],
        )
        audit(db, actor, "answer late", "screen", screen.id, {"answers": len(fresh)})
    late = db.execute(
        select(LateAnswer.id).where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.id.in_(ids))
    ).scalars()
    return Written(screen.revision, tuple(late))


def as_json(answer: NewAnswer) -> dict[str, Any]:
    return {
        "id": str(answer.id),
        "test": answer.test,
        "side": answer.side,
        "field": answer.field,
        "value": answer.value,
        "key": answer.key,
        "observed_at": answer.observed_at.isoformat() if answer.observed_at else None,
    }


def from_json(body: dict[str, Any]) -> NewAnswer:
    at = body["observed_at"]
    return NewAnswer(
        UUID(body["id"]),
        body["test"],
        body["side"],
        body["field"],
        body["value"],
        body["key"],
        dt.datetime.fromisoformat(at) if at else None,
    )


def late_answers_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    return db.execute(
        select(LateAnswer.__table__)
        .where(LateAnswer.clinic_id == actor.clinic_id, LateAnswer.screen_id == screen_id)
        .order_by(LateAnswer.at)
    ).all()


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
