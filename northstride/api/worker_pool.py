"""Heavy work beside the requests: in processes of its own, few at once, ended when it takes too long.

A thread could not be ended, and would hold up whoever types.
"""

from __future__ import annotations

import asyncio
import multiprocessing
import os
from collections.abc import Callable
from typing import TypeVar, TypeVarTuple

from pebble import ProcessExpired, ProcessPool

T = TypeVar("T")
Given = TypeVarTuple("Given")


class WorkerPool:
    """Processes that begin when they are first asked for. `seconds`: many times what the longest takes.

    `gives_way`: whoever saves meanwhile goes first on the machine.
    """

    def __init__(self, at_once: int, seconds: float, *, gives_way: bool = False) -> None:
        self._at_once = at_once
        self._seconds = seconds
        self._niceness = 10 if gives_way else 0
        self._pool: ProcessPool | None = None

    async def run(self, work: Callable[[*Given], T], *given: *Given) -> T:
        """Waits for its turn, then for its end; nobody waiting any more ends it.

        Raises TimeoutError, also where the process died of it.
        """
        if self._pool is None:
            # Begun anew rather than copied: a copy would hold our connections and locks.
            context = multiprocessing.get_context("spawn")
            self._pool = ProcessPool(
                max_workers=self._at_once, context=context, initializer=os.nice, initargs=[self._niceness]
            )
        future = self._pool.schedule(work, args=list(given), timeout=self._seconds)
        try:
            return await asyncio.wrap_future(future)
        except ProcessExpired as error:
            raise TimeoutError from error

    def close(self) -> None:
        if self._pool is not None:
            self._pool.stop()
            self._pool.join()
            self._pool = None
