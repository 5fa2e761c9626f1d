"""What a reading was made from, as named hashes: equal only where all of it is equal."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping
from typing import Any

import orjson

Identity = dict[str, str]
# Which part of the record each part of the identity speaks of.
PARTS: dict[str, tuple[str, ...]] = {
    "answers": ("entries",),
    "story": ("intake",),
    "plan": ("planned", "left_out", "reasons_after"),
    "overrides": ("overrides",),
    "athlete": ("athlete",),
    "schools": ("schools",),
    "screen": ("id", "date", "purpose", "examiner", "consent"),
}
OUTSIDE = ("errors", "earlier", "rules")
LENGTH = 16


def identity_of(
    record: Mapping[str, Any], earlier: Iterable[object], errors: Mapping[str, float], rules: str
) -> Identity:
    """`earlier` names each screen it is held against, in order; `rules` is the fingerprint as shipped."""
    own = {part: _hash([record.get(name) for name in names]) for part, names in PARTS.items()}
    return {**own, "errors": _hash(errors), "earlier": _hash(list(earlier)), "rules": rules}


def changed_parts(shown: Mapping[str, str], now: Mapping[str, str]) -> list[str]:
    """The names of the parts that differ, in their order."""
    return [part for part in (*PARTS, *OUTSIDE) if shown.get(part) != now.get(part)]


def content_hash(document: object) -> str:
    return _hash(document)


def _hash(content: object) -> str:
    told = orjson.dumps(content, option=orjson.OPT_SORT_KEYS | orjson.OPT_NON_STR_KEYS)
    return hashlib.sha256(told).hexdigest()[:LENGTH]
