"""Sessions: begun with a password, kept alive by use, ended by leaving, idling or age."""

from __future__ import annotations

import datetime as dt
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, Row, func, insert, select, text, update

from northstride.store.actor import Actor, audit
from northstride.store.secret_hash import hashed
from northstride.store.tables import Clinic, SignIn, User

LONGEST = dt.timedelta(hours=12)
# Often enough to keep a session alive, seldom enough that reading writes nothing.
TOUCH_EVERY = dt.timedelta(seconds=30)


@dataclass(frozen=True, slots=True)
class Running:
    actor: Actor
    csrf: str
    clinic_name: str
    login: str
    idle_minutes: int
    seal_key: str


@dataclass(frozen=True, slots=True)
class Begun:
    """A fresh session. Its token and the device's go to cookies and are kept nowhere else."""

    token: str
    device: str
    running: Running


def who_signs_in(db: Connection, login: str) -> Row[Any] | None:
    """The open account of a name, with its password hash; None where there is none."""
    return db.execute(
        select(User.__table__, Clinic.name.label("clinic_name"), Clinic.time_zone, Clinic.idle_minutes)
        .join(Clinic, Clinic.id == User.clinic_id)
        .where(User.login == login.strip().lower(), User.archived_at.is_(None))
    ).first()


def known_device(db: Connection, row: Row[Any], device: str | None) -> str | None:
    """The hash of a device this person has signed in on before; None for any other."""
    if device is None:
        return None
    device_hash = hashed(device)
    found = db.execute(
        select(SignIn.id)
        .where(SignIn.clinic_id == row.clinic_id, SignIn.user_id == row.id, SignIn.device_hash == device_hash)
        .limit(1)
    ).first()
    return device_hash if found is not None else None


def refused_sign_in(db: Connection, row: Row[Any] | None) -> None:
    """In the audit of the clinic whose account was tried; of a name nobody has there is none to keep it."""
    if row is None:
        # As long a way as for a name that somebody has.
        db.execute(text("SELECT 1"))
        return
    actor = Actor(row.clinic_id, row.id, row.name, row.role, None, row.time_zone)
    audit(db, actor, "refuse sign in", "session")


def begin_session(db: Connection, row: Row[Any], maker: Row[UUID, dt.datetime] | None = None) -> Begun:
    """For whom `who_signs_in` found, after the password matched.

    `maker`: of a second device the session that took it along. It is as old as that one, and ends with it.
    """
    token, csrf, session_id = secrets.token_urlsafe(32), secrets.token_urlsafe(24), uuid4()
    device = secrets.token_urlsafe(24)
    db.execute(
        insert(SignIn).values(
            clinic_id=row.clinic_id,
            id=session_id,
            user_id=row.id,
            token_hash=hashed(token),
            csrf=csrf,
            device_hash=hashed(device),
            **({"maker": maker.id, "created_at": maker.created_at} if maker is not None else {}),
        )
    )
    actor = Actor(row.clinic_id, row.id, row.name, row.role, session_id, row.time_zone)
    audit(db, actor, "sign in", "session", session_id)
    return Begun(
        token, device, Running(actor, csrf, row.clinic_name, row.login, row.idle_minutes, row.seal_key)
    )


# Asked at every request, so it is built once.
RUNNING = text(
    """
    SELECT s.clinic_id, s.id, s.csrf, u.id AS user_id, u.login, u.name, u.role, u.seal_key,
           c.name AS clinic_name, c.time_zone, c.idle_minutes, now() - s.last_seen_at > :touch_every AS touch
    FROM sessions s
    JOIN users u ON u.clinic_id = s.clinic_id AND u.id = s.user_id
    JOIN clinics c ON c.id = s.clinic_id
    WHERE s.token_hash = :token_hash AND s.ended_at IS NULL AND u.archived_at IS NULL
      AND s.created_at > now() - :longest
      AND s.last_seen_at > now() - c.idle_minutes * interval '1 minute'
    """
)


def running_session(db: Connection, token: str, *, use: bool) -> Running | None:
    """None for a token that is unknown, ended, idle too long or too old.

    `use` keeps it alive: what a page asks by itself is none.
    """
    asked = {"token_hash": hashed(token), "touch_every": TOUCH_EVERY, "longest": LONGEST}
    row = db.execute(RUNNING, asked).first()
    if row is None:
        return None
    if use and row.touch:
        db.execute(
            update(SignIn)
            .where(SignIn.clinic_id == row.clinic_id, SignIn.id == row.id)
            .values(last_seen_at=func.now())
        )
    actor = Actor(row.clinic_id, row.user_id, row.name, row.role, row.id, row.time_zone)
    return Running(actor, row.csrf, row.clinic_name, row.login, row.idle_minutes, row.seal_key)


def end_session(db: Connection, actor: Actor, *, locked: bool = False) -> None:
    """One's own, and with it those of the devices it took along; a lock closes this device alone."""
    own = SignIn.id == actor.session_id
    whose = own if locked else own | (SignIn.maker == actor.session_id)
    db.execute(
        update(SignIn)
        .where(SignIn.clinic_id == actor.clinic_id, SignIn.ended_at.is_(None), whose)
        .values(ended_at=func.now())
    )
    audit(db, actor, "lock" if locked else "sign out", "session", actor.session_id)


def sessions_of(db: Connection, actor: Actor) -> Sequence[Row[Any]]:
    """One's own that run: the oldest first, each before those of the devices it took along."""
    asked = {"clinic": actor.clinic_id, "user": actor.user_id, "longest": LONGEST}
    return db.execute(OWN, asked).all()


OWN = text(
    """
    SELECT s.id, s.created_at, s.last_seen_at, s.maker
    FROM sessions s JOIN clinics c ON c.id = s.clinic_id
    WHERE s.clinic_id = :clinic AND s.user_id = :user AND s.ended_at IS NULL
      AND s.created_at > now() - :longest
      AND s.last_seen_at > now() - c.idle_minutes * interval '1 minute'
    ORDER BY s.created_at, coalesce(s.maker, s.id), s.maker IS NOT NULL, s.last_seen_at
    """
)


def own_password_hash(db: Connection, actor: Actor) -> str:
    """For asking again: an open screen is not a signature."""
    found: str = db.execute(
        select(User.password_hash).where(User.clinic_id == actor.clinic_id, User.id == actor.user_id)
    ).scalar_one()
    return found
