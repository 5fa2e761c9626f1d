"""A table of values taken as a whole, as the steps of the app take it."""

from __future__ import annotations

from collections.abc import Sequence

from northstride.core.catalogue import Catalogue
from northstride.interchange.values.table import Table
from northstride.interchange.values.to_records import MOST_FAULTS, DraftTable, read_rows, screen_faults


def take_table(catalogue: Catalogue, table: Table, roles: Sequence[str], purpose: str) -> DraftTable:
    taken = read_rows(catalogue, table, roles, purpose)
    more = screen_faults(catalogue, taken.screens, MOST_FAULTS)
    return DraftTable(taken.screens, sorted([*taken.faults, *more], key=lambda fault: fault.line))
