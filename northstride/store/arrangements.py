"""What somebody saw to: an action of a reading, who, when, how."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select

from northstride.core.catalogue import Catalogue
from northstride.core.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, Refused
from northstride.store.readings import reading_of
from northstride.store.screens import get_screen
from northstride.store.tables import Arrangement


def arrange(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    arrangement_id: UUID,
    action: str,
    side: str | None,
    on: dt.date,
    note: str,
) -> None:
    """Somebody saw to an action of the reading. Safe to repeat. Raises Refused for no such action."""
    fields = {"screen_id": screen_id, "action": action, "side": side, "on": on, "note": note}
    standing = db.execute(
        select(Arrangement.__table__).where(
            Arrangement.clinic_id == actor.clinic_id, Arrangement.id == arrangement_id
        )
    ).first()
    if standing is not None:
        paths = [name for name, value in fields.items() if getattr(standing, name) != value]
        if paths:
            raise Differs("arrangement", arrangement_id, paths)
        return
    reading = reading_of(db, actor, catalogue, get_screen(db, actor, screen_id)).reading
    if not any((item["code"], item["side"]) == (action, side) for item in reading["actions"]):
        raise Refused([Fault("action", action, f'"{action}" is no action of this reading on this side')])
    db.execute(
        insert(Arrangement).values(
            clinic_id=actor.clinic_id,
            id=arrangement_id,
            user_id=actor.user_id,
            by_name=actor.name,
            **fields,
        )
    )
    audit(db, actor, "arrange", "screen", screen_id, {"action": action})


def arrangements_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    return db.execute(
        select(Arrangement.__table__)
        .where(Arrangement.clinic_id == actor.clinic_id, Arrangement.screen_id == screen_id)
        .order_by(Arrangement.at)
    ).all()
