"""Who and what the demo holds. Every name, date and value is invented."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass, field
from typing import Any, Literal
from uuid import NAMESPACE_URL, UUID, uuid5

CLINIC = "Tarnholt mountain club"
TIME_ZONE = "Europe/Helsinki"
SEASON = dt.date(2026, 9, 14)
LAST_SEASON = dt.date(2025, 9, 15)
JUNIORS, SENIORS = "Juniors", "Seniors"

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
]

Values = dict[str, Any]


@dataclass(frozen=True)
class Standing:
    """What is seen and measured standing; `left` and `right` are knee to wall, mm."""

    left: Any
    right: Any
    gait: str = "smooth"
    depth: str = "full"
    heels_lift: bool = False
    knee_in: tuple[bool, bool] = (False, False)


@dataclass(frozen=True)
class Screened:
    """One athlete's squad screen: `left` and `right` hanging. `open_` screens are left unsigned."""

    number: int
    left: Values
    right: Values
    standing: Standing | None = None
    seen: dict[str, list[str]] = field(default_factory=dict)
    pain: dict[str, dict[str, Any]] = field(default_factory=dict)
    note: dict[str, str] = field(default_factory=dict)
    open_: bool = False
    day: dt.date = SEASON


def _leg(
    thigh: Any, knee: Any, straight: Any = None, out: Any = 2, turn: Any = 1, across: Any = 16
) -> Values:
    values = {
        "thigh_angle": thigh,
        "knee_angle": knee,
        "thigh_angle_knee_straight": straight,
        "abduction_drift": out,
        "rotation_drift": turn,
        "adduction_available": across,
    }
    return {name: value for name, value in values.items() if value is not None}


# Last season's, of those who were there: some have changed beyond error since, some have not.
LAST_SEASON_SCREENS = [
    Screened(
        1,
        _leg([15, 16, 15], 81, 3, out=6),
        _leg([-5, -5], 94, -7),
        Standing([118, 120], [117, 119]),
        day=LAST_SEASON,
    ),
    Screened(3, _leg(-10, 95, -13), _leg(-11, 99, -14), Standing(131, 129), day=LAST_SEASON),
    Screened(4, _leg([-2, -1, -2], 97, -4), _leg([-6, -6, -5], 95, -8), Standing(109, 112), day=LAST_SEASON),
    Screened(6, _leg(-4, 90, -7, out=5), _leg(-5, 92, -8, out=5), Standing(98, 101), day=LAST_SEASON),
    Screened(
        7, _leg(-9, 95, -12), _leg([-6, -5, -6], 97, -9, across=18), Standing(122, 120), day=LAST_SEASON
    ),
    Screened(8, _leg(1, 90, -4), _leg(-6, 91, -10), Standing(104, 99), day=LAST_SEASON),
    Screened(9, _leg(-12, 101, -16), _leg(-13, 103, -15), Standing(116, 118), day=LAST_SEASON),
]

SEASON_SCREENS = [
    Screened(
        1, _leg([8, 9, 8], 84, -2, out=7), _leg([-4, -4], 95, -6), Standing([119, 121, 120], [116, 118, 118])
    ),
    Screened(2, _leg(-9, 78, -12), _leg(-8, 76, -12), Standing(88, 92, heels_lift=True, depth="half")),
    Screened(3, _leg(-11, 98, -13), _leg(-10, 97, -14), Standing(128, 130)),
    Screened(4, _leg([11, 12, 10], 94, 9), _leg([-5, -4, -5], 96, -7), Standing(107, 111)),
    Screened(
        5,
        _leg(-12, 101, -15),
        _leg(-6, 99, -9),
        Standing(85, 112),
        seen={"right": ["lumbar_arch"]},
        note={"right": "Lost the hug on the way down. Repeat next week."},
    ),
    Screened(6, _leg(-3, 88, -7, out=17, turn=-6), _leg(-4, 91, -8, out=4), Standing(96, 99)),
    Screened(7, _leg(-10, 96, -13), _leg([4, 4, 5], 93, -3, across=6), Standing(121, 123, gait="toe_in")),
    Screened(8, _leg(2, 69, -5), _leg(-7, 92, -11), Standing(102, 78)),
    Screened(
        9, _leg(-14, 104, -17), _leg(-13, 102, -16), Standing(119, 117), pain={"left": {"present": False}}
    ),
    Screened(
        10,
        _leg(-6, 93, -9, out=9, turn=12),
        _leg(-7, 94, -10),
        Standing(110, 108, knee_in=(False, True)),
        pain={"left": {"present": True, "nrs": 2, "site": "anterior_thigh", "familiar": False}},
    ),
    Screened(11, _leg([8, 9, 8], 84), {}, Standing([112, 113], [111, 114]), open_=True),
    Screened(12, {}, {}, open_=True),
]
