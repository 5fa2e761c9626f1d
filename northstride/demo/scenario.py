"""Who and what the demo holds. Every name, date and value is invented."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any, Literal
from uuid import NAMESPACE_URL, UUID, uuid5

CLINIC = "Tarnholt mountain club"
TIME_ZONE = "Europe/Helsinki"
# The day the file is written for: birth dates move with it, so that ages stay what they are.
REFERENCE = dt.date(2026, 9, 14)
JUNIORS, SENIORS, MASTERS = "Juniors", "Seniors", "Masters"

Sex = Literal["female", "male"]


def made_id(*parts: object) -> UUID:
    """The same id for the same thing at every load."""
    return uuid5(NAMESPACE_URL, "tarnholt/" + "/".join(map(str, parts)))


@dataclass(frozen=True)
class Member:
    number: int
    squad: str
    name: str
    born: str
    sex: Sex
    sport: str
    side: Literal["left", "right"]
    mass: float
    height: float

    @property
    def ref(self) -> str:
        return f"NS-{self.number:03d}"

    @property
    def id(self) -> UUID:
        return made_id("athlete", self.number)


def _members(squad: str, first: int, rows: list[tuple[Any, ...]]) -> list[Member]:
    return [Member(first + place, squad, *row) for place, row in enumerate(rows)]


ORIENTEERING, SKI, RUNNING = "mountain orienteering", "cross-country skiing", "mountain running"

MEMBERS = [
    *_members(
        SENIORS,
        1,
        [
            ("Ilva Tarnes", "2002-03-11", "female", ORIENTEERING, "right", 58.5, 167),
            ("Bram Oskeld", "1999-07-30", "male", SKI, "right", 77, 184),
            ("Sanna Vaukola", "2001-12-02", "female", SKI, "left", 62, 171),
            ("Eirik Dalmo", "2000-05-19", "male", ORIENTEERING, "right", 70.5, 179),
            ("Tilde Marenhus", "2003-01-25", "female", RUNNING, "right", 55, 164),
            ("Jori Haapsal", "1998-09-08", "male", RUNNING, "right", 66, 176),
            ("Maud Kvernli", "2002-10-14", "female", ORIENTEERING, "left", 60, 169),
            ("Anders Toivel", "2001-04-03", "male", SKI, "left", 81.5, 188),
            ("Runa Stensby", "1997-06-21", "female", SKI, "right", 64, 173),
            ("Olle Brannvik", "2003-08-17", "male", ORIENTEERING, "right", 68, 177),
            ("Kaisa Lumme", "2000-02-09", "female", RUNNING, "right", 54.5, 162),
            ("Henrik Solvang", "1999-11-28", "male", ORIENTEERING, "right", 73, 181),
        ],
    ),
    *_members(
        JUNIORS,
        13,
        [
            ("Signe Aldal", "2010-04-15", "female", ORIENTEERING, "right", 49, 158),
            ("Mikkel Rost", "2009-09-27", "male", SKI, "right", 58, 172),
            ("Liv Terning", "2011-01-06", "female", RUNNING, "left", 45.5, 155),
            ("Aaro Nieminor", "2010-07-19", "male", ORIENTEERING, "right", 52, 166),
            ("Freja Holmdal", "2009-03-30", "female", SKI, "right", 56, 165),
            ("Elias Vint", "2011-11-11", "male", SKI, "left", 44, 157),
            ("Nora Skoglie", "2010-12-23", "female", ORIENTEERING, "right", 50.5, 160),
            ("Vetle Marand", "2009-06-02", "male", RUNNING, "right", 60, 174),
            ("Iida Rantel", "2011-05-28", "female", SKI, "right", 43, 153),
            ("Sondre Lykke", "2010-02-14", "male", ORIENTEERING, "left", 54, 168),
            ("Astrid Vennor", "2009-10-05", "female", RUNNING, "right", 53, 163),
            ("Onni Salmeva", "2011-08-31", "male", SKI, "right", 46, 159),
        ],
    ),
    *_members(
        MASTERS,
        25,
        [
            ("Gunvor Aslen", "1961-02-17", "female", SKI, "right", 66, 166),
            ("Per Aune", "1974-10-08", "male", RUNNING, "right", 74, 180),
            ("Torvald Brekkin", "1969-05-30", "male", ORIENTEERING, "left", 79, 183),
            ("Ragna Holtet", "1978-12-12", "female", RUNNING, "right", 60, 168),
        ],
    ),
    *_members(
        SENIORS,
        29,
        [
            ("Oskar Bremer", "2007-04-04", "male", ORIENTEERING, "right", 71, 182),
            ("Tove Brannick", "2002-06-16", "female", RUNNING, "right", 57, 168),
            ("Ilse Varga", "2003-02-02", "female", ORIENTEERING, "right", 59.5, 170),
            ("Sander Lie", "1995-08-25", "male", SKI, "left", 80, 187),
        ],
    ),
]


def member(number: int) -> Member:
    return next(each for each in MEMBERS if each.number == number)
