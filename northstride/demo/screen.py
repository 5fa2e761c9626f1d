"""A screen of the demo: as it was told and recorded, how long before today, and what was done since."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from northstride.demo.scenario import Member


@dataclass(frozen=True)
class DemoScreen:
    """`record` is in the open format, written for a day of its own; `done` are steps about its actions."""

    slug: str
    member: Member
    days_ago: int
    record: Mapping[str, Any]
    open: bool = False
    done: tuple[Mapping[str, Any], ...] = ()
