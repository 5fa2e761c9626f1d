"""Screens that a table of values makes, all in one transaction."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, select

from northstride.core.catalogue import Catalogue
from northstride.core.errors import Fault
from northstride.store.actor import Actor
from northstride.store.athletes import athlete_by_ref
from northstride.store.errors import Refused
from northstride.store.record_files import import_record
from northstride.store.tables import Screen


def standing(db: Connection, actor: Actor, ids: Sequence[UUID]) -> set[UUID]:
    """Those of these screens that stand here already."""
    found = db.execute(
        select(Screen.id).where(Screen.clinic_id == actor.clinic_id, Screen.id.in_(ids))
    ).scalars()
    return set(found)


def take(
    db: Connection, actor: Actor, catalogue: Catalogue, drafts: Sequence[tuple[dict[str, Any], str]]
) -> tuple[int, int]:
    """How many screens and athletes are new. What stands already is left as it is.

    Raises InvalidRecord, Refused for an athlete nobody knows or names, or one who is archived.
    """
    there = standing(db, actor, [UUID(raw["id"]) for raw, _ in drafts])
    names = {raw["athlete"]["ref"]: name for raw, name in drafts if name}
    screens = athletes = 0
    for raw, _ in drafts:
        if UUID(raw["id"]) in there:
            continue
        ref = raw["athlete"]["ref"]
        own = athlete_by_ref(db, actor, ref)
        if own is None and ref not in names:
            raise Refused([Fault("athlete.ref", ref, "nobody here has this reference: name the new athlete")])
        known, name = (own.id, None) if own is not None else (None, names[ref])
        import_record(db, actor, catalogue, raw, known, name)
        screens += 1
        athletes += own is None
    return screens, athletes
