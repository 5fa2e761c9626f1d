"""Loads the demo through the same functions users use, so it is the same at every load of a day."""

from __future__ import annotations

import datetime as dt
import zoneinfo
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from argon2 import PasswordHasher
from sqlalchemy import Connection

from northstride.api.demo_accounts import DEMO_ACCOUNTS
from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.demo.cases import cases
from northstride.demo.moving import moved
from northstride.demo.scenario import (
    CLINIC,
    JUNIORS,
    MASTERS,
    MEMBERS,
    REFERENCE,
    SENIORS,
    TIME_ZONE,
    Member,
    made_id,
)
from northstride.demo.screen import DemoScreen
from northstride.demo.squads import squad_screens
from northstride.record.facts import facts_of
from northstride.record.model import FORMAT
from northstride.record.read import check_record
from northstride.store.access.passwords import Passwords
from northstride.store.access.users import add_user, create_clinic, is_set_up
from northstride.store.actor import Actor
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.answers.unfolding import normal, rows_of
from northstride.store.database import connect
from northstride.store.days.arrangements import Arranging, arrange
from northstride.store.papers.signing import sign
from northstride.store.people.athletes import add_athlete
from northstride.store.people.clinic import edit_clinic
from northstride.store.people.squads import add_squad, put_in_squads
from northstride.store.readings.readings import basis_of, reading_of
from northstride.store.screens.screens import begin_screen, get_screen
from northstride.store.screens.writing import write_answers

SECONDS_AN_ANSWER = 9
AT_ONCE = 100


@dataclass(frozen=True)
class Loader:
    """Who writes: begun and signed by the practitioner, written by the assistant."""

    db: Connection
    catalogue: Catalogue
    practitioner: Actor
    assistant: Actor
    today: dt.date


def is_loaded(url: str) -> bool:
    engine = connect(url)
    with engine.connect() as db:
        loaded = is_set_up(db)
    engine.dispose()
    return loaded


def load_demo(url: str, today: dt.date | None = None) -> None:
    """One transaction: the demo is there whole or not at all. `today` is the club's unless named."""
    engine = connect(url)
    day = today or dt.datetime.now(zoneinfo.ZoneInfo(TIME_ZONE)).date()
    with engine.begin() as db:
        people = _people(db, Passwords(PasswordHasher()))
        load = Loader(db, default_catalogue(), people["jonas"], people["maren"], day)
        for squad in (JUNIORS, SENIORS, MASTERS):
            add_squad(db, load.practitioner, made_id("squad", squad), squad)
        for member in MEMBERS:
            _add_member(load, member)
        for screen in (*squad_screens(), *cases()):
            _write(load, screen)
    engine.dispose()


# Numbers nobody has.
ON_SHEETS = {
    "address": "4 Hut Lane, Tarnholt",
    "phone": "555 0142",
    "night_phone": "555 0199",
    "emergency_number": "112",
}


def _people(db: Connection, passwords: Passwords) -> dict[str, Actor]:
    clinic_id = create_clinic(db, CLINIC, TIME_ZONE)
    people: dict[str, Actor] = {}
    owner: Actor | None = None
    for account in DEMO_ACCOUNTS:
        user_id = made_id("user", account.login)
        actor = Actor(clinic_id, user_id, account.name, account.role, None, TIME_ZONE)
        owner = owner or actor
        hashed = passwords.hash(account.password)
        add_user(db, owner, user_id, account.login, account.name, account.role, hashed)
        people[account.login] = actor
    if owner is not None:
        edit_clinic(db, owner, ON_SHEETS, to_open=False)
    return people


def _add_member(load: Loader, member: Member) -> None:
    fields = {
        "ref": member.ref,
        "name": member.name,
        # Ages stay what they are in the story, whatever year it is.
        "birth_date": dt.date.fromisoformat(member.born) + (load.today - REFERENCE),
        "sex": member.sex,
        "sport": member.sport,
        "dominant_side": member.side,
        "body_mass_kg": float(member.mass),
        "height_cm": float(member.height),
    }
    add_athlete(load.db, load.practitioner, member.id, fields)
    put_in_squads(load.db, load.practitioner, member.id, [made_id("squad", member.squad)], seen=1)


def _write(load: Loader, demo: DemoScreen) -> None:
    db, catalogue, me = load.db, load.catalogue, load.practitioner
    key = made_id(demo.slug, demo.days_ago, demo.member.number)
    day = load.today - dt.timedelta(days=demo.days_ago)
    head = {"format": FORMAT, "version": 1, "id": str(key), "athlete": {"ref": demo.member.ref}}
    record = moved({**demo.record, **head}, day)
    begin_screen(db, me, catalogue, key, demo.member.id, day, record["purpose"], {})
    answers = list(_answers(load, key, record, day))
    for first in range(0, len(answers), AT_ONCE):
        write_answers(db, load.assistant, catalogue, key, answers[first : first + AT_ONCE], "demo")
    for number, step in enumerate(demo.done):
        _arrange(load, key, number, step, day)
    if not demo.open:
        sign(db, me, catalogue, key, basis_of(db, me, catalogue, get_screen(db, me, key)).identity)


def _answers(load: Loader, key: UUID, record: dict[str, Any], day: dt.date) -> Iterator[NewAnswer]:
    """Told first, then examined, one after the other, as the assistant wrote it down."""
    told = [(*place, value) for place, value in facts_of(record).items()]
    checked = check_record(record, load.catalogue).record
    rows = rows_of(load.catalogue, checked, normal(checked))
    seen = [(row.test, row.side or row.entry_side, row.key, row.field, row.value) for row in rows]
    zone, length = zoneinfo.ZoneInfo(TIME_ZONE), len(told) + len(seen)
    nine = dt.datetime.combine(day, dt.time(9), zone)
    # Early in the morning today's screens are of this night: nothing is seen before it was.
    start = min(nine, dt.datetime.now(zone) - dt.timedelta(seconds=SECONDS_AN_ANSWER * length))
    for place, (test, side, own, name, value) in enumerate((*told, *seen)):
        at = start + dt.timedelta(seconds=SECONDS_AN_ANSWER * place)
        answer_id = made_id("answer", key, test, side, own, name)
        yield NewAnswer(answer_id, test, side, name, value, own, observed_at=at)


def _arrange(load: Loader, key: UUID, number: int, step: Mapping[str, Any], day: dt.date) -> None:
    """What was done about the actions of an urgency; one date is enough for several exercises."""
    db, me = load.db, load.practitioner
    on, until = (day + dt.timedelta(step[name]) if name in step else None for name in ("on", "until"))
    words = {name: step[name] for name in ("at_time", "whom", "note") if name in step}
    reading = reading_of(db, me, load.catalogue, get_screen(db, me, key)).reading
    actions = [action for action in reading["actions"] if action["urgency"] == step["urgency"]]
    for action in actions[:1] if step["urgency"] == "train" else actions:
        step_id = made_id("step", key, number, action["code"], action["side"])
        taken = Arranging(step_id, action["code"], action["side"], step["does"], on, until, **words)
        arrange(db, me, load.catalogue, key, taken)
