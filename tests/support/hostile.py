"""Values nobody means well with, for every kind of measure."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from northstride.core.catalogue import Measure, Test, default_catalogue
from tests.support.api import answer


def hostile(value: Any) -> list[Any]:
    """What looks like a sound value and is none, and what looks like nothing at all."""
    text = str(value)
    return [
        *(f"{text}{end}" for end in ("\n", "\r", "\x00", " ", "\u2028", "\u200b", "−", "'")),
        *(f"{start}{text}" for start in ("\n", " ", "+", "\ufeff")),
        text,
        text * 400,
        [text, f"{text}\n"],
        {"left": f"{text}\n"},
        [[value]],
        {"reading": text, "dial": "zero\n", "direction": 1},
        1e308,
        -0.0,
        True,
        [],
        {},
        "",
    ]


def sound(measure: Measure) -> Any:
    if measure.choices:
        return measure.choices[0].code
    low = (measure.plausible or (4, 4))[0]
    return "4" if measure.kind == "strength" else low


def of_each_kind() -> dict[str, tuple[Test, Measure]]:
    """A measure of each kind there is, with its test."""
    return {
        measure.kind: (test, measure)
        for test in default_catalogue().tests.values()
        for measure in test.measures
        if test.key != measure.code
    }


def hostile_answers(test: Test, measure: Measure) -> Iterator[dict[str, Any]]:
    side = "left" if test.sides == "each" or measure.per_side else None
    for value in hostile(sound(measure)):
        yield answer(side, f"values.{measure.code}", value, test=test.code)
