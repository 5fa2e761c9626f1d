"""The clinic's own people, and the first of them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import Connection, Row, func, insert, select, text, update

from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, Role, audit
from northstride.store.days.calendar import end_feeds_of
from northstride.store.errors import AlreadySetUp, Differs, NotFound, Refused
from northstride.store.tables import Clinic, SignIn, User

SETUP_LOCK = 8600


def is_set_up(db: Connection) -> bool:
    return db.execute(select(User.id).limit(1)).first() is not None


def create_clinic(db: Connection, name: str, time_zone: str) -> UUID:
    clinic_id = uuid4()
    db.execute(insert(Clinic).values(id=clinic_id, name=name, time_zone=time_zone, schools={}))
    return clinic_id


def set_up(db: Connection, clinic: str, time_zone: str, login: str, name: str, password_hash: str) -> Actor:
    """The first clinic and its owner. Raises AlreadySetUp when anyone stands already."""
    db.execute(text("SELECT pg_advisory_xact_lock(:lock)"), {"lock": SETUP_LOCK})
    if is_set_up(db):
        raise AlreadySetUp
    clinic_id = create_clinic(db, clinic, time_zone)
    user_id = uuid4()
    actor = Actor(clinic_id, user_id, name, "owner", None, time_zone)
    add_user(db, actor, user_id, login, name, "owner", password_hash)
    return actor


def add_user(
    db: Connection,
    actor: Actor,
    user_id: UUID,
    login: str,
    name: str,
    role: Role,
    password_hash: str,
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
            password_hash=password_hash,
        )
    )
    audit(db, actor, "add", "user", user_id, {"role": role})
    return user_id


def list_users(db: Connection, actor: Actor) -> Sequence[Row[Any]]:
    return db.execute(
        select(User.__table__).where(User.clinic_id == actor.clinic_id).order_by(User.name)
    ).all()


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
        end_feeds_of(db, actor, user_id)
    audit(db, actor, "archive" if archived else "restore", "user", user_id)
