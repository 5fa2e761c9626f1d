"""Twelve worked stories: who, what was recorded, as a record of the open format."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any

from northstride.demo.scenario import MEMBERS, made_id

FILE = Path(__file__).parent / "stories.toml"


@dataclass(frozen=True)
class Screen:
    """One screen of a story, and its record as it would be exported."""

    name: str
    record: Mapping[str, Any]


@dataclass(frozen=True)
class Story:
    slug: str
    title: str
    tells: str
    screens: tuple[Screen, ...]


@lru_cache
def stories() -> tuple[Story, ...]:
    raw = tomllib.loads(FILE.read_text(encoding="utf-8"))["story"]
    return tuple(
        Story(
            story["slug"],
            story["title"],
            story["tells"].strip(),
            tuple(Screen(screen["name"], _record(story["slug"], screen)) for screen in story["screen"]),
        )
        for story in raw
    )


def _record(slug: str, screen: Mapping[str, Any]) -> dict[str, Any]:
    member = next(member for member in MEMBERS if member.number == screen["number"])
    return {
        "format": "north-stride/screen",
        "version": 1,
        "id": str(made_id("story", slug, screen["name"])),
        "date": screen["date"],
        "purpose": screen["purpose"],
        "athlete": {
            "ref": member.ref,
            "birth_date": member.born,
            "sex": member.sex,
            "sport": member.sport,
            "dominant_side": member.side,
            "body_mass_kg": member.mass,
            "height_cm": member.height,
        },
        "intake": screen["intake"],
        "planned": screen.get("planned", []),
        "entries": screen["entries"],
    }
