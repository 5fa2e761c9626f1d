"""Which letters our fonts can draw: a mark stands for others, and the paper says which they are."""

from __future__ import annotations

import json
import unicodedata
from bisect import bisect_right
from collections.abc import Iterable
from functools import lru_cache
from pathlib import Path
from typing import Any

RANGES = Path(__file__).parent / "fonts" / "letters.json"
# No letter of any name: whoever sees it looks for what it stands for.
MISSING = "¤"


@lru_cache
def _ranges() -> tuple[list[int], list[int]]:
    first_and_last = json.loads(RANGES.read_text(encoding="utf-8"))
    return [first for first, _ in first_and_last], [last for _, last in first_and_last]


def can_be_drawn(letter: str) -> bool:
    firsts, lasts = _ranges()
    place = bisect_right(firsts, ord(letter)) - 1
    return letter == "\n" or (place >= 0 and ord(letter) <= lasts[place])


def undrawable(text: str) -> set[str]:
    """Letters of a text that paper cannot show. Invisible marks are left out and are none."""
    return {each for each in text if not can_be_drawn(each) and unicodedata.category(each) != "Cf"}


def named(letters: Iterable[str]) -> list[str]:
    """By their numbers, as every table of letters has them."""
    return [f"U+{ord(letter):04X}" for letter in sorted(letters)]


def printable(value: Any) -> Any:
    """Any content with only letters that can be drawn."""
    if isinstance(value, str):
        shown = unicodedata.normalize("NFC", value)
        return "".join(
            each if can_be_drawn(each) else MISSING for each in shown if unicodedata.category(each) != "Cf"
        )
    if isinstance(value, dict):
        return {key: printable(item) for key, item in value.items()}
    return [printable(item) for item in value] if isinstance(value, list) else value
