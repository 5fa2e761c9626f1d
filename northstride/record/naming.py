"""Names and references as they are read: tidied on the way in, and told apart by what is seen of them."""

from __future__ import annotations

import json
import unicodedata
from functools import lru_cache
from pathlib import Path

# A table says the same few references on every row.
MANY = 4096
LOOKALIKES = Path(__file__).parent / "confusables.json"


def tidy(text: str) -> str:
    """In compatible letters, without what nobody sees, on one line, with single blanks within.

    NFKC, no format or control characters (Unicode categories Cf, Cc), trimmed.
    """
    if text.isascii() and text.isprintable():
        return " ".join(text.split())
    plain = unicodedata.normalize("NFKC", text)
    seen = (" " if each.isspace() else each for each in plain if each.isspace() or _is_seen(each))
    return " ".join("".join(seen).split())


def _is_seen(letter: str) -> bool:
    return unicodedata.category(letter) not in ("Cf", "Cc")


@lru_cache(maxsize=MANY)
def fold(text: str) -> str:
    """The same for references that differ in case alone."""
    return unicodedata.normalize("NFKC", tidy(text).casefold())


@lru_cache(maxsize=MANY)
def looks(text: str) -> str:
    """The same for references an eye cannot tell apart: the skeleton of UTS 39 (Unicode, Inc. 2020)."""
    alike = _lookalikes()
    letters = unicodedata.normalize("NFD", tidy(text))
    return unicodedata.normalize("NFD", "".join(alike.get(letter, letter) for letter in letters))


@lru_cache(maxsize=1)
def _lookalikes() -> dict[str, str]:
    groups: dict[str, str] = json.loads(LOOKALIKES.read_text(encoding="utf-8"))["looks_like"]
    return {letter: like for like, letters in groups.items() for letter in letters}
