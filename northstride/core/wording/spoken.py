"""What codes of the open format are called aloud, as data: each code has its words, and no other."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from pathlib import Path
from types import MappingProxyType
from typing import get_args

from northstride.core.norms import with_limits
from northstride.core.terms.vocabulary import QUESTIONS, Gate, RetakeReason, ReturnCriterion

FILE = Path(__file__).parent / "spoken.toml"
CODES = {
    "gates": get_args(Gate),
    "openings": get_args(Gate),
    "retakes": get_args(RetakeReason),
    "criteria": get_args(ReturnCriterion),
    "questions": QUESTIONS,
}


def read_spoken(text: str) -> Mapping[str, Mapping[str, str]]:
    """Words by code, by family, with the limits they name.

    Raises KeyError naming codes that lack words or are unknown.
    """
    raw = tomllib.loads(text)
    for family, codes in CODES.items():
        if apart := set(codes) ^ set(raw[family]):
            raise KeyError(f"{FILE.name}: {family} and their words differ: {sorted(apart)}")
    return MappingProxyType(
        {
            family: MappingProxyType({code: with_limits(words) for code, words in raw[family].items()})
            for family in CODES
        }
    )


SPOKEN = read_spoken(FILE.read_text(encoding="utf-8"))
