"""The reading: a report over what was found, flags with their reasons, and what is asked for and when."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from uuid import uuid5

from northstride import CAUTION
from northstride.interchange.fhir.entries import category
from northstride.interchange.fhir.systems import (
    BODY_SITE,
    FLAG,
    PART,
    STRENGTH,
    URGENCY,
    Resource,
    Version,
    concept,
    reference,
)
from northstride.interchange.sheets.phrases import action_words, called
from northstride.record.model import Record
from northstride.record.reading_model import ActionOut, FlagOut, ReadingOut, SideCode

PRIORITY = {"emergency": "stat", "same_day": "urgent", "refer": "routine"}
RECHECK = "recheck"


def reading_resources(
    record: Record, reading: ReadingOut, common: Resource, version: Version, observed: Iterable[Resource]
) -> Iterator[Resource]:
    """The report stands before what it rests on; `observed` are the entries."""
    flags = [_flag(record, flag, place, common) for place, flag in enumerate(reading.flags)]
    yield _report(record, reading, common, [*observed, *flags])
    yield from flags
    for place, action in enumerate(reading.actions):
        key = str(uuid5(record.id, f"action {place}"))
        says = action_words(action, reading.flags)
        if action.urgency in PRIORITY:
            yield _service_request(record, action, says, common, version) | {"id": key}
        elif action.urgency == RECHECK:
            yield _task(action, says, common) | {"id": key}


def _report(record: Record, reading: ReadingOut, common: Resource, results: list[Resource]) -> Resource:
    said = [f"{called(flag.code, flag.side)}: {flag.strength}." for flag in reading.flags]
    not_examined = len(reading.coverage.unexamined or [])
    if not_examined:
        said.append(f"Not examined, though story or purpose call for it: {not_examined}.")
    report = {
        "resourceType": "DiagnosticReport",
        "id": str(uuid5(record.id, "reading")),
        **common,
        "code": concept(PART, "reading", "Screen of hip, ankle and foot"),
        "conclusion": " ".join([*said, f"Rules {reading.rules}.", CAUTION]),
    }
    if results:
        report["result"] = [reference(found) for found in results]
    return report


def _flag(record: Record, flag: FlagOut, place: int, common: Resource) -> Resource:
    """A finding to weigh, never a diagnosis: how strongly it stands is its value."""
    reasons = [reason.says for reason in flag.because]
    told = [*(f"For: {says}" for says in reasons), *(f"Against: {says}" for says in flag.against)]
    observation = {
        "resourceType": "Observation",
        "id": str(uuid5(record.id, f"flag {place}")),
        **common,
        "category": category("flag"),
        "code": concept(FLAG, flag.code, called(flag.code, None)),
        "valueCodeableConcept": concept(STRENGTH, flag.strength),
        "note": [{"text": line} for line in told],
        **_body_side(flag.side),
    }
    if flag.urgency is not None:
        observation["interpretation"] = [concept(URGENCY, flag.urgency)]
    if not told:
        del observation["note"]
    return observation


def _body_side(side: SideCode) -> Resource:
    return {"bodySite": concept(BODY_SITE, side, f"{side} side")} if side else {}


def _ordered(action: ActionOut, common: Resource) -> Resource:
    reasons = [{"text": line} for line in action.because]
    return {
        "intent": "proposal",
        "subject": common["subject"],
        "encounter": common["encounter"],
        "authoredOn": common["effectiveDateTime"],
        **({"note": reasons} if reasons else {}),
    }


def _service_request(
    record: Record, action: ActionOut, says: str, common: Resource, version: Version
) -> Resource:
    asked = concept(URGENCY, action.urgency, says)
    request = {
        "resourceType": "ServiceRequest",
        "status": "draft" if common["status"] == "preliminary" else "active",
        "priority": PRIORITY[action.urgency],
        **_ordered(action, common),
        # The fifth edition lets a request name a concept or a resource.
        "code": {"concept": asked} if version == "R5" else asked,
    }
    if side := _body_side(action.side):
        request["bodySite"] = [side["bodySite"]]
    if action.start and action.end:
        return request | {"occurrencePeriod": _period(action)}
    return request | {"occurrenceDateTime": record.date.isoformat()}


def _task(action: ActionOut, says: str, common: Resource) -> Resource:
    told = _ordered(action, common)
    side = f", {action.side}" if action.side else ""
    task = {
        "resourceType": "Task",
        "status": "draft" if common["status"] == "preliminary" else "requested",
        "priority": "routine",
        "code": concept(URGENCY, RECHECK, "recheck"),
        "description": f"{says}{side}",
        "for": told.pop("subject"),
        **told,
    }
    return task | ({"restriction": {"period": _period(action)}} if action.start and action.end else {})


def _period(action: ActionOut) -> Resource:
    return {"start": f"{action.start:%Y-%m-%d}", "end": f"{action.end:%Y-%m-%d}"}
