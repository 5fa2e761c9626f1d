"""Screens that a table of values makes, all in one transaction."""

from __future__ import annotations

from collections.abc import Sequence
from threading import Event
from typing import Any
from uuid import UUID

from sqlalchemy import ARRAY, Connection, Uuid, any_, literal, select

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor
from northstride.store.errors import Refused
from northstride.store.people.athletes import athlete_by_ref
from northstride.store.tables import Screen
from northstride.store.transfers.record_files import import_record


def standing(db: Connection, actor: Actor, ids: Sequence[UUID]) -> set[UUID]:
    """Those of these screens that stand here already."""
    found = db.execute(
        select(Screen.id).where(
            Screen.clinic_id == actor.clinic_id, Screen.id == any_(literal(list(ids), ARRAY(Uuid)))
        )
    ).scalars()
    return set(found)


class Stopped(Exception):
    """Nobody waits for it any more."""


class TableImport:
    """Screens being written one after the other; `done` counts them. Another thread may stop it."""

    def __init__(self, drafts: Sequence[tuple[dict[str, Any], str]]) -> None:
        self._drafts = drafts
        self._stopped = Event()
        self.done = 0

    def stop(self) -> None:
        self._stopped.set()

    def run(self, db: Connection, actor: Actor, catalogue: Catalogue) -> tuple[int, int]:
        """How many screens and athletes are new. What stands already is left as it is.

        Raises InvalidRecord, Refused for an athlete nobody knows or names, or one who is archived, Stopped.
        """
        there = standing(db, actor, [UUID(raw["id"]) for raw, _ in self._drafts])
        names = {raw["athlete"]["ref"]: name for raw, name in self._drafts if name}
        screens = athletes = 0
        for number, (raw, _) in enumerate(self._drafts):
            self.done = number
            if self._stopped.is_set():
                raise Stopped
            if UUID(raw["id"]) in there:
                continue
            ref = raw["athlete"]["ref"]
            own = athlete_by_ref(db, actor, ref)
            if own is None and ref not in names:
                why = "nobody here has this reference: name the new athlete"
                raise Refused([Fault("athlete.ref", ref, why)])
            known, name = (own.id, None) if own is not None else (None, names[ref])
            import_record(db, actor, catalogue, raw, known, name)
            screens += 1
            athletes += own is None
        return screens, athletes
