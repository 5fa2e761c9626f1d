"""A reading for the athlete: what was found, what it means for training, what happens next.

Everyday words, no field terms; the practitioner says it, and decides.
"""

from __future__ import annotations

import datetime as dt
import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from northstride.core.findings import URGENCY_ORDER, Action, Flag, Reading, Urgency
from northstride.core.sides import SIDES, Side

FILE = Path(__file__).parent / "plain_words.toml"
STOPS_TRAINING = (Urgency.EMERGENCY, Urgency.SAME_DAY)
DECIDES = "Your practitioner decides with you what to do."


@dataclass(frozen=True, slots=True)
class PlainSummary:
    found: tuple[str, ...]
    training: tuple[str, ...]
    next: tuple[str, ...]


@lru_cache
def plain_words() -> Mapping[str, Mapping[str, str]]:
    return tomllib.loads(FILE.read_text(encoding="utf-8"))


def plain_summary(reading: Reading) -> PlainSummary:
    """The most urgent first; nothing is said twice. A flag without its own words is a KeyError."""
    return PlainSummary(
        found=tuple(dict.fromkeys(_found(flag) for flag in reading.flags)),
        training=tuple(dict.fromkeys(_training(reading))),
        next=(*dict.fromkeys(_next(reading)), DECIDES),
    )


def _found(flag: Flag) -> str:
    words = plain_words()
    side = f"{flag.side} " if flag.side else ""
    said = words["codes"][flag.code].replace("{side}", side)
    if said.endswith("."):
        return said
    return f"{words['strength'][flag.strength.code]} {said}."


def _training(reading: Reading) -> Iterator[str]:
    words = plain_words()
    stopped = False
    for side in (None, *SIDES):
        here = [action for action in reading.actions if action.side == side]
        worst = min((action.urgency for action in here), key=URGENCY_ORDER.__getitem__, default=None)
        if worst is None or worst is Urgency.TRAIN:
            continue
        stopped = stopped or worst in STOPS_TRAINING
        yield words["training"][worst].replace("{leg}", _leg(side))
    if not stopped:
        for flag in reading.flags:
            if flag.urgency is Urgency.TRAIN and flag.kind in words["training_by_kind"]:
                yield words["training_by_kind"][flag.kind]
    if not reading.actions:
        yield words["training"]["none"]


def _leg(side: Side | None) -> str:
    return f"your {side} leg" if side else "this leg"


def _next(reading: Reading) -> Iterator[str]:
    words = plain_words()["next"]
    for action in reading.actions:
        yield _what_happens(words[action.urgency], action)
    if reading.retake:
        yield words["again"]
    if reading.next:
        yield words["more"]
    if not (reading.actions or reading.retake or reading.next):
        yield words["none"]


def _what_happens(words: str, action: Action) -> str:
    if action.start is None or action.end is None:
        return words
    days = {"{start}": _day(action.start), "{end}": _day(action.end), "{leg}": _leg(action.side)}
    for mark, said in days.items():
        words = words.replace(mark, said)
    return words


MONTHS = (
    *("January", "February", "March", "April", "May", "June", "July", "August", "September"),
    *("October", "November", "December"),
)


def _day(day: dt.date) -> str:
    """The day and the month, whatever language the machine is set to."""
    return f"{day.day} {MONTHS[day.month - 1]}"
