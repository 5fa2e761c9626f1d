"""The JSON Schema of the open record: from the models, with each test's measures from the catalogue."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from northstride.core.catalogue import Catalogue, Measure, Test
from northstride.core.catalogue.kinds import KIND_FACTS, MeasureKind
from northstride.core.examination import LOOKS_FULL
from northstride.core.measuring.angles import Dial
from northstride.record.model import Record
from northstride.record.values import MOST_TRIALS, STRENGTH_GRADE

Schema = dict[str, Any]


def record_schema(catalogue: Catalogue) -> Schema:
    schema: Schema = Record.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "North Stride screen"
    entry = schema["$defs"]["EntryPart"]
    entry["properties"]["test"] = {"enum": list(catalogue.tests)}
    entry["allOf"] = [_test_rule(test) for test in catalogue.tests.values()]
    schema["$defs"]["EntryPain"]["properties"]["site"] = {"enum": [*catalogue.sites, None]}
    schema["$defs"]["ComplaintPart"]["properties"]["sites"] = {
        "type": "array",
        "items": {"enum": list(catalogue.sites)},
    }
    schema["properties"]["planned"] = {"type": "array", "items": {"enum": list(catalogue.tests)}}
    return schema


def _test_rule(test: Test) -> Schema:
    """What an entry of this test may hold: bare values with a side, or one per side without."""
    sided = {measure.code: _value(measure) for measure in test.measures}
    per_side = {
        code: {
            "type": "object",
            "properties": {"left": value, "right": value},
            "additionalProperties": False,
            "minProperties": 1,
        }
        for code, value in sided.items()
    }
    loose = per_side if test.sides == "each" else {c: {"anyOf": [sided[c], per_side[c]]} for c in sided}
    has_side = {"properties": {"side": {"enum": ["left", "right"]}}, "required": ["side"]}
    return {
        "if": {"properties": {"test": {"const": test.code}}},
        "then": {
            "properties": {"seen": {"items": {"enum": [item.code for item in test.seen]}}},
            "if": has_side,
            "then": {"properties": {"values": _values(sided)}},
            "else": {"properties": {"values": _values(loose)}},
        },
    }


def _values(properties: Schema) -> Schema:
    return {"type": "object", "properties": properties, "additionalProperties": False}


def _value(measure: Measure) -> Schema:
    return SCHEMAS[measure.kind](measure)


def _codes(measure: Measure) -> list[str]:
    return [choice.code for choice in measure.choices]


def _grade(measure: Measure) -> Schema:
    low, high = measure.plausible or (0, 0)
    if measure.allowed:
        return {"enum": measure.allowed}
    return {"type": "integer", "minimum": low, "maximum": high}


def _number(measure: Measure) -> Schema:
    low, high = measure.plausible or (None, None)
    trial: Schema = {
        "type": "integer" if measure.facts.whole else "number",
        "minimum": low,
        "maximum": high,
    }
    if measure.facts.dial:
        trial = {"anyOf": [trial, _dial()]}
    options = [trial, {"type": "array", "items": trial, "minItems": 1, "maxItems": MOST_TRIALS}]
    if measure.facts.dial:
        options.append({"const": LOOKS_FULL})
    return {"anyOf": options}


def _dial() -> Schema:
    return {
        "type": "object",
        "properties": {
            "reading": {"type": "number", "minimum": 0, "maximum": 360},
            "dial": {"enum": [dial.value for dial in Dial]},
            "direction": {"enum": [1, -1]},
        },
        "required": ["reading", "dial", "direction"],
        "additionalProperties": False,
    }


SCHEMAS: Mapping[MeasureKind, Callable[[Measure], Schema]] = {
    "angle": _number,
    "length": _number,
    "time": _number,
    "force": _number,
    "mass": _number,
    "count": _number,
    "grade": _grade,
    "strength": lambda _measure: {"type": "string", "pattern": STRENGTH_GRADE.pattern},
    "choice": lambda measure: {"enum": _codes(measure)},
    "choices": lambda measure: {"type": "array", "items": {"enum": _codes(measure)}},
    "flag": lambda _measure: {"type": "boolean"},
}
if set(SCHEMAS) != set(KIND_FACTS):
    raise KeyError("kinds of measure and their schemas differ")
