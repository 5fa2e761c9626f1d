"""Every test as data, loaded and checked once."""

from northstride.core.catalogue.load import Catalogue, default_catalogue, read_catalogue
from northstride.core.catalogue.model import Derived, ErrorFigure, Measure, Position, Seen, Site, Step, Test

__all__ = [
    "Catalogue",
    "Derived",
    "ErrorFigure",
    "Measure",
    "Position",
    "Seen",
    "Site",
    "Step",
    "Test",
    "default_catalogue",
    "read_catalogue",
]
