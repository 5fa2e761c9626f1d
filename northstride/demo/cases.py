"""What brought members to the couch: cases of their own and the worked stories, each so long before today."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from northstride.demo.scenario import member
from northstride.demo.screen import DemoScreen
from northstride.demo.stories import stories

FILE = Path(__file__).parent / "cases.toml"
PARTS = ("date", "purpose", "intake", "planned", "entries", "consent")


def cases() -> Iterator[DemoScreen]:
    """Oldest first."""
    yield from sorted((*_own(), *_told()), key=lambda screen: -screen.days_ago)


def _own() -> Iterator[DemoScreen]:
    for raw in _raw()["case"]:
        record = {name: raw[name] for name in PARTS if name in raw}
        done = tuple(raw.get("done", ()))
        yield DemoScreen(
            raw["slug"], member(raw["number"]), raw["days_ago"], record, raw.get("open", False), done
        )


def _told() -> Iterator[DemoScreen]:
    by_slug = {story.slug: story for story in stories()}
    for raw in _raw()["told"]:
        story = by_slug[raw["slug"]]
        screen = next(each for each in story.screens if each.name == raw["screen"])
        number = int(screen.record["athlete"]["ref"].removeprefix("NS-"))
        done = tuple(raw.get("done", ()))
        yield DemoScreen(story.slug, member(number), raw["days_ago"], screen.record, False, done)


def _raw() -> dict[str, Any]:
    return tomllib.loads(FILE.read_text(encoding="utf-8"))
