"""The app with a catalogue of another shape: nothing but data is different."""

from __future__ import annotations

from pathlib import Path

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.core.catalogue import Catalogue, read_catalogue
from northstride.core.catalogue.load import HERE


def catalogue() -> Catalogue:
    return read_catalogue([HERE / "sites.toml", Path(__file__).with_name("other_shape.toml")])


def make_app() -> object:
    return create_app(Settings(), catalogue())
