"""Words a practitioner put in the place of ours: free until they are signed, then frozen.

Later ones make a new version of the paper, under their own name. What is asked and what is to be done
belong to the reading: once signed, only an amendment words them anew.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select

from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, Refused
from northstride.store.screens.screens import lock_screen
from northstride.store.signed.frozen import Signed
from northstride.store.tables import SheetWords, Signature

# By sheet: what is asked of a colleague, and what the athlete is told to do.
OF_THE_READING = frozenset(
    {("letter", "asked"), ("letter", "until_then"), ("athlete", "to_do"), ("athlete", "come_back")}
)


class NewWords(NamedTuple):
    """`value` none gives the field back to our own words."""

    sheet: str
    field: str
    value: str | None


@dataclass(frozen=True, slots=True)
class Words:
    """What stands in a field and who put it there. `later`: after the screen was signed."""

    sheet: str
    field: str
    value: str | None
    by: str
    at: dt.datetime
    later: bool

    @property
    def place(self) -> tuple[str, str]:
        return (self.sheet, self.field)


@dataclass(frozen=True, slots=True)
class PaperWords:
    """What stands on a paper. `version` counts up with each change after signing; `last` made it."""

    standing: tuple[Words, ...]
    version: int
    last: Words | None


def words_on_paper(db: Connection, actor: Actor, screen_id: UUID, signed: Signed | None) -> PaperWords:
    """Of an open screen what was put there last; of a signed one what was frozen, and what came later."""
    rows = _rows(db, actor, screen_id)
    if signed is None:
        return PaperWords(_newest(_words(row, later=False) for row in rows), 1, None)
    later = [_words(row, later=True) for row in rows if _came_later(row, signed)]
    frozen = [*_frozen(rows, signed)]
    return PaperWords(_newest([*frozen, *later]), 1 + len(later), later[-1] if later else None)


def _rows(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    return db.execute(
        select(SheetWords.__table__)
        .where(SheetWords.clinic_id == actor.clinic_id, SheetWords.screen_id == screen_id)
        .order_by(SheetWords.at, SheetWords.id)
    ).all()


def _words(row: Row[Any], *, later: bool) -> Words:
    return Words(row.sheet, row.field, row.value, row.by_name, row.at, later)


def _came_later(row: Row[Any], signed: Signed) -> bool:
    """Words that name no signature are from before those were named: their time tells."""
    if (row.sheet, row.field) in OF_THE_READING:
        return False
    if row.signature is not None:
        return bool(row.signature == signed.number)
    return signed.words is None and row.at > signed.at


def _frozen(rows: Iterable[Row[Any]], signed: Signed) -> list[Words]:
    if signed.words is None:
        return [_words(row, later=False) for row in rows if row.at <= signed.at]
    return [
        Words(
            each["sheet"],
            each["field"],
            each["value"],
            each["by"],
            dt.datetime.fromisoformat(each["at"]),
            later=False,
        )
        for each in signed.words
    ]


def _newest(words: Iterable[Words]) -> tuple[Words, ...]:
    """The last of each field; none where it was taken back."""
    by_place = {each.place: each for each in words}
    return tuple(each for each in by_place.values() if each.value is not None)


def frozen_words(words: PaperWords) -> list[dict[str, Any]]:
    """As a signature keeps them."""
    return [
        {
            "sheet": each.sheet,
            "field": each.field,
            "value": each.value,
            "by": each.by,
            "at": each.at.isoformat(),
        }
        for each in words.standing
    ]


def amended_words(
    words: PaperWords, new: Sequence[NewWords], by: str, at: dt.datetime, *, same_reading: bool
) -> list[dict[str, Any]]:
    """Words that go on under an amendment. What is asked is worded anew where the reading changed."""
    kept = [each for each in words.standing if same_reading or each.place not in OF_THE_READING]
    own = [Words(*each, by=by, at=at, later=False) for each in new]
    return frozen_words(PaperWords(_newest([*kept, *own]), 1, None))


def keep_words(
    db: Connection, actor: Actor, screen_id: UUID, key: UUID, new: NewWords, *, proved: bool
) -> None:
    """Safe to repeat. `proved`: the password was asked again, which words on a signed paper need.

    Raises NotFound, Refused, Differs for another content under this key.
    """
    screen = lock_screen(db, actor, screen_id)
    if _stands(db, actor, screen_id, key, new):
        return
    number = None
    if screen.signed_at is not None:
        if (new.sheet, new.field) in OF_THE_READING:
            why = "belongs to what was signed: an amendment words it anew"
            raise Refused([Fault("field", new.field, why)])
        if not proved:
            why = "this screen is signed: your password puts the words on a new version of the paper"
            raise Refused([Fault("password", None, why)])
        number = _newest_number(db, actor, screen_id)
    by = {"clinic_id": actor.clinic_id, "user_id": actor.user_id, "by_name": actor.name}
    db.execute(
        insert(SheetWords).values(id=key, screen_id=screen_id, signature=number, **new._asdict(), **by)
    )
    told: dict[str, object] = {"sheet": new.sheet, "field": new.field}
    audit(db, actor, "word", "screen", screen_id, told if number is None else {**told, "signature": number})


def _stands(db: Connection, actor: Actor, screen_id: UUID, key: UUID, new: NewWords) -> bool:
    standing = db.execute(
        select(SheetWords.__table__).where(SheetWords.clinic_id == actor.clinic_id, SheetWords.id == key)
    ).first()
    if standing is None:
        return False
    said = {"screen_id": screen_id, **new._asdict()}
    paths = [name for name, own in said.items() if getattr(standing, name) != own]
    if paths:
        raise Differs("words", key, paths)
    return True


def _newest_number(db: Connection, actor: Actor, screen_id: UUID) -> int:
    number: int = db.execute(
        select(Signature.number)
        .where(Signature.clinic_id == actor.clinic_id, Signature.screen_id == screen_id)
        .order_by(Signature.number.desc())
        .limit(1)
    ).scalar_one()
    return number
