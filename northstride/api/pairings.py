"""Taking a second device along: a code for it, and whether it came."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Request, Response
from pydantic import Field

from northstride.api.bodies import Id, Input, Output
from northstride.api.sessions import SessionOut, hand_over
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import ServicesDep, WorkDep
from northstride.store import pairings as store
from northstride.store.guesses import count_try, pairing_brakes, take_back

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


@router.post("/session/pair", operation_id="pair_device")
async def pair(body: CodeInput, request: Request, response: Response, services: ServicesDep) -> PairedOut:
    """A session of its own for the device that holds the code; tries are braked as sign-ins are."""
    brakes = pairing_brakes(request.client.host if request.client else "unknown")

    def count() -> None:
        with services.engine.connect() as db:
            count_try(db, brakes)
            db.commit()

    def take() -> store.Taken:
        with services.engine.begin() as db:
            taken = store.take_pairing(db, body.code)
            take_back(db, brakes)
            return taken

    await to_thread.run_sync(count)
    taken = await to_thread.run_sync(take)
    session = hand_over(taken.begun, response, secure=services.settings.secure_cookie)
    return PairedOut(session=session, screen=taken.screen_id)
