"""One unit of work: one connection, one transaction, one actor who may do this."""

from __future__ import annotations

import secrets
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from fastapi import Depends, Request
from sqlalchemy import Connection, Engine

from northstride.api.permissions import PERMISSIONS
from northstride.api.problems import NotAllowed, NotSignedIn, WrongToken
from northstride.api.settings import Settings
from northstride.core.catalogue import Catalogue
from northstride.store.actor import Actor
from northstride.store.users import Passwords, Running, running_session

COOKIE = "north_stride_session"
CSRF_HEADER = "X-North-Stride-Token"
SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})


@dataclass(frozen=True, slots=True)
class Services:
    """What an app process is built from. Holds no state of its own."""

    engine: Engine
    catalogue: Catalogue
    passwords: Passwords
    settings: Settings


@dataclass(frozen=True, slots=True)
class Work:
    db: Connection
    running: Running
    services: Services

    @property
    def actor(self) -> Actor:
        return self.running.actor

    @property
    def catalogue(self) -> Catalogue:
        return self.services.catalogue

    def commit(self) -> None:
        """Before the answer goes out: what the user is told is saved has been saved."""
        self.db.commit()


def services_of(request: Request) -> Services:
    found: Services = request.app.state.services
    return found


def session_token(request: Request) -> str | None:
    return request.cookies.get(COOKIE)


def begin_work(request: Request) -> Iterator[Work]:
    """Raises NotSignedIn, WrongToken, NotAllowed before the endpoint is reached."""
    services = services_of(request)
    with services.engine.connect() as db:
        token = session_token(request)
        running = running_session(db, token) if token else None
        if running is None:
            raise NotSignedIn
        if request.method not in SAFE_METHODS:
            sent = request.headers.get(CSRF_HEADER, "")
            if not secrets.compare_digest(sent.encode(), running.csrf.encode()):
                raise WrongToken
        operation = request.scope["route"].operation_id
        if running.actor.role not in PERMISSIONS[operation]:
            raise NotAllowed(running.actor.role, operation)
        yield Work(db, running, services)


WorkDep = Annotated[Work, Depends(begin_work)]
ServicesDep = Annotated[Services, Depends(services_of)]
