"""One unit of work: one thread, one connection, one transaction, one actor who may do this.

A connection is taken only in the thread that uses it and given back before that thread is: no request
holds one while it waits.
"""

from __future__ import annotations

import secrets
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass, field
from typing import Annotated, TypeVar
from uuid import UUID

from anyio import CapacityLimiter, to_thread
from fastapi import Depends, Request
from sqlalchemy import Connection, Engine

from northstride.api.permissions import PERMISSIONS, UNUSED
from northstride.api.problems import AnotherUser, NotAllowed, NotSignedIn, WrongToken
from northstride.api.settings import Settings
from northstride.api.worker_pool import WorkerPool
from northstride.core.catalogue import Catalogue
from northstride.store.access.passwords import Passwords
from northstride.store.access.sessions import Running, running_session
from northstride.store.actor import Actor, audit

COOKIE = "north_stride_session"
CSRF_HEADER = "X-North-Stride-Token"
# Whose page asks: what one user's page holds is never taken for another's, whoever signed in since.
USER_HEADER = "X-North-Stride-User"
# For how many seconds no hand was at the device: what a page asks by itself is no use of the session.
IDLE_HEADER = "X-North-Stride-Idle"
MOST_IDLE = 30
SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})
# Hashing takes memory and a whole core: few at once, the rest wait without thread or connection.
HASHED_AT_ONCE = 2
PAPERS_AT_ONCE, PAPER_SECONDS = 2, 20.0
TABLES_AT_ONCE, TABLE_SECONDS = 1, 60.0
T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Services:
    """What an app process is built from. Holds no state of its own."""

    engine: Engine
    catalogue: Catalogue
    passwords: Passwords
    settings: Settings
    hashing: CapacityLimiter = field(default_factory=lambda: CapacityLimiter(HASHED_AT_ONCE))
    # Papers that are set and tables that are read, each in processes of their own.
    papers: WorkerPool = field(default_factory=lambda: WorkerPool(PAPERS_AT_ONCE, PAPER_SECONDS))
    tables: WorkerPool = field(
        default_factory=lambda: WorkerPool(TABLES_AT_ONCE, TABLE_SECONDS, gives_way=True)
    )
    # Whether the app is well is asked in a lane of its own, however long the queue is.
    health: CapacityLimiter = field(default_factory=lambda: CapacityLimiter(1))

    def close(self) -> None:
        self.papers.close()
        self.tables.close()
        self.engine.dispose()

    async def hashed(self, password: str) -> str:
        return await to_thread.run_sync(self.passwords.hash, password, limiter=self.hashing)

    async def matches(self, hashed: str | None, password: str) -> bool:
        """Takes as long for nobody as for somebody."""
        against = hashed or self.passwords.nobody
        found = await to_thread.run_sync(self.passwords.match, against, password, limiter=self.hashing)
        return found and hashed is not None


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


@dataclass(frozen=True, slots=True)
class RequestContext:
    """Where units of work begin, for one request. Nothing is asked of the database before."""

    request: Request
    services: Services

    @property
    def operation(self) -> str:
        return str(self.request.scope["route"].operation_id)

    @property
    def noun(self) -> tuple[str, UUID | None]:
        """What the request is about, as the audit names it."""
        for noun in ("screen", "athlete"):
            key = self.request.path_params.get(f"{noun}_id")
            with suppress(ValueError):
                if key is not None:
                    return noun, UUID(str(key))
        return "session", None

    @contextmanager
    def unit(self) -> Iterator[Work]:
        """Raises NotSignedIn, WrongToken, NotAllowed. What was not committed is rolled back."""
        request, services = self.request, self.services
        operation = self.operation
        with services.engine.connect() as db:
            token = session_token(request)
            use = operation not in UNUSED and not is_idle(request)
            running = running_session(db, token, use=use) if token else None
            if running is None:
                raise NotSignedIn
            asks = request.headers.get(USER_HEADER)
            if asks is not None and asks != str(running.actor.user_id):
                raise AnotherUser
            if request.method not in SAFE_METHODS:
                sent = request.headers.get(CSRF_HEADER, "")
                if not secrets.compare_digest(sent.encode(), running.csrf.encode()):
                    raise WrongToken
            if running.actor.role not in PERMISSIONS[operation]:
                audit(db, running.actor, "refuse", *self.noun, {"asked": operation})
                db.commit()
                raise NotAllowed(running.actor.role, operation)
            yield Work(db, running, services)

    async def run(self, work: Callable[[Work], T]) -> T:
        """One unit in a thread of its own; what `work` did is committed."""

        def whole() -> T:
            with self.unit() as unit:
                done = work(unit)
                unit.commit()
                return done

        return await to_thread.run_sync(whole)

    async def check_may(self) -> None:
        """Raises where this request may not be made, whatever it says."""
        await self.run(lambda _work: None)


def services_of(request: Request) -> Services:
    found: Services = request.app.state.services
    return found


def is_idle(request: Request) -> bool:
    """Whether the device says that nobody was at it. One that says nothing is in somebody's hand."""
    told = request.headers.get(IDLE_HEADER, "")
    return told.isdecimal() and len(told) < 12 and int(told) > MOST_IDLE


def session_token(request: Request) -> str | None:
    return request.cookies.get(COOKIE)


def context_of(request: Request) -> RequestContext:
    return RequestContext(request, services_of(request))


async def _desk(request: Request) -> RequestContext:
    return context_of(request)


async def _services(request: Request) -> Services:
    return services_of(request)


# An operation takes one or the other: the context of the request, or a unit its route opens around it.
ContextDep = Annotated[RequestContext, Depends(_desk)]
WorkDep = Annotated[Work, Depends(_desk)]
ServicesDep = Annotated[Services, Depends(_services)]
