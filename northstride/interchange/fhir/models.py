"""The library's models of a bundle, fetched when one is first needed."""

from __future__ import annotations

from importlib import import_module
from typing import Any

from northstride.interchange.fhir.systems import Version

MODULES: dict[Version, str] = {
    "R5": "fhir.resources.bundle",
    "R4B": "fhir.resources.R4B.bundle",
}


def bundle_model(version: Version) -> Any:
    """The model is Pydantic's, without types of its own."""
    return import_module(MODULES[version]).Bundle
