"""Signing in and out, and the first owner."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal
from uuid import UUID

from anyio import sleep, to_thread
from fastapi import APIRouter, Request, Response
from pydantic import Field

from northstride import CAUTION
from northstride.api.bodies import Input, Login, Name, NewPassword, Output, Password
from northstride.api.clinic import TimeZone
from northstride.api.demo_accounts import DEMO_ACCOUNTS
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import COOKIE, Services, ServicesDep, WorkDep, session_token
from northstride.record.model import CONTROL_FREE
from northstride.store.access.sessions import (
    Begun,
    Running,
    begin_session,
    end_session,
    known_device,
    refused_sign_in,
    running_session,
    sessions_of,
    who_signs_in,
)
from northstride.store.access.throttle import Throttle, count_try, sign_in_throttles, take_back
from northstride.store.access.users import is_set_up, set_up
from northstride.store.actor import Role
from northstride.store.errors import SignInRefused

DEVICE_COOKIE = "north_stride_device"
DEVICE_DAYS = 180

router = APIRouter(prefix="/api", tags=["session"], route_class=StrictJsonRoute)


class SignInInput(Input):
    login: Annotated[str, Field(min_length=1, max_length=200, pattern=CONTROL_FREE)]
    password: Password


class SetUpInput(Input):
    clinic: Name
    time_zone: TimeZone
    login: Login
    name: Name
    password: NewPassword


class SessionOut(Output):
    user_id: UUID
    name: str
    role: Role
    clinic_id: UUID
    clinic: str
    time_zone: str
    token: str
    # After this long without use the page locks and the session ends.
    idle_minutes: int
    # What this device keeps unsent is sealed with it at signing out.
    seal_key: str


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
async def read_health(services: ServicesDep) -> HealthOut:
    def ask() -> None:
        with services.engine.connect() as db:
            is_set_up(db)

    await to_thread.run_sync(ask, limiter=services.health)
    return HealthOut(state="ready")


@router.get("/session", operation_id="read_session")
def read_session(request: Request, services: ServicesDep) -> DoorOut:
    token = session_token(request)
    with services.engine.connect() as db:
        # Who looks who is here uses nothing yet.
        running = running_session(db, token, use=False) if token else None
        ready = running is not None or is_set_up(db)
        db.commit()
    accounts = _demo_accounts() if services.settings.demo else []
    session = _session(running) if running else None
    return DoorOut(set_up=ready, caution=CAUTION, demo_accounts=accounts, session=session)


def _demo_accounts() -> list[DemoAccount]:
    return [DemoAccount(login=a.login, password=a.password, role=a.role) for a in DEMO_ACCOUNTS]


def _session(running: Running) -> SessionOut:
    actor = running.actor
    return SessionOut(
        user_id=actor.user_id,
        name=actor.name,
        role=actor.role,
        clinic_id=actor.clinic_id,
        clinic=running.clinic_name,
        time_zone=actor.time_zone,
        token=running.csrf,
        idle_minutes=running.idle_minutes,
        seal_key=running.seal_key,
    )


@router.post("/session", operation_id="sign_in")
async def sign_in_here(
    body: SignInInput, request: Request, response: Response, services: ServicesDep
) -> SessionOut:
    begun = await _sign_in(services, request, body.login, body.password)
    return hand_over(begun, response, secure=services.settings.secure_cookie)


async def _sign_in(services: Services, request: Request, login: str, password: str) -> Begun:
    """The try is counted first, the password judged without a connection, the session begun last.

    Raises Throttled, SignInRefused: the same for an unknown name as for a wrong password.
    """
    address = request.client.host if request.client else "unknown"

    def ask() -> tuple[Any, list[Throttle], dt.timedelta]:
        with services.engine.connect() as db:
            row = who_signs_in(db, login)
            device = known_device(db, row, request.cookies.get(DEVICE_COOKIE)) if row else None
            throttles = sign_in_throttles(login, address, device)
            wait = count_try(db, throttles)
            db.commit()
            return row, throttles, wait

    def refuse() -> None:
        with services.engine.begin() as db:
            refused_sign_in(db, row)

    row, throttles, wait = await to_thread.run_sync(ask)
    await sleep(wait.total_seconds())
    if not await services.matches(row.password_hash if row else None, password):
        await to_thread.run_sync(refuse)
        raise SignInRefused

    def begin() -> Begun:
        with services.engine.begin() as db:
            take_back(db, throttles)
            return begin_session(db, row)

    return await to_thread.run_sync(begin)


def hand_over(begun: Begun, response: Response, *, secure: bool) -> SessionOut:
    response.set_cookie(COOKIE, begun.token, httponly=True, samesite="strict", secure=secure, path="/")
    response.set_cookie(
        DEVICE_COOKIE,
        begun.device,
        max_age=DEVICE_DAYS * 86_400,
        httponly=True,
        samesite="strict",
        secure=secure,
        path="/api/session",
    )
    return _session(begun.running)


class OwnSession(Output):
    """`came_with`: the session of the device that took this one along. `here`: the one that asks."""

    id: UUID
    begun: dt.datetime
    last_used: dt.datetime
    came_with: UUID | None
    here: bool


@router.get("/sessions", operation_id="list_sessions")
def list_own(work: WorkDep) -> list[OwnSession]:
    """One's own that run, each behind the one that took it along."""
    rows = sessions_of(work.db, work.actor)
    work.commit()
    return [
        OwnSession(
            id=row.id,
            begun=row.created_at,
            last_used=row.last_seen_at,
            came_with=row.maker,
            here=row.id == work.actor.session_id,
        )
        for row in rows
    ]


@router.delete("/session", operation_id="sign_out", status_code=204)
def sign_out(work: WorkDep, response: Response, how: Literal["left", "locked"] = "left") -> None:
    """Whoever leaves takes the devices along that they took along; a lock closes this device alone."""
    end_session(work.db, work.actor, locked=how == "locked")
    work.commit()
    response.delete_cookie(COOKIE, path="/")


@router.post("/setup", operation_id="set_up", status_code=201)
async def set_up_here(body: SetUpInput, response: Response, services: ServicesDep) -> SessionOut:
    hashed = await services.hashed(body.password)

    def begin() -> Begun:
        with services.engine.begin() as db:
            set_up(db, body.clinic, body.time_zone, body.login, body.name, hashed)
            row = who_signs_in(db, body.login)
            if row is None:
                raise SignInRefused
            return begin_session(db, row)

    begun = await to_thread.run_sync(begin)
    return hand_over(begun, response, secure=services.settings.secure_cookie)
