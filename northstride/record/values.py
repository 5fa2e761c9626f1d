"""One value of one measure: checked against the catalogue, turned into the core's own type."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Callable, Iterator, Mapping
from typing import Literal, TypeVar

from northstride.core.catalogue import Measure
from northstride.core.catalogue.kinds import KIND_FACTS, MeasureKind
from northstride.core.examination import LOOKS_FULL, Trials, Value
from northstride.core.measuring.angles import Dial, DialReading, angle_of, check_plausible
from northstride.core.terms.errors import Fault, ReadingOutOfRange

MOST_TRIALS = 10
STRENGTH_GRADE = re.compile(r"^(0|[1-4][+\-−]?|5[\-−]?)$")
SIDE_KEYS = frozenset({"left", "right"})
T = TypeVar("T")


class Refused(Exception):
    """Carries the faults of one value."""

    def __init__(self, faults: list[Fault]) -> None:
        super().__init__("; ".join(map(str, faults)))
        self.faults = faults


def shown(value: object) -> str:
    """A refused value as it stood, short enough for one line."""
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 60 else f"{text[:57]}…"


def is_per_side(raw: object) -> bool:
    return isinstance(raw, Mapping) and bool(raw) and set(raw) <= SIDE_KEYS


def read_value(measure: Measure, raw: object, path: str) -> Value:
    """The core's value. Raises Refused with every fault of this value."""
    return READERS[measure.kind](measure, raw, path)


def _refusal(path: str, raw: object, why: str) -> Refused:
    return Refused([Fault(path, raw, f"{shown(raw)} {why}")])


def _number(raw: object) -> float | None:
    """A finite number; booleans are none, and neither is what no float can hold."""
    if isinstance(raw, bool) or not isinstance(raw, (int, float)):
        return None
    try:
        number = float(raw)
    except OverflowError:
        return None
    return number if math.isfinite(number) else None


def _read_grade(measure: Measure, raw: object, path: str) -> int:
    low, high = measure.plausible or (0, 0)
    number = _number(raw)
    if number is not None and number.is_integer() and low <= number <= high:
        if measure.allowed and int(number) not in measure.allowed:
            raise _refusal(path, raw, f"is not one of {', '.join(map(str, measure.allowed))}")
        return int(number)
    raise _refusal(path, raw, f"is not a grade from {low:g} to {high:g}")


def _read_strength(_measure: Measure, raw: object, path: str) -> str:
    if isinstance(raw, str) and STRENGTH_GRADE.fullmatch(raw):
        return raw.replace("−", "-")
    raise _refusal(path, raw, 'is not a muscle grade from "0" to "5"')


def _read_flag(_measure: Measure, raw: object, path: str) -> bool:
    if isinstance(raw, bool):
        return raw
    raise _refusal(path, raw, "is not true or false")


def _one_choice(measure: Measure, raw: object, path: str) -> str:
    codes = [choice.code for choice in measure.choices]
    if isinstance(raw, str) and raw in codes:
        return raw
    raise _refusal(path, raw, f"is not one of {', '.join(codes)}")


def _each(raw: list[object], path: str, read: Callable[[object, str], T]) -> tuple[T, ...]:
    """Every item read at its own place. Raises Refused with the faults of all of them."""
    found: list[T] = []
    faults: list[Fault] = []
    for place, item in enumerate(raw):
        try:
            found.append(read(item, f"{path}[{place}]"))
        except Refused as refused:
            faults += refused.faults
    if faults:
        raise Refused(faults)
    return tuple(found)


def _read_choices(measure: Measure, raw: object, path: str) -> tuple[str, ...]:
    if not isinstance(raw, list):
        raise _refusal(path, raw, "is not a list")
    read = _each(raw, path, lambda item, place: _one_choice(measure, item, place))
    return tuple(dict.fromkeys(read))


def _read_number(measure: Measure, raw: object, path: str) -> Value:
    if raw == LOOKS_FULL and measure.facts.dial:
        return LOOKS_FULL
    if not isinstance(raw, list):
        return Trials((_read_trial(measure, raw, path),))
    if not raw:
        raise _refusal(path, raw, "has no trial in it")
    if len(raw) > MOST_TRIALS:
        raise Refused([Fault(path, len(raw), f"{len(raw)} trials are more than {MOST_TRIALS}")])
    return Trials(_each(raw, path, lambda item, place: _read_trial(measure, item, place)))


def _read_trial(measure: Measure, raw: object, path: str) -> float:
    dial = None
    if isinstance(raw, Mapping) and measure.facts.dial:
        dial = _read_dial(raw, path)
        value = angle_of(dial)
    else:
        number = _number(raw)
        if number is None:
            raise _refusal(path, raw, "is not a number")
        value = number
    if measure.facts.whole and not value.is_integer():
        raise _refusal(path, raw, "is not a whole number")
    low, high = measure.plausible or (value, value)
    if measure.facts.dial:
        try:
            check_plausible(value, low, high, dial)
        except ReadingOutOfRange as error:
            raise Refused([Fault(path, raw, _out_of_range(error, dial))]) from error
    elif not low <= value <= high:
        raise _refusal(path, raw, f"is outside {low:g} to {high:g}")
    return value


def _out_of_range(error: ReadingOutOfRange, dial: DialReading | None) -> str:
    taken = f"{dial.reading:g} on this dial would be {error.value:g}°, " if dial else f"{error.value:g} is "
    text = f"{taken}outside {error.low:g} to {error.high:g}"
    return f"{text}; {error.suggestion}" if error.suggestion else text


def _read_dial(raw: Mapping[str, object], path: str) -> DialReading:
    faults = list(_dial_faults(raw, path))
    if faults:
        raise Refused(faults)
    direction: Literal[1, -1] = 1 if raw["direction"] == 1 else -1
    return DialReading(float(str(raw["reading"])), Dial(str(raw["dial"])), direction)


def _dial_faults(raw: Mapping[str, object], path: str) -> Iterator[Fault]:
    for key in ("reading", "dial", "direction"):
        if key not in raw:
            yield Fault(f"{path}.{key}", None, "is missing from the dial reading")
    for key in raw.keys() - {"reading", "dial", "direction"}:
        yield Fault(f"{path}.{key}", raw[key], f"{shown(raw[key])} stands under an unknown key")
    reading = raw.get("reading", 0)
    number = _number(reading)
    if number is None:
        yield Fault(f"{path}.reading", reading, f"{shown(reading)} is not a number")
    elif not 0 <= number <= 360:
        yield Fault(f"{path}.reading", reading, f"{shown(reading)} is on no dial: 0 to 360")
    if raw.get("dial", Dial.ZERO) not in list(Dial):
        yield Fault(f"{path}.dial", raw["dial"], f"{shown(raw['dial'])} is not one of {', '.join(Dial)}")
    direction = raw.get("direction", 1)
    if isinstance(direction, bool) or direction not in (1, -1):
        yield Fault(f"{path}.direction", direction, f"{shown(direction)} is not 1 or -1")


Reader = Callable[[Measure, object, str], Value]
READERS: Mapping[MeasureKind, Reader] = {
    "angle": _read_number,
    "length": _read_number,
    "time": _read_number,
    "force": _read_number,
    "mass": _read_number,
    "count": _read_number,
    "grade": _read_grade,
    "strength": _read_strength,
    "choice": _one_choice,
    "choices": _read_choices,
    "flag": _read_flag,
}
if set(READERS) != set(KIND_FACTS):
    raise KeyError("kinds of measure and their readers differ")
