"""What another school would alter in the screens that are open now."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection, Row, text

from northstride.core.catalogue import Catalogue
from northstride.record.json_text import InvalidRecord
from northstride.store.actor import Actor
from northstride.store.readings.contexts import earlier_screens, read_context
from northstride.store.readings.differences import differences_by_rules
from northstride.store.readings.readings import NO_ERRORS, compute
from northstride.store.screens.screens import get_screen, open_record

MOST_PREVIEWED = 60
# What is open now, the newest first.
OPEN_NOW = text(
    "SELECT id FROM screens WHERE clinic_id = :clinic AND signed_at IS NULL ORDER BY date DESC LIMIT :most"
)


@dataclass(frozen=True, slots=True)
class Altered:
    """An open screen that would read otherwise; `differences` None where it cannot be read."""

    screen: Row[Any]
    differences: list[dict[str, Any]] | None


def altered_by(
    db: Connection, actor: Actor, catalogue: Catalogue, schools: Mapping[str, Any]
) -> tuple[int, Sequence[Altered]]:
    """How many open screens were looked at, and those that would read otherwise. Writes nothing."""
    ids = list(db.execute(OPEN_NOW, {"clinic": actor.clinic_id, "most": MOST_PREVIEWED}).scalars())
    found = [_altered(db, actor, catalogue, get_screen(db, actor, key), schools) for key in ids]
    return len(ids), [each for each in found if each.differences is None or each.differences]


def _altered(
    db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any], schools: Mapping[str, Any]
) -> Altered:
    record = open_record(db, actor, catalogue, screen)
    earlier = earlier_screens(db, actor, catalogue, screen)
    context = read_context(db, actor, catalogue, earlier, NO_ERRORS)
    other = {**record, "schools": {**record.get("schools", {}), **schools}}
    try:
        now, then = (compute(catalogue, each, context) for each in (record, other))
    except InvalidRecord:
        return Altered(screen, None)
    return Altered(screen, differences_by_rules(now, then))
