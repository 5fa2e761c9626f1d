"""Our codes and what we demand of a bundle, as files: CodeSystems, StructureDefinitions and a JSON Schema."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Any, get_args

from northstride.core.catalogue import Catalogue
from northstride.core.terms.vocabulary import Purpose, Region
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.interchange.fhir import systems
from northstride.interchange.fhir.reading import PRIORITY, RECHECK
from northstride.interchange.fhir.systems import OURS, Resource, site_code

Concepts = Iterable[tuple[str, str]]
DATE = "2026-11-26"
PARTS: Concepts = (
    ("by_exception", "written as the rest, which was as expected"),
    ("none", "looked at, nothing found"),
    ("pain.present", "whether it hurt"),
    ("pain.nrs", "how much it hurt, 0 to 10"),
    ("pain.site", "where it hurt"),
    ("pain.familiar", "whether it was the athlete's own pain"),
    ("seen", "something seen that changes what a value is worth"),
    ("reading", "a screen as it reads by the rules"),
)
CATEGORIES: Concepts = (
    ("entry", "what was recorded of one test on one side"),
    ("value", "one value of an entry"),
    ("flag", "a finding to weigh, never a diagnosis"),
)
STRENGTHS: Concepts = (("possible", "possible"), ("likely", "likely"), ("strong", "strong"))
URGENCIES: Concepts = tuple((code, code.replace("_", " ")) for code in (*PRIORITY, RECHECK, "train"))


def published(catalogue: Catalogue) -> Iterator[tuple[str, Resource]]:
    """Each document by its file name."""
    for system, (title, concepts) in _code_systems(catalogue).items():
        name = system.removeprefix(f"{OURS}code:")
        yield f"CodeSystem-{name}.json", _code_system(system, name, title, concepts)
    for extension in (_dial_reading(), _trial()):
        yield f"StructureDefinition-{extension['name']}.json", extension
    yield "StructureDefinition-Screen.json", _profile()
    for version in get_args(systems.Version):
        yield f"screen-bundle-{version}.schema.json", bundle_schema(catalogue, version)


def _code_systems(catalogue: Catalogue) -> Mapping[str, tuple[str, Concepts]]:
    tests = catalogue.tests.values()
    sides = [(side, f"{side} side") for side in ("left", "right")]
    regions = [
        (site_code(region, side), f"{side} {region}" if side else region)
        for region in get_args(Region)
        for side in (None, "left", "right")
    ]
    choices = {choice.code: choice.label for test in tests for m in test.measures for choice in m.choices}
    seen = {item.code: item.label for test in tests for item in test.seen}
    methods = sorted({method for test in tests for method in test.methods})
    return {
        systems.TEST: ("Tests", [(test.code, test.name) for test in tests]),
        systems.MEASURE: (
            "Measures of tests",
            [(f"{test.code}/{m.code}", f"{test.name}: {m.label}") for test in tests for m in test.measures],
        ),
        systems.CHOICE: ("Answers", [("looks_full", "looks full"), *_grades(), *choices.items()]),
        systems.SEEN: ("Things seen", list(seen.items())),
        systems.PART: ("Parts of a screen", PARTS),
        systems.CATEGORY: ("Kinds of observation", CATEGORIES),
        systems.BODY_SITE: ("Regions and the athlete's sides", [*sides, *regions]),
        systems.METHOD: ("Ways of doing a test", [(code, code.replace("_", " ")) for code in methods]),
        systems.PURPOSE: ("Purposes", [(code, code.replace("_", " ")) for code in get_args(Purpose)]),
        systems.PAIN_SITE: ("Places of pain", [(site.code, site.label) for site in catalogue.sites.values()]),
        systems.FLAG: ("Flags", list(FLAG_NAMES.items())),
        systems.STRENGTH: ("How strongly a flag stands", STRENGTHS),
        systems.URGENCY: ("How soon", URGENCIES),
    }


def _grades() -> Concepts:
    return [(f"{grade}{sign}", f"strength {grade}{sign}") for grade in range(6) for sign in ("", "+", "-")]


def _code_system(system: str, name: str, title: str, concepts: Concepts) -> Resource:
    return {
        "resourceType": "CodeSystem",
        "id": name,
        "url": system,
        "name": "".join(part.capitalize() for part in name.split("-")),
        "title": title,
        "status": "active",
        "date": DATE,
        "caseSensitive": True,
        "content": "complete",
        "concept": [{"code": code, "display": display} for code, display in concepts],
    }


def _structure(name: str, kind: str, says: str, elements: list[Resource], **more: Any) -> Resource:
    return {
        "resourceType": "StructureDefinition",
        "id": name.lower(),
        "name": name,
        "status": "active",
        "date": DATE,
        "description": says,
        "kind": "complex-type" if kind == "Extension" else "resource",
        "abstract": False,
        "type": kind,
        "baseDefinition": f"http://hl7.org/fhir/StructureDefinition/{kind}",
        "derivation": "constraint",
        "differential": {"element": [{"id": kind, "path": kind}, *elements]},
        **more,
    }


def _extension(name: str, url: str, says: str, elements: list[Resource]) -> Resource:
    places = ({"type": "element", "expression": path} for path in ("Observation", "Observation.component"))
    fixed = {"id": "Extension.url", "path": "Extension.url", "fixedUri": url}
    return _structure(name, "Extension", says, [fixed, *elements], url=url, context=list(places))


def _dial_reading() -> Resource:
    says = "The number a dial showed, where the dial stands at neutral, and which way the limb went."
    inner = [
        {
            "id": f"Extension.extension:{name}",
            "path": "Extension.extension",
            "sliceName": name,
            "min": 1,
            "max": "1",
        }
        for name in ("reading", "dial", "direction")
    ]
    return _extension("DialReading", systems.DIAL, says, inner)


def _trial() -> Resource:
    value = {
        "id": "Extension.value[x]",
        "path": "Extension.value[x]",
        "min": 1,
        "type": [{"code": "integer"}],
    }
    return _extension(
        "Trial", systems.TRIAL, "Which of several values of one measure this is, from 1.", [value]
    )


def _profile() -> Resource:
    says = (
        "One screen: a patient, an encounter, the story by path, an Observation for each entry with its "
        "values as members, flags, and one report over them."
    )
    kind = {"id": "Bundle.type", "path": "Bundle.type", "fixedCode": "collection"}
    entries = {"id": "Bundle.entry", "path": "Bundle.entry", "min": 4}
    return _structure("Screen", "Bundle", says, [kind, entries], url=systems.PROFILE)


def bundle_schema(catalogue: Catalogue, version: systems.Version) -> dict[str, Any]:
    """What the models of a FHIR library leave open: our codes, our units, and the values of status."""
    kinds = _resource_schemas(version)
    codes = {
        system: [code for code, _ in concepts] for system, (_, concepts) in _code_systems(catalogue).items()
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"A screen as a FHIR {version} bundle",
        "type": "object",
        "required": ["resourceType", "id", "meta", "identifier", "type", "timestamp", "entry"],
        "properties": {
            "resourceType": {"const": "Bundle"},
            "type": {"const": "collection"},
            "entry": {
                "type": "array",
                "minItems": 4,
                "items": {
                    "required": ["fullUrl", "resource"],
                    "properties": {
                        "fullUrl": {"pattern": "^urn:uuid:[0-9a-f-]{36}$"},
                        "resource": {
                            "required": ["resourceType", "id"],
                            "properties": {"resourceType": {"enum": [*kinds]}},
                            "allOf": [
                                {"if": _is(kind), "then": schema, "else": True}
                                for kind, schema in kinds.items()
                            ],
                        },
                    },
                },
            },
        },
        "$defs": {
            "concept": {
                "type": "object",
                "properties": {
                    "coding": {
                        "type": "array",
                        "items": {
                            "required": ["system", "code"],
                            "allOf": [
                                {
                                    "if": {"properties": {"system": {"const": system}}},
                                    "then": {"properties": {"code": {"enum": known}}},
                                }
                                for system, known in codes.items()
                            ],
                        },
                    }
                },
            },
            "quantity": {
                "required": ["value", "system", "code"],
                "properties": {
                    "value": {"type": "number"},
                    "system": {"const": systems.UCUM},
                    "code": {"enum": [*systems.UNIT_WORDS]},
                },
            },
        },
    }


def _is(kind: str) -> Resource:
    return {"properties": {"resourceType": {"const": kind}}}


def _one_of(*values: str) -> Resource:
    return {"enum": [*values]}


def _resource_schemas(version: systems.Version) -> Mapping[str, Any]:
    concept, quantity = {"$ref": "#/$defs/concept"}, {"$ref": "#/$defs/quantity"}
    holds = _one_of("preliminary", "final", "amended")
    valued = {"code": concept, "valueCodeableConcept": concept, "valueQuantity": quantity}
    done = "completed" if version == "R5" else "finished"
    asked = {"properties": {"concept": concept}} if version == "R5" else concept

    def schema(required: list[str], **properties: Any) -> Resource:
        return {"required": required, "properties": properties}

    return {
        "Patient": schema(["identifier"], gender=_one_of("male", "female", "other")),
        "Encounter": schema(
            ["status", "class", "subject", "type"],
            status=_one_of("in-progress", done),
            type={"type": "array", "items": concept},
        ),
        "QuestionnaireResponse": schema(
            ["status", "questionnaire", "subject"], status=_one_of("in-progress", "completed")
        ),
        "Observation": schema(
            ["status", "code", "category", "subject", "encounter", "effectiveDateTime"],
            status=_one_of("preliminary", "final", "amended", "cancelled"),
            category={"type": "array", "minItems": 1, "items": concept},
            bodySite=concept,
            method=concept,
            component={"type": "array", "items": schema(["code"], **valued)},
            **valued,
        ),
        "DiagnosticReport": schema(["status", "code", "conclusion"], status=holds, code=concept),
        "ServiceRequest": schema(
            ["status", "intent", "priority", "code", "subject"],
            status=_one_of("draft", "active"),
            intent={"const": "proposal"},
            priority=_one_of(*PRIORITY.values()),
            code=asked,
        ),
        "Task": schema(
            ["status", "intent", "description", "for"],
            status=_one_of("draft", "requested"),
            intent={"const": "proposal"},
            code=concept,
        ),
    }
