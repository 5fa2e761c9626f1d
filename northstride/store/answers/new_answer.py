"""An answer as it is handed in, and everything the catalogue has against it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

import orjson
from pydantic import ValidationError

from northstride.core.catalogue import Catalogue, Test
from northstride.core.terms.errors import Fault
from northstride.record.entries import entry_faults
from northstride.record.fact_fields import FactPlace, fact_faults, is_fact
from northstride.record.model import EntryPart
from northstride.record.read import model_faults
from northstride.record.values import Refused as ValueRefused
from northstride.record.values import read_value
from northstride.store.answers.folding import FIELDS, VALUES, EntryPlace, key_text, key_value
from northstride.store.errors import Refused


@dataclass(frozen=True, slots=True)
class NewAnswer:
    """One changed field. `value` None clears it. `side` is the lane; `key` tells like entries apart."""

    id: UUID
    test: str
    side: str | None
    field: str
    value: Any
    key: str = ""
    observed_at: dt.datetime | None = None


def fact_place(answer: NewAnswer) -> FactPlace:
    return FactPlace(answer.test, answer.side, answer.key, answer.field)


def entry_place(catalogue: Catalogue, answer: NewAnswer) -> EntryPlace:
    """Tests done on each side have an entry a side; those of both sides have one."""
    if is_fact(answer.test):
        return (answer.test, answer.side, answer.key)
    side = answer.side if catalogue.tests[answer.test].sides == "each" else None
    return (answer.test, side, answer.key)


def answer_side(catalogue: Catalogue, answer: NewAnswer) -> str | None:
    """A value belongs to its lane, everything else to the entry as a whole."""
    return answer.side if answer.field.startswith(VALUES) else entry_place(catalogue, answer)[1]


def answer_faults(catalogue: Catalogue, answer: NewAnswer, path: str) -> list[Fault]:
    """Every fault of one answer, each at its own place."""
    if is_fact(answer.test):
        return fact_faults(catalogue, fact_place(answer), answer.value, path)
    test = catalogue.tests.get(answer.test)
    if test is None:
        return [Fault(f"{path}.test", answer.test, f'"{answer.test}" is not a test in the catalogue')]
    if answer.side is None and test.sides == "each":
        return [Fault(f"{path}.side", None, "needs a side")]
    measure = answer.field.removeprefix(VALUES)
    is_value = answer.field.startswith(VALUES) and test.measure(measure) is not None
    if not is_value and answer.field not in FIELDS:
        return [Fault(f"{path}.field", answer.field, f'"{answer.field}" is not a field of this test')]
    if key_faults := _key_faults(test, answer, path):
        return key_faults
    if answer.value is None:
        return []
    raw: dict[str, Any] = {"test": answer.test}
    entry_side = answer.side if test.sides == "each" else None
    if entry_side is not None:
        raw["side"] = entry_side
    if is_value:
        lane_value = answer.value if answer.side == entry_side else {answer.side: answer.value}
        raw["values"] = {measure: lane_value}
    else:
        raw[answer.field] = answer.value
    found = [*entry_faults(catalogue, raw, "")]
    try:
        EntryPart.model_validate_json(orjson.dumps(raw))
    except ValidationError as error:
        found += model_faults(error)
    return [Fault(_place(fault.path, answer, path), fault.value, fault.problem) for fault in _once(found)]


def _key_faults(test: Test, answer: NewAnswer, path: str) -> list[Fault]:
    """A key must be one the test knows, and the measure that names it can say nothing else."""
    if not answer.key:
        return []
    measure = test.measure(test.key) if test.key else None
    if measure is None:
        return [Fault(f"{path}.key", answer.key, "this test has one entry a side: it takes no key")]
    try:
        read_value(measure, key_value(measure, answer.key), f"{path}.key")
    except ValueRefused as refused:
        return refused.faults
    names_it = answer.field == f"{VALUES}{measure.code}" and answer.value is not None
    if names_it and key_text(answer.value) != answer.key:
        return [Fault(f"{path}.value", answer.value, f"is not the {measure.label.lower()} of this entry")]
    return []


def _once(faults: list[Fault]) -> list[Fault]:
    return list({fault.path.lstrip("."): fault for fault in reversed(faults)}.values())[::-1]


def _place(found: str, answer: NewAnswer, path: str) -> str:
    inner = found.lstrip(".").removeprefix(answer.field)
    if inner.startswith(f".{answer.side}"):
        inner = inner.removeprefix(f".{answer.side}")
    return f"{path}.value{inner}"


def check_answers(catalogue: Catalogue, answers: Sequence[NewAnswer]) -> None:
    """Raises Refused with all faults of all answers."""
    faults = [
        fault
        for place, answer in enumerate(answers)
        for fault in answer_faults(catalogue, answer, f"answers[{place}]")
    ]
    if faults:
        raise Refused(faults)
