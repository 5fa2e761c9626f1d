"""Days to come, and the secret addresses at which a calendar may ask for them."""

from __future__ import annotations

import datetime as dt
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, func, insert, select, update

from northstride.store.actor import Actor, audit
from northstride.store.days.arrangements import NOTHING, arrangements_of_all
from northstride.store.days.day import due_of_calendar
from northstride.store.errors import Differs, NotFound
from northstride.store.secret_hash import hashed
from northstride.store.tables import Arrangement, CalendarFeed, Clinic, User


@dataclass(frozen=True, slots=True)
class Due:
    """An action of a screen with the days it has: `row` as it was found, then what was arranged."""

    row: Row[Any]
    on: dt.date
    until: dt.date
    at_time: str | None
    whom: str
    changes: int
    changed_at: dt.datetime


def dates_of(db: Connection, actor: Actor, screen_id: UUID | None = None) -> list[Due]:
    """Of every open action that has days, of one screen or all, the soonest first."""
    rows = due_of_calendar(db, actor, screen_id)
    screens = list({row.screen_id for row in rows})
    standing = arrangements_of_all(db, actor, screens)
    steps = _steps(db, actor, screens)
    found = []
    for row in rows:
        of = (row.screen_id, row.code, row.side)
        count, last = steps.get(of, (0, None))
        days = _days(row, standing.get(of, NOTHING))
        if days is not None:
            on, until, at_time, whom = days
            # What is told after the finding counts on, so that an event never goes back.
            changed = last or row.found_at
            found.append(Due(row, on, until, at_time, whom, row.revision + count, changed))
    return sorted(found, key=lambda due: (due.on, due.until, str(due.row.screen_id), due.row.code))


def _days(row: Row[Any], standing: Any) -> tuple[dt.date, dt.date, str | None, str] | None:
    """What was booked comes before a window somebody set, and that before the one that was found."""
    if standing.arranged is not None:
        booked = standing.arranged
        return booked.on, booked.on, booked.at_time, booked.whom
    if standing.again is not None:
        return standing.again.on, standing.again.until, None, ""
    if row.start is not None and row.end is not None:
        return row.start, row.end, None, ""
    return None


def _steps(
    db: Connection, actor: Actor, screens: Sequence[UUID]
) -> dict[tuple[UUID, str, str | None], tuple[int, dt.datetime]]:
    """How many steps were taken about each action, and when the last."""
    by = (Arrangement.screen_id, Arrangement.action, Arrangement.side)
    rows = db.execute(
        select(*by, func.count().label("count"), func.max(Arrangement.at).label("last"))
        .where(Arrangement.clinic_id == actor.clinic_id, Arrangement.screen_id.in_(screens))
        .group_by(*by)
    ).all()
    return {(row.screen_id, row.action, row.side): (row._mapping["count"], row.last) for row in rows}


def feed_of(db: Connection, actor: Actor) -> Row[Any] | None:
    """The user's own, None where there is none. Its address is kept nowhere."""
    return db.execute(
        select(CalendarFeed.__table__).where(
            CalendarFeed.clinic_id == actor.clinic_id,
            CalendarFeed.user_id == actor.user_id,
            CalendarFeed.revoked_at.is_(None),
        )
    ).first()


def make_feed(db: Connection, actor: Actor, feed_id: UUID, *, named: bool) -> str:
    """The secret of a new address; the one before opens nothing any more. Raises Differs for an id twice."""
    standing = db.execute(
        select(CalendarFeed.id).where(CalendarFeed.clinic_id == actor.clinic_id, CalendarFeed.id == feed_id)
    ).first()
    if standing is not None:
        raise Differs("calendar", feed_id, ["id"])
    _revoke(db, actor, actor.user_id)
    secret = secrets.token_urlsafe(32)
    db.execute(
        insert(CalendarFeed).values(
            clinic_id=actor.clinic_id,
            id=feed_id,
            user_id=actor.user_id,
            secret_hash=hashed(secret),
            named=named,
        )
    )
    audit(db, actor, "make", "calendar", feed_id, {"named": named})
    return secret


def revoke_feed(db: Connection, actor: Actor) -> None:
    """Safe to repeat."""
    for feed_id in _revoke(db, actor, actor.user_id):
        audit(db, actor, "revoke", "calendar", feed_id)


def end_feeds_of(db: Connection, actor: Actor, user_id: UUID) -> None:
    """With an account its addresses end for good: opened again, it makes new ones."""
    for feed_id in _revoke(db, actor, user_id):
        audit(db, actor, "revoke", "calendar", feed_id)


def _revoke(db: Connection, actor: Actor, user_id: UUID) -> Sequence[UUID]:
    return (
        db.execute(
            update(CalendarFeed)
            .where(
                CalendarFeed.clinic_id == actor.clinic_id,
                CalendarFeed.user_id == user_id,
                CalendarFeed.revoked_at.is_(None),
            )
            .values(revoked_at=func.now())
            .returning(CalendarFeed.id)
        )
        .scalars()
        .all()
    )


@dataclass(frozen=True, slots=True)
class Asking:
    """Whoever an address was made for. `named`: they chose that names may stand in it."""

    actor: Actor
    feed_id: UUID
    named: bool
    clinic: str


def who_asks(db: Connection, secret: str) -> Asking:
    """Raises NotFound alike for an unknown, a revoked, and a former user's address."""
    row = db.execute(
        update(CalendarFeed)
        .where(
            CalendarFeed.secret_hash == hashed(secret),
            CalendarFeed.revoked_at.is_(None),
            User.clinic_id == CalendarFeed.clinic_id,
            User.id == CalendarFeed.user_id,
            User.archived_at.is_(None),
            User.role.in_(("owner", "practitioner")),
            Clinic.id == CalendarFeed.clinic_id,
        )
        .values(read_at=func.now())
        .returning(
            CalendarFeed.clinic_id,
            CalendarFeed.id,
            CalendarFeed.named,
            CalendarFeed.user_id,
            User.name,
            User.role,
            Clinic.time_zone,
            Clinic.name.label("clinic"),
        )
    ).first()
    if row is None:
        raise NotFound("calendar", UUID(int=0))
    actor = Actor(row.clinic_id, row.user_id, row.name, row.role, None, row.time_zone)
    return Asking(actor, row.id, row.named, row.clinic)
