"""Where practitioners differ, in words: what is asked, what one may choose, why the default is one."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any, get_args, get_type_hints

from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS, Schools

FILE = Path(__file__).parent / "schools.toml"


@dataclass(frozen=True, slots=True)
class SchoolOption:
    value: str | int
    label: str


@dataclass(frozen=True, slots=True)
class School:
    code: str
    name: str
    why: str
    default: str | int
    options: tuple[SchoolOption, ...]


@lru_cache
def schools() -> tuple[School, ...]:
    """All of them, in the order in which they are met. Raises KeyError where data and vocabulary differ."""
    found = tuple(_school(raw) for raw in tomllib.loads(FILE.read_text(encoding="utf-8"))["school"])
    if apart := {school.code for school in found} ^ set(DEFAULT_SCHOOLS):
        raise KeyError(f"{FILE.name}: schools and their words differ: {sorted(apart)}")
    return found


def _school(raw: dict[str, Any]) -> School:
    code = raw["code"]
    known = {str(value): value for value in get_args(get_type_hints(Schools)[code])}
    if apart := known.keys() ^ raw["options"].keys():
        raise KeyError(f"{FILE.name}: options of {code} and their words differ: {sorted(apart)}")
    defaults: dict[str, Any] = {**DEFAULT_SCHOOLS}
    options = tuple(SchoolOption(known[key], label) for key, label in raw["options"].items())
    return School(code, raw["name"], raw["why"], defaults[code], options)
