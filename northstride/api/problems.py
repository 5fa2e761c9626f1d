"""One place where errors become HTTP: problem+json (RFC 9457), with the path of each fault."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import orjson
from fastapi import FastAPI, Request, Response
from fastapi.exceptions import RequestValidationError
from pydantic import BaseModel
from sqlalchemy.exc import DBAPIError, IntegrityError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from starlette.exceptions import HTTPException

from northstride.api.log import log_trouble
from northstride.core.terms.errors import Fault, NotReadable
from northstride.record.json_text import InvalidRecord
from northstride.record.read import path_of, plainly
from northstride.store import errors

MOST_FAULTS = 201


class FaultOut(BaseModel):
    path: str
    problem: str


class Problem(BaseModel):
    """What every refusal looks like."""

    type: str
    title: str
    status: int
    detail: str | None = None
    faults: list[FaultOut] = []
    # All there are; the first of them are named.
    fault_count: int = 0


def problem_schema() -> dict[str, Any]:
    return Problem.model_json_schema(ref_template="#/components/schemas/{model}")


class NotSignedIn(Exception):
    """No session, or one that has ended."""


class AnotherUser(Exception):
    """The page belongs to somebody else than who is signed in on this device now."""


class SomebodyHere(Exception):
    """Somebody is signed in on this device: a code puts nobody in their place."""


class WrongToken(Exception):
    """A write without the session's own token: perhaps another site's page sent it."""


class NotAllowed(Exception):
    """This role may not do this."""

    def __init__(self, role: str, operation: str) -> None:
        super().__init__(f"{role} may not {operation}")
        self.role = role
        self.operation = operation


class TooSlow(HTTPException):
    """The body did not arrive in time."""

    def __init__(self) -> None:
        super().__init__(408)


class TooLarge(HTTPException):
    """The body is larger than any screen."""

    def __init__(self) -> None:
        super().__init__(413)


class StandsTwice(HTTPException):
    """A key of the body is written twice: which of the two was meant nobody knows."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        super().__init__(422)
        self.faults = faults


def problem(
    code: str,
    status: int,
    title: str,
    detail: str | None = None,
    faults: Sequence[Fault] = (),
    headers: dict[str, str] | None = None,
    **extra: Any,
) -> Response:
    body = {
        "type": f"urn:north-stride:problem:{code}",
        "title": title,
        "status": status,
        "detail": detail,
        "faults": [{"path": fault.path, "problem": fault.problem} for fault in faults[:MOST_FAULTS]],
        "fault_count": len(faults),
        **extra,
    }
    return Response(orjson.dumps(body), status, headers=headers, media_type="application/problem+json")


def from_error(error: Exception) -> Response:
    match error:
        case NotSignedIn():
            return problem("not-signed-in", 401, "Sign in again. What you typed is kept on this device.")
        case AnotherUser():
            title = "Somebody else is signed in on this device now. What you typed is kept for you."
            return problem("another-user", 403, title)
        case SomebodyHere():
            return problem("somebody-here", 409, "Somebody is signed in on this device. Sign out first.")
        case WrongToken():
            return problem("wrong-token", 403, "This page is out of date. Reload it.")
        case NotAllowed():
            title = "Your role does not include this."
            return problem("not-allowed", 403, title, f"{error.role}: {error.operation.replace('_', ' ')}")
        case TooLarge():
            return problem("too-large", 413, "This is larger than a screen can be.")
        case TooSlow():
            return problem("too-slow", 408, "The rest of this did not arrive. It is tried again.")
        case TimeoutError():
            # Work was ended before it was done: it would have held up the others.
            title = "This takes too long here. Nothing was changed; a smaller part may do."
            return problem("took-too-long", 503, title)
        case StandsTwice():
            return problem("invalid", 422, "Some values cannot be taken.", faults=error.faults)
        case InvalidRecord():
            return problem("invalid", 422, "Some values cannot be taken.", faults=error.faults)
        case errors.Refused():
            return problem("invalid", 422, "Some values cannot be taken.", faults=error.faults)
        case errors.NotFound():
            return problem("not-found", 404, f"There is no such {error.noun} here.")
        case errors.Differs():
            faults = [Fault(path, None, "differs from what stands here") for path in error.paths]
            return problem("differs", 409, f"This {error.noun} stands already and differs.", faults=faults)
        case errors.Signed():
            return problem("signed", 409, "This screen is signed. Amend it instead.")
        case errors.NotSigned():
            return problem("not-signed", 409, "This screen is not signed: change it at the bench.")
        case errors.NewerReading():
            title = "This reading has changed since you saw it. Read it again, then sign."
            return problem("newer-reading", 409, title, ", ".join(error.changed), changed=error.changed)
        case errors.NewerSignature():
            title = "This screen was amended since you saw it. Read it again, then amend."
            return problem("newer-signature", 409, title, number=error.number)
        case errors.NewerEdit():
            title = f"Somebody changed this {error.noun} since you opened it. Look at it again."
            return problem("newer-edit", 409, title, current=error.current)
        case errors.NotThisPerson():
            title = f"{error.ref} is {error.name} here, and the file says otherwise. Nothing was taken."
            faults = [
                Fault(f"athlete.{name}", None, f"{file} in the file, {here} here")
                for name, (file, here) in error.apart.items()
            ]
            return problem("not-this-person", 409, title, faults=faults)
        case errors.Unreadable() | NotReadable():
            title = "This screen cannot be read as it stands. What was recorded is kept."
            return problem("unreadable", 409, title, faults=error.faults)
        case errors.Incomplete():
            title = "Planned tests are neither done nor declined with a reason."
            return problem("incomplete", 409, title, ", ".join(error.tests), tests=error.tests)
        case errors.TwoValues():
            title = "Two answers to one question stand beside each other. Decide which holds, then sign."
            return problem("two-values", 409, title, ", ".join(error.tests), tests=error.tests)
        case errors.Unarranged():
            title = "Something urgent is neither arranged nor left with a reason."
            return problem("unarranged", 409, title, ", ".join(error.actions), actions=error.actions)
        case errors.SignInRefused():
            return problem("sign-in-refused", 401, "Name or password is not right.")
        case errors.PairingRefused():
            title = "This code does not work any more. Make a new one on the other device."
            return problem("pairing-refused", 401, title)
        case errors.WrongPassword():
            faults = [Fault("password", None, "this is not your password")]
            return problem("wrong-password", 422, "The password did not match.", faults=faults)
        case errors.Throttled():
            title = f"Too many tries. Wait {-(-error.seconds // 60)} min."
            return problem("throttled", 429, title, headers={"Retry-After": str(error.seconds)})
        case errors.AlreadySetUp():
            return problem("already-set-up", 409, "The first owner stands already. Sign in.")
        case IntegrityError():
            # Two writes of the same thing at once: the other one was first.
            return problem("differs", 409, "This was just written by another call. Read it again.")
        case DBAPIError() if is_busy(error):
            title = "The server is busy. What you typed is kept and is tried again."
            return problem("busy", 503, title, headers={"Retry-After": "2"})
        case PoolTimeout():
            title = "The server is busy. What you typed is kept and is tried again."
            return problem("busy", 503, title, headers={"Retry-After": "2"})
        case OperationalError():
            return problem("no-database", 503, "The database does not answer. What you typed is kept.")
        case _:
            raise error


# Cancelled by a timeout: of a statement, of waiting for a lock. Restarting, stopped by whoever runs it, or
# crashed; read-only; out of room or connections. All of it passes, and the device keeps what was typed.
BUSY = frozenset({"57014", "55P03", "57P01", "57P02", "57P03", "25006", "53100", "53200", "53300", "08006"})


def is_busy(error: Exception) -> bool:
    return isinstance(error, DBAPIError) and getattr(error.orig, "sqlstate", None) in BUSY


HANDLED: tuple[type[Exception], ...] = (
    NotSignedIn,
    AnotherUser,
    SomebodyHere,
    WrongToken,
    NotAllowed,
    TooLarge,
    TooSlow,
    TimeoutError,
    StandsTwice,
    InvalidRecord,
    NotReadable,
    errors.StoreError,
    IntegrityError,
    OperationalError,
    PoolTimeout,
)


def unexpected(request: Request, error: Exception) -> Response:
    """What nobody foresaw: logged by its kind, answered without a word of it."""
    if is_busy(error):
        log_trouble(request, error, 503)
        return from_error(error)
    log_trouble(request, error, 500)
    return problem("unexpected", 500, "Something went wrong here. What you typed is kept.")


def install(app: FastAPI) -> None:
    async def handle(request: Request, error: Exception) -> Response:
        answer = from_error(error)
        if answer.status_code >= 500 or isinstance(error, DBAPIError):
            log_trouble(request, error, answer.status_code)
        return answer

    async def handle_validation(_request: Request, error: Exception) -> Response:
        # The stock handler echoes the input, which fails on what JSON cannot hold, and would
        # send health data back into logs.
        found = error.errors() if isinstance(error, RequestValidationError) else []
        faults = [Fault(_body_path(item["loc"]), None, plainly(item["type"], item)) for item in found]
        return problem("invalid", 422, "Some values cannot be taken.", faults=faults)

    async def handle_http(_request: Request, error: Exception) -> Response:
        status = error.status_code if isinstance(error, HTTPException) else 500
        headers = dict(error.headers or {}) if isinstance(error, HTTPException) else None
        titles = {404: "There is nothing here.", 405: "This cannot be done here."}
        code = {404: "not-found", 405: "not-here"}.get(status, "refused")
        return problem(code, status, titles.get(status, "This cannot be done."), headers=headers)

    async def handle_unexpected(request: Request, error: Exception) -> Response:
        return unexpected(request, error)

    for kind in HANDLED:
        app.add_exception_handler(kind, handle)
    app.add_exception_handler(RequestValidationError, handle_validation)
    app.add_exception_handler(HTTPException, handle_http)
    app.add_exception_handler(DBAPIError, handle_unexpected)
    app.add_exception_handler(Exception, handle_unexpected)


def _body_path(loc: Sequence[int | str]) -> str:
    """Without the words body, query and path: the field is what the user knows."""
    return path_of(tuple(loc[1:])) if loc and loc[0] in ("body", "query", "path") else path_of(tuple(loc))
