"""What sheets are made from, words that were put in the place of ours, and which sheet went out when."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select
from sqlalchemy.dialects.postgresql import distinct_on

from northstride.core.catalogue import Catalogue
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs
from northstride.store.frozen import latest_signature
from northstride.store.readings import basis_of, reading_of
from northstride.store.screens import get_screen
from northstride.store.tables import SheetWords

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Standing:
    """One reading with the record it was made from. Of a signed screen both from the newest signature."""

    screen: Row[Any]
    record: Document
    reading: Document
    signed_by: str | None
    signed_at: dt.datetime | None
    number: int | None
    reason: str | None
    # What the newest amendment changed, as it was kept; None where nothing was amended or nobody kept it.
    differences: list[dict[str, Any]] | None = None


def standing_of_sheets(db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID) -> Standing:
    """Raises NotFound, Unreadable."""
    screen = get_screen(db, actor, screen_id)
    if screen.signed_at is not None:
        signed = latest_signature(db, actor, screen_id)
        said = (signed.by, signed.at, signed.number, signed.reason)
        return Standing(screen, signed.record, signed.reading, *said, signed.differences)
    shown = reading_of(db, actor, catalogue, screen)
    record = basis_of(db, actor, catalogue, screen).record
    return Standing(screen, record, shown.reading, None, None, None, None)


def words_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    """Of each field the newest, also where it took words back."""
    return db.execute(
        select(SheetWords.__table__)
        .where(SheetWords.clinic_id == actor.clinic_id, SheetWords.screen_id == screen_id)
        .ext(distinct_on(SheetWords.sheet, SheetWords.field))
        .order_by(SheetWords.sheet, SheetWords.field, SheetWords.at.desc())
    ).all()


def keep_words(
    db: Connection, actor: Actor, screen_id: UUID, key: UUID, sheet: str, field: str, value: str | None
) -> None:
    """Safe to repeat. Raises NotFound, Differs for another content under this key."""
    get_screen(db, actor, screen_id)
    said = {"screen_id": screen_id, "sheet": sheet, "field": field, "value": value}
    standing = db.execute(
        select(SheetWords.__table__).where(SheetWords.clinic_id == actor.clinic_id, SheetWords.id == key)
    ).first()
    if standing is not None:
        paths = [name for name, own in said.items() if getattr(standing, name) != own]
        if paths:
            raise Differs("words", key, paths)
        return
    by = {"clinic_id": actor.clinic_id, "user_id": actor.user_id, "by_name": actor.name}
    db.execute(insert(SheetWords).values(id=key, **said, **by))
    audit(db, actor, "word", "screen", screen_id, {"sheet": sheet, "field": field})
