"""What an operation that was told of still means."""

from __future__ import annotations

import datetime as dt

from northstride.core.examination import History
from northstride.core.norms import limits

LIMIT = limits("danger")


def lately_operated(item: History, day: dt.date) -> bool:
    """Surgery or replacement less than twelve weeks ago, or nobody knows when."""
    if item.kind not in ("surgery", "hip_replacement"):
        return False
    weeks = item.weeks_ago
    if weeks is None and item.date is not None:
        weeks = (day - item.date).days / 7
    return weeks is None or weeks < LIMIT["surgery_holds_weeks"]
