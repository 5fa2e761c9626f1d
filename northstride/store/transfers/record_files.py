"""The open record in and out: a file carries a screen from one clinic to another."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid5

from sqlalchemy import Connection, Row, insert, select

from northstride import CAUTION
from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.record.model import AthletePart, Record
from northstride.record.read import check_record
from northstride.store.actor import Actor, audit
from northstride.store.answers.folding import EntryPlace, FoldedEntry, differing_paths, fold
from northstride.store.answers.measurements import replace_measurements
from northstride.store.answers.unfolding import normal, rows_of
from northstride.store.errors import Differs, NotThisPerson, Refused
from northstride.store.people.athletes import add_athlete, athlete_by_ref
from northstride.store.people.clinic_day import after_tomorrow
from northstride.store.screens.screens import get_screen, lock_screen
from northstride.store.screens.writing import append_rows
from northstride.store.signed.records import current_record
from northstride.store.tables import Screen
from northstride.store.transfers.exports import went_out

# Who a file is about. What disagrees in any of these is about somebody else.
WHO = ("birth_date", "sex")


@dataclass(frozen=True, slots=True)
class Checked:
    """A file as it would be taken: whose it is, and what stands here already.

    `athlete` is the clinic's athlete of the file's reference, None where one would be made.
    """

    record: Record
    athlete: Row[Any] | None
    stands: bool


def export_record(db: Connection, actor: Actor, catalogue: Catalogue, screen_id: UUID) -> dict[str, Any]:
    """The screen as an open record, with the line that says what it is not."""
    screen = get_screen(db, actor, screen_id)
    record = current_record(db, actor, catalogue, screen)
    status = "draft" if screen.signed_at is None else "signed"
    went_out(db, actor, "screen", screen_id, "record, JSON", status=status)
    head = {name: record[name] for name in ("format", "version")}
    return {**head, "notice": CAUTION, **record}


def check_file(db: Connection, actor: Actor, catalogue: Catalogue, raw: object) -> Checked:
    """Whose file this is and whether it can be taken. Writes nothing.

    Raises InvalidRecord with all faults, Differs with the paths where a different one of this id
    stands, NotThisPerson where it contradicts the athlete of its reference, Refused.
    """
    record = check_record(raw, catalogue).record
    standing = db.execute(
        select(Screen.id).where(Screen.clinic_id == actor.clinic_id, Screen.id == record.id)
    ).first()
    if standing is not None:
        _check_identical(db, actor, catalogue, record)
    athlete = athlete_by_ref(db, actor, record.athlete.ref)
    if standing is None and (why := after_tomorrow(actor, record.date)):
        raise Refused([Fault("date", record.date.isoformat(), why)])
    if athlete is not None and standing is None:
        _check_person(record.athlete, athlete)
    return Checked(record, athlete, standing is not None)


def _check_person(part: AthletePart, athlete: Row[Any]) -> None:
    """Raises NotThisPerson, Refused for an archived athlete."""
    told = {name: (getattr(part, name), getattr(athlete, name)) for name in WHO}
    apart = {
        name: (str(file), str(here))
        for name, (file, here) in told.items()
        if file is not None and here is not None and file != here
    }
    if apart:
        raise NotThisPerson(athlete.name, part.ref, apart)
    if athlete.archived_at is not None:
        why = f"{athlete.name} is archived: restore them first"
        raise Refused([Fault("athlete.ref", part.ref, why)])


def import_record(
    db: Connection, actor: Actor, catalogue: Catalogue, raw: object, confirmed: UUID | None, name: str | None
) -> tuple[UUID, bool]:
    """The screen's id, and whether it is new. An identical record does nothing.

    `confirmed` is the clinic's athlete the importer was shown and took it for; None with `name` makes a
    new athlete of that name. Raises what `check_file` does, Differs where it is about somebody else now.
    """
    checked = check_file(db, actor, catalogue, raw)
    record = checked.record
    if checked.stands:
        return record.id, False
    athlete_id = _athlete(db, actor, checked, confirmed, name)
    document = normal(record)
    db.execute(
        insert(Screen).values(
            clinic_id=actor.clinic_id,
            id=record.id,
            athlete_id=athlete_id,
            date=record.date,
            purpose=record.purpose,
            examiner=record.examiner,
            schools=document.get("schools", {}),
            intake=document.get("intake"),
            planned=document.get("planned", []),
            left_out=document.get("left_out", []),
            reasons_after=document.get("reasons_after"),
            consent=document.get("consent"),
            overrides=document.get("overrides", []),
            athlete_part=document["athlete"],
            from_file=True,
            created_by=actor.user_id,
        )
    )
    screen = lock_screen(db, actor, record.id)
    rows = rows_of(catalogue, record, document)
    if rows:
        append_rows(db, actor, catalogue, screen, [], rows, "import", "import")
        replace_measurements(db, actor.clinic_id, _superseded(fold(rows, catalogue)))
    else:
        audit(db, actor, "import", "screen", record.id)
    return record.id, True


def _athlete(
    db: Connection, actor: Actor, checked: Checked, confirmed: UUID | None, name: str | None
) -> UUID:
    """The athlete who was shown and confirmed, or the new one that was."""
    part = checked.record.athlete
    if checked.athlete is not None:
        athlete_id: UUID = checked.athlete.id
        if confirmed != athlete_id:
            raise Differs("athlete", athlete_id, ["athlete"])
        return athlete_id
    if confirmed is not None or name is None:
        why = "nobody here has this reference: name the new athlete"
        raise Refused([Fault("name", name, why)])
    # Made from screen and person, so that a repeated import meets its own.
    athlete_id = uuid5(checked.record.id, f"athlete {part.ref}")
    add_athlete(db, actor, athlete_id, {**part.model_dump(), "name": name})
    return athlete_id


def _check_identical(db: Connection, actor: Actor, catalogue: Catalogue, record: Record) -> None:
    screen = get_screen(db, actor, record.id)
    own = current_record(db, actor, catalogue, screen)
    if screen.athlete_part is not None:
        # What the clinic learnt about the athlete since does not make it another file.
        own = {**own, "athlete": screen.athlete_part}
    paths = differing_paths(normal(check_record(own, catalogue).record), normal(record))
    if paths:
        raise Differs("screen", record.id, paths)


def _superseded(entries: list[FoldedEntry]) -> list[UUID]:
    """Answers of entries a later one of the same place replaced; what records nothing replaces none."""
    last: dict[EntryPlace, FoldedEntry] = {}
    gone: list[UUID] = []
    for entry in entries:
        if entry.place in last and entry.done:
            gone += [row.id for row in last[entry.place].standing.values()]
        if entry.place not in last or entry.done:
            last[entry.place] = entry
    return gone
