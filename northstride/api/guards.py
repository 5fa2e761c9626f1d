"""Around every request: no body larger than a screen, and headers that let nothing foreign in."""

from __future__ import annotations

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from northstride.api.problems import TooLarge, from_error

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
        taken = 0

        async def counted() -> Message:
            nonlocal taken
            message = await receive()
            taken += len(message.get("body", b""))
            if taken > self.largest:
                raise TooLarge
            return message

        await self.app(scope, counted, send)
