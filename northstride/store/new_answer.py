"""An answer as it is handed in, and everything the catalogue has against it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

import orjson
from pydantic import ValidationError

from northstride.core.catalogue import Catalogue
from northstride.core.errors import Fault
from northstride.record.entries import entry_faults
from northstride.record.model import EntryPart
from northstride.record.read import model_faults
from northstride.store.errors import Refused
from northstride.store.folding import FIELDS, VALUES


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


def answer_faults(catalogue: Catalogue, answer: NewAnswer, path: str) -> list[Fault]:
    """Every fault of one answer, each at its own place."""
    test = catalogue.tests.get(answer.test)
    if test is None:
        return [Fault(f"{path}.test", answer.test, f'"{answer.test}" is not a test in the catalogue')]
    if answer.side is None and test.sides == "each":
        return [Fault(f"{path}.side", None, "needs a side")]
    measure = answer.field.removeprefix(VALUES)
    is_value = answer.field.startswith(VALUES) and test.measure(measure) is not None
    if not is_value and answer.field not in FIELDS:
        return [Fault(f"{path}.field", answer.field, f'"{answer.field}" is not a field of this test')]
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
