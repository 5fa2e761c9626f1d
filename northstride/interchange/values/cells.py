"""One cell of a table as a value of a measure, still to be checked as any other."""

from __future__ import annotations

import re
from typing import Any

from northstride.core.catalogue import Measure
from northstride.core.examination import LOOKS_FULL
from northstride.interchange.values.out import NOTHING

NUMBER = re.compile(r"[+-]?\d+([.,]\d+)?")
TRUTHS = {"true": True, "yes": True, "false": False, "no": False}
SIDES = {"left": "left", "l": "left", "right": "right", "r": "right", "": None}
# How many of the measure's unit one of another is.
UNITS = {
    "deg": {"deg": 1.0, "°": 1.0, "degrees": 1.0},
    "mm": {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4},
    "s": {"s": 1.0, "min": 60.0},
    "N": {"n": 1.0},
    "kg": {"kg": 1.0},
    "1": {"1": 1.0},
}


class NotAValue(ValueError):
    """Says what is wrong with a cell, in words."""


def side_of(cell: str) -> str | None:
    """Raises NotAValue."""
    if (said := cell.strip().casefold()) in SIDES:
        return SIDES[said]
    raise NotAValue("is neither left nor right")


def truth_of(cell: str) -> bool:
    if (said := cell.strip().casefold()) in TRUTHS:
        return TRUTHS[said]
    raise NotAValue("is neither yes nor no, true nor false")


def number_of(cell: str) -> int | float:
    text = cell.strip().replace("−", "-")
    if not NUMBER.fullmatch(text):
        raise NotAValue("is not a number")
    number = float(text.replace(",", "."))
    return int(number) if number.is_integer() else number


def factor_of(measure: Measure, unit: str) -> float:
    """How many of the measure's unit one of the cell's is. Raises NotAValue for a unit of another kind."""
    said = unit.strip().casefold()
    if not said:
        return 1.0
    if said in UNITS[measure.unit]:
        return UNITS[measure.unit][said]
    named = measure.unit if measure.unit != "1" else "a bare number"
    raise NotAValue(f"is in {unit.strip()}, and this is {named}")


def item_of(measure: Measure, cell: str, factor: float = 1.0) -> Any:
    """One trial, one choice, or the whole where there is one. Raises NotAValue."""
    text = cell.strip()
    if measure.numeric:
        if text == LOOKS_FULL:
            return text
        return number_of(text) if factor == 1 else round(number_of(text) * factor, 6)
    match measure.kind:
        case "flag":
            return truth_of(text)
        case "grade":
            return number_of(text)
        case "choice" | "choices":
            return _choice(measure, text)
        case _:
            return text


def _choice(measure: Measure, text: str) -> str:
    """By its code, or by what it is called."""
    named = {choice.label.casefold(): choice.code for choice in measure.choices}
    return named.get(text.casefold(), text)


def value_of(measure: Measure, cell: str) -> Any:
    """The whole value of a wide cell: semicolons between trials, or between the choices of a list."""
    if cell.strip() == NOTHING:
        return []
    items = [item_of(measure, item) for item in cell.split(";")]
    return items if len(items) > 1 or measure.kind == "choices" else items[0]
