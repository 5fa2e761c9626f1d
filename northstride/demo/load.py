"""Loads the demo through the same functions users use, so it is the same at every load."""

from __future__ import annotations

import datetime as dt
import zoneinfo
from collections.abc import Iterator
from typing import Any

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
    Member,
    Screened,
    Standing,
    made_id,
)
from northstride.store.actor import Actor
from northstride.store.answers import write_answers
from northstride.store.athletes import add_athlete
from northstride.store.database import connect
from northstride.store.new_answer import NewAnswer
from northstride.store.passwords import Passwords
from northstride.store.readings import basis_of
from northstride.store.screens import begin_screen, get_screen
from northstride.store.signatures import sign
from northstride.store.squads import add_squad, put_in_squads
from northstride.store.users import add_user, create_clinic, is_set_up

TEST = "hip.modified_thomas"
GAIT, LUNGE, SQUAT = "hip.gait", "ankle.lunge", "hip.squat"
# Test, side, field and value of one answer.
Field = tuple[str, str | None, str, Any]
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
            _screen(db, catalogue, practitioner, assistant, screen)
    engine.dispose()


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
    put_in_squads(db, actor, member.id, [made_id("squad", member.squad)], seen=1)


def _screen(
    db: Connection,
    catalogue: Catalogue,
    practitioner: Actor,
    assistant: Actor,
    screened: Screened,
) -> None:
    """Begun by the practitioner, written by the assistant, signed by the practitioner."""
    screen_id = made_id("screen", screened.day, screened.number)
    athlete_id = made_id("athlete", screened.number)
    begin_screen(db, practitioner, catalogue, screen_id, athlete_id, screened.day, "squad_screen", {})
    answers = list(_answers(screened))
    if answers:
        write_answers(db, assistant, catalogue, screen_id, answers, "demo")
    if not screened.open_:
        shown = basis_of(db, practitioner, catalogue, get_screen(db, practitioner, screen_id)).identity
        sign(db, practitioner, catalogue, screen_id, shown)


def _answers(screened: Screened) -> Iterator[NewAnswer]:
    start = dt.datetime.combine(screened.day, dt.time(9), zoneinfo.ZoneInfo(TIME_ZONE))
    start += dt.timedelta(minutes=6 * screened.number)
    for place, (test, side, name, value) in enumerate((*_standing(screened.standing), *_hanging(screened))):
        at = start + dt.timedelta(seconds=SECONDS_AN_ANSWER * place)
        key = made_id("answer", screened.day, screened.number, test, side, name)
        yield NewAnswer(key, test, side, name, value, observed_at=at)


def _hanging(screened: Screened) -> Iterator[Field]:
    legs = (("left", screened.left), ("right", screened.right))
    yield from ((TEST, side, f"values.{name}", value) for side, leg in legs for name, value in leg.items())
    for name, given in (("seen", screened.seen), ("pain", screened.pain), ("note", screened.note)):
        yield from ((TEST, side, name, value) for side, value in given.items())


def _standing(standing: Standing | None) -> Iterator[Field]:
    if standing is None:
        return
    yield GAIT, None, "values.pattern", [standing.gait]
    yield LUNGE, "left", "values.distance", standing.left
    yield LUNGE, "right", "values.distance", standing.right
    yield SQUAT, None, "values.depth", standing.depth
    yield SQUAT, None, "values.heels_lift", standing.heels_lift
    for side, falls_in in zip(("left", "right"), standing.knee_in, strict=True):
        yield SQUAT, side, "values.knee_in", falls_in
