"""The complaint as told, of a record and of a story that stands by itself: read here and nowhere else."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import orjson
from pydantic import ValidationError

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Complaint, SorePlace
from northstride.core.story.complaint import complaint_from
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import ComplaintRegion, Purpose, SideOrBoth
from northstride.record.model import IntakePart, PainScore, Record
from northstride.record.reading_model import Out, SideCode


class SorePlaceOut(Out):
    site: str
    side: SideCode
    now: PainScore | None
    worst: PainScore | None


class ComplaintOut(Out):
    """What places, sites, side and region come to; `region` is "none" where nothing hurts."""

    region: ComplaintRegion
    side: SideOrBoth | None
    sites: list[str]
    places: list[SorePlaceOut]
    now: PainScore | None
    worst: PainScore | None


def complaint_of(record: Record, catalogue: Catalogue) -> Complaint | None:
    """None where nothing was told of one. Every site must be known to the catalogue."""
    return as_told(record.intake, record.purpose, catalogue) if record.intake else None


def complaint_in(
    intake: Mapping[str, Any] | None, purpose: Purpose, catalogue: Catalogue
) -> Complaint | None:
    """The same of a story as it stands in a document; None also of one that today's model cannot read."""
    try:
        part = IntakePart.model_validate_json(orjson.dumps(intake or {}))
    except ValidationError:
        return None
    sites = (
        [*part.complaint.sites, *(place.site for place in part.complaint.places)] if part.complaint else []
    )
    return as_told(part, purpose, catalogue) if all(site in catalogue.sites for site in sites) else None


def as_told(part: IntakePart, purpose: Purpose, catalogue: Catalogue) -> Complaint | None:
    told, pain = part.complaint, part.pain
    if told is None:
        return None
    places = [SorePlace(place.site, Side(place.side), place.now, place.worst) for place in told.places]
    now, worst = (pain.now, pain.worst) if pain else (None, None)
    return complaint_from(catalogue, purpose, told.region, told.side, told.sites, places, now, worst)


def complaint_out(complaint: Complaint | None) -> ComplaintOut | None:
    if complaint is None:
        return None
    return ComplaintOut(
        region=complaint.region,
        side=complaint.side,
        sites=list(complaint.sites),
        places=[
            SorePlaceOut(site=place.site, side=place.side.value, now=place.now, worst=place.worst)
            for place in complaint.places
        ],
        now=complaint.now,
        worst=complaint.worst,
    )
