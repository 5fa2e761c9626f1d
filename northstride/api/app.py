"""Builds the app. State lives in the database: more processes are only more of them."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from typing import Any

from anyio import create_task_group, to_thread
from argon2 import PasswordHasher
from fastapi import FastAPI
from fastapi.routing import APIRoute

from northstride import CAUTION, __version__
from northstride.api import (
    arrangements,
    athletes,
    calendar,
    catalogue,
    clinic,
    course,
    day,
    description,
    letter_templates,
    merges,
    overrides,
    pairings,
    problems,
    readings,
    records,
    routes,
    screens,
    sessions,
    sheets,
    signatures,
    squads,
    users,
    values,
)
from northstride.api import exports as leaving
from northstride.api.middleware import BodyLimit, SecurityHeaders
from northstride.api.permissions import OPEN_OPERATIONS, PERMISSIONS
from northstride.api.refreshing import keep_fresh
from northstride.api.settings import Settings
from northstride.api.static import serve_web
from northstride.api.unit_of_work import Services
from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.store.access.passwords import Passwords
from northstride.store.database import POOL_SIZE, connect

ROUTERS = (
    description.router,
    sessions.router,
    pairings.router,
    users.router,
    clinic.router,
    catalogue.router,
    day.router,
    athletes.router,
    course.router,
    merges.router,
    squads.router,
    screens.router,
    routes.router,
    readings.router,
    signatures.router,
    overrides.router,
    arrangements.router,
    records.router,
    sheets.router,
    leaving.router,
    letter_templates.router,
    values.router,
    calendar.router,
)
REFUSALS: dict[int | str, dict[str, Any]] = {
    "4XX": {
        "description": "Refused, with the path of each fault",
        "content": {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}},
    }
}


def create_app(settings: Settings, catalogue_: Catalogue | None = None) -> FastAPI:
    engine = connect(settings.database_url.get_secret_value())
    services = Services(engine, catalogue_ or default_catalogue(), _passwords(settings), settings)

    @asynccontextmanager
    async def lifespan(_app: FastAPI) -> AsyncIterator[None]:
        # As many threads as connections: whoever has a thread finds a connection.
        to_thread.current_default_thread_limiter().total_tokens = POOL_SIZE
        async with create_task_group() as tasks:
            tasks.start_soon(keep_fresh, services)
            yield
            tasks.cancel_scope.cancel()
        services.close()

    app = FastAPI(
        title="North Stride",
        version=__version__,
        description=CAUTION,
        docs_url=None,
        openapi_url=None,
        redoc_url=None,
        lifespan=lifespan,
        responses=REFUSALS,
    )
    app.state.services = services
    problems.install(app)
    for router in ROUTERS:
        app.include_router(router)
    _check_permissions()
    _document_problems(app)
    if settings.web_folder is not None:
        serve_web(app, settings.web_folder)
    app.add_middleware(BodyLimit, largest=settings.largest_body)
    app.add_middleware(SecurityHeaders)
    return app


def _passwords(settings: Settings) -> Passwords:
    if settings.hash_cost == "test":
        return Passwords(PasswordHasher(time_cost=1, memory_cost=8, parallelism=1))
    return Passwords(PasswordHasher())


def _check_permissions() -> None:
    """Every operation is in the table of who may do it, or asked before anyone is known."""
    routes = [route for router in ROUTERS for route in router.routes]
    operations = {route.operation_id for route in routes if isinstance(route, APIRoute)}
    unknown = operations ^ (PERMISSIONS.keys() | OPEN_OPERATIONS)
    if unknown:
        raise RuntimeError(f"operations and permissions differ: {sorted(map(str, unknown))}")


def _document_problems(app: FastAPI) -> None:
    made = app.openapi

    def openapi() -> dict[str, Any]:
        if app.openapi_schema is None:
            schema = made()
            schema["components"]["schemas"]["Problem"] = problems.problem_schema()
            for item in schema["paths"].values():
                for operation in item.values():
                    operation["responses"].pop("422", None)
        return made()

    app.openapi = openapi  # type: ignore[method-assign]
