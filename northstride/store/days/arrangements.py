"""What is done about the actions of a reading, step by step. Rows are added, never changed."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, fields
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import Connection, Row, insert, select

from northstride.core.catalogue import Catalogue
from northstride.core.findings import URGENT
from northstride.core.terms.errors import Fault
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused, Unarranged
from northstride.store.people.clinic_day import A_YEAR, today_of
from northstride.store.readings.readings import reading_of
from northstride.store.screens.screens import get_screen
from northstride.store.tables import Arrangement

Does = Literal["arranged", "again", "closed", "left"]
# An action of a screen: its code and side.
Of = tuple[str, str | None]


@dataclass(frozen=True, slots=True)
class Arranging:
    """A step as somebody takes it. `on` is its day, or the first of the days of a second look."""

    id: UUID
    action: str
    side: str | None
    does: Does
    on: dt.date | None = None
    until: dt.date | None = None
    at_time: str | None = None
    whom: str = ""
    note: str = ""


@dataclass(frozen=True, slots=True)
class Standing:
    """How it stands with an action: of each step the newest that nobody took back."""

    arranged: Row[Any] | None = None
    again: Row[Any] | None = None
    closed: Row[Any] | None = None
    left: Row[Any] | None = None

    @property
    def in_hand(self) -> bool:
        return self.arranged is not None or self.closed is not None


NOTHING = Standing()


def arrange(db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID, step: Arranging) -> None:
    """Takes a step. Safe to repeat. Raises Refused for no such action or a step without what it needs."""
    if _stands(db, actor, screen_id, step):
        return
    screen = get_screen(db, actor, screen_id)
    faults = [*_faults(step), *_out_of_bounds(step, screen.date, today_of(actor) + A_YEAR)]
    reading = reading_of(db, actor, catalogue, screen).reading
    if not any((item["code"], item["side"]) == (step.action, step.side) for item in reading["actions"]):
        says = f'"{step.action}" is no action of this reading on this side'
        faults.append(Fault("action", step.action, says))
    if faults:
        raise Refused(faults)
    _add(db, actor, screen_id, {field.name: getattr(step, field.name) for field in fields(step)})
    audit(db, actor, "arrange", "screen", screen_id, {"action": step.action, "does": step.does})


def undo_arrangement(db: Connection, actor: Actor, screen_id: UUID, arrangement_id: UUID, undo: UUID) -> None:
    """Takes one step back; it stays in the record. Safe to repeat. Raises NotFound, Differs."""
    get_screen(db, actor, screen_id)
    rows = {row.id: row for row in arrangements_of(db, actor, screen_id)}
    standing, taken_back = rows.get(undo), rows.get(arrangement_id)
    if standing is not None:
        if standing.undoes != arrangement_id:
            raise Differs("arrangement", undo, ["undoes"])
        return
    if taken_back is None or taken_back.does == "undone":
        raise NotFound("arrangement", arrangement_id)
    step = {"id": undo, "action": taken_back.action, "side": taken_back.side, "does": "undone", "note": ""}
    _add(db, actor, screen_id, {**step, "undoes": arrangement_id})
    audit(db, actor, "arrange", "screen", screen_id, {"action": taken_back.action, "does": "undone"})


def arrangements_of(db: Connection, actor: Actor, screen_id: UUID) -> Sequence[Row[Any]]:
    return db.execute(
        select(Arrangement.__table__)
        .where(Arrangement.clinic_id == actor.clinic_id, Arrangement.screen_id == screen_id)
        .order_by(Arrangement.at, Arrangement.id)
    ).all()


def arrangements_of_all(
    db: Connection, actor: Actor, screen_ids: Sequence[UUID]
) -> dict[tuple[UUID, str, str | None], Standing]:
    """How it stands with every action of many screens that somebody did something about."""
    rows = db.execute(
        select(Arrangement.__table__)
        .where(Arrangement.clinic_id == actor.clinic_id, Arrangement.screen_id.in_(screen_ids))
        .order_by(Arrangement.at, Arrangement.id)
    ).all()
    by_screen: dict[UUID, list[Row[Any]]] = {}
    for row in rows:
        by_screen.setdefault(row.screen_id, []).append(row)
    return {
        (screen, *of): standing
        for screen, own in by_screen.items()
        for of, standing in standing_of(own).items()
    }


def standing_of(rows: Iterable[Row[Any]]) -> dict[Of, Standing]:
    """Folds the steps of one screen, oldest first. Arranging again opens what was closed."""
    steps = list(rows)
    undone = {row.undoes for row in steps if row.does == "undone"}
    newest: dict[Of, dict[str, Row[Any]]] = {}
    for row in steps:
        if row.does == "undone" or row.id in undone:
            continue
        of = newest.setdefault((row.action, row.side), {})
        if row.does in ("arranged", "again"):
            of.pop("closed", None)
        of[row.does] = row
    return {of: Standing(**found) for of, found in newest.items()}


def check_urgent_is_seen_to(
    db: Connection, actor: Actor, screen_id: UUID, reading: Mapping[str, Any]
) -> None:
    """Raises Unarranged: what cannot wait is arranged, closed, or left with a reason before signing."""
    standing = standing_of(arrangements_of(db, actor, screen_id))
    waiting = [
        action["code"]
        for action in reading["actions"]
        if action["urgency"] in URGENT
        and (found := standing.get((action["code"], action["side"]), NOTHING)).left is None
        and not found.in_hand
    ]
    if waiting:
        raise Unarranged(waiting)


def _faults(step: Arranging) -> Iterable[Fault]:
    dated = step.does in ("arranged", "again")
    if dated and step.on is None:
        yield Fault("on", None, "needs a day")
    if step.does == "again" and step.until is None:
        yield Fault("until", None, "needs a last day")
    if step.does == "again" and step.on and step.until and step.until < step.on:
        yield Fault("until", str(step.until), "is before the first day")
    if not dated and not step.note.strip():
        yield Fault("note", step.note, "needs a reason")


def _out_of_bounds(step: Arranging, found: dt.date, last: dt.date) -> Iterable[Fault]:
    """Nothing is arranged before it was found, nor so far ahead that the year was mistyped."""
    for name in ("on", "until"):
        day = getattr(step, name)
        if day is not None and day < found:
            yield Fault(name, str(day), f"is before it was found, {found.isoformat()}")
        elif day is not None and day > last:
            yield Fault(name, str(day), "is more than a year ahead")


def _stands(db: Connection, actor: Actor, screen_id: UUID, step: Arranging) -> bool:
    """Whether this very step was taken already. Raises Differs where the id says something else."""
    standing = db.execute(
        select(Arrangement.__table__).where(
            Arrangement.clinic_id == actor.clinic_id, Arrangement.id == step.id
        )
    ).first()
    if standing is None:
        return False
    paths = [
        field.name for field in fields(step) if getattr(standing, field.name) != getattr(step, field.name)
    ]
    if standing.screen_id != screen_id:
        paths.append("screen_id")
    if paths:
        raise Differs("arrangement", step.id, paths)
    return True


def _add(db: Connection, actor: Actor, screen_id: UUID, row: Mapping[str, Any]) -> None:
    db.execute(
        insert(Arrangement).values(
            clinic_id=actor.clinic_id, screen_id=screen_id, user_id=actor.user_id, by_name=actor.name, **row
        )
    )
