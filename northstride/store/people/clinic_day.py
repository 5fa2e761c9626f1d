"""The clinic's own days, wherever the server stands, and how far from them something may lie."""

from __future__ import annotations

import datetime as dt
from zoneinfo import ZoneInfo

from northstride.store.actor import Actor

# What is arranged lies within a year: a date beyond is a slip of the hand.
A_YEAR = dt.timedelta(days=366)


def today_of(actor: Actor) -> dt.date:
    return dt.datetime.now(ZoneInfo(actor.time_zone)).date()


def after_tomorrow(actor: Actor, day: dt.date) -> str | None:
    """Why a screen cannot be of this day; None where it can."""
    if day <= today_of(actor) + dt.timedelta(days=1):
        return None
    return f"{day.isoformat()} is still to come: a screen is of today, or of tomorrow at the latest"
