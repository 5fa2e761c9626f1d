"""Readings: a pure function of record, context and rules, known by the identity of all of it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

import structlog
from sqlalchemy import Connection, Row, select

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.core.terms.errors import Fault, NotReadable
from northstride.record.edition import shipped
from northstride.record.json_text import InvalidRecord
from northstride.record.read import CheckedRecord, check_record
from northstride.record.reading import reading_json
from northstride.store.actor import Actor
from northstride.store.answers.folding import fold
from northstride.store.answers.new_answer import NewAnswer, answer_faults
from northstride.store.answers.order import Arrival
from northstride.store.errors import Unreadable
from northstride.store.readings.contexts import EarlierScreen, earlier_screens, read_context
from northstride.store.readings.kept import keep_reading
from northstride.store.screens.facts import fault_of, told_besides
from northstride.store.screens.screens import answers_of, open_record, record_json
from northstride.store.screens.writing import placed
from northstride.store.signed.frozen import latest_signature
from northstride.store.signed.identity import Identity, identity_of
from northstride.store.tables import StoredReading

log = structlog.get_logger()

Document = dict[str, Any]
# A clinic's own error figures; none are kept yet, and none are assumed.
NO_ERRORS: dict[str, float] = {}


@dataclass(frozen=True, slots=True)
class Basis:
    """All that an open screen's reading is made from, and the identity of it."""

    record: Document
    earlier: list[EarlierScreen]
    identity: Identity


@dataclass(frozen=True, slots=True)
class Shown:
    """A reading as it is shown: of an open screen by its identity, of a signed one by its signature."""

    reading: Document
    identity: Identity | None
    signature: int | None


@dataclass(frozen=True, slots=True)
class Preview:
    """How an unsaved draft would read. Drafts with faults are left out of the reading."""

    reading: Document
    faults: list[Fault]


def compute(catalogue: Catalogue, record: Document, context: Context) -> Document:
    """Raises InvalidRecord where the record has faults."""
    return compute_checked(catalogue, check_record(record, catalogue), context)


def compute_checked(catalogue: Catalogue, checked: CheckedRecord, context: Context) -> Document:
    """Raises InvalidRecord where a rule fails over what was recorded, naming the entries."""
    try:
        return reading_json(evaluate(checked.exam, catalogue, context), catalogue)
    except NotReadable as error:
        log.error("a rule failed", error=type(error.__cause__).__name__, at=[f.path for f in error.faults])
        raise InvalidRecord(error.faults) from error


def basis_of(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> Basis:
    record = open_record(db, actor, catalogue, screen)
    earlier = earlier_screens(db, actor, catalogue, screen)
    marks = [screen.mark for screen in earlier]
    return Basis(record, earlier, identity_of(record, marks, NO_ERRORS, shipped(catalogue)))


def reading_from(db: Connection, actor: Actor, catalogue: Catalogue, basis: Basis) -> Document:
    """Raises InvalidRecord."""
    return compute(catalogue, basis.record, read_context(db, actor, catalogue, basis.earlier, NO_ERRORS))


def reading_of(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> Shown:
    """A signed screen's from its signature alone; an open one's as kept, where it is the same reading.

    Raises Unreadable.
    """
    if screen.signed_at is not None:
        signed = latest_signature(db, actor, screen.id)
        return Shown(signed.reading, signed.identity, signed.number)
    basis = basis_of(db, actor, catalogue, screen)
    document = _kept(db, actor, screen.id, basis.identity)
    if document is None:
        try:
            document = reading_from(db, actor, catalogue, basis)
        except InvalidRecord as invalid:
            raise unreadable(catalogue, basis.record, invalid) from invalid
        keep_reading(db, actor.clinic_id, screen, basis.identity, document)
    return Shown(document, basis.identity, None)


def unreadable(catalogue: Catalogue, record: Document, invalid: InvalidRecord) -> Unreadable:
    """What a record cannot be read for, each fault with the test it is of."""
    return Unreadable(UUID(record["id"]), [_named(catalogue, record, fault) for fault in invalid.faults])


def _named(catalogue: Catalogue, record: Document, fault: Fault) -> Fault:
    number, closed, _ = fault.path.removeprefix("entries[").partition("]")
    if not fault.path.startswith("entries[") or not closed:
        return fault
    entry = record["entries"][int(number)]
    test = catalogue.tests.get(entry["test"])
    name = ", ".join(part for part in (test.name if test else entry["test"], entry.get("side")) if part)
    return fault if fault.problem.startswith(name) else replace(fault, problem=f"{name}: {fault.problem}")


def _kept(db: Connection, actor: Actor, screen_id: UUID, identity: Identity) -> Document | None:
    kept: Document | None = db.execute(
        select(StoredReading.document).where(
            StoredReading.clinic_id == actor.clinic_id,
            StoredReading.screen_id == screen_id,
            StoredReading.identity == identity,
        )
    ).scalar()
    return kept


def preview(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen: Row[Any],
    drafts: Sequence[NewAnswer],
    device: str = "",
    clock: dt.datetime | None = None,
) -> Preview:
    """Reads the screen as if the drafts had been written, without what was before. Writes nothing.

    Raises Unreadable.
    """
    faults: list[Fault] = []
    sound: list[NewAnswer] = []
    for place, draft in enumerate(drafts):
        found = answer_faults(catalogue, draft, f"answers[{place}]")
        faults += found
        if not found:
            sound.append(draft)
    standing = answers_of(db, actor, screen.id)
    arrival = Arrival.told(actor.name, device, clock)
    rows = placed(catalogue, screen.id, standing, sound, arrival, screen.revision)
    record = record_json(screen, fold([*standing, *rows], catalogue))
    taking = [draft for draft, row in zip(sound, rows, strict=True) if not row.beside]
    record, refused = told_besides(record, taking, actor.name)
    faults += [fault_of(drafts, draft, why) for draft, why in refused]
    try:
        return Preview(compute(catalogue, record, Context()), faults)
    except InvalidRecord as invalid:
        raise unreadable(catalogue, record, invalid) from invalid
