"""Signing freezes; later changes are amendments with a reason. Overrides and arrangements keep names."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, Row, func, insert, select, update

from northstride.core.catalogue import Catalogue
from northstride.core.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.answers import placed
from northstride.store.contexts import context_document, earlier_screens
from northstride.store.errors import Differs, Incomplete, NewerRevision, NotSigned, Refused, Signed
from northstride.store.folding import AnswerRow, entries_json, fold
from northstride.store.late_answers import as_json, from_json, late_answers_of
from northstride.store.new_answer import NewAnswer, check_answers
from northstride.store.readings import FROZEN, compute, keep_reading, reading_of
from northstride.store.screens import answers_of, current_record, get_screen, latest_signature, lock_screen
from northstride.store.tables import Arrangement, Screen, Signature
from northstride.store.users import Passwords, check_password_again


def sign(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    passwords: Passwords,
    screen_id: UUID,
    seen_revision: int,
    password: str,
) -> None:
    """Freezes record, context and reading. Signing again what is signed does nothing.

    Raises WrongPassword, NewerRevision where something was written since, Incomplete.
    """
    check_password_again(db, actor, passwords, password)
    if lock_screen(db, actor, screen_id).signed_at is not None:
        return
    screen = get_screen(db, actor, screen_id)
    if screen.revision != seen_revision:
        raise NewerRevision(seen_revision, screen.revision)
    record = current_record(db, actor, screen)
    context = context_document(db, actor, earlier_screens(db, actor, screen))
    reading = compute(catalogue, record, context)
    if reading["coverage"]["open"]:
        raise Incomplete(reading["coverage"]["open"])
    keep_reading(db, actor, screen_id, screen.revision, reading, FROZEN)
    _freeze(db, actor, uuid4(), screen, 0, None, record, context, reading, [])
    db.execute(
        update(Screen)
        .where(Screen.clinic_id == actor.clinic_id, Screen.id == screen_id)
        .values(signed_at=func.now(), signed_by=actor.user_id)
    )
    audit(db, actor, "sign", "screen", screen_id, {"revision": seen_revision})


def _freeze(
    db: Connection,
    actor: Actor,
    signature_id: UUID,
    screen: Row[Any],
    number: int,
    reason: str | None,
    record: dict[str, Any],
    context: dict[str, Any],
    reading: dict[str, Any],
    changes: list[dict[str, Any]],
) -> None:
    db.execute(
        insert(Signature).values(
            clinic_id=actor.clinic_id,
            screen_id=screen.id,
            number=number,
            id=signature_id,
            reason=reason,
            revision=screen.revision,
            record=record,
            context=context,
            reading=reading,
            changes=changes,
            user_id=actor.user_id,
            by_name=actor.name,
        )
    )


def amend(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    amendment_id: UUID,
    reason: str,
    late: Sequence[UUID],
    answers: Sequence[NewAnswer],
) -> None:
    """Adds to a signed screen: late answers taken in, new ones, or both. Safe to repeat.

    Raises NotSigned, Refused with faults.
    """
    screen = lock_screen(db, actor, screen_id)
    if screen.signed_at is None:
        raise NotSigned(screen_id)
    standing = db.execute(
        select(Signature.screen_id, Signature.reason).where(
            Signature.clinic_id == actor.clinic_id, Signature.id == amendment_id
        )
    ).first()
    if standing is not None:
        if (standing.screen_id, standing.reason) != (screen_id, reason):
            raise Differs("amendment", amendment_id, ["reason"])
        return
    changes = [*_late(db, actor, screen_id, late), *answers]
    if not changes:
        raise Refused([Fault("answers", [], "nothing to amend: name late answers or give new ones")])
    check_answers(catalogue, changes)
    last = latest_signature(db, actor, screen_id)
    rows = _rows_with_amendments(db, actor, catalogue, screen, changes)
    record = {**last.record, "entries": entries_json(fold(rows))}
    reading = compute(catalogue, record, last.context)
    written = [{**as_json(answer), "by": actor.name} for answer in changes]
    _freeze(db, actor, amendment_id, screen, last.number + 1, reason, record, last.context, reading, written)
    keep_reading(db, actor, screen_id, screen.revision, reading, FROZEN)
    audit(db, actor, "amend", "screen", screen_id, {"number": last.number + 1})


def _late(db: Connection, actor: Actor, screen_id: UUID, wanted: Sequence[UUID]) -> list[NewAnswer]:
    waiting = {row.id: row for row in late_answers_of(db, actor, screen_id)}
    unknown = [
        Fault(f"late[{place}]", str(key), f"{key} is no late answer of this screen")
        for place, key in enumerate(wanted)
        if key not in waiting
    ]
    if unknown:
        raise Refused(unknown)
    return [from_json(waiting[key].body) for key in wanted]


def _rows_with_amendments(
    db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any], changes: Sequence[NewAnswer]
) -> list[AnswerRow]:
    """Answers, earlier amendments in their order, then the new changes."""
    rows = answers_of(db, actor, screen.id)
    for signature in signatures_of(db, actor, screen.id):
        for change in signature.changes:
            row = placed(catalogue, rows, [from_json(change)], actor, screen.revision)[0]
            rows.append(row._replace(by_name=change["by"]))
    return [*rows, *placed(catalogue, rows, changes, actor, screen.revision)]


def signatures_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    """The signing first, then amendments."""
    return db.execute(
        select(Signature.__table__)
        .where(Signature.clinic_id == actor.clinic_id, Signature.screen_id == screen_id)
        .order_by(Signature.number)
    ).all()


def waiting_late_answers(db: Connection, actor: Actor, screen_id: UUID) -> list[Row[Any]]:
    """Late answers no amendment has taken in."""
    taken = {change["id"] for row in signatures_of(db, actor, screen_id) for change in row.changes}
    return [row for row in late_answers_of(db, actor, screen_id) if str(row.id) not in taken]


def override_gate(db: Connection, actor: Actor, screen_id: UUID, gate: str, side: str, reason: str) -> None:
    """Opens a gate on a side, with a reason and the practitioner's name. Safe to repeat."""
    screen = lock_screen(db, actor, screen_id)
    if screen.signed_at is not None:
        raise Signed(screen_id)
    override = {"gate": gate, "side": side, "reason": reason, "by": actor.name}
    if override in screen.overrides:
        return
    db.execute(
        update(Screen)
        .where(Screen.clinic_id == actor.clinic_id, Screen.id == screen_id)
        .values(overrides=[*screen.overrides, override], revision=screen.revision + 1)
    )
    audit(db, actor, "override", "screen", screen_id, {"gate": gate, "side": side})


def arrange(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    arrangement_id: UUID,
    action: str,
    side: str | None,
    on: dt.date,
    note: str,
) -> None:
    """Somebody saw to an action of the reading. Safe to repeat. Raises Refused for no such action."""
    fields = {"screen_id": screen_id, "action": action, "side": side, "on": on, "note": note}
    standing = db.execute(
        select(Arrangement.__table__).where(
            Arrangement.clinic_id == actor.clinic_id, Arrangement.id == arrangement_id
        )
    ).first()
    if standing is not None:
        paths = [name for name, value in fields.items() if getattr(standing, name) != value]
        if paths:
            raise Differs("arrangement", arrangement_id, paths)
        return
    reading = reading_of(db, actor, catalogue, get_screen(db, actor, screen_id))
    if not any((item["code"], item["side"]) == (action, side) for item in reading["actions"]):
        raise Refused([Fault("action", action, f'"{action}" is no action of this reading on this side')])
    db.execute(
        insert(Arrangement).values(
            clinic_id=actor.clinic_id,
            id=arrangement_id,
            user_id=actor.user_id,
            by_name=actor.name,
            **fields,
        )
    )
    audit(db, actor, "arrange", "screen", screen_id, {"action": action})


def arrangements_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    return db.execute(
        select(Arrangement.__table__)
        .where(Arrangement.clinic_id == actor.clinic_id, Arrangement.screen_id == screen_id)
        .order_by(Arrangement.at)
    ).all()
