"""A screen with its reading as one bundle: what goes out."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid5

from northstride.core.catalogue import Catalogue
from northstride.interchange.fhir.entries import entry_resources, kind_of
from northstride.interchange.fhir.models import bundle_model
from northstride.interchange.fhir.paths import items_of
from northstride.interchange.fhir.reading import reading_resources
from northstride.interchange.fhir.systems import (
    ACT_CODE,
    ATHLETE,
    OURS,
    PROFILE,
    PURPOSE,
    QUESTIONS,
    SCREEN,
    Resource,
    Version,
    address,
    addressed,
    concept,
    reference,
)
from northstride.interchange.sheets.content import Status
from northstride.interchange.sheets.story_phrases import complaint_said
from northstride.record.complaint import complaint_of
from northstride.record.model import Record
from northstride.record.reading_model import ReadingOut

# What an encounter, a patient and observations say of a record; the rest is answered by path.
SAID_ELSEWHERE = frozenset({"format", "version", "notice", "id", "date", "purpose", "entries"})
OF_PATIENT = frozenset({"ref", "birth_date", "sex"})
PRELIMINARY: dict[Status, str] = {"draft": "preliminary", "signed": "final", "amended": "amended"}


@dataclass(frozen=True, slots=True)
class BundleContent:
    """What a bundle is made of. `name` only where the right is there and somebody asked for it."""

    record: Record
    reading: ReadingOut
    status: Status
    made: dt.datetime
    name: str | None = None


def bundle_of(catalogue: Catalogue, told: BundleContent, version: Version, base: str = OURS) -> Resource:
    """`base`: under which our code systems and profiles are addressed.

    Raises ValidationError where it would be no bundle of this version.
    """
    patient = _patient(told)
    encounter = _encounter(catalogue, told, version)
    common = {
        "status": PRELIMINARY[told.status],
        "subject": reference(patient),
        "encounter": reference(encounter),
        "effectiveDateTime": told.record.date.isoformat(),
    }
    observed = [
        resource
        for place in range(len(told.record.entries))
        for resource in entry_resources(catalogue, told.record, place, common)
    ]
    entries = [resource for resource in observed if kind_of(resource) == "entry"]
    resources = [patient, encounter, _story(told, common), *observed]
    resources += reading_resources(told.record, told.reading, common, version, entries)
    bundle = {
        "resourceType": "Bundle",
        "id": str(told.record.id),
        "meta": {"profile": [PROFILE], "tag": [{"system": SCREEN, "code": version}]},
        "identifier": {"system": SCREEN, "value": str(told.record.id)},
        "type": "collection",
        "timestamp": told.made.isoformat(),
        "entry": [{"fullUrl": address(resource["id"]), "resource": resource} for resource in resources],
    }
    whole: Resource = addressed(bundle, base)
    bundle_model(version).model_validate(whole)
    return whole


def _patient(told: BundleContent) -> Resource:
    athlete = told.record.athlete
    patient: Resource = {
        "resourceType": "Patient",
        "id": str(patient_id(told.record.id, athlete.ref)),
        "identifier": [{"system": ATHLETE, "value": athlete.ref}],
    }
    if told.name is not None:
        patient["name"] = [{"text": told.name}]
    if athlete.sex is not None:
        patient["gender"] = athlete.sex
    if athlete.birth_date is not None:
        patient["birthDate"] = athlete.birth_date.isoformat()
    return patient


def patient_id(screen: UUID, ref: str) -> UUID:
    return uuid5(screen, f"patient {ref}")


def _encounter(catalogue: Catalogue, told: BundleContent, version: Version) -> Resource:
    record, signed = told.record, told.status != "draft"
    day = {"start": record.date.isoformat()}
    ambulatory = {"system": ACT_CODE, "code": "AMB", "display": "ambulatory"}
    done = "completed" if version == "R5" else "finished"
    encounter: Resource = {
        "resourceType": "Encounter",
        "id": str(record.id),
        "identifier": [{"system": SCREEN, "value": str(record.id)}],
        "status": done if signed else "in-progress",
        "subject": {"reference": address(str(patient_id(record.id, record.athlete.ref)))},
        "type": [concept(PURPOSE, record.purpose, record.purpose.replace("_", " "))],
    }
    if complaint := complaint_of(record, catalogue):
        # In words; what it was made from stands in the story.
        says = {"text": complaint_said(complaint)}
        fifth, fourth = {"reason": [{"value": [{"concept": says}]}]}, {"reasonCode": [says]}
        encounter |= fifth if version == "R5" else fourth
    if version == "R5":
        return encounter | {"class": [{"coding": [ambulatory]}], "actualPeriod": day}
    return encounter | {"class": ambulatory, "period": day}


def _story(told: BundleContent, common: Resource) -> Resource:
    """All of the record that no other resource says, by path."""
    response: Resource = {
        "resourceType": "QuestionnaireResponse",
        "id": str(uuid5(told.record.id, "story")),
        "questionnaire": QUESTIONS,
        "status": "completed" if told.status != "draft" else "in-progress",
        "subject": common["subject"],
        "encounter": common["encounter"],
        "authored": told.record.date.isoformat(),
    }
    if items := list(items_of(_rest(told.record))):
        response["item"] = items
    return response


def _rest(record: Record) -> dict[str, Any]:
    document = record.model_dump(mode="json", exclude_unset=True, exclude=set(SAID_ELSEWHERE))
    athlete = {name: value for name, value in document.pop("athlete").items() if name not in OF_PATIENT}
    told: dict[str, Any] = _without_none({**({"athlete": athlete} if athlete else {}), **document})
    return told


def _without_none(document: Any) -> Any:
    """What is none says nothing: unknown, as if it were not there."""
    if isinstance(document, dict):
        return {key: _without_none(value) for key, value in document.items() if value is not None}
    return document
