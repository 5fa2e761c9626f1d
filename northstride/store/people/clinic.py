"""What a clinic settles for itself: its schools, its zone, when pages lock."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy import Connection, Row, func, select, update

from northstride.store.actor import Actor, audit
from northstride.store.tables import Clinic, Screen

ON_SHEETS = ("address", "phone", "night_phone", "emergency_number")


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
