"""What was told and planned: kept as answers, and in the head of the screen as what they make of it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

import orjson
from pydantic import ValidationError
from sqlalchemy import Connection, Row, update

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context
from northstride.core.route import planned_with
from northstride.core.terms.errors import Fault
from northstride.record.fact_fields import ROUTE, STORY, is_fact
from northstride.record.facts import Head, facts_of, head_of, with_fact, with_head
from northstride.record.model import IntakePart
from northstride.record.read import check_record, date_faults, model_faults
from northstride.store.actor import Actor
from northstride.store.answers.new_answer import NewAnswer, fact_place
from northstride.store.errors import Refused
from northstride.store.screens.screens import answers_of, get_screen, open_record, record_json
from northstride.store.tables import Screen

Document = dict[str, Any]


def keep_facts(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    answers: Sequence[NewAnswer],
    fresh: Sequence[NewAnswer],
    revision: int,
) -> None:
    """Brings the head up to what is told now. The screen is locked; `revision` is that of the last answer.

    `fresh` are those of `answers` that are new. Raises Refused where they leave no sound story.
    """
    screen = get_screen(db, actor, screen_id)
    head, refused = told(record_json(screen, []), fresh, actor.name)
    if refused:
        raise Refused([fault_of(answers, answer, why) for answer, why in refused])
    for answer in fresh:
        if _plans(answer) and answer.field.removeprefix("planned.") not in screen.planned:
            head["planned"] = _placed(db, actor, catalogue, screen, head, answer)
    db.execute(
        update(Screen)
        .where(Screen.clinic_id == actor.clinic_id, Screen.id == screen_id)
        .values(**_columns(head), revision=revision)
    )


def _columns(head: Mapping[str, Any]) -> Head:
    """Lists and schools are never null."""
    empty: Head = {"planned": [], "left_out": [], "schools": {}}
    return {name: part or empty.get(name) for name, part in head.items()}


def _plans(answer: NewAnswer) -> bool:
    return answer.test == ROUTE and answer.field.startswith("planned.") and answer.value is True


def _placed(
    db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any], head: Head, answer: NewAnswer
) -> list[str]:
    """The plan with a test at the place that costs the fewest turns."""
    record = with_head(open_record(db, actor, catalogue, screen), head)
    exam = check_record(record, catalogue).exam
    return planned_with(exam, catalogue, Context(), answer.field.removeprefix("planned."))


def told(
    record: Mapping[str, Any], answers: Sequence[NewAnswer], by: str
) -> tuple[Head, list[tuple[NewAnswer, Fault]]]:
    """The head of a record with these facts in it, and those that leave no sound story, left out of it."""
    head = head_of(record)
    refused: list[tuple[NewAnswer, Fault]] = []
    for answer in answers:
        if not is_fact(answer.test):
            continue
        tried = with_fact(head, fact_place(answer), answer.value, by)
        found = _story_faults(tried, dt.date.fromisoformat(record["date"]))
        if found:
            refused.append((answer, found[0]))
        else:
            head = tried
    return head, refused


def _story_faults(head: Head, day: dt.date) -> list[Fault]:
    try:
        intake = IntakePart.model_validate_json(orjson.dumps(head["intake"] or {}))
    except ValidationError as error:
        return model_faults(error)
    return list(date_faults(intake, day))


def fault_of(answers: Sequence[NewAnswer], answer: NewAnswer, why: Fault) -> Fault:
    """A fault of the story at the answer that would make it."""
    return Fault(f"answers[{answers.index(answer)}].value", answer.value, why.problem)


def told_besides(
    record: Document, drafts: Sequence[NewAnswer], by: str
) -> tuple[Document, list[tuple[NewAnswer, Fault]]]:
    """The record as if the facts among the drafts had been told, and those that cannot be."""
    if not any(is_fact(draft.test) for draft in drafts):
        return record, []
    head, refused = told(record, drafts, by)
    return with_head(record, head), refused


def facts_told(db: Connection, actor: Actor, screen_id: UUID, record: Mapping[str, Any]) -> list[Document]:
    """Every fact that stands in a record, with who wrote it and when, where that is known."""
    every = [row for test in (STORY, ROUTE) for row in answers_of(db, actor, screen_id, test)]
    rows = [row for row in every if not row.beside]
    latest = {(row.test, row.side, row.key, row.field): row for row in rows}
    found: list[Document] = []
    for place, value in facts_of(record).items():
        row = latest.get((place.test, place.side, place.key, place.field))
        written = row if row is not None and row.value == value else None
        found.append(
            {
                **place._asdict(),
                "value": value,
                "by": written.by_name if written else None,
                "at": written.observed_at if written else None,
            }
        )
    return found
