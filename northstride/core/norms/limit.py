"""Limits of rules, each standing once with unit and source; sentences name them."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Iterator, Mapping
from functools import lru_cache
from pathlib import Path
from types import MappingProxyType
from typing import get_args

from northstride.core.terms.vocabulary import Unit

HERE = Path(__file__).parent

Limits = Mapping[str, float]
# What a rule is held against, beyond what is measured.
UNITS = (*get_args(Unit), "min", "days", "weeks", "years", "percent", "points", "grade", "count")


@lru_cache
def limits(name: str) -> Limits:
    """The limits of one family of rules, by name, each in its own unit.

    Raises KeyError for a block without its source, or in no known unit.
    """
    raw = tomllib.loads((HERE / f"{name}.toml").read_text(encoding="utf-8"))
    for key, block in raw.items():
        if not block.get("source"):
            raise KeyError(f"{name}.toml: {key} has no source")
        if block.get("unit") not in UNITS:
            raise KeyError(f"{name}.toml: {key} is in no known unit")
    return MappingProxyType({key: float(block["value"]) for key, block in raw.items()})


# Each family of rules has a file of its own.
FAMILIES = (
    *("ankle", "bone_and_blood", "danger", "foot", "hip_joint", "hip_length", "hip_length_more"),
    *("range", "return", "route"),
)
# "{danger.surgery_holds_weeks}", or spelled out: "{danger.surgery_holds_weeks:word}".
REFERENCE = re.compile(r"\{(?P<family>[a-z_]+)\.(?P<name>[a-z_]+)(?P<word>:word)?\}")
WORDS = (
    *("none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"),
    *("eleven", "twelve"),
)
COUNTED = "days|weeks|years|hours|minutes|steps|percent|points|degrees"
BARE = re.compile(rf"\d|\b(?:{'|'.join(WORDS[2:])}) (?:{COUNTED})\b")


def limit_blocks() -> Mapping[str, tuple[str, ...]]:
    """The names of all limits, by family."""
    return {family: tuple(limits(family)) for family in FAMILIES}


def limit_at(reference: str) -> float:
    """The limit that "family.name" names, in its own unit. Raises KeyError for none."""
    family, _, name = reference.partition(".")
    try:
        return limits(family)[name]
    except (FileNotFoundError, KeyError):
        raise KeyError(f"no limit {reference}") from None


def with_limits(sentence: str) -> str:
    """Every reference replaced by its number. Raises KeyError for a limit nobody gave."""

    def number(found: re.Match[str]) -> str:
        value = limit_at(f"{found['family']}.{found['name']}")
        if not found["word"]:
            return f"{value:g}"
        if value not in range(len(WORDS)):
            raise KeyError(f"{value:g} has no word")
        return WORDS[int(value)]

    return REFERENCE.sub(number, sentence)


def bare_numbers(sentence: str) -> Iterator[str]:
    """Numbers that stand in a sentence and are no reference."""
    yield from BARE.findall(REFERENCE.sub("", sentence))
