"""How the cost of a reader of foreign bytes grows with what it is given."""

from __future__ import annotations

import gc
import time
from collections.abc import Callable
from contextlib import suppress

TIMES = 3
# Others on the machine fill its memory and caches too: what grows by itself does so every time.
TRIES = 8
# What ends sooner is mostly the clock.
SHORTEST = 0.002
LARGEST = 2**17


def growth(make: Callable[[int], object], read: Callable[[object], object], enough: float) -> float:
    """Time at four times the size, as a ratio: the first that is at most `enough`, or the least."""
    found = float("inf")
    for _ in range(TRIES):
        found = min(found, _growth(make, read))
        if found <= enough:
            break
    return found


def _growth(make: Callable[[int], object], read: Callable[[object], object]) -> float:
    """Both sizes are large enough to be timed."""
    size = 256
    while (small := seconds(read, make(size))) < SHORTEST and size < LARGEST:
        size *= 2
    return seconds(read, make(4 * size)) / max(small, SHORTEST)


def seconds(read: Callable[[object], object], given: object) -> float:
    """The best of several, in time of this thread: others on the machine do not count."""
    gc.collect()
    gc.disable()
    try:
        return min(_once(read, given) for _ in range(TIMES))
    finally:
        gc.enable()


def _once(read: Callable[[object], object], given: object) -> float:
    began = time.thread_time()
    # A refusal is an answer too.
    with suppress(Exception):
        read(given)
    return time.thread_time() - began
