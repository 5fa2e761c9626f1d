"""One value of one measure as the value of an Observation or of a component of it, and back."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from northstride.core.catalogue import Measure
from northstride.core.examination import LOOKS_FULL
from northstride.core.measuring.angles import Dial, DialReading, told_angle
from northstride.interchange.fhir.systems import (
    CHOICE,
    DIAL,
    PART,
    TRIAL,
    UCUM,
    UNIT_WORDS,
    Resource,
    code_in,
    concept,
)

NOTHING = "none"
DIAL_PARTS = {"reading": "valueDecimal", "dial": "valueCode", "direction": "valueInteger"}


def value_parts(measure: Measure, raw: Any) -> Iterator[Resource]:
    """What carries a value: one part, or one a trial or choice where it is a list."""
    if not isinstance(raw, list):
        yield _part(measure, raw)
        return
    if not raw:
        # Looked at, and nothing was there: not the same as not looked at.
        yield {"valueCodeableConcept": concept(PART, NOTHING, "nothing found")}
    for place, item in enumerate(raw):
        part = _part(measure, item)
        trial = {"url": TRIAL, "valueInteger": place + 1}
        yield {**part, "extension": [trial, *part.get("extension", [])]}


def _part(measure: Measure, raw: Any) -> Resource:
    if isinstance(raw, bool):
        return {"valueBoolean": raw}
    if isinstance(raw, dict):
        found = told_angle(DialReading(float(raw["reading"]), Dial(raw["dial"]), raw["direction"]))
        told = [{"url": name, kind: raw[name]} for name, kind in DIAL_PARTS.items()]
        return {**_quantity(measure, found), "extension": [{"url": DIAL, "extension": told}]}
    if isinstance(raw, str):
        return {"valueCodeableConcept": concept(CHOICE, raw, _label(measure, raw))}
    if measure.kind == "grade":
        return {"valueInteger": int(raw)}
    return _quantity(measure, raw)


def _label(measure: Measure, code: str) -> str:
    if code == LOOKS_FULL:
        return "looks full"
    return next((choice.label for choice in measure.choices if choice.code == code), code)


def _quantity(measure: Measure, number: float) -> Resource:
    unit = UNIT_WORDS[measure.unit]
    # Plus zero: no quantity is minus nothing.
    told = {"value": number + 0, "system": UCUM, "code": measure.unit, **({"unit": unit} if unit else {})}
    return {"valueQuantity": told}


def value_of(parts: list[Resource]) -> Any:
    """The value as it stood. Raises ValueError where the parts say none, or another unit than one of ours."""
    if [code_in(part.get("valueCodeableConcept"), PART) for part in parts] == [NOTHING]:
        return []
    if all(_extension(part, TRIAL) is None for part in parts):
        if len(parts) != 1:
            raise ValueError("has several values that are no trials")
        return _one(parts[0])
    trials = [(_extension(part, TRIAL) or {}).get("valueInteger") for part in parts]
    if trials != list(range(1, len(parts) + 1)):
        raise ValueError("has trials out of order")
    return [_one(part) for part in parts]


def _one(part: Resource) -> Any:
    dial = _extension(part, DIAL)
    if dial is not None:
        told = {str(item.get("url")): item for item in dial.get("extension", [])}
        if told.keys() != DIAL_PARTS.keys():
            raise ValueError("has a dial reading without its reading, dial or direction")
        return {name: told[name].get(kind) for name, kind in DIAL_PARTS.items()}
    for name in ("valueBoolean", "valueInteger"):
        if name in part:
            return part[name]
    if "valueQuantity" in part:
        quantity = part["valueQuantity"]
        if quantity.get("system") != UCUM or quantity.get("code") not in UNIT_WORDS:
            raise ValueError(f"has the unit {quantity.get('code')!r}, which is none of ours")
        return quantity.get("value")
    code = code_in(part.get("valueCodeableConcept"), CHOICE)
    if code is None:
        raise ValueError("has no value that we know")
    return code


def units_of(parts: list[Resource]) -> set[str]:
    """The units of the quantities among them."""
    return {str(part["valueQuantity"].get("code")) for part in parts if "valueQuantity" in part}


def _extension(part: Resource, url: str) -> Resource | None:
    return next((item for item in part.get("extension", []) if item.get("url") == url), None)
