"""What leaves and comes in: a bundle, a table of ten thousand rows, a sheet as PDF, each beside its floor."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Callable
from functools import partial

import typst

from bench.figure import Figure, alternating, median
from northstride.cli.published import DOCS
from northstride.core.catalogue import default_catalogue
from northstride.interchange.fhir.to_record import record_of
from northstride.interchange.paper.setting import FONTS
from northstride.interchange.values.columns import guess
from northstride.interchange.values.table import table_of
from northstride.record.read import check_record
from tests.interchange.test_fhir import bundle, told
from tests.support.golden import EXAMPLES, KINDS, made
from tests.support.taking import take_table

ROWS = 10_000
HEAD = "date,athlete,test,side,measure,value"
LIMIT_MS, LIMIT_KB = 1000, 300


def measure_leaving() -> list[Figure]:
    return [*_bundles(), _table(), *_sheets()]


def _beside(
    name: str, mine: Callable[[], object], floor: Callable[[], object], times: int, limit: float | None = None
) -> Figure:
    mine()
    own, bare = alternating(mine, floor, times)
    return Figure(name, median(own), "ms", median(bare), limit)


def _bundles() -> list[Figure]:
    """Against writing and reading the same bundle as bare JSON."""
    catalogue = default_catalogue()
    what = told(json.loads((DOCS / "examples" / "chronic-ankle-first.json").read_text()))
    whole = bundle(what)
    text = json.dumps(whole)

    def back() -> None:
        check_record(record_of(catalogue, json.loads(text)), catalogue)

    return [
        _beside("FHIR bundle out", lambda: bundle(what), lambda: json.dumps(whole), 15),
        _beside("FHIR bundle in", back, lambda: json.loads(text), 15),
    ]


def _table() -> Figure:
    """Against reading the same rows and nothing more."""
    catalogue = default_catalogue()
    thigh = "hip.modified_thomas,left,thigh_angle"
    text = "\n".join([HEAD, *(f"2026-09-14,T-{at // 100},{thigh},{at % 17}" for at in range(ROWS))])

    def taken() -> None:
        table = table_of(text)
        found = take_table(catalogue, table, guess(catalogue, table.heads), "squad_screen")
        if found.faults:
            raise RuntimeError(found.faults[0].problem)

    return _beside("table of 10,000 values, tried", taken, lambda: list(csv.reader(io.StringIO(text))), 3)


def _sheets() -> list[Figure]:
    """Against an empty page with the same fonts; of each kind the slowest and the largest."""
    fonts = typst.Fonts(include_system_fonts=False, font_paths=[FONTS])

    def bare() -> object:
        page = typst.Compiler(b"#set document(title: [x])\nx", font_paths=fonts)
        return page.compile(format="pdf")

    found = []
    for kind in KINDS:
        each = [
            _beside(f"{kind} as PDF, slowest", partial(made, example, kind), bare, 5, LIMIT_MS)
            for example in EXAMPLES
        ]
        largest = max(len(made(example, kind)) for example in EXAMPLES) / 1000
        found.append(max(each, key=lambda figure: figure.value))
        found.append(Figure(f"{kind} as PDF, largest", largest, "kB", None, LIMIT_KB))
    return found
