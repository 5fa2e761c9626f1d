"""The JSON Schema of the open record: from the models, with each test's measures from the catalogue."""

from __future__ import annotations

from typing import Any

from northstride.core.catalogue import Catalogue, Measure, Test
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
    codes = [choice.code for choice in measure.choices]
    if measure.numeric:
        return _number(measure)
    match measure.kind:
        case "grade":
            low, high = measure.plausible or (0, 0)
            if measure.allowed:
                return {"enum": measure.allowed}
            return {"type": "integer", "minimum": low, "maximum": high}
        case "strength":
            return {"type": "string", "pattern": STRENGTH_GRADE.pattern}
        case "flag":
            return {"type": "boolean"}
        case "choices":
            return {"type": "array", "items": {"enum": codes}}
        case _:
            return {"enum": codes}


def _number(measure: Measure) -> Schema:
    low, high = measure.plausible or (None, None)
    trial: Schema = {
        "type": "integer" if measure.kind == "count" else "number",
        "minimum": low,
        "maximum": high,
    }
    if measure.kind == "angle":
        trial = {"anyOf": [trial, _dial()]}
    options = [trial, {"type": "array", "items": trial, "minItems": 1, "maxItems": MOST_TRIALS}]
    if measure.kind == "angle":
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
