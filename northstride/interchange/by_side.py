"""The values of an entry, each with the side it is of."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from northstride.core.catalogue import Measure, Test
from northstride.record.model import EntryPart
from northstride.record.values import is_per_side


def values_by_side(test: Test, part: EntryPart) -> Iterator[tuple[Measure, str | None, Any]]:
    """A value that tells left and right apart is two. Raises KeyError for an unknown measure."""
    for code, raw in part.values.items():
        measure = test.measure(code)
        if measure is None:
            raise KeyError(code)
        if part.side is None and is_per_side(raw) and isinstance(raw, dict):
            yield from ((measure, side, value) for side, value in raw.items())
        else:
            yield measure, part.side, raw
