"""Around every request: no body larger than a screen, and headers that let nothing foreign in."""

from __future__ import annotations

from anyio import current_time, move_on_after
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from northstride.api.problems import TooLarge, TooSlow, from_error

POLICY = (
    "default-src 'self'; img-src 'self' data:; style-src 'self'; script-src 'self'; "
    "connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'; object-src 'none'"
)
HEADERS = [
    (b"content-security-policy", POLICY.encode()),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"cross-origin-resource-policy", b"same-origin"),
    (b"permissions-policy", b"camera=(), microphone=(), geolocation=()"),
]


# A screen over a slow line takes a few seconds; what takes longer holds up nobody but itself.
BODY_SECONDS = 20


class SecurityHeaders:
    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        # Health data is kept by no cache on the way.
        private = [(b"cache-control", b"no-store")] if scope["path"].startswith("/api/") else []

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message.get("headers", []), *HEADERS, *private]
            await send(message)

        await self.app(scope, receive, with_headers)


class BodyLimit:
    def __init__(self, app: ASGIApp, largest: int) -> None:
        self.app = app
        self.largest = largest

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        said = next((value for name, value in scope["headers"] if name == b"content-length"), b"0")
        if not said.isdigit() or int(said) > self.largest:
            await from_error(TooLarge())(scope, receive, send)
            return
        taken, over = 0, False
        deadline = current_time() + BODY_SECONDS

        async def counted() -> Message:
            nonlocal taken, over
            if over:
                # Only whether the other end is gone is asked now: that may take as long as it likes.
                return await receive()
            with move_on_after(deadline - current_time()) as patience:
                message = await receive()
            if patience.cancelled_caught:
                raise TooSlow
            over = not message.get("more_body", False)
            taken += len(message.get("body", b""))
            if taken > self.largest:
                raise TooLarge
            return message

        await self.app(scope, counted, send)
