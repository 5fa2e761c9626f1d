"""The documents under docs/ that are made from the code. A test keeps them from drifting.

`python -m northstride.cli.published` writes them anew.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from functools import partial
from pathlib import Path

from pydantic import SecretStr

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.cli.steps import ROOT
from northstride.core.catalogue import Test, default_catalogue
from northstride.core.examination import Context
from northstride.core.norms.accuracy import AccuracyFigure, accuracy_figures, accuracy_label
from northstride.core.reading import evaluate
from northstride.demo.stories import Screen, Story, stories
from northstride.interchange.fhir.published import published as fhir_documents
from northstride.interchange.reading_text import reading_text
from northstride.interchange.values.out import COLUMNS
from northstride.record.read import check_record
from northstride.record.reading import reading_out
from northstride.record.schema import record_schema

DOCS = ROOT / "docs"
WORKED_PREFACE = (
    "Twelve made-up stories from the Tarnholt mountain club: who, the record file, and the reading the tool "
    "gives. Made by `python -m northstride.cli.published`; not written by hand. A flag is a finding to "
    "weigh, and local protocols come first. "
    "Try one: `./stride evaluate docs/examples/clot-day-3.json --text`."
)

VALUES_PREFACE = (
    "Comma-separated, UTF-8, lines by CR LF, quotes doubled. The long form has a row for each value. A cell "
    "that a spreadsheet could take for a formula has an apostrophe before it, which is taken away when the "
    "table comes back. Made by `python -m northstride.cli.published`; not written by hand."
)
VALUES_WIDE = (
    "The wide form has a row for each screen: `screen`, `date`, `athlete`, `name`, `purpose`, `state`, and a "
    "column for each value, called `test/measure/side`, of a keyed test `test/measure[key]/side`. Several "
    "trials stand in one cell, a semicolon between them. A table comes in in either form: each column's "
    "meaning is shown and can be changed, a dry run names every fault by its line and column, and all of it "
    "is taken or nothing. Lengths in cm, m and in are turned into mm. Days are written YYYY-MM-DD."
)


def openapi_text() -> str:
    # Describing the app touches no database, so the address may lead nowhere.
    settings = Settings(database_url=SecretStr("postgresql://127.0.0.1:1/none"))
    return _text(create_app(settings).openapi())


def record_schema_text() -> str:
    return _text(record_schema(default_catalogue()))


def _text(document: object) -> str:
    return json.dumps(document, indent=2, ensure_ascii=False) + "\n"


def catalogue_json_text() -> str:
    """Every test as data, one a line."""
    lines = (test.model_dump_json() for test in default_catalogue().tests.values())
    return "[\n" + ",\n".join(lines) + "\n]\n"


def catalogue_text() -> str:
    """Every test with its steps, measures and traps, then the published figures, for people."""
    lines = ["# Catalogue", "", "Made from `northstride/core/catalogue`; not written by hand.", ""]
    for test in default_catalogue().tests.values():
        lines += [*_test_lines(test), ""]
    lines += ["# How much a sign can say", "", f"Sensitivity and specificity, {accuracy_label()}.", ""]
    lines += ["| sign | for | sensitivity | specificity | source |", "|---|---|---|---|---|"]
    for figure in accuracy_figures():
        codes = ", ".join(f"`{code}`" for code in figure.codes)
        sensitivity, specificity = _range(figure.sensitivity), _range(figure.specificity)
        lines.append(f"| {figure.sign} | {codes} | {sensitivity} | {specificity} | {_source(figure)} |")
    return "\n".join(lines) + "\n"


def _source(figure: AccuracyFigure) -> str:
    if figure.no_use_shown:
        return f"{figure.source}; no use shown, so it moves nothing"
    if figure.pooled_negative is not None:
        return f"{figure.source}; pooled negative ratio {_range(figure.pooled_negative)}"
    return figure.source


def _range(pair: tuple[float, float]) -> str:
    low, high = pair
    return f"{low:.2f}" if low == high else f"{low:.2f} to {high:.2f}"


def _test_lines(test: Test) -> list[str]:
    position = test.position.replace("_", " ")
    sides = "each side" if test.sides == "each" else "both at once"
    lines = [
        f"## {test.name}",
        "",
        f"`{test.code}` · {position} · {sides} · {test.seconds} s",
        "",
        test.purpose,
        "",
    ]
    if test.other_names:
        lines += [f"Also called {', '.join(test.other_names)}.", ""]
    for step in test.steps:
        lines += [f"* {step.title}: {' '.join(step.setup)}"] if step.setup else []
    for measure in test.measures:
        parts = [f"* `{measure.code}` {measure.ask}"]
        if measure.unit != "1":
            parts.append(measure.unit)
        if measure.usual_adult is not None:
            parts.append(f"usual adult {measure.usual_adult:g}")
        if measure.error is not None:
            error = measure.error
            parts.append(f"error {error.sem:g}, matters from {error.threshold:g} ({error.source})")
        lines.append(", ".join(parts))
    lines += [f"* seen `{seen.code}`: {seen.label}" for seen in test.seen]
    return [*lines, *(f"* {line}" for line in (*test.traps, *test.cautions))]


def _example(story: Story, screen: Screen) -> str:
    return f"examples/{story.slug}-{screen.name}.json"


def worked_examples_text() -> str:
    """Each story with the reading the tool gives, as people see it."""
    catalogue = default_catalogue()
    lines = ["# Worked examples", "", WORKED_PREFACE, ""]
    for story in stories():
        lines += [f"## {story.title}", "", story.tells, ""]
        for screen in story.screens:
            checked = check_record(dict(screen.record), catalogue)
            reading = reading_out(evaluate(checked.exam, catalogue, Context()), catalogue)
            text = reading_text(checked.record, reading, catalogue)
            lines += [f"[The record]({_example(story, screen)}) reads:", "", "```text", text, "```", ""]
    return "\n".join(lines)


def example_texts() -> dict[str, str]:
    """The record file of each screen of each story, by its name under docs/."""
    return {_example(story, screen): _text(screen.record) for story in stories() for screen in story.screens}


def fhir_texts() -> dict[str, str]:
    """Our codes and what we demand of a bundle, by their names under docs/."""
    return {f"fhir/{name}": _text(document) for name, document in fhir_documents(default_catalogue())}


def values_text() -> str:
    """The columns of a table of values, for whoever makes or reads one."""
    lines = ["# Tables of values", "", VALUES_PREFACE, "", "| column | what stands in it |", "|---|---|"]
    lines += [f"| `{name}` | {says} |" for name, says in COLUMNS.items()]
    return "\n".join([*lines, "", VALUES_WIDE, ""])


PUBLISHED: dict[str, Callable[[], str]] = {
    "openapi.json": openapi_text,
    "record.schema.json": record_schema_text,
    "catalogue.md": catalogue_text,
    "catalogue.json": catalogue_json_text,
    "worked-examples.md": worked_examples_text,
    "values.md": values_text,
    **{name: partial(str, text) for name, text in {**example_texts(), **fhir_texts()}.items()},
}


def write(folder: Path = DOCS) -> None:
    for name, make in PUBLISHED.items():
        path = folder / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(make(), encoding="utf-8")


if __name__ == "__main__":
    write()
