"""JSON without NaN and half characters, which the standard library would let in."""

from __future__ import annotations

from collections.abc import Callable, Coroutine
from typing import Any

import orjson
from fastapi import Request, Response
from fastapi.routing import APIRoute


class StrictJsonRequest(Request):
    async def json(self) -> Any:
        if not hasattr(self, "_json"):
            self._json = orjson.loads(await self.body())
        return self._json


class StrictJsonRoute(APIRoute):
    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        handle = super().get_route_handler()

        async def strictly(request: Request) -> Response:
            return await handle(StrictJsonRequest(request.scope, request.receive))

        return strictly
