"""Screens: begin, find, read as an open record."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, Select, func, insert, select, text

from northstride.core.catalogue import Catalogue
from northstride.core.route import plan_for
from northstride.core.terms.errors import Fault
from northstride.record.model import FORMAT, VERSION
from northstride.record.read import check_record
from northstride.store.actor import Actor, audit
from northstride.store.answers.folding import AnswerRow, FoldedEntry, entries_json, fold
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.people.athletes import get_athlete
from northstride.store.people.clinic_day import after_tomorrow
from northstride.store.tables import Answer, Athlete, Clinic, Screen

ANSWER_COLUMNS = (
    Answer.id,
    Answer.revision,
    Answer.test,
    Answer.entry_id,
    Answer.entry_side,
    Answer.key,
    Answer.side,
    Answer.field,
    Answer.value,
    Answer.by_name,
    Answer.observed_at,
    Answer.observed_zone,
    Answer.device,
    func.coalesce(Answer.seen_at, Answer.recorded_at).label("seen_at"),
    Answer.beside,
    Answer.clash,
)
ATHLETE_COLUMNS = tuple(
    getattr(Athlete, name).label(f"athlete_{name}")
    for name in (
        "ref",
        "name",
        "birth_date",
        "sex",
        "sport",
        "dominant_side",
        "body_mass_kg",
        "height_cm",
        "archived_at",
        "revision",
    )
)


def begin_screen(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    screen_id: UUID,
    athlete_id: UUID,
    date: dt.date,
    purpose: str,
    schools: Mapping[str, Any],
    planned: Sequence[str] = (),
) -> None:
    """Safe to repeat. Plans `planned`, or what the purpose asks for. Raises Differs for another content.

    Read by the clinic's schools, and by `schools` where this screen is to be read otherwise.
    """
    asked = {"athlete_id": athlete_id, "date": date, "purpose": purpose}
    standing = db.execute(
        select(Screen.athlete_id, Screen.date, Screen.purpose, Screen.begun_with).where(
            Screen.clinic_id == actor.clinic_id, Screen.id == screen_id
        )
    ).first()
    begun_with = {"planned": list(planned), "schools": dict(schools)}
    if standing is not None:
        paths = [name for name, value in asked.items() if getattr(standing, name) != value]
        # What was asked at the beginning, not what stands: the plan may have changed since.
        asked_then = standing.begun_with or begun_with
        paths += [name for name, value in begun_with.items() if asked_then[name] != value]
        if paths:
            raise Differs("screen", screen_id, paths)
        return
    athlete = get_athlete(db, actor, athlete_id)
    if athlete.archived_at is not None:
        why = "this athlete is archived: restore them first"
        raise Refused([Fault("athlete_id", str(athlete_id), why)])
    if (still_to_come := after_tomorrow(actor, date)) is not None:
        raise Refused([Fault("date", date.isoformat(), still_to_come)])
    if athlete.birth_date is not None and athlete.birth_date > date:
        raise Refused([Fault("date", date.isoformat(), f"{date.isoformat()} is before the birth date")])
    unknown = [(at, code) for at, code in enumerate(planned) if code not in catalogue.tests]
    if unknown:
        raise Refused(
            [Fault(f"planned[{at}]", code, "is not a test in the catalogue") for at, code in unknown]
        )
    own_plan = list(dict.fromkeys(planned))
    read_by = {**_schools_of_clinic(db, actor), **schools}
    db.execute(
        insert(Screen).values(
            clinic_id=actor.clinic_id,
            id=screen_id,
            examiner=actor.name,
            schools=read_by,
            planned=own_plan or _plan(catalogue, screen_id, athlete.ref, date, purpose, read_by),
            overrides=[],
            begun_with=begun_with,
            created_by=actor.user_id,
            **asked,
        )
    )
    audit(db, actor, "begin", "screen", screen_id)


def _schools_of_clinic(db: Connection, actor: Actor) -> dict[str, Any]:
    """What the clinic chose, without defaults: the screen keeps it, whatever is chosen later."""
    found: dict[str, Any] = db.execute(
        select(Clinic.schools).where(Clinic.id == actor.clinic_id)
    ).scalar_one()
    return found


def _plan(
    catalogue: Catalogue,
    screen_id: UUID,
    ref: str,
    date: dt.date,
    purpose: str,
    schools: Mapping[str, Any],
) -> list[str]:
    """By purpose and schools: of a screen just begun nothing else is known."""
    record = {
        "format": FORMAT,
        "version": VERSION,
        "id": str(screen_id),
        "date": date.isoformat(),
        "purpose": purpose,
        "athlete": {"ref": ref},
        "schools": dict(schools),
        "entries": [],
    }
    return plan_for(check_record(record, catalogue).exam, catalogue)


def screen_query(actor: Actor, screen_id: UUID) -> Select[Any]:
    return (
        select(Screen.__table__, *ATHLETE_COLUMNS)
        .join(Athlete, (Athlete.clinic_id == Screen.clinic_id) & (Athlete.id == Screen.athlete_id))
        .where(Screen.clinic_id == actor.clinic_id, Screen.id == screen_id)
    )


def get_screen(db: Connection, actor: Actor, screen_id: UUID) -> Row[Any]:
    found = db.execute(screen_query(actor, screen_id)).first()
    if found is None:
        raise NotFound("screen", screen_id)
    return found


# Asked at every write, so it is built once.
LOCK = text(
    "SELECT clinic_id, id, athlete_id, date, created_at, revision, signed_at, overrides FROM screens"
    " WHERE clinic_id = :clinic AND id = :screen FOR UPDATE"
)


def lock_screen(db: Connection, actor: Actor, screen_id: UUID) -> Row[Any]:
    """The row, held until the end of the transaction: writes to one screen queue up."""
    found = db.execute(LOCK, {"clinic": actor.clinic_id, "screen": screen_id}).first()
    if found is None:
        raise NotFound("screen", screen_id)
    return found


def answers_of(
    db: Connection, actor: Actor, screen_id: UUID, test: str | None = None, after: int = 0
) -> list[AnswerRow]:
    """In order of revision: all of a screen, or of one test, or what came after a revision."""
    query = select(*ANSWER_COLUMNS).where(
        Answer.clinic_id == actor.clinic_id, Answer.screen_id == screen_id, Answer.revision > after
    )
    if test is not None:
        query = query.where(Answer.test == test)
    return [AnswerRow._make(row) for row in db.execute(query.order_by(Answer.revision))]


def list_screens(db: Connection, actor: Actor, athlete_id: UUID) -> Sequence[Row[Any]]:
    """An athlete's screens, newest first."""
    get_athlete(db, actor, athlete_id)
    return db.execute(
        select(Screen.__table__)
        .where(Screen.clinic_id == actor.clinic_id, Screen.athlete_id == athlete_id)
        .order_by(Screen.date.desc(), Screen.created_at.desc())
    ).all()


def record_json(screen: Row[Any], entries: Sequence[FoldedEntry]) -> dict[str, Any]:
    """The screen as it stands, in the open format."""
    record: dict[str, Any] = {
        "format": FORMAT,
        "version": VERSION,
        "id": str(screen.id),
        "date": screen.date.isoformat(),
        "purpose": screen.purpose,
        "athlete": _athlete_part(screen),
    }
    for name in ("examiner", "schools", "intake"):
        value = getattr(screen, name)
        if value:
            record[name] = value
    record["planned"] = screen.planned
    if screen.left_out:
        record["left_out"] = screen.left_out
    if screen.reasons_after is not None:
        record["reasons_after"] = screen.reasons_after
    record["entries"] = entries_json(entries)
    if screen.consent is not None:
        record["consent"] = screen.consent
    record["overrides"] = screen.overrides
    return record


def clinics_part(screen: Row[Any]) -> dict[str, Any]:
    """The athlete as the clinic knows them."""
    part = {
        "ref": screen.athlete_ref,
        "birth_date": screen.athlete_birth_date.isoformat() if screen.athlete_birth_date else None,
        "sex": screen.athlete_sex,
        "sport": screen.athlete_sport,
        "dominant_side": screen.athlete_dominant_side,
        "body_mass_kg": screen.athlete_body_mass_kg,
        "height_cm": screen.athlete_height_cm,
    }
    return {name: value for name, value in part.items() if value is not None}


def _athlete_part(screen: Row[Any]) -> dict[str, Any]:
    """Of an imported screen as its file wrote them, else as the clinic knows them.

    Who they are the clinic knows best: a birth date put right there is right everywhere.
    """
    known = clinics_part(screen)
    if screen.athlete_part is None:
        return known
    who = {name: known[name] for name in ("ref", "birth_date", "sex") if name in known}
    return {**screen.athlete_part, **who}


def open_record(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> dict[str, Any]:
    """An open screen as it stands. What is signed is read from its signature."""
    return record_json(screen, fold(answers_of(db, actor, screen.id), catalogue))
