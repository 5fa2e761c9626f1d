"""Who read and wrote what, for owners: newest first, a page at a time."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import Connection, Row, text

from northstride.store.actor import Actor
from northstride.store.people.athletes import get_athlete
from northstride.store.screens.screens import get_screen

Noun = Literal["athlete", "screen"]
MOST = 200
# Of an athlete also what concerns their screens.
TRAIL = """
    SELECT a.id, a.at, a.verb, a.noun, a.noun_id, a.detail, u.name AS by_name
    FROM audit a LEFT JOIN users u ON u.clinic_id = a.clinic_id AND u.id = a.user_id
    WHERE a.clinic_id = :clinic AND a.id < :before AND {whose}
    ORDER BY a.id DESC LIMIT :most
"""
OF_SCREEN = text(TRAIL.format(whose="a.noun = 'screen' AND a.noun_id = :key"))
OF_ATHLETE = text(
    TRAIL.format(
        whose="""(a.noun = 'athlete' AND a.noun_id = :key OR a.noun = 'screen' AND a.noun_id IN (
          SELECT id FROM screens WHERE clinic_id = :clinic AND athlete_id = :key))"""
    )
)


def trail_of(db: Connection, actor: Actor, noun: Noun, key: UUID, before: int) -> Sequence[Row[Any]]:
    """Raises NotFound for what this clinic does not have."""
    if noun == "screen":
        get_screen(db, actor, key)
    else:
        get_athlete(db, actor, key)
    asked = {"clinic": actor.clinic_id, "key": key, "before": before, "most": MOST}
    return db.execute(OF_SCREEN if noun == "screen" else OF_ATHLETE, asked).all()
