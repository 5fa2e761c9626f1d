"""A document as answers by path, and back: what a questionnaire can carry and lose nothing of."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

from northstride.interchange.fhir.systems import Resource

# What has no answer in it still stands: an empty list is an answer, an empty text was typed.
EMPTY: dict[str, Any] = {"[]": [], "{}": {}, '""': ""}
STEP = re.compile(r"([^.\[\]]+)|\[(\d+)\]")
MOST_IN_A_LIST = 5000


def items_of(document: object, path: str = "") -> Iterator[Resource]:
    """Items of a questionnaire response, one a leaf, in the document's order."""
    if isinstance(document, dict) and document:
        for key, value in document.items():
            yield from items_of(value, f"{path}.{key}" if path else key)
    elif isinstance(document, list) and document:
        for place, value in enumerate(document):
            yield from items_of(value, f"{path}[{place}]")
    elif not path:
        return
    elif (mark := _empty_mark(document)) is not None:
        yield {"linkId": f"{path}{mark}", "text": _words(path)}
    else:
        yield {"linkId": path, "text": _words(path), "answer": [_answer(document)]}


def _empty_mark(value: object) -> str | None:
    return next(
        (mark for mark, empty in EMPTY.items() if type(value) is type(empty) and value == empty), None
    )


def _words(path: str) -> str:
    return re.sub(r"\[\d+\]", "", path).replace(".", ", ").replace("_", " ")


def _answer(value: object) -> Resource:
    if isinstance(value, bool):
        return {"valueBoolean": value}
    if isinstance(value, int):
        return {"valueInteger": value}
    if isinstance(value, float):
        return {"valueDecimal": value}
    return {"valueString": str(value)}


def document_of(items: list[Resource]) -> dict[str, Any]:
    """Raises ValueError for an item that says nothing, or whose path is no path."""
    document: dict[str, Any] = {}
    for item in items:
        link = str(item["linkId"])
        mark = next((mark for mark in EMPTY if link.endswith(mark)), None)
        if mark is not None:
            _put(document, link.removesuffix(mark), type(EMPTY[mark])())
            continue
        answers = item.get("answer") or []
        found = [
            value
            for key, value in (answers[0].items() if len(answers) == 1 else ())
            if key.startswith("value")
        ]
        if len(found) != 1:
            raise ValueError(f"{link} needs one answer")
        _put(document, link, found[0])
    return document


def _put(document: dict[str, Any], path: str, value: object) -> None:
    steps = [int(place) if place else key for key, place in STEP.findall(path)]
    rebuilt = "".join(f"[{step}]" if isinstance(step, int) else f".{step}" for step in steps)
    if not steps or rebuilt.removeprefix(".") != path or not isinstance(steps[0], str):
        raise ValueError(f"{path!r} is no path")
    at: Any = document
    for step, after in zip(steps, [*steps[1:], None], strict=True):
        into = value if after is None else ([] if isinstance(after, int) else {})
        at = _step_into(at, step, into, path, last=after is None)


def _step_into(at: Any, step: int | str, into: object, path: str, *, last: bool) -> Any:
    """The place one step further, made where it was not there. Raises ValueError."""
    if isinstance(step, int):
        if not isinstance(at, list) or step > len(at) or step >= MOST_IN_A_LIST:
            raise ValueError(f"{path!r} stands out of order")
        if step == len(at):
            at.append(into)
        elif last:
            raise ValueError(f"{path!r} stands twice")
        return at[step]
    if not isinstance(at, dict) or (last and step in at):
        raise ValueError(f"{path!r} stands twice")
    return at.setdefault(step, into)
