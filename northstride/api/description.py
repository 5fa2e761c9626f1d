"""What the API is, for whoever may use it: a stranger learns nothing of it."""

from __future__ import annotations

from typing import Any

from anyio import to_thread
from fastapi import APIRouter, Request

from northstride.api.bodies import Json
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import context_of

router = APIRouter(tags=["description"], route_class=StrictJsonRoute)


@router.get("/openapi.json", operation_id="read_description", include_in_schema=False)
async def read(request: Request) -> Json:
    """Of a demo for everybody: there is nothing of anybody in it."""
    if not request.app.state.services.settings.demo:
        await context_of(request).check_may()
    described: dict[str, Any] = await to_thread.run_sync(request.app.openapi)
    return Json(described)
