"""Where others are at a screen just now. Devices say it themselves; it is forgotten within the hour."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import Connection, Row, text

from northstride.store.actor import Actor
from northstride.store.screens.screens import get_screen

Step = Literal["story", "route", "bench", "reading", "sheet"]
# Twice as long as a device may be silent between two words of it.
STILL_HERE_SECONDS = 12

SAY = text(
    """
    INSERT INTO presence (clinic_id, screen_id, device, user_id, step, test, side, seen_at)
    VALUES (:clinic, :screen, :device, :user, :step, :test, :side, clock_timestamp())
    ON CONFLICT (clinic_id, screen_id, device) DO UPDATE
    SET user_id = excluded.user_id, step = excluded.step, test = excluded.test, side = excluded.side,
        seen_at = excluded.seen_at
    """
)
FORGET = text("DELETE FROM presence WHERE seen_at < now() - interval '1 hour'")
OTHERS = text(
    """
    SELECT p.device, u.name, p.step, p.test, p.side FROM presence p
    JOIN users u ON u.clinic_id = p.clinic_id AND u.id = p.user_id
    WHERE p.clinic_id = :clinic AND p.screen_id = :screen AND p.device <> :device
      AND p.seen_at > now() - :still_here * interval '1 second'
    ORDER BY u.name, p.device
    """
)


@dataclass(frozen=True, slots=True)
class Whereabouts:
    """A device at a place of a screen."""

    device: str
    step: Step
    test: str | None = None
    side: str | None = None


def say_where(db: Connection, actor: Actor, screen_id: UUID, at: Whereabouts) -> None:
    """Raises NotFound."""
    get_screen(db, actor, screen_id)
    place = {"clinic": actor.clinic_id, "screen": screen_id, "device": at.device}
    db.execute(SAY, {**place, "user": actor.user_id, "step": at.step, "test": at.test, "side": at.side})
    db.execute(FORGET)


def others_at(db: Connection, actor: Actor, screen_id: UUID, device: str) -> Sequence[Row[Any]]:
    """Who else is there, by name; `device` is the one that asks."""
    asked = {"clinic": actor.clinic_id, "screen": screen_id, "device": device}
    return db.execute(OTHERS, {**asked, "still_here": STILL_HERE_SECONDS}).all()
