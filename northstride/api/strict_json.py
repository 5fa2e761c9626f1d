"""Routes as all of ours are: strict JSON, and one unit of work around an operation that asks for one."""

from __future__ import annotations

import functools
import inspect
from collections.abc import Callable, Coroutine
from typing import Any

import orjson
from anyio import to_thread
from fastapi import Request, Response
from fastapi.exceptions import RequestValidationError
from fastapi.routing import APIRoute
from starlette.exceptions import HTTPException

from northstride.api.permissions import OPEN_OPERATIONS
from northstride.api.problems import HANDLED, StandsTwice, TooLarge, unexpected
from northstride.api.unit_of_work import RequestContext, context_of
from northstride.record.json_text import doubled_keys, parts_in

# Two hundred answers of a hundred values. Each value that is no answer would become a fault.
MOST_PARTS = 20_000
CERTAINLY_SMALL = 20_000
# Before anyone is known: a name, a password, a clinic.
MOST_OF_ANYONE = 8_000


class StrictJsonRequest(Request):
    """JSON as it stands in the open format: nothing the standard library would let in, and not too much."""

    async def take(self, *, open_to_all: bool) -> None:
        """The body, read before anything is made of it. What is large is taken only from who may send it.

        Raises TooLarge, NotSignedIn and the others of a context.
        """
        parts, size, known = [], 0, False
        async for part in self.stream():
            parts.append(part)
            size += len(part)
            if open_to_all and size > MOST_OF_ANYONE:
                raise TooLarge
            if size > CERTAINLY_SMALL and not known:
                await context_of(self).check_may()
                known = True
        self._body = b"".join(parts)

    async def json(self) -> Any:
        if not hasattr(self, "_json"):
            body = await self.body()
            if len(body) > CERTAINLY_SMALL:
                # WorkerPool the event loop: others wait for nobody's table.
                self._json = await to_thread.run_sync(strictly_read, body)
            else:
                self._json = strictly_read(body)
        return self._json


def strictly_read(body: bytes) -> Any:
    """Raises TooLarge, StandsTwice, and orjson's own error for what is no JSON."""
    if len(body) > CERTAINLY_SMALL and parts_in(body) > MOST_PARTS:
        raise TooLarge
    found = orjson.loads(body)
    try:
        twice = doubled_keys(body)
    except RecursionError:
        raise TooLarge from None
    if twice:
        raise StandsTwice(twice)
    return found


class StrictJsonRoute(APIRoute):
    def __init__(self, path: str, endpoint: Callable[..., Any], **options: Any) -> None:
        super().__init__(path, _in_one_unit(endpoint), **options)

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        handle = super().get_route_handler()

        async def strictly(request: Request) -> Response:
            open_to_all = self.operation_id in OPEN_OPERATIONS
            try:
                asked = StrictJsonRequest(request.scope, request.receive)
                await asked.take(open_to_all=open_to_all)
                return await handle(asked)
            except (RequestValidationError, StandsTwice):
                # Who may not ask is told so, whatever they asked.
                if not open_to_all:
                    await context_of(request).check_may()
                raise
            except HTTPException:
                raise
            except HANDLED:
                raise
            except Exception as error:
                # Left to the server, its text would stand in the log, and with it what was typed.
                return unexpected(request, error)

        return strictly


def _in_one_unit(endpoint: Callable[..., Any]) -> Callable[..., Any]:
    """Opens the unit in the thread the operation runs in."""
    if "work" not in inspect.signature(endpoint).parameters:
        return endpoint

    @functools.wraps(endpoint)
    def run(*, work: RequestContext, **given: Any) -> Any:
        with work.unit() as unit:
            return endpoint(work=unit, **given)

    return run
