"""How fast this machine is just now: a fixed piece of plain Python, a millisecond where nothing else runs.

The floor of what has no bare twin. A limit of 5 × it is 5 ms on a quiet machine of the kind the limits were
set on, and holds on a slower or a busier one.
"""

from __future__ import annotations

from bench.figure import median, time_each

LOOPS = 12_500
TIMES = 200


def pace() -> int:
    total = 0
    for number in range(LOOPS):
        total += number * number % 7
    return total


def pace_ms() -> float:
    return median(time_each(pace, TIMES))
