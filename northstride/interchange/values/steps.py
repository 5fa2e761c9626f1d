"""A table read step by step, each small enough to be waited for and to be stopped between two.

Each is called in a process of its own, which knows the catalogue as shipped unless it is handed another.
"""

from __future__ import annotations

from collections.abc import Sequence

from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.interchange.values.table import table_of
from northstride.interchange.values.taken import CellFault, ScreenDraft, TakenTable, screen_faults, take_rows

SCREENS_A_STEP = 250


def first_step(text: str, roles: Sequence[str], purpose: str, other: Catalogue | None) -> TakenTable:
    """Raises NotAValue for what is no table, or too large."""
    return take_rows(other or default_catalogue(), table_of(text), roles, purpose)


def next_step(screens: Sequence[ScreenDraft], most: int, other: Catalogue | None) -> list[CellFault]:
    return screen_faults(other or default_catalogue(), screens, most)
