"""A second device taken along: a code that works once, for two minutes, while its maker is signed in."""

from __future__ import annotations

import datetime as dt
import secrets
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select, text

from northstride.store.access.sessions import Begun, begin_session
from northstride.store.actor import Actor, audit
from northstride.store.errors import NotFound, PairingRefused
from northstride.store.screens.screens import get_screen
from northstride.store.secret_hash import hashed
from northstride.store.tables import Clinic, Pairing, SignIn, User

LIVES = dt.timedelta(minutes=2)

# Used by being taken: two hands at once cannot both have it.
OPENS = """
    p.code_hash = :code_hash AND p.used_at IS NULL AND p.created_at > now() - :lives
      AND s.clinic_id = p.clinic_id AND s.id = p.session_id AND s.ended_at IS NULL
      AND c.id = p.clinic_id AND s.last_seen_at > now() - c.idle_minutes * interval '1 minute'
"""
TAKE = text(
    f"""
    UPDATE pairings p SET used_at = now() FROM sessions s, clinics c WHERE {OPENS}
    RETURNING p.clinic_id, p.user_id, p.screen_id, coalesce(s.maker, s.id) AS session_id
    """  # noqa: S608  our own constant
)
WHOSE = text(
    f"""
    SELECT u.name, c.name AS clinic_name FROM pairings p, sessions s, clinics c, users u
    WHERE {OPENS} AND u.clinic_id = p.clinic_id AND u.id = p.user_id AND u.archived_at IS NULL
    """  # noqa: S608  our own constant
)


@dataclass(frozen=True, slots=True)
class Taken:
    """The second device's own session, and the screen it was made for."""

    begun: Begun
    screen_id: UUID | None


def make_pairing(db: Connection, actor: Actor, pairing_id: UUID, screen_id: UUID | None) -> str:
    """The code, which is kept nowhere. Raises NotFound for a screen this clinic does not have."""
    if screen_id is not None:
        get_screen(db, actor, screen_id)
    code = secrets.token_urlsafe(24)
    db.execute(
        insert(Pairing).values(
            clinic_id=actor.clinic_id,
            id=pairing_id,
            user_id=actor.user_id,
            session_id=actor.session_id,
            screen_id=screen_id,
            code_hash=hashed(code),
        )
    )
    audit(db, actor, "pair", "session", actor.session_id)
    return code


def is_used(db: Connection, actor: Actor, pairing_id: UUID) -> bool:
    """Whether a device came with the code of one's own. Raises NotFound."""
    row = db.execute(
        select(Pairing.used_at).where(
            Pairing.clinic_id == actor.clinic_id,
            Pairing.id == pairing_id,
            Pairing.user_id == actor.user_id,
        )
    ).first()
    if row is None:
        raise NotFound("pairing", pairing_id)
    return row.used_at is not None


def whose_pairing(db: Connection, code: str) -> Row[Any]:
    """Whom a code would let in as, and where. Raises PairingRefused as taking it does."""
    found = db.execute(WHOSE, {"code_hash": hashed(code), "lives": LIVES}).first()
    if found is None:
        raise PairingRefused
    return found


def take_pairing(db: Connection, code: str) -> Taken:
    """Begins the second device's session. Raises PairingRefused: unknown, used, too old, its maker gone."""
    taken = db.execute(TAKE, {"code_hash": hashed(code), "lives": LIVES}).first()
    if taken is None:
        raise PairingRefused
    row = db.execute(
        select(
            User.__table__,
            Clinic.name.label("clinic_name"),
            Clinic.time_zone,
            Clinic.idle_minutes,
        )
        .join(Clinic, Clinic.id == User.clinic_id)
        .where(User.clinic_id == taken.clinic_id, User.id == taken.user_id, User.archived_at.is_(None))
    ).first()
    if row is None:
        raise PairingRefused
    maker = db.execute(
        select(SignIn.id, SignIn.created_at).where(
            SignIn.clinic_id == taken.clinic_id, SignIn.id == taken.session_id
        )
    ).one()
    return Taken(begin_session(db, row, maker), taken.screen_id)
