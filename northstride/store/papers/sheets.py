"""What sheets are made from: one reading, its record, and the words that stand on its paper."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row

from northstride.core.catalogue import Catalogue
from northstride.store.actor import Actor
from northstride.store.papers.words import PaperWords, words_on_paper
from northstride.store.readings.readings import basis_of, reading_of
from northstride.store.screens.screens import get_screen
from northstride.store.signed.frozen import latest_signature

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
    words: PaperWords
    # What the newest amendment changed, as it was kept; None where nothing was amended or nobody kept it.
    differences: list[dict[str, Any]] | None = None


def standing_of_sheets(db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID) -> Standing:
    """Raises NotFound, Unreadable."""
    screen = get_screen(db, actor, screen_id)
    if screen.signed_at is not None:
        signed = latest_signature(db, actor, screen_id)
        said = (signed.by, signed.at, signed.number, signed.reason)
        words = words_on_paper(db, actor, screen_id, signed)
        return Standing(screen, signed.record, signed.reading, *said, words, signed.differences)
    shown = reading_of(db, actor, catalogue, screen)
    record = basis_of(db, actor, catalogue, screen).record
    words = words_on_paper(db, actor, screen_id, None)
    return Standing(screen, record, shown.reading, None, None, None, None, words)
