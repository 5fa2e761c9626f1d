"""JSON text into plain objects, with a limit on how much of it there may be."""

from __future__ import annotations

import json
import re
from collections import Counter
from dataclasses import dataclass

from northstride.core.terms.errors import Fault


class InvalidRecord(Exception):
    """A document that was refused, with its faults: all of them, or the first and how many there are."""

    MOST = 200

    def __init__(self, faults: list[Fault]) -> None:
        if len(faults) > self.MOST:
            told = f"{len(faults)} faults in all; the first {self.MOST} are named"
            faults = [*faults[: self.MOST], Fault("$", None, told)]
        super().__init__("\n".join(map(str, faults)))
        self.faults = faults


@dataclass(frozen=True, slots=True)
class Limits:
    """How long a text may be, in characters, and how many values it may hold."""

    characters: int
    parts: int


# Two thousand entries of fifty values; what is larger is no screen, and reading it would take memory.
ONE_RECORD = Limits(5_000_000, 100_000)
# Many records of one athlete, or a study's measurements.
MANY_RECORDS = Limits(100_000_000, 2_000_000)

# A string, also one that never ends: it is passed once and never tried again from within.
STRINGS = re.compile(rb'"(?:[^"\\]++|\\.)*+(?:"|\\?\Z)', re.DOTALL)


class JsonObject(dict[str, object]):
    """A JSON object that remembers keys written twice."""

    doubled: tuple[str, ...] = ()


def _object(pairs: list[tuple[str, object]]) -> JsonObject:
    found = JsonObject(pairs)
    if len(found) < len(pairs):
        counted = Counter(key for key, _ in pairs)
        found.doubled = tuple(key for key, times in counted.items() if times > 1)
    return found


def doubled_keys(text: bytes) -> list[Fault]:
    """Keys that stand twice in a text that is JSON, each at its path. Raises RecursionError."""
    found: list[Fault] = []
    # What the numbers are does not matter here, and reading them could fail.
    whole = json.loads(text, object_pairs_hook=_object, parse_int=str, parse_float=str)
    _look_for_doubled(whole, "", found)
    return found


def _look_for_doubled(part: object, path: str, found: list[Fault]) -> None:
    if isinstance(part, JsonObject):
        found += [Fault(f"{path}.{key}".lstrip("."), None, "stands twice") for key in part.doubled]
        for key, value in part.items():
            _look_for_doubled(value, f"{path}.{key}", found)
    elif isinstance(part, list):
        for place, value in enumerate(part):
            _look_for_doubled(value, f"{path}[{place}]", found)


def parts_in(text: bytes) -> int:
    """About how many values a JSON text holds, without reading it."""
    bare = STRINGS.sub(b"", text)
    return sum(bare.count(mark) for mark in (b",", b"[", b"{")) + 1


def parse_json(text: str | bytes, limits: Limits = ONE_RECORD) -> object:
    """JSON, with keys written twice remembered. Raises InvalidRecord for what is no JSON, or too much."""
    raw = text.encode("utf-8", "surrogatepass") if isinstance(text, str) else text
    if len(raw) > limits.characters or parts_in(raw) > limits.parts:
        raise InvalidRecord([Fault("$", None, "is larger than a record can be")])
    try:
        return json.loads(raw.decode("utf-8"), object_pairs_hook=_object)
    except UnicodeDecodeError as error:
        raise InvalidRecord([Fault("$", None, f"is not UTF-8 text (byte {error.start})")]) from error
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        raise InvalidRecord([Fault("$", None, f"is not JSON ({where}: {error.msg})")]) from error
    except (ValueError, RecursionError) as error:
        raise InvalidRecord([Fault("$", None, "is not JSON a record can be read from")]) from error
