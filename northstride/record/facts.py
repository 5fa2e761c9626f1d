"""The head of a record taken apart into what was told and planned, fact by fact, and put together again."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from copy import deepcopy
from typing import Any

from northstride.record.fact_fields import LINE_FIELD, LISTS, ROUTE, SITE_FIELDS, STORY, FactPlace

Head = dict[str, Any]
# What a head is made of; the rest of a record is no fact.
HEAD = ("purpose", "schools", "intake", "planned", "left_out", "reasons_after", "consent")
# Parts of the intake that hold one value a name.
PARTS: Mapping[str, tuple[str, ...]] = {
    "complaint": ("region", "side"),
    "onset": ("kind", "date", "about", "mechanism"),
    "pain": ("now", "worst", "at_onset"),
}
SINGLE = ("morning_stiffness_min", "load_change")
# The list of what was asked and answered no.
NO = "asked"


def facts_of(head: Mapping[str, Any]) -> dict[FactPlace, Any]:
    """Everything a head says. What is open is left out."""
    intake = head.get("intake") or {}
    found = {FactPlace(STORY, None, "", "purpose"): head["purpose"]}
    found |= dict((*_single(intake), *_sore_places(intake), *_asked(intake), *_history(intake)))
    for name, value in (head.get("consent") or {}).items():
        if value is not None:
            found[FactPlace(STORY, None, "", f"consent.{name}")] = value
    return found | {FactPlace(ROUTE, None, "", field): value for field, value in _plan(head)}


def _single(intake: Mapping[str, Any]) -> Iterator[tuple[FactPlace, Any]]:
    for part, names in PARTS.items():
        told = intake.get(part) or {}
        for name in names:
            if told.get(name) is not None:
                yield FactPlace(STORY, None, "", f"{part}.{name}"), told[name]
    for name in SINGLE:
        if intake.get(name) is not None:
            yield FactPlace(STORY, None, "", name), intake[name]


def _sore_places(intake: Mapping[str, Any]) -> Iterator[tuple[FactPlace, Any]]:
    complaint = intake.get("complaint") or {}
    for site in complaint.get("sites") or ():
        yield FactPlace(STORY, None, site, "here"), True
    for place in complaint.get("places") or ():
        for name in SITE_FIELDS:
            value = True if name == "here" else place.get(name)
            if value is not None:
                yield FactPlace(STORY, place["side"], place["site"], name), value


def _asked(intake: Mapping[str, Any]) -> Iterator[tuple[FactPlace, Any]]:
    no = set(intake.get(NO) or ())
    for family, codes in LISTS.items():
        yes = set(intake.get(family) or ())
        for code in codes:
            if code in yes | no:
                yield FactPlace(STORY, None, "", f"{family}.{code}"), code in yes


def _history(intake: Mapping[str, Any]) -> Iterator[tuple[FactPlace, Any]]:
    if "history" in (intake.get(NO) or ()):
        yield FactPlace(STORY, None, "", "history.none"), True
    for number, line in enumerate(intake.get("history") or ()):
        own = {name: value for name, value in line.items() if name != "id" and value is not None}
        yield FactPlace(STORY, None, _line_key(line, number), LINE_FIELD), own


def _line_key(line: Mapping[str, Any], number: int) -> str:
    """Its own id, or its place among the lines of a file."""
    return str(line.get("id") or f"line{number + 1}")


def _plan(head: Mapping[str, Any]) -> Iterator[tuple[str, Any]]:
    planned = head.get("planned") or []
    if planned:
        yield "order", list(planned)
    for code in planned:
        yield f"planned.{code}", True
    for item in head.get("left_out") or ():
        yield f"left_out.{item['test']}", item["reason"]
    start = (head.get("schools") or {}).get("start")
    if start is not None:
        yield "start", start
    if head.get("reasons_after") is not None:
        yield "reasons_after", head["reasons_after"]


def head_of(record: Mapping[str, Any]) -> Head:
    """The head of a record: absent is the same as nothing."""
    return {name: record.get(name) for name in HEAD}


def with_head(record: Mapping[str, Any], head: Mapping[str, Any]) -> dict[str, Any]:
    """The same record under another head. What says nothing is left out of it."""
    kept = {name: part for name, part in record.items() if name not in HEAD}
    told = {name: part for name, part in head.items() if part not in (None, [], {})}
    return {**kept, **told, "planned": head.get("planned") or []}


def with_fact(head: Mapping[str, Any], place: FactPlace, value: Any, by: str | None) -> Head:
    """The head with one fact more, another, or, where `value` is None, none. The fact was checked before.

    A test that is to be planned goes to the end: where it goes in the plan is the route's to say.
    """
    told = {name: deepcopy(head.get(name)) for name in HEAD}
    if place.test == ROUTE:
        _with_plan(told, place.field, value, by)
        return told
    if place.field == "purpose":
        # A screen always has one.
        told["purpose"] = value or told["purpose"]
        return told
    part, _, name = place.field.partition(".")
    if part == "consent":
        told["consent"] = _without_nothing({**(told["consent"] or {}), name: value}) or None
        return told
    intake = told["intake"] or {}
    told["intake"] = intake
    if place.field in SITE_FIELDS:
        _with_site(intake, place, value)
    elif place.field == LINE_FIELD:
        _with_line(intake, place.key, value)
    elif part in LISTS:
        _with_asked(intake, part, name, value)
    elif place.field == "history.none":
        _listed(intake, NO, "history", wanted=value is True)
    elif part in PARTS:
        intake[part] = _without_nothing({**(intake.get(part) or {}), name: value})
    else:
        intake[place.field] = value
    told["intake"] = _without_nothing(intake) or None
    return told


def _without_nothing(part: Mapping[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in part.items() if value not in (None, [], {})}


def _listed(holder: dict[str, Any], name: str, code: str, *, wanted: bool) -> None:
    """A code in a list, once, or not in it."""
    kept = [each for each in holder.get(name) or [] if each != code or wanted]
    holder[name] = kept if code in kept or not wanted else [*kept, code]


def _with_asked(intake: dict[str, Any], family: str, code: str, value: bool | None) -> None:
    """Yes stands in its own list, no among what was asked, open in neither."""
    _listed(intake, family, code, wanted=value is True)
    _listed(intake, NO, code, wanted=value is False)


def _with_line(intake: dict[str, Any], key: str, value: Mapping[str, Any] | None) -> None:
    """One line of the history. A line takes back that there was nothing."""
    lines = list(intake.get("history") or [])
    at = next((place for place, line in enumerate(lines) if _line_key(line, place) == key), None)
    # Lines of a file keep their names whatever stands before them from now on.
    lines = [{**line, "id": _line_key(line, place)} for place, line in enumerate(lines)]
    if value is not None:
        _listed(intake, NO, "history", wanted=False)
        line = {**value, "id": key}
        lines = [*lines, line] if at is None else [*lines[:at], line, *lines[at + 1 :]]
    elif at is not None:
        del lines[at]
    intake["history"] = lines


def _with_site(intake: dict[str, Any], place: FactPlace, value: Any) -> None:
    """A place that hurts. What is told of it makes it one; without it nothing is told of it."""
    complaint = dict(intake.get("complaint") or {})
    if place.side is None:
        _listed(complaint, "sites", place.key, wanted=value is True)
    else:
        complaint["places"] = _places(complaint.get("places") or [], place, value)
    somewhere = any(complaint.get(name) for name in ("region", "places", "sites"))
    # A side alone speaks of places that stand no more.
    intake["complaint"] = _without_nothing(complaint) if somewhere else {}


def _places(places: list[dict[str, Any]], place: FactPlace, value: Any) -> list[dict[str, Any]]:
    own = {"site": place.key, "side": place.side}
    known = next((each for each in places if each | own == each), None)
    if place.field == "here" and value is None:
        return [each for each in places if each is not known]
    if known is None and value is None:
        return places
    told = known or own
    new = told if place.field == "here" else _without_nothing({**told, place.field: value})
    return [*places, new] if known is None else [new if each is known else each for each in places]


def _with_plan(head: Head, field: str, value: Any, by: str | None) -> None:
    part, _, code = field.partition(".")
    planned, left_out = list(head["planned"] or []), list(head["left_out"] or [])
    if part == "order":
        out = {item["test"] for item in left_out}
        wanted = [each for each in dict.fromkeys(value or []) if each not in out]
        # What another hand put in meanwhile stays.
        head["planned"] = [*wanted, *(each for each in planned if each not in wanted)] if wanted else []
    elif part == "planned":
        _listed(head, "planned", code, wanted=value is True)
        if value is True:
            head["left_out"] = [item for item in left_out if item["test"] != code]
    elif part == "left_out":
        kept = [item for item in left_out if item["test"] != code]
        item = {"test": code, "reason": value} | ({"by": by} if by else {})
        head["left_out"] = kept if value is None else [*kept, item]
        if value is not None:
            _listed(head, "planned", code, wanted=False)
    elif part == "start":
        schools = {name: kept for name, kept in (head["schools"] or {}).items() if name != "start"}
        head["schools"] = schools if value is None else {**schools, "start": value}
    else:
        head["reasons_after"] = value
