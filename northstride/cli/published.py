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


PUBLISHED = {"openapi.json": openapi_text, "record.schema.json": record_schema_text}


def write(folder: Path = DOCS) -> None:
    for name, make in PUBLISHED.items():
        (folder / name).write_text(make(), encoding="utf-8")


if __name__ == "__main__":
    write()
