"""A bundle of ours as a record again: from its resources alone, whatever else somebody put beside them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, TypeGuard

from pydantic import ValidationError

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.interchange.fhir.entries import entry_of, kind_of
from northstride.interchange.fhir.models import bundle_model
from northstride.interchange.fhir.paths import document_of
from northstride.interchange.fhir.systems import (
    ATHLETE,
    OURS,
    PURPOSE,
    SCREEN,
    Resource,
    Version,
    addressed,
    code_in,
)
from northstride.record.json_text import InvalidRecord
from northstride.record.model import FORMAT, VERSION
from northstride.record.read import json_faults

VERSIONS: Sequence[Version] = ("R5", "R4B")
PERIOD: Mapping[Version, str] = {"R5": "actualPeriod", "R4B": "period"}
MOST_RESOURCES = 20_000


def is_bundle(raw: object) -> TypeGuard[dict[str, Any]]:
    return isinstance(raw, dict) and raw.get("resourceType") == "Bundle"


def record_of(catalogue: Catalogue, raw: dict[str, Any], base: str = OURS) -> dict[str, Any]:
    """The raw record, still to be checked as any other. Our addresses may stand under `base` or as ours.

    Raises InvalidRecord with all faults by path.
    """
    if faults := list(json_faults(raw)):
        raise InvalidRecord(faults)
    raw = addressed(raw, base, back=True)
    version = _version(raw)
    if len(raw.get("entry") or []) > MOST_RESOURCES:
        raise InvalidRecord([Fault("entry", None, f"has more than {MOST_RESOURCES} resources")])
    try:
        bundle_model(version).model_validate(raw)
    except ValidationError as error:
        raise InvalidRecord(_faults(error)) from error
    return _RecordReader(catalogue, raw, version).record()


def _version(raw: dict[str, Any]) -> Version:
    tags = (raw.get("meta") or {}).get("tag") if isinstance(raw.get("meta"), dict) else None
    said = [tag.get("code") for tag in tags or [] if isinstance(tag, dict) and tag.get("system") == SCREEN]
    version = next((version for version in VERSIONS if said == [version]), None)
    if version is None:
        raise InvalidRecord([Fault("meta.tag", None, "is no bundle of North Stride, R4B or R5")])
    return version


def _faults(error: ValidationError) -> list[Fault]:
    """By the path in the file; what was typed stays out."""
    return [
        Fault(".".join(map(str, item["loc"])) or "$", None, item["msg"].rstrip("."))
        for item in error.errors(include_url=False, include_context=False, include_input=False)
    ]


class _RecordReader:
    """Gathers faults while it reads, so that all are named in one go."""

    def __init__(self, catalogue: Catalogue, raw: dict[str, Any], version: Version) -> None:
        self.catalogue = catalogue
        self.version = version
        self.faults: list[Fault] = []
        self.resources = [
            (f"entry[{place}].resource", item.get("resource") or {})
            for place, item in enumerate(raw.get("entry") or [])
        ]
        self.by_address = {item.get("fullUrl"): item.get("resource") or {} for item in raw.get("entry") or []}

    def record(self) -> dict[str, Any]:
        patient, encounter = self._only("Patient"), self._only("Encounter")
        story = self._only("QuestionnaireResponse")
        if self.faults:
            raise InvalidRecord(self.faults)
        period = encounter.get(PERIOD[self.version]) or {}
        record: dict[str, Any] = {
            "format": FORMAT,
            "version": VERSION,
            "id": self._identifier(encounter, SCREEN),
            "date": str(period.get("start", ""))[:10],
            "purpose": next(
                (code for kind in encounter.get("type", []) if (code := code_in(kind, PURPOSE))), None
            ),
            **self._answers(story),
        }
        record["athlete"] = {**self._athlete(patient), **record.get("athlete", {})}
        record["entries"] = self._entries()
        if self.faults:
            raise InvalidRecord(self.faults)
        return record

    def _only(self, kind: str) -> Resource:
        found = [resource for _, resource in self.resources if resource.get("resourceType") == kind]
        if len(found) == 1:
            return found[0]
        self.faults.append(Fault("entry", None, f"needs one {kind}, and has {len(found)}"))
        return {}

    def _identifier(self, resource: Resource, system: str) -> str | None:
        return next(
            (item.get("value") for item in resource.get("identifier", []) if item.get("system") == system),
            None,
        )

    def _athlete(self, patient: Resource) -> dict[str, Any]:
        told = {
            "ref": self._identifier(patient, ATHLETE),
            "sex": patient.get("gender"),
            "birth_date": patient.get("birthDate"),
        }
        return {name: value for name, value in told.items() if value is not None}

    def _answers(self, story: Resource) -> dict[str, Any]:
        try:
            return document_of(story.get("item", []))
        except ValueError as error:
            self.faults.append(Fault("QuestionnaireResponse", None, str(error)))
            return {}

    def _entries(self) -> list[dict[str, Any]]:
        # Bundles of ours named a resource by its kind and id once.
        by_id = {f"Observation/{resource.get('id')}": resource for _, resource in self.resources}
        found = {
            name: resource
            for name, resource in {**by_id, **self.by_address}.items()
            if resource.get("resourceType") == "Observation"
        }
        entries = []
        for path, group in self.resources:
            if group.get("resourceType") != "Observation" or kind_of(group) != "entry":
                continue
            members = [found.get(member.get("reference")) for member in group.get("hasMember", [])]
            try:
                if None in members:
                    raise ValueError("has a value that is not in the bundle")
                entries.append(entry_of(self.catalogue, group, [value for value in members if value]))
            except ValueError as error:
                self.faults.append(Fault(path, None, str(error)))
        return entries
