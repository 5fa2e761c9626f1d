"""The figures of the findings, drawn by the web part's own code: one geometry for screen and paper."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from functools import lru_cache
from pathlib import Path
from threading import Lock
from typing import Any

from py_mini_racer import JSTimeoutException, MiniRacer

# Many times what the longest drawing takes.
DRAWING_SECONDS = 10
SCRIPT = Path(__file__).parents[3] / "web" / "dist-paper" / "paper.js"


class Figures:
    """Draws in an engine of its own. One at a time: the engine has one thread."""

    def __init__(self, catalogue: Mapping[str, Any]) -> None:
        self._engine = MiniRacer()
        self._engine.eval(SCRIPT.read_text(encoding="utf-8"))
        self._engine.call("knowCatalogue", json.dumps(catalogue))
        self._turn = Lock()

    def of(self, record: Mapping[str, Any], reading: Mapping[str, Any], how: str) -> list[dict[str, Any]]:
        """By flag: for each side its drawing as SVG, its words, and the value where it is a number."""
        found: list[dict[str, Any]] = self._asked(
            "figuresOf", {"record": record, "reading": reading, "how": how}
        )
        return found

    def lines(self, course: Mapping[str, Any], today: str) -> list[dict[str, Any]]:
        """Change lines, each side in its own lane, of what was taken more than once; what got worse first."""
        found: list[dict[str, Any]] = self._asked("linesOf", {"course": course, "today": today})
        return found

    def body(self, pins: Sequence[Mapping[str, Any]]) -> str:
        """Legs with the numbers of what stands out; empty where nothing lies on them."""
        return str(self._asked("bodyOf", pins))

    def _asked(self, what: str, of: object) -> Any:
        """Raises TimeoutError for what would take far too long."""
        with self._turn:
            try:
                drawn = self._engine.call(what, json.dumps(of), timeout_sec=DRAWING_SECONDS)
            except JSTimeoutException as error:
                raise TimeoutError from error
        return json.loads(str(drawn))


@lru_cache(maxsize=2)
def figures_by(catalogue: str) -> Figures:
    """Made once for a catalogue as the web part draws from it (as JSON)."""
    return Figures(json.loads(catalogue))
