"""Loads the demo through the same functions users use, so it is the same at every load."""

from __future__ import annotations

import datetime as dt
import zoneinfo
from collections.abc import Iterator

from argon2 import PasswordHasher
from sqlalchemy import Connection

from northstride.api.demo_accounts import DEMO_ACCOUNTS
from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.demo.scenario import (
    CLINIC,
    JUNIORS,
    LAST_SEASON_SCREENS,
    MEMBERS,
    SEASON_SCREENS,
    SENIORS,
    TIME_ZONE,
    Hanging,
    Member,
    made_id,
)
from northstride.store.actor import Actor
from northstride.store.answers import write_answers
from northstride.store.athletes import add_athlete, add_squad, put_in_squads
from northstride.store.database import connect
from northstride.store.new_answer import NewAnswer
from northstride.store.screens import begin_screen, get_screen
from northstride.store.signatures import sign
from northstride.store.users import Passwords, add_user, create_clinic, is_set_up

TEST = "hip.modified_thomas"
SECONDS_AN_ANSWER = 9


def is_loaded(url: str) -> bool:
    engine = connect(url)
    with engine.connect() as db:
        loaded = is_set_up(db)
    engine.dispose()
    return loaded


def load_demo(url: str) -> None:
    """One transaction: the demo is there whole or not at all."""
    engine = connect(url)
    passwords = Passwords(PasswordHasher())
    catalogue = default_catalogue()
    with engine.begin() as db:
        people = _people(db, passwords)
        practitioner, assistant = people["jonas"], people["maren"]
        for squad in (JUNIORS, SENIORS):
            add_squad(db, practitioner, made_id("squad", squad), squad)
        for member in MEMBERS:
            _add_member(db, practitioner, member)
        for screen in (*LAST_SEASON_SCREENS, *SEASON_SCREENS):
            _screen(db, catalogue, passwords, practitioner, assistant, screen)
    engine.dispose()


def _people(db: Connection, passwords: Passwords) -> dict[str, Actor]:
    clinic_id = create_clinic(db, CLINIC, TIME_ZONE)
    people: dict[str, Actor] = {}
    owner: Actor | None = None
    for account in DEMO_ACCOUNTS:
        user_id = made_id("user", account.login)
        actor = Actor(clinic_id, user_id, account.name, account.role, None, TIME_ZONE)
        owner = owner or actor
        add_user(db, owner, passwords, user_id, account.login, account.name, account.role, account.password)
        people[account.login] = actor
    return people


def _add_member(db: Connection, actor: Actor, member: Member) -> None:
    fields = {
        "ref": member.ref,
        "name": member.name,
        "birth_date": dt.date.fromisoformat(member.born),
        "sex": member.sex,
        "sport": member.sport,
        "dominant_side": member.side,
        "body_mass_kg": float(member.mass),
        "height_cm": float(member.height),
    }
    add_athlete(db, actor, member.id, fields)
    put_in_squads(db, actor, member.id, [made_id("squad", member.squad)])


def _screen(
    db: Connection,
    catalogue: Catalogue,
    passwords: Passwords,
    practitioner: Actor,
    assistant: Actor,
    hanging: Hanging,
) -> None:
    """Begun by the practitioner, written by the assistant, signed by the practitioner."""
    screen_id = made_id("screen", hanging.day, hanging.number)
    athlete_id = made_id("athlete", hanging.number)
    begin_screen(db, practitioner, catalogue, screen_id, athlete_id, hanging.day, "squad_screen", {})
    answers = list(_answers(hanging))
    if answers:
        write_answers(db, assistant, catalogue, screen_id, answers, "demo")
    if not hanging.open_:
        revision = get_screen(db, practitioner, screen_id).revision
        password = next(a.password for a in DEMO_ACCOUNTS if a.login == "jonas")
        sign(db, practitioner, catalogue, passwords, screen_id, revision, password)


def _answers(hanging: Hanging) -> Iterator[NewAnswer]:
    start = dt.datetime.combine(hanging.day, dt.time(9), zoneinfo.ZoneInfo(TIME_ZONE))
    start += dt.timedelta(minutes=6 * hanging.number)
    fields = [
        *((side, f"values.{name}", value) for side, leg in _legs(hanging) for name, value in leg.items()),
        *((side, "seen", codes) for side, codes in hanging.seen.items()),
        *((side, "pain", pain) for side, pain in hanging.pain.items()),
        *((side, "note", note) for side, note in hanging.note.items()),
    ]
    for place, (side, name, value) in enumerate(fields):
        at = start + dt.timedelta(seconds=SECONDS_AN_ANSWER * place)
        key = made_id("answer", hanging.day, hanging.number, side, name)
        yield NewAnswer(key, TEST, side, name, value, observed_at=at)


def _legs(hanging: Hanging) -> list[tuple[str, dict[str, object]]]:
    return [("left", hanging.left), ("right", hanging.right)]
