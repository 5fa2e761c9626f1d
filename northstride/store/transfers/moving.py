"""A screen that was written for the wrong athlete goes to the right one, with a reason."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid5

from sqlalchemy import Connection, update

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.record.read import check_record
from northstride.store.actor import Actor, audit
from northstride.store.errors import Refused
from northstride.store.papers.amending import reread
from northstride.store.papers.signing import freeze
from northstride.store.people.athletes import get_athlete
from northstride.store.readings.contexts import earlier_screens
from northstride.store.screens.screens import clinics_part, get_screen, lock_screen
from northstride.store.signed.frozen import latest_signature
from northstride.store.tables import Measurement, Screen


def move_screen(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, athlete_id: UUID, reason: str
) -> None:
    """Safe to repeat. The password was asked before.

    What was signed stays as it is: the newest signature then names the right athlete. Raises Refused
    where the athlete was born after the screen or is archived.
    """
    screen = lock_screen(db, actor, screen_id)
    if screen.athlete_id == athlete_id:
        return
    athlete = get_athlete(db, actor, athlete_id)
    if athlete.archived_at is not None:
        why = f"{athlete.name} is archived: restore them first"
        raise Refused([Fault("athlete_id", str(athlete_id), why)])
    if athlete.birth_date is not None and athlete.birth_date > screen.date:
        why = f"{athlete.name} was born after this screen"
        raise Refused([Fault("athlete_id", str(athlete_id), why)])
    _point_to(db, actor, screen, athlete_id)
    if screen.signed_at is not None:
        _sign_again(db, actor, catalogue, screen_id, athlete_id, reason)
    told = {"changed": {"athlete": [str(screen.athlete_id), str(athlete_id)]}, "reason": reason}
    audit(db, actor, "move", "screen", screen_id, told)


def _point_to(db: Connection, actor: Actor, screen: Any, athlete_id: UUID) -> None:
    """Lists and trends of both athletes are right at once."""
    # The file's athlete is the wrong one too: the clinic's own row speaks from now on.
    values: dict[str, Any] = {"athlete_id": athlete_id}
    if screen.signed_at is None:
        values |= {"athlete_part": None, "revision": screen.revision + 1}
    db.execute(
        update(Screen).where(Screen.clinic_id == actor.clinic_id, Screen.id == screen.id).values(**values)
    )
    db.execute(
        update(Measurement)
        .where(Measurement.clinic_id == actor.clinic_id, Measurement.screen_id == screen.id)
        .values(athlete_id=athlete_id)
    )


def _sign_again(
    db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, athlete_id: UUID, reason: str
) -> None:
    screen = get_screen(db, actor, screen_id)
    last = latest_signature(db, actor, screen_id)
    record = {**last.record, "athlete": clinics_part(screen)}
    # Earlier screens of the wrong athlete are no baseline for the right one.
    earlier = earlier_screens(db, actor, catalogue, screen)
    was = check_record(last.record, catalogue)
    frozen = reread(db, actor, catalogue, last, was, record, [], earlier=earlier)
    signature_id = uuid5(last.id, f"move to {athlete_id}")
    freeze(db, actor, catalogue, screen, signature_id, last.number + 1, reason, frozen)
