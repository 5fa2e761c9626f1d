"""Goniometer dials: the same limb position reads differently on different instruments."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from northstride.core.terms.errors import ReadingOutOfRange

Direction = Literal[1, -1]


class Dial(StrEnum):
    """Where the dial stands when the limb is at zero."""

    ZERO = "zero_neutral"
    NINETY = "ninety_neutral"
    ONE_EIGHTY = "one_eighty_neutral"


DIAL_NAMES = {
    Dial.ZERO: "0-at-neutral",
    Dial.NINETY: "90-at-neutral",
    Dial.ONE_EIGHTY: "180-at-neutral",
}


@dataclass(frozen=True, slots=True)
class DialReading:
    """A raw reading in degrees, its dial, and which way the limb went (+1 or −1)."""

    reading: float
    dial: Dial
    direction: Direction


def angle_of(raw: DialReading) -> float:
    """Signed angle in degrees: reading·d, (reading − 90)·d or (180 − reading)·d."""
    match raw.dial:
        case Dial.ZERO:
            return raw.reading * raw.direction
        case Dial.NINETY:
            return (raw.reading - 90) * raw.direction
        case Dial.ONE_EIGHTY:
            return (180 - raw.reading) * raw.direction


# Dials show tenths at the most; what lies beyond is the machine's own arithmetic.
DECIMALS = 6


def told_angle(raw: DialReading) -> float:
    """The angle as it leaves, in degrees: 172.3 on a 180-at-neutral dial is 7.7, and no zero is minus."""
    return round(angle_of(raw), DECIMALS) + 0.0


def check_plausible(value: float, low: float, high: float, raw: DialReading | None = None) -> None:
    """Refuse an angle (degrees) no limb can show, naming the dial it was probably read from.

    Raises ReadingOutOfRange. A bare value counts as read from a 0-at-neutral dial.
    """
    if low <= value <= high:
        return
    taken = raw or DialReading(value, Dial.ZERO, 1)
    raise ReadingOutOfRange(value, low, high, _likely_dial(taken, low, high))


def _likely_dial(taken: DialReading, low: float, high: float) -> str | None:
    others = [dial for dial in Dial if dial is not taken.dial]
    fits = [
        (dial, angle)
        for dial in others
        if low <= (angle := angle_of(DialReading(taken.reading, dial, taken.direction))) <= high
    ]
    if not fits:
        return None
    # Of two dials that fit, the one that gives the smaller angle is the likelier mistake.
    dial, angle = min(fits, key=lambda fit: abs(fit[1]))
    return f"read on a {DIAL_NAMES[dial]} dial it is {angle:g}°"
