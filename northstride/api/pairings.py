"""Taking a second device along: a code for it, and whether it came."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, TypeVar
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Request, Response
from pydantic import Field
from sqlalchemy import Connection

from northstride.api.bodies import Id, Input, Output
from northstride.api.problems import SomebodyHere
from northstride.api.sessions import SessionOut, hand_over
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import Services, ServicesDep, WorkDep, session_token
from northstride.store.access import pairings as store
from northstride.store.access.sessions import running_session
from northstride.store.access.throttle import count_try, pairing_throttles, take_back

router = APIRouter(prefix="/api", tags=["pairings"], route_class=StrictJsonRoute)


class PairingInput(Input):
    """`screen_id` is where the second device opens."""

    id: Id
    screen_id: Id | None = None


class PairingOut(Output):
    code: str
    lives_seconds: int


class PairingState(Output):
    used: bool


class CodeInput(Input):
    code: Annotated[str, Field(min_length=1, max_length=100, pattern=r"^[A-Za-z0-9_-]+$")]


class PairingOfOut(Output):
    """Whose code it is: shown before anybody comes in by it."""

    name: str
    clinic: str


class PairedOut(Output):
    session: SessionOut
    screen: UUID | None


@router.post("/pairings", operation_id="make_pairing", status_code=201)
def make(body: PairingInput, work: WorkDep) -> PairingOut:
    code = store.make_pairing(work.db, work.actor, body.id, body.screen_id)
    work.commit()
    return PairingOut(code=code, lives_seconds=int(store.LIVES.total_seconds()))


@router.get("/pairings/{pairing_id}", operation_id="read_pairing")
def read(pairing_id: UUID, work: WorkDep) -> PairingState:
    return PairingState(used=store.is_used(work.db, work.actor, pairing_id))


T = TypeVar("T")


async def _braked(services: Services, request: Request, work: Callable[[Connection], T]) -> T:
    """Tries are counted before the code is looked at, and taken back where it is one."""
    throttles = pairing_throttles(request.client.host if request.client else "unknown")

    def count() -> None:
        with services.engine.connect() as db:
            count_try(db, throttles)
            db.commit()

    def take() -> T:
        with services.engine.begin() as db:
            done = work(db)
            take_back(db, throttles)
            return done

    await to_thread.run_sync(count)
    return await to_thread.run_sync(take)


@router.post("/session/pair/look", operation_id="look_at_pairing")
async def look(body: CodeInput, request: Request, services: ServicesDep) -> PairingOfOut:
    """The code stays unused."""
    whose = await _braked(services, request, lambda db: store.whose_pairing(db, body.code))
    return PairingOfOut(name=whose.name, clinic=whose.clinic_name)


@router.post("/session/pair", operation_id="pair_device")
async def pair(body: CodeInput, request: Request, response: Response, services: ServicesDep) -> PairedOut:
    """A session for the device that holds the code, which begins and ends with its maker's.

    Raises SomebodyHere: nobody is put in the place of who is signed in.
    """
    token = session_token(request)

    def take(db: Connection) -> store.Taken:
        if token and running_session(db, token, use=False) is not None:
            raise SomebodyHere
        return store.take_pairing(db, body.code)

    taken = await _braked(services, request, take)
    session = hand_over(taken.begun, response, secure=services.settings.secure_cookie)
    return PairedOut(session=session, screen=taken.screen_id)
