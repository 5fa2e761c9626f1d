"""An entry of a screen as Observations: one for the entry, one for each value, and back."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from uuid import uuid5

from northstride.core.catalogue import Catalogue, Measure, Test
from northstride.interchange.by_side import values_by_side
from northstride.interchange.fhir.systems import (
    CATEGORY,
    ENTRY,
    MEASURE,
    METHOD,
    OBSERVATION_CATEGORY,
    PAIN_SITE,
    PART,
    SEEN,
    TEST,
    UCUM,
    UNIT_WORDS,
    Resource,
    body_site,
    code_in,
    concept,
    reference,
    side_of,
)
from northstride.interchange.fhir.values import units_of, value_of, value_parts
from northstride.record.model import EntryPart, Record

BY_EXCEPTION, PAIN = "by_exception", "pain"
# Shown as the two arms of one range.
BOTH_ARMS = ("active", "passive")


def category(code: str) -> list[Resource]:
    return [concept(OBSERVATION_CATEGORY, "exam"), concept(CATEGORY, code)]


def kind_of(observation: Resource) -> str | None:
    """Whether it is an entry, a value of one, or a flag."""
    return next((code for kind in observation.get("category", []) if (code := code_in(kind, CATEGORY))), None)


def entry_resources(catalogue: Catalogue, record: Record, place: int, common: Resource) -> Iterator[Resource]:
    """The entry, then its values. `common`: whose it is, in which encounter, when, and how far it holds."""
    part = record.entries[place]
    test = catalogue.tests[part.test]
    key = uuid5(record.id, f"entry {place}")
    own = {**common, **_told_of_all(test, part)}
    values = list(_value_observations(test, part, own, key))
    group = {
        "resourceType": "Observation",
        "id": str(key),
        **own,
        **({"identifier": [{"system": ENTRY, "value": str(part.id)}]} if part.id else {}),
        "category": category("entry"),
        "code": concept(TEST, test.code, test.name),
        "bodySite": body_site(test.region, part.side),
    }
    if part.declined is not None:
        group |= {"status": "cancelled", "dataAbsentReason": {"text": part.declined}}
    if part.note:
        group["note"] = [{"text": part.note}]
    if components := list(_beside(test, part)):
        group["component"] = components
    if values:
        group["hasMember"] = [reference(value) for value in values]
    yield group
    yield from values


def _told_of_all(test: Test, part: EntryPart) -> Resource:
    told: Resource = {}
    if part.at:
        told["issued"] = part.at.isoformat()
    if part.by:
        told["performer"] = [{"display": part.by}]
    if part.method:
        known = part.method in test.methods
        told["method"] = concept(METHOD, part.method) if known else {"text": part.method}
    return told


def _beside(test: Test, part: EntryPart) -> Iterator[Resource]:
    """Pain, what was seen, and whether it was written as the rest."""
    if part.pain is not None:
        for name, value in part.pain.model_dump(exclude_none=True).items():
            yield {"code": concept(PART, f"{PAIN}.{name}"), **_pain_value(name, value)}
    for code in part.seen:
        seen = test.seen_code(code)
        label = seen.label if seen else None
        yield {"code": concept(PART, "seen"), "valueCodeableConcept": concept(SEEN, code, label)}
    if part.by_exception is not None:
        yield {"code": concept(PART, BY_EXCEPTION), "valueBoolean": part.by_exception}


def _pain_value(name: str, value: Any) -> Resource:
    if name == "site":
        return {"valueCodeableConcept": concept(PAIN_SITE, value)}
    return {"valueBoolean": value} if isinstance(value, bool) else {"valueInteger": value}


def _value_observations(test: Test, part: EntryPart, own: Resource, key: Any) -> Iterator[Resource]:
    by_side = list(values_by_side(test, part))
    arms = [item for item in by_side if item[0].code in BOTH_ARMS]
    together = len(arms) == len(BOTH_ARMS) and len({side for _, side, _ in arms}) == 1
    if together:
        components = [
            _component(test, measure, item) for measure, _, raw in arms for item in value_parts(measure, raw)
        ]
        yield {**_value(test, own, key, "range", arms[0][1]), "code": concept(TEST, test.code, test.name)} | {
            "component": components
        }
    for measure, side, raw in by_side:
        if together and measure.code in BOTH_ARMS:
            continue
        observation = _value(test, own, key, f"{measure.code} {side}", side) | {
            "code": concept(MEASURE, f"{test.code}/{measure.code}", f"{test.name}: {measure.label}"),
            **_usual(measure),
        }
        parts = list(value_parts(measure, raw))
        if isinstance(raw, list):
            yield observation | {"component": [_component(test, measure, item) for item in parts]}
        else:
            yield observation | parts[0]


def _value(test: Test, own: Resource, key: Any, name: str, side: str | None) -> Resource:
    return {
        "resourceType": "Observation",
        "id": str(uuid5(key, name)),
        **own,
        "category": category("value"),
        "bodySite": body_site(test.region, side),
    }


def _component(test: Test, measure: Measure, part: Resource) -> Resource:
    code = concept(MEASURE, f"{test.code}/{measure.code}", measure.label)
    return {"code": code, **part, **(_usual(measure) if "valueQuantity" in part else {})}


def _usual(measure: Measure) -> Resource:
    """What healthy adults usually show, where the catalogue knows it."""
    if measure.usual is None:
        return {}
    ends = (
        {"value": end, "unit": UNIT_WORDS[measure.unit] or "1", "system": UCUM, "code": measure.unit}
        for end in measure.usual
    )
    low, high = ends
    return {"referenceRange": [{"low": low, "high": high, "text": "usual range"}]}


def entry_of(catalogue: Catalogue, group: Resource, values: list[Resource]) -> dict[str, Any]:
    """The raw entry of a record. Raises ValueError with what is wrong."""
    code = code_in(group.get("code"), TEST)
    if code is None or code not in catalogue.tests:
        raise ValueError(f"is of no test that we know: {code!r}")
    side = side_of(group)
    entry: dict[str, Any] = {"test": code, **({"side": side} if side else {})}
    entry["values"] = _values_of(catalogue.tests[code], side, values)
    _take_told(entry, group)
    _take_beside(entry, group.get("component", []))
    return entry


def _take_told(entry: dict[str, Any], group: Resource) -> None:
    if identifiers := [item for item in group.get("identifier", []) if item.get("system") == ENTRY]:
        entry["id"] = identifiers[0].get("value")
    told = {
        "at": group.get("issued"),
        "by": next((who.get("display") for who in group.get("performer", [])), None),
        "method": code_in(group.get("method"), METHOD) or (group.get("method") or {}).get("text"),
        "note": next((note.get("text") for note in group.get("note", [])), None),
        "declined": (group.get("dataAbsentReason") or {}).get("text"),
    }
    entry.update({name: value for name, value in told.items() if value is not None})


def _take_beside(entry: dict[str, Any], components: list[Resource]) -> None:
    for component in components:
        name = code_in(component.get("code"), PART) or ""
        if name == BY_EXCEPTION:
            entry[BY_EXCEPTION] = component.get("valueBoolean")
        elif name == "seen":
            entry.setdefault("seen", []).append(code_in(component.get("valueCodeableConcept"), SEEN))
        elif name.startswith(f"{PAIN}."):
            site = code_in(component.get("valueCodeableConcept"), PAIN_SITE)
            plain = component.get("valueBoolean", component.get("valueInteger"))
            entry.setdefault(PAIN, {})[name.removeprefix(f"{PAIN}.")] = plain if site is None else site
        else:
            raise ValueError(f"has a part that we do not know: {name!r}")


def _values_of(test: Test, entry_side: str | None, observations: list[Resource]) -> dict[str, Any]:
    """Raises ValueError for a measure that stands twice, is of another test, or in another unit than ours."""
    values: dict[str, Any] = {}
    for observation in observations:
        side = side_of(observation)
        for code, parts in _parts_by_measure(test, observation):
            measure = test.measure(code)
            if measure is None:
                raise ValueError(f"has an unknown measure: {code!r}")
            if other := units_of(parts) - {measure.unit}:
                raise ValueError(f"has {code} in {min(other)}, which is measured in {measure.unit}")
            value = value_of(parts)
            if side == entry_side:
                _put_once(values, code, value)
            elif entry_side is None and side is not None:
                _put_once(values.setdefault(code, {}), side, value)
            else:
                raise ValueError(f"has {code} of another side")
    return values


def _put_once(values: Any, code: str, value: Any) -> None:
    if not isinstance(values, dict) or code in values:
        raise ValueError(f"has {code} twice")
    values[code] = value


def _parts_by_measure(test: Test, observation: Resource) -> Iterator[tuple[str, list[Resource]]]:
    own = code_in(observation.get("code"), MEASURE)
    found: dict[str, list[Resource]] = {}
    for part in (
        observation.get("component", []) if own is None or "component" in observation else [observation]
    ):
        whole = code_in(part.get("code"), MEASURE) or ""
        code, _, measure = whole.partition("/")
        if code != test.code:
            raise ValueError(f"has a value of another test: {whole!r}")
        found.setdefault(measure, []).append(part)
    yield from found.items()
