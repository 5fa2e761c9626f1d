"""A request whose head never comes whole is ended: no half-sent line holds a connection for ever."""

from __future__ import annotations

import asyncio
from typing import Any

from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

HEAD_SECONDS = 15


class TimedProtocol(HttpToolsProtocol):
    """Waits for the head of each request, and no longer."""

    _head: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        super().connection_made(transport)
        self._wait_for_head()

    def on_message_begin(self) -> None:
        self._wait_for_head()
        super().on_message_begin()

    def on_headers_complete(self) -> None:
        self._head_is_there()
        super().on_headers_complete()

    def connection_lost(self, exc: Exception | None) -> None:
        self._head_is_there()
        super().connection_lost(exc)

    def _wait_for_head(self) -> None:
        self._head_is_there()
        self._head = self.loop.call_later(HEAD_SECONDS, self._give_up)

    def _head_is_there(self) -> None:
        if self._head is not None:
            self._head.cancel()
            self._head = None

    def _give_up(self) -> None:
        self.transport.close()
