"""The documents under docs/ that are made from the code. A test keeps them from drifting.

`python -m northstride.cli.published` writes them anew.
"""

from __future__ import annotations

import json
from pathlib import Path

from pydantic import SecretStr

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.cli.steps import ROOT
from northstride.core.catalogue import default_catalogue
from northstride.record.schema import record_schema

DOCS = ROOT / "docs"


def openapi_text() -> str:
    # Describing the app touches no database, so the address may lead nowhere.
    settings = Settings(database_url=SecretStr("postgresql://127.0.0.1:1/none"))
    return _text(create_app(settings).openapi())


def record_schema_text() -> str:
    return _text(record_schema(default_catalogue()))


def _text(document: object) -> str:
    return json.dumps(document, indent=2, ensure_ascii=False) + "\n"


def catalogue_text() -> str:
    """Every test with its measures, for people."""
    lines = ["# Catalogue", "", "Made from `northstride/core/catalogue`; not written by hand.", ""]
    for test in default_catalogue().tests.values():
        lines += [
            f"## {test.name}",
            "",
            f"`{test.code}` · {test.position.replace('_', ' ')} · {test.seconds} s",
        ]
        lines += ["", test.purpose, ""]
        for measure in test.measures:
            error = measure.error
            said = f", error {error.sem:g} ({error.source})" if error else ""
            lines.append(f"* `{measure.code}` {measure.ask}{said}")
        lines += [f"* seen `{seen.code}`: {seen.label}" for seen in test.seen]
        lines += [f"* {line}" for line in (*test.traps, *test.cautions)]
        lines.append("")
    return "\n".join(lines)


PUBLISHED = {
    "openapi.json": openapi_text,
    "record.schema.json": record_schema_text,
    "catalogue.md": catalogue_text,
}


def write(folder: Path = DOCS) -> None:
    for name, make in PUBLISHED.items():
        (folder / name).write_text(make(), encoding="utf-8")


if __name__ == "__main__":
    write()
