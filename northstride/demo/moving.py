"""Records moved in time, whole: every day in them by the same number of days."""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Mapping
from typing import Any

DAY = re.compile(r"\d{4}-\d{2}-\d{2}")


def moved(record: Mapping[str, Any], to: dt.date) -> dict[str, Any]:
    """The record as if its screen had been on another day."""
    by = to - dt.date.fromisoformat(record["date"])
    return {name: _moved(value, by) for name, value in record.items()}


def _moved(value: Any, by: dt.timedelta) -> Any:
    if isinstance(value, Mapping):
        return {name: _moved(part, by) for name, part in value.items()}
    if isinstance(value, list | tuple):
        return [_moved(part, by) for part in value]
    if isinstance(value, str) and DAY.fullmatch(value):
        return (dt.date.fromisoformat(value) + by).isoformat()
    return value
