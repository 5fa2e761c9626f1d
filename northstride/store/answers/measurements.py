"""One row per numeric measure beside the raw answer: what trends and squads read."""

from __future__ import annotations

import statistics
from collections.abc import Iterator, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, bindparam, update

from northstride.core.catalogue import Catalogue, Measure
from northstride.core.course.over_time import Validity, worth
from northstride.core.examination import Trials
from northstride.record.values import read_value
from northstride.store.answers.folding import VALUES, AnswerRow, FoldedEntry
from northstride.store.tables import Measurement


def measurement_rows(
    catalogue: Catalogue, entry: FoldedEntry, answers: Sequence[AnswerRow]
) -> Iterator[dict[str, Any]]:
    """Rows for those of `answers` that are numbers. `entry` is how the entry stands with them."""
    for answer in answers:
        measure = _numeric(catalogue, answer)
        if measure is None or answer.value is None:
            continue
        value = read_value(measure, answer.value, answer.field)
        if not isinstance(value, Trials):
            continue
        yield {
            "answer_id": answer.id,
            "test": answer.test,
            "measure": measure.code,
            "key": entry.key,
            "side": answer.side,
            "method": entry.value("method", entry.side),
            "mean": statistics.fmean(value.values),
            "median": float(statistics.median(value.values)),
            "trials": len(value.values),
            "current": not answer.beside and entry.standing[(answer.side, answer.field)].id == answer.id,
            "validity": _worth(catalogue, entry, measure.code),
        }


def _numeric(catalogue: Catalogue, answer: AnswerRow) -> Measure | None:
    if not answer.field.startswith(VALUES):
        return None
    measure = catalogue.measure(answer.test, answer.field.removeprefix(VALUES))
    return measure if measure is not None and measure.numeric else None


def _worth(catalogue: Catalogue, entry: FoldedEntry, measure: str) -> Validity:
    return worth(catalogue, entry.test, measure, entry.value("seen", entry.side) or [])


def replace_measurements(db: Connection, clinic_id: UUID, replaced: Sequence[UUID]) -> None:
    """The numbers of these answers no longer stand."""
    if replaced:
        db.execute(
            update(Measurement)
            .where(Measurement.clinic_id == clinic_id, Measurement.answer_id.in_(replaced))
            .values(current=False)
        )


def reweigh_measurements(db: Connection, catalogue: Catalogue, clinic_id: UUID, entry: FoldedEntry) -> None:
    """After something was seen, or the method changed: the worth of this entry's standing numbers."""
    standing = [
        {"id_": row.id, "validity_": _worth(catalogue, entry, measure.code)}
        for row in entry.standing.values()
        if row.value is not None and (measure := _numeric(catalogue, row)) is not None
    ]
    if not standing:
        return
    table = Measurement.__table__
    db.execute(
        update(table)  # type: ignore[arg-type]
        .where(table.c.clinic_id == clinic_id, table.c.answer_id == bindparam("id_"))
        .values(validity=bindparam("validity_"), method=entry.value("method", entry.side)),
        standing,
    )
