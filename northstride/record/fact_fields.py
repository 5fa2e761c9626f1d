"""Which facts a story and a plan are made of, and what each may say."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Annotated, Any, Literal, NamedTuple, get_args

from pydantic import Field, ValidationError, create_model

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.core.terms.vocabulary import (
    ComplaintRegion,
    Confounder,
    Mechanism,
    OnsetKind,
    Purpose,
    RedFlag,
    SideOrBoth,
    Symptom,
)
from northstride.record.model import (
    MOST_LISTED,
    Day,
    FilledText,
    HistoryPart,
    Minutes,
    PainScore,
    ShortText,
    Strict,
)
from northstride.record.read import model_faults
from northstride.record.values import shown

STORY, ROUTE = "story", "route"
LISTS: Mapping[str, tuple[str, ...]] = {
    "symptoms": get_args(Symptom),
    "red_flags": get_args(RedFlag),
    "confounders": get_args(Confounder),
}
Yes = Literal[True]


class FactPlace(NamedTuple):
    """Where a fact stands: `story` or `route` in place of a test."""

    test: str
    side: str | None
    key: str
    field: str


def _of(kind: Any) -> type[Strict]:
    """A model of one value: strict as the record's own are, with its faults at `value`."""
    return create_model("Fact", __base__=Strict, value=(kind, ...))


# Of the story: one value a name.
STORY_FIELDS: Mapping[str, type[Strict]] = {
    name: _of(kind)
    for name, kind in {
        "purpose": Purpose,
        "complaint.region": ComplaintRegion,
        "complaint.side": SideOrBoth,
        "onset.kind": OnsetKind,
        "onset.date": Day,
        "onset.about": bool,
        "onset.mechanism": Mechanism,
        "pain.now": PainScore,
        "pain.worst": PainScore,
        "pain.at_onset": PainScore,
        "morning_stiffness_min": Minutes,
        "load_change": bool,
        "history.none": Yes,
        "consent.given": bool,
        "consent.guardian": ShortText,
        "consent.chaperone": ShortText,
        **{f"{family}.{code}": bool for family, codes in LISTS.items() for code in codes},
    }.items()
}
# Of a place that hurts: its site is the key. Without a side only that it hurts.
SITE_FIELDS = {"here": _of(Yes), "now": _of(PainScore), "worst": _of(PainScore)}
# Of the history: one line a key.
LINE_FIELD = "history"
LINE = _of(HistoryPart)
ROUTE_FIELDS = {
    "order": _of(Annotated[list[str], Field(max_length=MOST_LISTED)]),
    "start": _of(Literal["standing", "sitting"]),
    "reasons_after": _of(bool),
}
# Of the plan: one test a name.
TEST_FIELDS = {"planned": _of(Yes), "left_out": _of(FilledText)}
LONGEST_KEY = 40


def is_fact(test: str) -> bool:
    return test in (STORY, ROUTE)


def fact_faults(catalogue: Catalogue, place: FactPlace, value: Any, path: str) -> list[Fault]:
    """Every fault of one fact, each at its own place of the answer."""
    kind = _kind(catalogue, place)
    if kind is None:
        return [Fault(f"{path}.field", place.field, f"{shown(place.field)} is nothing that is asked")]
    if place.field in SITE_FIELDS and place.key not in catalogue.sites:
        return [Fault(f"{path}.key", place.key, f"{shown(place.key)} is not a place of pain")]
    if (place.side is not None) != _sided(place):
        return [
            Fault(f"{path}.side", place.side, "this belongs to no side" if place.side else "needs a side")
        ]
    if value is None:
        return []
    try:
        kind.model_validate_json(json.dumps({"value": value}))
    except ValidationError as error:
        return [Fault(f"{path}.{found.path}", found.value, found.problem) for found in model_faults(error)]
    unknown = [code for code in value if code not in catalogue.tests] if place.field == "order" else []
    return [Fault(f"{path}.value", code, f"{shown(code)} is not a test in the catalogue") for code in unknown]


def _sided(place: FactPlace) -> bool:
    return place.field in ("now", "worst") or (place.field == "here" and place.side is not None)


def _kind(catalogue: Catalogue, place: FactPlace) -> type[Strict] | None:
    """How the value is checked; None where nothing of this name is asked there."""
    if place.test == STORY and place.key:
        if place.field == LINE_FIELD and len(place.key) <= LONGEST_KEY:
            return LINE
        return SITE_FIELDS.get(place.field)
    if place.key:
        return None
    if place.test == STORY:
        return STORY_FIELDS.get(place.field)
    family, _, code = place.field.partition(".")
    if family in TEST_FIELDS and code in catalogue.tests:
        return TEST_FIELDS[family]
    return ROUTE_FIELDS.get(place.field)
