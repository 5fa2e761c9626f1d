"""How long a figure takes to draw, in Node: the slowest and the middle one of all kinds."""

from __future__ import annotations

import json
import subprocess
import tempfile
from pathlib import Path

from bench.figure import Figure, median
from bench.pace import pace_ms
from northstride.cli.steps import WEB

FLOOR = "floor"
LIMIT_MS = 4


def measure_drawing() -> list[Figure]:
    with tempfile.TemporaryDirectory() as folder:
        out = Path(folder, "bench.json")
        command = [
            "npx",
            "vitest",
            "bench",
            "--run",
            "--project",
            "state",
            "src/figures",
            f"--outputJson={out}",
        ]
        subprocess.run(command, cwd=WEB, check=True, capture_output=True)
        told = json.loads(out.read_text())
    (group,) = (group for file in told["files"] for group in file["groups"])
    took = {item["name"]: item["median"] for item in group["benchmarks"]}
    took.pop(FLOOR)
    slowest = max(took, key=took.__getitem__)
    return [
        Figure(f"slowest figure ({slowest})", took[slowest], "ms", pace_ms(), LIMIT_MS),
        Figure("figure, p50 of all kinds", median(list(took.values())), "ms", pace_ms(), LIMIT_MS),
    ]
