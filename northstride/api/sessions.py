"""Signing in and out, and the first owner."""

from __future__ import annotations

import zoneinfo
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import AfterValidator

from northstride import CAUTION
from northstride.api.bodies import FilledShortText, Input, Login, NewPassword, Output, Password
from northstride.api.demo_accounts import DEMO_ACCOUNTS
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import COOKIE, ServicesDep, WorkDep, session_token
from northstride.core.vocabulary import DEFAULT_SCHOOLS, Schools
from northstride.store.actor import Actor, Role
from northstride.store.errors import SignInRefused
from northstride.store.users import (
    Begun,
    check_throttle,
    end_session,
    is_set_up,
    note_failure,
    running_session,
    set_up,
    sign_in,
)

router = APIRouter(prefix="/api", tags=["session"], route_class=StrictJsonRoute)


def _known_zone(name: str) -> str:
    if name not in zoneinfo.available_timezones():
        raise ValueError("is not a time zone such as Europe/Helsinki")
    return name


class SignInInput(Input):
    login: Password
    password: Password


class SetUpInput(Input):
    clinic: FilledShortText
    time_zone: Annotated[str, AfterValidator(_known_zone)]
    login: Login
    name: FilledShortText
    password: NewPassword


class SessionOut(Output):
    user_id: UUID
    name: str
    role: Role
    clinic_id: UUID
    clinic: str
    time_zone: str
    schools: Schools
    token: str


class DemoAccount(Output):
    login: str
    password: str
    role: Role


class DoorOut(Output):
    """What the sign-in page needs to know."""

    set_up: bool
    caution: str
    demo_accounts: list[DemoAccount]
    session: SessionOut | None


class HealthOut(Output):
    state: Literal["ready"]


@router.get("/health", operation_id="read_health")
def read_health(services: ServicesDep) -> HealthOut:
    with services.engine.connect() as db:
        is_set_up(db)
    return HealthOut(state="ready")


@router.get("/session", operation_id="read_session")
def read_session(request: Request, services: ServicesDep) -> DoorOut:
    token = session_token(request)
    with services.engine.connect() as db:
        running = running_session(db, token) if token else None
        ready = running is not None or is_set_up(db)
        db.commit()
    accounts = _demo_accounts() if services.settings.demo else []
    session = _session(running.actor, running.clinic_name, running.csrf) if running else None
    return DoorOut(set_up=ready, caution=CAUTION, demo_accounts=accounts, session=session)


def _demo_accounts() -> list[DemoAccount]:
    return [DemoAccount(login=a.login, password=a.password, role=a.role) for a in DEMO_ACCOUNTS]


def _session(actor: Actor, clinic: str, csrf: str) -> SessionOut:
    return SessionOut(
        user_id=actor.user_id,
        name=actor.name,
        role=actor.role,
        clinic_id=actor.clinic_id,
        clinic=clinic,
        time_zone=actor.time_zone,
        schools=DEFAULT_SCHOOLS,
        token=csrf,
    )


@router.post("/session", operation_id="sign_in")
def sign_in_here(
    body: SignInInput, request: Request, response: Response, services: ServicesDep
) -> SessionOut:
    address = request.client.host if request.client else "unknown"
    with services.engine.connect() as db:
        check_throttle(db, body.login, address)
        try:
            begun = sign_in(db, services.passwords, body.login, body.password)
        except SignInRefused:
            db.rollback()
            note_failure(db, body.login, address)
            db.commit()
            raise
        db.commit()
    return _hand_over(begun, response, secure=services.settings.secure_cookie)


def _hand_over(begun: Begun, response: Response, *, secure: bool) -> SessionOut:
    response.set_cookie(COOKIE, begun.token, httponly=True, samesite="strict", secure=secure, path="/")
    return _session(begun.actor, begun.clinic_name, begun.csrf)


@router.delete("/session", operation_id="sign_out", status_code=204)
def sign_out(work: WorkDep, response: Response) -> None:
    end_session(work.db, work.actor)
    work.commit()
    response.delete_cookie(COOKIE, path="/")


@router.post("/setup", operation_id="set_up", status_code=201)
def set_up_here(body: SetUpInput, response: Response, services: ServicesDep) -> SessionOut:
    with services.engine.connect() as db:
        set_up(db, services.passwords, body.clinic, body.time_zone, body.login, body.name, body.password)
        begun = sign_in(db, services.passwords, body.login, body.password)
        db.commit()
    return _hand_over(begun, response, secure=services.settings.secure_cookie)
