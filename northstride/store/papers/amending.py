"""Whatever comes after a signature is an amendment with its reason."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, func, select

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.record.edition import shipped
from northstride.record.read import CheckedRecord, check_record
from northstride.store.actor import Actor, audit
from northstride.store.answers.folding import entries_json, fold
from northstride.store.answers.late import as_json, check_ids_are_new, from_json, late_answers_of
from northstride.store.answers.new_answer import NewAnswer, check_answers
from northstride.store.answers.order import Arrival
from northstride.store.answers.unfolding import normal, rows_of
from northstride.store.errors import (
    Differs,
    NewerSignature,
    NotSigned,
    Refused,
)
from northstride.store.papers.signing import Document, Frozen, freeze
from northstride.store.papers.words import NewWords, amended_words, words_on_paper
from northstride.store.readings.contexts import EarlierScreen, frozen_context, read_context, thawed
from northstride.store.readings.differences import differences_between, differences_by_rules
from northstride.store.readings.readings import compute, compute_checked
from northstride.store.screens.facts import fault_of, told_besides
from northstride.store.screens.screens import get_screen, lock_screen
from northstride.store.screens.writing import placed
from northstride.store.signed.frozen import Signed, latest_signature, signature_at, signatures_of
from northstride.store.signed.identity import identity_of
from northstride.store.tables import Signature


def amend(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    amendment_id: UUID,
    stands_on: UUID,
    reason: str,
    late: Sequence[UUID],
    answers: Sequence[NewAnswer],
    words: Sequence[NewWords] = (),
) -> None:
    """Adds to a signed screen: late answers taken in, new ones, other words of a sheet. Safe to repeat.

    The password was asked before. Raises NotSigned, NewerSignature where `stands_on` is no longer the
    newest, Differs, Refused with faults.
    """
    if lock_screen(db, actor, screen_id).signed_at is None:
        raise NotSigned(screen_id)
    changes = [*_late(db, actor, screen_id, late), *answers]
    if _stands(db, actor, screen_id, amendment_id, reason, changes, words):
        return
    if not changes and not words:
        raise Refused([Fault("answers", [], "nothing to amend: name late answers or give new ones")])
    check_answers(catalogue, changes)
    check_ids_are_new(db, actor, catalogue, screen_id, answers)
    _check_not_taken(db, actor, screen_id, changes)
    last = _newest(db, actor, screen_id, stands_on)
    frozen = _amended(db, actor, catalogue, last, changes, words)
    screen = get_screen(db, actor, screen_id)
    freeze(db, actor, catalogue, screen, amendment_id, last.number + 1, reason, frozen)
    audit(db, actor, "amend", "screen", screen_id, {"number": last.number + 1})


def _newest(db: Connection, actor: Actor, screen_id: UUID, stands_on: UUID) -> Signed:
    """Raises NewerSignature: what was amended is not what the reader saw."""
    last = latest_signature(db, actor, screen_id)
    if last.id != stands_on:
        raise NewerSignature(last.number)
    return last


def _stands(
    db: Connection,
    actor: Actor,
    screen_id: UUID,
    amendment_id: UUID,
    reason: str,
    changes: Sequence[NewAnswer],
    words: Sequence[NewWords],
) -> bool:
    """Whether this very amendment was made already. Raises Differs where the id says something else."""
    standing = db.execute(
        select(Signature.screen_id, Signature.reason, Signature.changes, Signature.words).where(
            Signature.clinic_id == actor.clinic_id, Signature.id == amendment_id
        )
    ).first()
    if standing is None:
        return False
    kept = [{name: value for name, value in change.items() if name != "by"} for change in standing.changes]
    at = {(each["sheet"], each["field"]): each["value"] for each in standing.words or []}
    given = {
        "screen": screen_id,
        "reason": reason,
        "answers": [as_json(answer) for answer in changes],
        "words": [tuple(each) for each in words],
    }
    told = {
        "screen": standing.screen_id,
        "reason": standing.reason,
        "answers": kept,
        "words": [(each.sheet, each.field, at.get((each.sheet, each.field))) for each in words],
    }
    paths = [name for name, value in given.items() if told[name] != value]
    if paths:
        raise Differs("amendment", amendment_id, paths)
    return True


def _amended(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    last: Signed,
    changes: Sequence[NewAnswer],
    words: Sequence[NewWords],
) -> Frozen:
    """The newest signed record with the changes in it, read by today's rules against what it was then."""
    was = check_record(last.record, catalogue)
    rows = rows_of(catalogue, was.record, normal(was.record))
    arrival = Arrival.told(actor.name, "", None)
    written = placed(catalogue, was.record.id, rows, changes, arrival, len(rows))
    record, refused = told_besides(last.record, changes, actor.name)
    if refused:
        raise Refused([fault_of(changes, answer, why) for answer, why in refused])
    record = {**record, "entries": entries_json(fold([*rows, *written], catalogue))}
    told = [{**as_json(answer), "by": actor.name} for answer in changes]
    frozen = reread(db, actor, catalogue, last, was, record, told)
    standing = words_on_paper(db, actor, was.record.id, last)
    now = db.execute(select(func.now())).scalar_one()
    own = amended_words(standing, words, actor.name, now, same_reading=not frozen.differences)
    return replace(frozen, words=own)


def reread(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    last: Signed,
    was: CheckedRecord,
    record: Document,
    told: list[Document],
    *,
    earlier: list[EarlierScreen] | None = None,
) -> Frozen:
    """A signed record changed into `record`: read again beside the reading before it. `was` is it, checked.

    Held against what it was held against then, unless other `earlier` screens are named.
    """
    before, errors = thawed(last.context), last.context["sem"]
    earlier = before if earlier is None else earlier
    reading = compute(catalogue, record, read_context(db, actor, catalogue, earlier, errors))
    by_rules = compute_checked(catalogue, was, read_context(db, actor, catalogue, before, errors))
    return Frozen(
        record=record,
        context=frozen_context(earlier, errors),
        reading=reading,
        identity=identity_of(record, [screen.mark for screen in earlier], errors, shipped(catalogue)),
        changes=told,
        differences=differences_between(last.reading, by_rules, reading),
        # Written for another reading or another athlete, they are not taken along unasked.
        words=[],
    )


def read_by_today(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, number: int
) -> tuple[Document, list[Document]]:
    """What a signed record reads as by today's rules, and what that adds or changes. Changes nothing.

    Raises NotFound, InvalidRecord where today's rules cannot read it.
    """
    signed = signature_at(db, actor, screen_id, number)
    earlier, errors = thawed(signed.context), signed.context["sem"]
    checked = check_record(signed.record, catalogue)
    today = compute_checked(catalogue, checked, read_context(db, actor, catalogue, earlier, errors))
    return today, differences_by_rules(signed.reading, today)


def _late(db: Connection, actor: Actor, screen_id: UUID, wanted: Sequence[UUID]) -> list[NewAnswer]:
    waiting = {row.id: row for row in late_answers_of(db, actor, screen_id)}
    unknown = [
        Fault(f"late[{place}]", str(key), f"{key} is no late answer of this screen")
        for place, key in enumerate(wanted)
        if key not in waiting
    ]
    if unknown:
        raise Refused(unknown)
    return [from_json(waiting[key].body) for key in dict.fromkeys(wanted)]


def _check_not_taken(db: Connection, actor: Actor, screen_id: UUID, changes: Sequence[NewAnswer]) -> None:
    """An answer is amended once. Raises Differs for one an earlier amendment took in."""
    taken = _taken(db, actor, screen_id)
    for answer in changes:
        if str(answer.id) in taken:
            raise Differs("answer", answer.id, ["amendment"])


def _taken(db: Connection, actor: Actor, screen_id: UUID) -> set[str]:
    return {change["id"] for signed in signatures_of(db, actor, screen_id) for change in signed.changes}


def waiting_late_answers(db: Connection, actor: Actor, screen_id: UUID) -> list[Row[Any]]:
    """Late answers no amendment has taken in."""
    taken = _taken(db, actor, screen_id)
    return [row for row in late_answers_of(db, actor, screen_id) if str(row.id) not in taken]
