"""What leaves the clinic: whose screens, and the trail of who took which form of what away when."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, select

from northstride.store.actor import Actor, audit
from northstride.store.people.athletes import get_athlete
from northstride.store.people.squads import get_squad
from northstride.store.tables import Athlete, Audit, Screen, SquadMember, User

WENT_OUT = "hand over"
MOST_WENT = 40


def went_out(
    db: Connection, actor: Actor, noun: str, noun_id: UUID, form: str, **more: str | int | bool
) -> None:
    """Who took which form of it away; of a screen also whether it was a draft."""
    audit(db, actor, WENT_OUT, noun, noun_id, {"form": form, **more})


def where_it_went(
    db: Connection, actor: Actor, screen_id: UUID
) -> Sequence[Row[dt.datetime, Any | None, str]]:
    """The newest first."""
    return db.execute(
        select(Audit.at, Audit.detail, User.name.label("by"))
        .join(User, (User.clinic_id == Audit.clinic_id) & (User.id == Audit.user_id))
        .where(
            Audit.clinic_id == actor.clinic_id,
            Audit.noun == "screen",
            Audit.noun_id == screen_id,
            Audit.verb == WENT_OUT,
        )
        .order_by(Audit.id.desc())
        .limit(MOST_WENT)
    ).all()


def screens_of_athlete(db: Connection, actor: Actor, athlete_id: UUID) -> Sequence[Row[Any]]:
    """Id and athlete of each, the oldest first. Raises NotFound."""
    get_athlete(db, actor, athlete_id)
    return db.execute(_screens(actor).where(Screen.athlete_id == athlete_id)).all()


def screens_of_squad(db: Connection, actor: Actor, squad_id: UUID) -> Sequence[Row[Any]]:
    """Athlete by athlete, of those who are not archived. Raises NotFound."""
    get_squad(db, actor, squad_id)
    members = select(SquadMember.athlete_id).where(
        SquadMember.clinic_id == actor.clinic_id, SquadMember.squad_id == squad_id
    )
    return db.execute(
        _screens(actor).where(Screen.athlete_id.in_(members), Athlete.archived_at.is_(None))
    ).all()


def _screens(actor: Actor) -> Any:
    """Never anybody's of another clinic."""
    return (
        select(Screen.id, Screen.date, Screen.athlete_id, Athlete.ref, Athlete.name)
        .join(Athlete, (Athlete.clinic_id == Screen.clinic_id) & (Athlete.id == Screen.athlete_id))
        .where(Screen.clinic_id == actor.clinic_id)
        .order_by(Athlete.ref, Athlete.id, Screen.date, Screen.id)
    )
