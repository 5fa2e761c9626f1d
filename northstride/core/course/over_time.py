"""One measure over time: which value is the earlier one, whether two may be compared, what is worse.

Read by change, change lines and the return board alike. Of two screens of one day the one begun later is
the later one: callers give what they have in the order it was begun.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import Literal, NamedTuple, TypeVar

from northstride.core.catalogue import Catalogue, Test
from northstride.core.catalogue.polarity import for_the_worse

T = TypeVar("T")
Validity = Literal["valid", "flattered", "void", "held"]


def oldest_first(items: Iterable[T], day: Callable[[T], dt.date]) -> list[T]:
    """By day; of one day as they were begun, which is how they are given."""
    return sorted(items, key=day)


def followed_measures(test: Test) -> Iterator[str]:
    """What is measured, and what follows from it. What only feeds the latter is not followed by itself."""
    for measure in test.measures:
        if measure.numeric and (measure.error is not None or not test.derived):
            yield measure.code
    yield from (item.code for item in test.derived)


def worse_now(catalogue: Catalogue, test: str, measure: str, difference: float | None) -> bool | None:
    """None where nothing changed, or where no direction is worse. `difference` is later − earlier."""
    found = catalogue.compared(test, measure)
    return for_the_worse(found.polarity, difference) if found is not None else None


def worth(catalogue: Catalogue, test: str, measure: str, seen: Iterable[str]) -> Validity:
    """What was seen decides what a number is worth; void weighs more than flattered."""
    items = [catalogue.seen(test, code) for code in seen]
    if any(item is not None and measure in item.voids for item in items):
        return "void"
    if any(item is not None and measure in item.flatters for item in items):
        return "flattered"
    return "valid"


def way_of(catalogue: Catalogue, test: str, method: str | None, schools: Mapping[str, object]) -> str | None:
    """How it was done: as the entry says; else as the screen's school does it."""
    found = catalogue.tests.get(test)
    if method or found is None or found.method_school is None:
        return method or None
    return str(schools[found.method_school])


def another_way(was: str | None, now: str | None) -> bool:
    """What is unknown of either is no other way."""
    return None not in (was, now) and was != now


class Taken(NamedTuple):
    """What decides whether a value may be held against another of its measure."""

    validity: Validity
    method: str | None


def kept_apart(then: Taken, now: Taken) -> Literal["now_spoilt", "then_spoilt", "another_way"] | None:
    """What keeps two values of one measure and side apart; None where nothing does."""
    if now.validity != "valid":
        return "now_spoilt"
    if then.validity != "valid":
        return "then_spoilt"
    return "another_way" if another_way(then.method, now.method) else None
