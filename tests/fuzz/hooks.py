"""Loaded by schemathesis: signs its calls in and lets each operation begin with a sound one.

What is sound stands in the environment, because only the runner knows the ids it made.
"""

from __future__ import annotations

import json
import os
from collections import Counter
from itertools import cycle
from typing import Any
from uuid import uuid4

import httpx2
import schemathesis
from sqlalchemy import create_engine, text

from tests.support.hostile import hostile_answers, of_each_kind

KNOWN: dict[str, dict[str, Any]] = json.loads(os.environ["NORTH_STRIDE_FUZZ"])
# A device that comes with a code has no session.
BY_CODE = {"look_at_pairing", "pair_device"}
OPEN = {"set_up", *BY_CODE}
# WorkerPool what is made up at random: what looks like a value and is none, of every kind, again and again.
HOSTILE = cycle([body for each in of_each_kind().values() for body in hostile_answers(*each)])
ANSWERING = {"write_answers", "preview_reading"}
# After the first sound call: every second call keeps its own odd path, the others reach a real row.
_calls: Counter[str] = Counter()


def shown_now(screen: str) -> Any:
    """What Reading shows just now: other calls may have moved a screen to the same athlete."""
    at = f"{KNOWN['address']}/api/screens/{screen}/reading"
    return httpx2.get(at, headers=KNOWN["session"]).raise_for_status().json()["identity"]


def fresh_code() -> str:
    """A code lives two minutes and is used once: it is made when it is needed, and no odd one slows it."""
    with create_engine(os.environ["NORTH_STRIDE_FUZZED"]).begin() as db:
        db.execute(text("DELETE FROM guesses"))
    at, body = f"{KNOWN['address']}/api/pairings", {"id": str(uuid4())}
    return str(httpx2.post(at, json=body, headers=KNOWN["session"]).raise_for_status().json()["code"])


@schemathesis.hook
def before_call(_context: Any, case: Any, **_options: Any) -> None:
    name = case.operation.definition.raw["operationId"]
    number = _calls[name]
    _calls[name] += 1
    sound = KNOWN["operations"].get(name, {})
    session = KNOWN["own"].get(name, KNOWN["session"])
    headers = dict(case.headers or {})
    if name not in OPEN:
        headers.update(session)
    case.headers = headers
    if number % 2 == 0 and "path" in sound:
        case.path_parameters = {**(case.path_parameters or {}), **sound["path"]}
    if number % 3 == 1 and name in ANSWERING:
        case.path_parameters = sound["path"]
        case.body, case.media_type = {"answers": [{**next(HOSTILE), "id": str(uuid4())}]}, "application/json"
    elif number == 0 and name in BY_CODE:
        case.body, case.media_type = {"code": fresh_code()}, "application/json"
    elif number == 0:
        if "query" in sound:
            case.query = sound["query"]
        if "body" in sound:
            case.body = sound["body"]
            if "shown" in sound["body"]:
                case.body = {**sound["body"], "shown": shown_now(sound["path"]["screen_id"])}
            case.media_type = "application/json"
