"""What a clinic settles for itself: its schools, its zone, when pages lock; and what a change would alter."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection, Row, func, select, text, update

from northstride.core.catalogue import Catalogue
from northstride.record.json_text import InvalidRecord
from northstride.store.actor import Actor, audit
from northstride.store.readings.contexts import earlier_screens, read_context
from northstride.store.readings.differences import differences_by_rules
from northstride.store.readings.readings import NO_ERRORS, compute
from northstride.store.screens.screens import get_screen, open_record
from northstride.store.tables import Clinic, Screen

ON_SHEETS = ("address", "phone", "night_phone", "emergency_number")
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


def get_clinic(db: Connection, actor: Actor) -> Row[Any]:
    return db.execute(select(Clinic.__table__).where(Clinic.id == actor.clinic_id)).one()


def edit_clinic(db: Connection, actor: Actor, fields: Mapping[str, Any], *, to_open: bool) -> None:
    """Only what is given changes. `to_open` reads the screens that are open by the new schools as well."""
    changed = {name: value for name, value in fields.items() if name != "schools"}
    if fields.get("schools"):
        changed["schools"] = Clinic.schools.op("||")(_json(fields["schools"]))
    if changed:
        db.execute(update(Clinic).where(Clinic.id == actor.clinic_id).values(**changed))
    detail: dict[str, object] = {"fields": sorted(fields), "to_open": to_open}
    if fields.get("schools"):
        detail["schools"] = dict(fields["schools"])
    if to_open and fields.get("schools"):
        rows = db.execute(
            update(Screen)
            .where(Screen.clinic_id == actor.clinic_id, Screen.signed_at.is_(None))
            .values(schools=Screen.schools.op("||")(_json(fields["schools"])), revision=Screen.revision + 1)
            .returning(Screen.id)
        )
        for key in rows.scalars():
            audit(db, actor, "change schools", "screen", key, {"schools": dict(fields["schools"])})
    audit(db, actor, "edit", "clinic", actor.clinic_id, detail)


def _json(value: Mapping[str, Any]) -> Any:
    return func.jsonb_build_object(*(part for pair in value.items() for part in pair))


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
