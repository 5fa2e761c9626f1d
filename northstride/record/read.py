"""Reads records: every fault of a record in one go, with its path; nothing guessed, nothing half-read."""

from __future__ import annotations

import datetime as dt
import json
import math
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from pydantic import ValidationError

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Examination
from northstride.core.terms.errors import Fault
from northstride.record.entries import entry_faults
from northstride.record.json_text import InvalidRecord
from northstride.record.model import MOST_ENTRIES, IntakePart, Record
from northstride.record.to_core import to_examination
from northstride.record.values import shown

DEEPEST = 40


@dataclass(frozen=True)
class CheckedRecord:
    record: Record
    exam: Examination


def check_record(raw: object, catalogue: Catalogue) -> CheckedRecord:
    """Raises InvalidRecord with all faults."""
    faults = list(json_faults(raw))
    if any(fault.path == "$" for fault in faults):
        raise InvalidRecord(faults)
    record = None
    try:
        record = Record.model_validate_json(json.dumps(_sanitised(raw)))
    except ValidationError as error:
        faults += model_faults(error)
    faults += _catalogue_faults(raw, catalogue)
    if record is not None:
        faults += _date_faults(record)
    if faults or record is None:
        raise InvalidRecord(_once(faults))
    return CheckedRecord(record, to_examination(record, catalogue))


def _once(faults: list[Fault]) -> list[Fault]:
    """One fault a path: the first, which is the plainest."""
    return list({fault.path: fault for fault in reversed(faults)}.values())[::-1]


def json_faults(raw: object, path: str = "", depth: int = 0) -> Iterator[Fault]:
    """What JSON allows and no record may hold: NaN, lone surrogates, NUL, keys written twice."""
    if depth > DEEPEST:
        yield Fault("$", None, "is nested too deeply for a record")
    elif isinstance(raw, float) and not math.isfinite(raw):
        yield Fault(path, None, f"{raw} is not a number")
    elif isinstance(raw, str) and (why := _unstorable(raw)):
        yield Fault(path, None, why)
    elif isinstance(raw, dict):
        for key in getattr(raw, "doubled", ()):
            yield Fault(join(path, key), raw[key], "stands twice")
        for key, value in raw.items():
            if why := _unstorable(key):
                yield Fault(path or "$", None, f"a key {why}")
            else:
                yield from json_faults(value, join(path, key), depth + 1)
    elif isinstance(raw, list):
        for place, value in enumerate(raw):
            yield from json_faults(value, f"{path}[{place}]", depth + 1)


UNSTORABLE = re.compile("[\x00\ud800-\udfff]")


def _unstorable(text: str) -> str | None:
    found = UNSTORABLE.search(text)
    if found is None:
        return None
    return "holds a NUL character" if found[0] == "\x00" else "holds half a character (a lone surrogate)"


def _sanitised(raw: object) -> object:
    """The same document with what `_json_faults` already reported taken out of the model's way."""
    if isinstance(raw, float) and not math.isfinite(raw):
        return 0
    if isinstance(raw, str) and _unstorable(raw):
        return "x"
    if isinstance(raw, dict):
        return {key: _sanitised(value) for key, value in raw.items() if not _unstorable(key)}
    if isinstance(raw, list):
        # One more than any list may hold: that it is too long is said once, not item by item.
        return [_sanitised(value) for value in raw[: MOST_ENTRIES + 1]]
    return raw


def join(path: str, key: str) -> str:
    return f"{path}.{key}" if path else key


def path_of(loc: tuple[int | str, ...]) -> str:
    path = ""
    for part in loc:
        path = f"{path}[{part}]" if isinstance(part, int) else join(path, part)
    return path or "$"


def model_faults(error: ValidationError) -> list[Fault]:
    """Pydantic's complaints in plain words, with path and refused value."""
    return [
        Fault(path_of(_place(item["loc"])), item.get("input"), plainly(item["type"], dict(item)))
        for item in error.errors()
    ]


def _place(loc: tuple[int | str, ...]) -> tuple[int | str, ...]:
    """Without the names of union members Pydantic puts at the end of a place."""
    return tuple(part for part in loc if not (isinstance(part, str) and part.startswith("literal[")))


def plainly(kind: str, item: Mapping[str, object]) -> str:
    value = shown(item.get("input"))
    context = item.get("ctx")
    facts = context if isinstance(context, Mapping) else {}
    if kind == "missing":
        return "is missing"
    if kind == "extra_forbidden":
        return f"{value} stands under an unknown key"
    if kind == "literal_error":
        return f"{value} is not {facts.get('expected')}"
    if kind in ("model_attributes_type", "model_type", "dict_type"):
        return "is not a JSON object"
    if kind == "json_invalid":
        return "is not JSON a record can be read from"
    if kind == "value_error":
        return f"{value} {facts.get('error')}"
    if kind == "string_pattern_mismatch":
        return f"{value} is empty or holds characters that cannot be kept"
    words = str(item.get("msg", "")).removeprefix("Input should be ").removeprefix("Value error, ")
    return f"{value} is not {words}" if words != item.get("msg") else f"{value}: {words}"


def _catalogue_faults(raw: object, catalogue: Catalogue) -> Iterator[Fault]:
    if not isinstance(raw, dict):
        return
    entries = raw.get("entries")
    for place, entry in enumerate(entries[:MOST_ENTRIES] if isinstance(entries, list) else []):
        yield from entry_faults(catalogue, entry, f"entries[{place}]")
    for path, code in (*_listed(raw, "planned"), *_listed(raw, "left_out", of="test")):
        if code not in catalogue.tests:
            yield Fault(path, code, f"{shown(code)} is not a test in the catalogue")
    intake = raw.get("intake")
    complaint = intake.get("complaint") if isinstance(intake, dict) else None
    for path, site in (*_listed(complaint, "sites"), *_listed(complaint, "places", of="site")):
        if site not in catalogue.sites:
            yield Fault(f"intake.complaint.{path}", site, f"{shown(site)} is not a place of pain")


def _listed(part: object, name: str, *, of: str | None = None) -> Iterator[tuple[str, str]]:
    """The codes of a list and where each stands; `of` names the member that holds the code."""
    listed = part.get(name) if isinstance(part, dict) else None
    for place, item in enumerate(listed[: MOST_ENTRIES + 1] if isinstance(listed, list) else []):
        code = item.get(of) if of is not None and isinstance(item, dict) else item
        if isinstance(code, str):
            yield (f"{name}[{place}].{of}" if of else f"{name}[{place}]"), code


def _date_faults(record: Record) -> Iterator[Fault]:
    yield from _not_after(record.date, [("athlete.birth_date", record.athlete.birth_date)])
    if record.intake is not None:
        yield from date_faults(record.intake, record.date)
        yield from history_faults(record.intake)


def history_faults(intake: IntakePart) -> Iterator[Fault]:
    """A line is found by its id: two of one id could not be told apart."""
    found: set[str] = set()
    for place, line in enumerate(intake.history):
        # As a line without an id is called here.
        name = line.id or f"line{place + 1}"
        if name in found:
            yield Fault(f"intake.history[{place}].id", line.id, f"{name} is the id of another line")
        found.add(name)


def date_faults(intake: IntakePart, day: dt.date) -> Iterator[Fault]:
    """What is told to have happened after the screen."""
    onset = intake.onset
    dated = [("intake.onset.date", onset.date if onset else None)]
    dated += [(f"intake.history[{place}].date", item.date) for place, item in enumerate(intake.history)]
    yield from _not_after(day, dated)


def _not_after(day: dt.date, dated: Sequence[tuple[str, dt.date | None]]) -> Iterator[Fault]:
    for path, told in dated:
        if told is not None and told > day:
            yield Fault(path, told.isoformat(), f"{told.isoformat()} is after the screen, {day.isoformat()}")
