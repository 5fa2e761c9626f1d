"""Short forms of a test in the files, written out before they are checked.

`shape` brings the measures of a named shape; `angle` and `amount` say what is particular to this
test's angles or to its measures by code; a test without steps has one, with all its measures.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

Shapes = Mapping[str, list[dict[str, Any]]]


def spelled_out(raw: Mapping[str, Any], shapes: Shapes) -> dict[str, Any]:
    tests = [_test(test, shapes) for test in raw.get("test", [])]
    return {**raw, "test": tests} if tests else dict(raw)


def _test(raw: Mapping[str, Any], shapes: Shapes) -> dict[str, Any]:
    test = dict(raw)
    shape = test.pop("shape", None)
    angle = test.pop("angle", {})
    amount = test.pop("amount", {})
    setup = test.pop("setup", None)
    # A shape nobody knows is left to stand, so that the check names it.
    if shape is not None and shape not in shapes:
        return {**test, "shape": shape}
    shared = [_own(measure, angle, amount) for measure in shapes.get(shape, [])] if shape else []
    test["measures"] = [*shared, *test.get("measures", [])]
    if "steps" not in test and setup is not None:
        test["steps"] = [_only_step(test, setup)]
    return test


def _own(measure: Mapping[str, Any], angle: Mapping[str, Any], amount: Mapping[str, Any]) -> dict[str, Any]:
    particular = angle if measure.get("kind") == "angle" else {}
    return {**measure, **particular, **amount.get(measure["code"], {})}


def _only_step(test: dict[str, Any], setup: list[str]) -> dict[str, Any]:
    step = {
        "code": "all",
        "title": "All",
        "setup": setup,
        "measures": [measure["code"] for measure in test["measures"]],
        "seen": [seen["code"] for seen in test.get("seen", [])],
    }
    spots = test.pop("map", None)
    return {**step, "map": spots} if spots else step
