"""What a complaint comes to: what was written of it, and what its places add."""

from __future__ import annotations

from collections.abc import Sequence

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Complaint, SorePlace
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import (
    REGION_FAMILY,
    USUAL_REGION,
    ComplaintRegion,
    Purpose,
    Region,
    SideOrBoth,
)


def complaint_from(
    catalogue: Catalogue,
    purpose: Purpose,
    region: ComplaintRegion | None,
    side: SideOrBoth | None,
    sites: Sequence[str],
    places: Sequence[SorePlace],
    now: int | None = None,
    worst: int | None = None,
) -> Complaint:
    """Sites and side are those written and those of the places; a region nobody wrote follows from these.
    `now` and `worst`, 0 to 10, were said of the whole.

    Every site must be known to the catalogue; without a region there is at least one.
    """
    every = tuple(dict.fromkeys([*sites, *(place.site for place in places)]))
    # A place somebody pointed to beats that nothing hurts.
    told = None if region == "none" and places else region
    found = told or region_of(catalogue, purpose, every)
    return Complaint(
        found,
        joined(side, [place.side for place in places]),
        every,
        tuple(places),
        most(now, *(place.now for place in places)),
        most(worst, *(place.worst for place in places)),
    )


def most(*scores: int | None) -> int | None:
    """Of what several lines say of one pain the most counts."""
    return max((score for score in scores if score is not None), default=None)


def region_of(catalogue: Catalogue, purpose: Purpose, sites: Sequence[str]) -> Region:
    """The first place in the purpose's own part of the body, else the first place."""
    regions = [catalogue.sites[site].region for site in sites]
    usual = USUAL_REGION.get(purpose)
    own = [region for region in regions if usual and REGION_FAMILY[region] == REGION_FAMILY[usual]]
    return (own or regions)[0]


def joined(side: SideOrBoth | None, others: Sequence[Side]) -> SideOrBoth | None:
    """One side, or both where more than one is named."""
    named = {*(other.value for other in others)} | ({side} if side is not None else set())
    if named == {"left"}:
        return "left"
    if named == {"right"}:
        return "right"
    return "both" if named else None
