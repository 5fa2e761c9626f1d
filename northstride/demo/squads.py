"""Two seasons of squad screens, as records of the open format: who is tight, lax, uneven, and who is not.

Numbers are written for the newest screen of each; earlier ones drift from it by a little, the same at
every load, so that change lines show noise as well as change.
"""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from northstride.demo.scenario import JUNIORS, REFERENCE, member
from northstride.demo.screen import DemoScreen

# Days before today: two seasons, autumn and spring each; the juniors' day is today.
AUTUMN_BEFORE, SPRING_BEFORE, AUTUMN, TODAY = 436, 221, 72, 0
SLUG = "squad screen"
PLAN = ["hip.gait", "ankle.lunge", "hip.squat", "hip.modified_thomas"]
Leg = dict[str, Any]


@dataclass(frozen=True)
class Squad:
    """One athlete as squad screens find them. `wall` is knee to wall, mm, left and right."""

    number: int
    wall: tuple[int, int]
    left: Leg
    right: Leg
    gait: str = "smooth"
    depth: str = "full"
    heels_lift: bool = False
    knee_in: tuple[bool, bool] = (False, False)
    seen: dict[str, list[str]] = field(default_factory=dict)
    note: dict[str, str] = field(default_factory=dict)
    # What the season before differed by beyond noise: by side, of the hanging thigh.
    was: tuple[int, int] = (0, 0)


def _leg(thigh: int, knee: int, straight: int, out: int = 2, turn: int = 1, across: int = 16) -> Leg:
    return {
        "thigh_angle": thigh,
        "knee_angle": knee,
        "thigh_angle_knee_straight": straight,
        "abduction_drift": out,
        "rotation_drift": turn,
        "adduction_available": across,
    }


SQUADS = (
    Squad(1, (120, 117), _leg(8, 84, -2, out=7), _leg(-4, 95, -6), was=(7, 0)),
    Squad(2, (88, 92), _leg(-9, 78, -12), _leg(-8, 76, -12), depth="half", heels_lift=True),
    Squad(3, (128, 130), _leg(-11, 98, -13), _leg(-10, 97, -14)),
    Squad(4, (107, 111), _leg(11, 94, 9), _leg(-5, 96, -7), was=(-13, 0)),
    Squad(
        5,
        (85, 112),
        _leg(-12, 101, -15),
        _leg(-6, 99, -9),
        seen={"right": ["lumbar_arch"]},
        note={"right": "Lost the hug on the way down. Repeat next week."},
    ),
    Squad(6, (96, 99), _leg(-3, 88, -7, out=17, turn=-6), _leg(-4, 91, -8, out=4)),
    Squad(7, (121, 123), _leg(-10, 96, -13), _leg(4, 93, -3, across=6), gait="toe_in", was=(0, -10)),
    Squad(8, (102, 78), _leg(2, 69, -5), _leg(-7, 92, -11)),
    Squad(9, (119, 117), _leg(-14, 104, -17), _leg(-13, 102, -16)),
    Squad(10, (110, 86), _leg(-6, 93, -9, out=9, turn=12), _leg(-7, 94, -10), knee_in=(False, True)),
    Squad(11, (112, 112), _leg(8, 84, -3), _leg(7, 86, -2)),
    Squad(12, (101, 104), _leg(-2, 90, -6), _leg(-3, 92, -7)),
    Squad(13, (126, 124), _leg(-12, 100, -15), _leg(-11, 99, -14)),
    Squad(14, (108, 111), _leg(3, 79, -7), _leg(2, 78, -6), heels_lift=True),
    Squad(15, (132, 131), _leg(-15, 104, -18), _leg(-14, 103, -17)),
    Squad(16, (115, 113), _leg(-6, 92, -10), _leg(7, 82, -3), was=(0, 9)),
    Squad(17, (122, 119), _leg(-9, 96, -12), _leg(-8, 95, -12), knee_in=(True, True)),
    Squad(18, (99, 97), _leg(-1, 88, -5), _leg(-2, 89, -6), depth="half", heels_lift=True),
    Squad(19, (118, 117), _leg(-10, 97, -13), _leg(-11, 98, -13)),
    Squad(20, (94, 116), _leg(-5, 91, -9), _leg(-6, 92, -10)),
    Squad(21, (129, 127), _leg(-13, 101, -16), _leg(-12, 100, -16), gait="toe_in"),
    Squad(22, (105, 108), _leg(5, 86, -4, across=5), _leg(-4, 93, -8)),
    Squad(23, (120, 122), _leg(-9, 97, -12), _leg(-10, 96, -13)),
    Squad(24, (111, 110), _leg(-4, 90, -8), _leg(-3, 89, -8)),
    Squad(29, (104, 106), _leg(-2, 88, -6), _leg(-3, 91, -7)),
    Squad(31, (111, 109), _leg(1, 92, -4), _leg(-4, 93, -8)),
)
# Who missed an earlier day, as happens.
MISSED = {AUTUMN_BEFORE: {2, 10, 15, 24, 29}, SPRING_BEFORE: {6, 18}, AUTUMN: {31}}
# The juniors' day as it stands: two done and unsigned, one in the middle of it.
DONE_TODAY = (13, 16)
IN_THE_MIDDLE = 19


def squad_screens() -> Iterator[DemoScreen]:
    """All of them, oldest first."""
    for days_ago in (AUTUMN_BEFORE, SPRING_BEFORE, AUTUMN):
        for one in SQUADS:
            whose = member(one.number)
            today_instead = days_ago == AUTUMN and whose.squad == JUNIORS
            if one.number not in MISSED[days_ago] and not today_instead:
                yield DemoScreen(SLUG, whose, days_ago, _record(one, days_ago))
    for one in SQUADS:
        if one.number in DONE_TODAY:
            yield DemoScreen(SLUG, member(one.number), TODAY, _record(one, TODAY), open=True)
        if one.number == IN_THE_MIDDLE:
            half = _record(one, TODAY)
            half["entries"] = [entry for entry in half["entries"] if entry["test"] != "hip.modified_thomas"]
            yield DemoScreen(SLUG, member(one.number), TODAY, half, open=True)


def _record(one: Squad, days_ago: int) -> dict[str, Any]:
    # The same noise at every load; nothing secret hangs on it.
    chance = random.Random(f"{one.number} {days_ago}")  # noqa: S311
    was = one.was if days_ago > SPRING_BEFORE else (0, 0)
    left = _drifted(one.left, chance, days_ago, was[0])
    right = _drifted(one.right, chance, days_ago, was[1])
    return {
        "date": REFERENCE.isoformat(),
        "purpose": "squad_screen",
        "intake": {"complaint": {"region": "none"}, "asked": ["saddle_numbness", "breathless_or_chest_pain"]},
        "planned": PLAN,
        "entries": [
            {"test": "hip.gait", "values": {"pattern": [one.gait]}},
            *_wall(one, chance, days_ago),
            {"test": "hip.squat", "values": _squat(one)},
            _hanging("left", left, one),
            _hanging("right", right, one),
        ],
    }


def _wall(one: Squad, chance: random.Random, days_ago: int) -> Iterator[dict[str, Any]]:
    for side, distance in zip(("left", "right"), one.wall, strict=True):
        around = distance + _noise(chance, days_ago, 4)
        yield {
            "test": "ankle.lunge",
            "side": side,
            "values": {"distance": [around, around + chance.randint(0, 2)]},
        }


def _squat(one: Squad) -> dict[str, Any]:
    knee_in = dict(zip(("left", "right"), one.knee_in, strict=True))
    return {"depth": one.depth, "heels_lift": one.heels_lift, "knee_in": knee_in}


def _hanging(side: str, leg: Leg, one: Squad) -> dict[str, Any]:
    entry: dict[str, Any] = {"test": "hip.modified_thomas", "side": side, "values": leg}
    for name, given in (("seen", one.seen), ("note", one.note)):
        if side in given:
            entry[name] = given[side]
    return entry


def _drifted(leg: Leg, chance: random.Random, days_ago: int, was: int) -> Leg:
    values = {name: value + _noise(chance, days_ago, 2) for name, value in leg.items()}
    values["thigh_angle"] = [values["thigh_angle"] + was + step for step in (0, chance.randint(0, 1))]
    return values


def _noise(chance: random.Random, days_ago: int, most: int) -> int:
    """None in the newest screen: what is written for it stands."""
    return chance.randint(-most, most) if days_ago > AUTUMN else 0
