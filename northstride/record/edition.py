"""Which rules read a record: a short fingerprint of catalogue, norms and rules as shipped."""

from __future__ import annotations

import hashlib
from functools import lru_cache
from pathlib import Path

from northstride.core.catalogue import Catalogue

PACKAGE = Path(__file__).parents[1]
# What decides how a record is read: the core with its data, and the way in and out of it.
READING = ("core", "record")
LENGTH = 12


def shipped(catalogue: Catalogue) -> str:
    """Twelve hexadecimal digits that change whenever any of it does."""
    return hashlib.sha256(f"{_sources()} {catalogue.mark}".encode()).hexdigest()[:LENGTH]


@lru_cache(maxsize=1)
def _sources() -> str:
    """Of every source and data file, by its place, whatever order the disk gives them in."""
    digest = hashlib.sha256()
    files = [file for part in READING for file in (PACKAGE / part).rglob("*")]
    for file in sorted(file for file in files if file.suffix in (".py", ".toml")):
        digest.update(file.relative_to(PACKAGE).as_posix().encode() + b"\0")
        digest.update(file.read_bytes() + b"\0")
    return digest.hexdigest()
