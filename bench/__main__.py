"""Runs the parts, prints the table, writes bench/results/latest.json."""

from __future__ import annotations

import json
import platform
import sys
import time
from pathlib import Path

from bench.api import measure_api
from bench.core import measure_core
from bench.drawing import measure_drawing
from bench.figure import Figure, table
from bench.leaving import measure_leaving
from bench.scale import measure_scale
from bench.tables import measure_tables
from bench.web import measure_web

PARTS = {
    "core": measure_core,
    "drawing": measure_drawing,
    "api": measure_api,
    "leaving": measure_leaving,
    "scale": measure_scale,
    "tables": measure_tables,
    "web": measure_web,
}
RESULTS = Path(__file__).parent / "results"


def main() -> int:
    chosen = sys.argv[1:] or list(PARTS)
    figures: list[Figure] = []
    for name in chosen:
        print(f"measuring {name}", file=sys.stderr, flush=True)
        figures += PARTS[name]()
    print(table(figures))
    RESULTS.mkdir(exist_ok=True)
    document = {
        "at": time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime()),
        "python": platform.python_version(),
        "figures": [figure.as_json() for figure in figures],
    }
    (RESULTS / "latest.json").write_text(json.dumps(document, indent=2) + "\n")
    broken = [figure.name for figure in figures if figure.held is False]
    if broken:
        print(f"Does not hold: {', '.join(broken)}", file=sys.stderr)
    return 1 if broken else 0


if __name__ == "__main__":
    sys.exit(main())
