"""An id means one thing for ever: what stands under it already is compared in everything it says."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any
from uuid import UUID

import orjson
from sqlalchemy import Row

from northstride.core.catalogue import Catalogue
from northstride.store.answers.new_answer import NewAnswer, answer_side
from northstride.store.errors import Differs

Said = dict[str, object]


def said_by(catalogue: Catalogue, screen_id: UUID, answer: NewAnswer) -> Said:
    """All that an answer says, by the name of each part."""
    return {
        "screen": screen_id,
        "test": answer.test,
        "side": answer_side(catalogue, answer),
        "key": answer.key,
        "field": answer.field,
        "value": answer.value,
        "at": answer.observed_at,
    }


def said_in(row: Row[Any]) -> Said:
    """The same of an answer as it is kept."""
    own = {name: getattr(row, name) for name in ("test", "side", "key", "field", "value")}
    return {"screen": row.screen_id, "at": row.observed_at, **own}


def check_same(key: UUID, standing: Said, given: Said) -> None:
    """Raises Differs with the names of what is not the same."""
    paths = [name for name, value in given.items() if not same(standing[name], value)]
    if paths:
        raise Differs("answer", key, paths)


def same(one: object, other: object) -> bool:
    """Whether two values say the same."""
    if isinstance(one, (dict, list)) or isinstance(other, (dict, list)):
        return orjson.dumps(one, option=orjson.OPT_SORT_KEYS) == orjson.dumps(
            other, option=orjson.OPT_SORT_KEYS
        )
    # True equals 1 in Python, and they are two answers.
    return one == other and isinstance(one, bool) == isinstance(other, bool)


def each_once(catalogue: Catalogue, screen_id: UUID, answers: Iterable[NewAnswer]) -> list[NewAnswer]:
    """The answers of one call, repeats left out. Raises Differs where one id stands for two answers."""
    found: dict[UUID, NewAnswer] = {}
    for answer in answers:
        known = found.setdefault(answer.id, answer)
        check_same(answer.id, said_by(catalogue, screen_id, known), said_by(catalogue, screen_id, answer))
    return list(found.values())


def not_yet_written(
    catalogue: Catalogue, known: Mapping[UUID, Row[Any]], screen_id: UUID, answers: Sequence[NewAnswer]
) -> list[NewAnswer]:
    """Those of `answers` that are new. Raises Differs."""
    fresh: list[NewAnswer] = []
    for answer in each_once(catalogue, screen_id, answers):
        if answer.id in known:
            check_same(answer.id, said_in(known[answer.id]), said_by(catalogue, screen_id, answer))
        else:
            fresh.append(answer)
    return fresh
