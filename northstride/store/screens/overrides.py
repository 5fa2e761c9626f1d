"""A gate opened on a side by somebody who may, with a reason and their name."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import Connection, update

from northstride.store.actor import Actor, audit
from northstride.store.errors import Signed
from northstride.store.screens.screens import lock_screen
from northstride.store.tables import Screen


def override_gate(db: Connection, actor: Actor, screen_id: UUID, gate: str, side: str, reason: str) -> None:
    """Opens a gate on a side, with a reason and the practitioner's name. Safe to repeat."""
    screen = lock_screen(db, actor, screen_id)
    if screen.signed_at is not None:
        raise Signed(screen_id)
    override = {"gate": gate, "side": side, "reason": reason, "by": actor.name}
    if override in screen.overrides:
        return
    db.execute(
        update(Screen)
        .where(Screen.clinic_id == actor.clinic_id, Screen.id == screen_id)
        .values(overrides=[*screen.overrides, override], revision=screen.revision + 1)
    )
    audit(db, actor, "override", "screen", screen_id, {"gate": gate, "side": side})
