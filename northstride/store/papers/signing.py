"""Signing freezes what was seen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, Row, func, insert, update

from northstride.core.catalogue import Catalogue
from northstride.record.edition import shipped
from northstride.store.actor import Actor, audit
from northstride.store.days.arrangements import check_urgent_is_seen_to
from northstride.store.errors import (
    Incomplete,
    NewerReading,
    TwoValues,
)
from northstride.store.papers.words import frozen_words, words_on_paper
from northstride.store.readings.contexts import frozen_context
from northstride.store.readings.kept import keep_signed
from northstride.store.readings.readings import NO_ERRORS, basis_of, reading_from
from northstride.store.screens.screens import get_screen, lock_screen
from northstride.store.screens.writing import clashes_of
from northstride.store.signed.frozen import FORMAT, signature_at
from northstride.store.signed.identity import Identity, changed_parts
from northstride.store.tables import Screen, Signature

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Frozen:
    """What a signature keeps."""

    record: Document
    context: Document
    reading: Document
    identity: Identity
    changes: list[Document]
    differences: list[Document]
    words: list[Document]


def sign(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, shown: Mapping[str, str]
) -> None:
    """Freezes the reading that was shown. Signing again the very reading that is signed does nothing.

    The password was asked before. Raises NewerReading with what changed since, TwoValues, Incomplete,
    Unarranged.
    """
    if lock_screen(db, actor, screen_id).signed_at is not None:
        first = signature_at(db, actor, screen_id, 0)
        if first.identity is not None and (changed := changed_parts(shown, first.identity)):
            raise NewerReading(changed)
        return
    screen = get_screen(db, actor, screen_id)
    basis = basis_of(db, actor, catalogue, screen)
    if changed := changed_parts(shown, basis.identity):
        raise NewerReading(changed)
    reading = reading_from(db, actor, catalogue, basis)
    if clashes := clashes_of(db, actor, screen_id):
        raise TwoValues(list(dict.fromkeys(each.holds.test for each in clashes)))
    if reading["coverage"]["open"]:
        raise Incomplete(reading["coverage"]["open"])
    check_urgent_is_seen_to(db, actor, screen_id, reading)
    context = frozen_context(basis.earlier, NO_ERRORS)
    freeze(
        db,
        actor,
        catalogue,
        screen,
        uuid4(),
        0,
        None,
        Frozen(
            basis.record,
            context,
            reading,
            basis.identity,
            [],
            [],
            frozen_words(words_on_paper(db, actor, screen_id, None)),
        ),
    )
    db.execute(
        update(Screen)
        .where(Screen.clinic_id == actor.clinic_id, Screen.id == screen_id)
        .values(signed_at=func.now(), signed_by=actor.user_id)
    )
    audit(db, actor, "sign", "screen", screen_id, {"revision": screen.revision})


def freeze(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen: Row[Any],
    signature_id: UUID,
    number: int,
    reason: str | None,
    frozen: Frozen,
) -> None:
    db.execute(
        insert(Signature).values(
            clinic_id=actor.clinic_id,
            screen_id=screen.id,
            number=number,
            id=signature_id,
            reason=reason,
            revision=screen.revision,
            format=FORMAT,
            identity=frozen.identity,
            differences=frozen.differences,
            record=frozen.record,
            context=frozen.context,
            reading=frozen.reading,
            changes=frozen.changes,
            words=frozen.words,
            user_id=actor.user_id,
            by_name=actor.name,
        )
    )
    signed = signature_at(db, actor, screen.id, number)
    keep_signed(db, actor.clinic_id, screen, signed, shipped(catalogue))
