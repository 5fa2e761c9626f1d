"""Clinics, users, sessions and the throttle on signing in."""

from __future__ import annotations

import datetime as dt
import hashlib
import secrets
from dataclasses import dataclass
from functools import lru_cache
from typing import cast
from uuid import UUID, uuid4

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from sqlalchemy import Connection, delete, func, insert, select, text, update

from northstride.core.errors import Fault
from northstride.store.actor import Actor, Role, audit
from northstride.store.errors import (
    AlreadySetUp,
    Differs,
    NotFound,
    Refused,
    SignInRefused,
    Throttled,
    WrongPassword,
)
from northstride.store.tables import Clinic, SignIn, SignInFailure, User

IDLE = dt.timedelta(hours=2)
LONGEST = dt.timedelta(hours=12)
# Often enough to keep a session alive, seldom enough that reading writes nothing.
TOUCH_EVERY = dt.timedelta(minutes=1)

FAILURES_ALLOWED = 5
FAILURES_ALLOWED_FROM_ONE_PLACE = 50
FAILURE_WINDOW = dt.timedelta(minutes=15)

SETUP_LOCK = 8600


@dataclass(frozen=True, slots=True)
class Passwords:
    """argon2id; the cost is the library's own unless a test lowers it."""

    hasher: PasswordHasher

    def hash(self, password: str) -> str:
        return self.hasher.hash(password)

    def match(self, hashed: str, password: str) -> bool:
        try:
            return self.hasher.verify(hashed, password)
        except (VerificationError, InvalidHashError):
            return False

    @property
    def nobody(self) -> str:
        return _nobody(self)


@lru_cache
def _nobody(passwords: Passwords) -> str:
    """A hash no password matches, so that an unknown name takes as long as a wrong password."""
    return passwords.hash(secrets.token_urlsafe(16))


@dataclass(frozen=True, slots=True)
class Begun:
    """A fresh session. The token goes to the cookie and is kept nowhere else."""

    token: str
    csrf: str
    actor: Actor
    clinic_name: str


@dataclass(frozen=True, slots=True)
class Running:
    actor: Actor
    csrf: str
    clinic_name: str
    login: str


def _now(db: Connection) -> dt.datetime:
    now: dt.datetime = db.execute(select(func.clock_timestamp())).scalar_one()
    return now


def _hashed(value: str) -> str:
    return hashlib.sha256(value.encode()).hexdigest()


def is_set_up(db: Connection) -> bool:
    return db.execute(select(User.id).limit(1)).first() is not None


def create_clinic(db: Connection, name: str, time_zone: str) -> UUID:
    clinic_id = uuid4()
    db.execute(insert(Clinic).values(id=clinic_id, name=name, time_zone=time_zone, schools={}))
    return clinic_id


def set_up(
    db: Connection, passwords: Passwords, clinic: str, time_zone: str, login: str, name: str, password: str
) -> Actor:
    """The first clinic and its owner. Raises AlreadySetUp when anyone stands already."""
    db.execute(text("SELECT pg_advisory_xact_lock(:lock)"), {"lock": SETUP_LOCK})
    if is_set_up(db):
        raise AlreadySetUp
    clinic_id = create_clinic(db, clinic, time_zone)
    user_id = uuid4()
    actor = Actor(clinic_id, user_id, name, "owner", None, time_zone)
    add_user(db, actor, passwords, user_id, login, name, "owner", password)
    return actor


def add_user(
    db: Connection,
    actor: Actor,
    passwords: Passwords,
    user_id: UUID,
    login: str,
    name: str,
    role: Role,
    password: str,
) -> UUID:
    """Safe to repeat. Raises Refused where the login is taken, Differs for another content."""
    login = login.strip().lower()
    standing = db.execute(
        select(User.login, User.name, User.role).where(User.clinic_id == actor.clinic_id, User.id == user_id)
    ).first()
    if standing is not None:
        asked = {"login": login, "name": name, "role": role}
        paths = [key for key, value in asked.items() if getattr(standing, key) != value]
        if paths:
            raise Differs("user", user_id, paths)
        return user_id
    if db.execute(select(User.id).where(User.login == login)).first() is not None:
        raise Refused([Fault("login", login, f'"{login}" is taken')])
    db.execute(
        insert(User).values(
            clinic_id=actor.clinic_id,
            id=user_id,
            login=login,
            name=name,
            role=role,
            password_hash=passwords.hash(password),
        )
    )
    audit(db, actor, "add", "user", user_id, {"role": role})
    return user_id


def list_users(db: Connection, actor: Actor) -> list[User]:
    rows = db.execute(select(User.__table__).where(User.clinic_id == actor.clinic_id).order_by(User.name))
    return cast(list[User], rows.all())


def archive_user(db: Connection, actor: Actor, user_id: UUID, *, archived: bool) -> None:
    """Closes an account and its sessions, or opens it again."""
    changed = db.execute(
        update(User)
        .where(User.clinic_id == actor.clinic_id, User.id == user_id)
        .values(archived_at=func.now() if archived else None)
        .returning(User.id)
    ).first()
    if changed is None:
        raise NotFound("user", user_id)
    if archived:
        db.execute(
            update(SignIn)
            .where(SignIn.clinic_id == actor.clinic_id, SignIn.user_id == user_id)
            .values(ended_at=func.now())
        )
    audit(db, actor, "archive" if archived else "restore", "user", user_id)


def check_throttle(db: Connection, login: str, address: str) -> None:
    """Raises Throttled. Counts by name and by address, each on its own."""
    since = _now(db) - FAILURE_WINDOW
    for key, allowed in _throttle_keys(login, address):
        counted = db.execute(
            select(func.count(), func.min(SignInFailure.at)).where(
                SignInFailure.key == key, SignInFailure.at > since
            )
        ).one()
        if counted[0] >= allowed:
            wait = counted[1] + FAILURE_WINDOW - _now(db)
            raise Throttled(max(1, int(wait.total_seconds())))


def note_failure(db: Connection, login: str, address: str) -> None:
    db.execute(delete(SignInFailure).where(SignInFailure.at < _now(db) - FAILURE_WINDOW))
    db.execute(insert(SignInFailure), [{"key": key} for key, _ in _throttle_keys(login, address)])


def _throttle_keys(login: str, address: str) -> list[tuple[str, int]]:
    return [
        (_hashed(f"login {login.strip().lower()}"), FAILURES_ALLOWED),
        (_hashed(f"address {address}"), FAILURES_ALLOWED_FROM_ONE_PLACE),
    ]


def sign_in(db: Connection, passwords: Passwords, login: str, password: str) -> Begun:
    """Raises SignInRefused, the same for an unknown name as for a wrong password."""
    login = login.strip().lower()
    row = db.execute(
        select(User.__table__, Clinic.name.label("clinic_name"), Clinic.time_zone)
        .join(Clinic, Clinic.id == User.clinic_id)
        .where(User.login == login, User.archived_at.is_(None))
    ).first()
    if not passwords.match(row.password_hash if row else passwords.nobody, password) or row is None:
        raise SignInRefused
    token, csrf, session_id = secrets.token_urlsafe(32), secrets.token_urlsafe(24), uuid4()
    db.execute(
        insert(SignIn).values(
            clinic_id=row.clinic_id,
            id=session_id,
            user_id=row.id,
            token_hash=_hashed(token),
            csrf=csrf,
        )
    )
    db.execute(delete(SignInFailure).where(SignInFailure.key == _throttle_keys(login, "")[0][0]))
    actor = Actor(row.clinic_id, row.id, row.name, row.role, session_id, row.time_zone)
    audit(db, actor, "sign in", "session", session_id)
    return Begun(token, csrf, actor, row.clinic_name)


# Asked at every request, so it is built once.
RUNNING = text(
    """
    SELECT s.clinic_id, s.id, s.csrf, u.id AS user_id, u.login, u.name, u.role, c.name AS clinic_name,
           c.time_zone, now() - s.last_seen_at > :touch_every AS touch
    FROM sessions s
    JOIN users u ON u.clinic_id = s.clinic_id AND u.id = s.user_id
    JOIN clinics c ON c.id = s.clinic_id
    WHERE s.token_hash = :token_hash AND s.ended_at IS NULL AND u.archived_at IS NULL
      AND s.created_at > now() - :longest AND s.last_seen_at > now() - :idle
    """
)


def running_session(db: Connection, token: str) -> Running | None:
    """None for a token that is unknown, ended, idle too long or too old."""
    limits = {"touch_every": TOUCH_EVERY, "longest": LONGEST, "idle": IDLE}
    row = db.execute(RUNNING, {"token_hash": _hashed(token), **limits}).first()
    if row is None:
        return None
    if row.touch:
        db.execute(
            update(SignIn)
            .where(SignIn.clinic_id == row.clinic_id, SignIn.id == row.id)
            .values(last_seen_at=func.now())
        )
    actor = Actor(row.clinic_id, row.user_id, row.name, row.role, row.id, row.time_zone)
    return Running(actor, row.csrf, row.clinic_name, row.login)


def end_session(db: Connection, actor: Actor) -> None:
    db.execute(
        update(SignIn)
        .where(SignIn.clinic_id == actor.clinic_id, SignIn.id == actor.session_id)
        .values(ended_at=func.now())
    )
    audit(db, actor, "sign out", "session", actor.session_id)


def check_password_again(db: Connection, actor: Actor, passwords: Passwords, password: str) -> None:
    """Raises WrongPassword. Signing asks again, so that an open screen is not a signature."""
    row = db.execute(
        select(User.password_hash).where(User.clinic_id == actor.clinic_id, User.id == actor.user_id)
    ).first()
    if row is None or not passwords.match(row.password_hash, password):
        raise WrongPassword
