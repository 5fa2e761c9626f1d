"""How old somebody is on a day."""

from __future__ import annotations

import datetime as dt


def age_on(born: dt.date | None, day: dt.date) -> int | None:
    """In whole years; of a 29 February from 1 March in other years. None where the birth is not known."""
    if born is None:
        return None
    return day.year - born.year - ((day.month, day.day) < (born.month, born.day))
