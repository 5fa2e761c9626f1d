"""Routes as all of ours are: strict JSON, and one unit of work around an operation that asks for one."""

from __future__ import annotations

import functools
import inspect
from collections.abc import Callable, Coroutine
from typing import Any

import orjson
from fastapi import Request, Response
from fastapi.exceptions import RequestValidationError
from fastapi.routing import APIRoute
from starlette.exceptions import HTTPException

from northstride.api.permissions import OPEN_OPERATIONS
from northstride.api.problems import HANDLED, TooLarge, unexpected
from northstride.api.work import Desk, desk_of
from northstride.record.json_text import parts_in

# Two hundred answers of a hundred values. Each value that is no answer would become a fault.
MOST_PARTS = 20_000
CERTAINLY_SMALL = 20_000


class StrictJsonRequest(Request):
    """JSON without NaN and half characters, which the standard library would let in, and not too much."""

    async def json(self) -> Any:
        if not hasattr(self, "_json"):
            body = await self.body()
            if len(body) > CERTAINLY_SMALL and parts_in(body) > MOST_PARTS:
                raise TooLarge
            self._json = orjson.loads(body)
        return self._json


class StrictJsonRoute(APIRoute):
    def __init__(self, path: str, endpoint: Callable[..., Any], **options: Any) -> None:
        super().__init__(path, _in_one_unit(endpoint), **options)

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        handle = super().get_route_handler()

        async def strictly(request: Request) -> Response:
            try:
                return await handle(StrictJsonRequest(request.scope, request.receive))
            except RequestValidationError:
                # Who may not ask is told so, whatever they asked.
                if self.operation_id not in OPEN_OPERATIONS:
                    await desk_of(request).check_may()
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
    def run(*, work: Desk, **given: Any) -> Any:
        with work.unit() as unit:
            return endpoint(work=unit, **given)

    return run
