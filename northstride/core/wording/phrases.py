"""How numbers are said. Values as precisely as measured, at most one decimal; a true minus sign."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from decimal import ROUND_HALF_UP, Decimal

from northstride.core.terms.vocabulary import Unit

MONTHS = (
    *("January", "February", "March", "April", "May", "June", "July", "August", "September"),
    *("October", "November", "December"),
)


def unit_after(unit: Unit) -> str:
    """As it stands behind a value."""
    return {"deg": "°", "1": ""}.get(unit, f" {unit}")


def degrees(value: float) -> str:
    return f"{plain(value)}°"


def plain(value: float) -> str:
    text = rounded(abs(value), ".1").removesuffix(".0")
    return f"−{text}" if value < 0 and text != "0" else text


def whole(value: float) -> str:
    """As many as are said where no instrument tells more; without a sign."""
    return rounded(abs(value), "1")


def rounded(value: float, to: str) -> str:
    """Halves away from zero, as everybody does by hand and as the browser does."""
    return str(Decimal(repr(value)).quantize(Decimal(to), ROUND_HALF_UP))


def whole_degrees(value: float) -> str:
    """Differences are said in whole degrees: no instrument here tells more."""
    return f"{whole(value)}°"


def above_or_below(value: float) -> str:
    """A thigh angle in words: 0 is level, plus is above."""
    if plain(value) == "0":
        return "level"
    return f"{degrees(abs(value))} {'above' if value > 0 else 'below'} level"


def day_and_month(day: dt.date) -> str:
    """Whatever language the machine is set to."""
    return f"{day.day} {MONTHS[day.month - 1]}"


def whole_day(day: dt.date) -> str:
    return f"{day_and_month(day)} {day.year}"


def listed(parts: Sequence[str]) -> str:
    """One or more, as they are said in a sentence."""
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
