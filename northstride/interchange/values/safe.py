"""Cells that no spreadsheet takes for a formula, and that come back as they were."""

from __future__ import annotations

import re

# What a spreadsheet begins to calculate at, or skips on the way to it.
STARTS = ("=", "+", "-", "@", "\t", "\r", "\n", "'", "＝", "＋", "－", "＠")
NUMBER = re.compile(r"[+-]?\d+(\.\d+)?")


def safe(cell: str) -> str:
    """With a mark before it where it could be a formula. A number is none."""
    if cell.startswith(STARTS) and not NUMBER.fullmatch(cell):
        return f"'{cell}"
    return cell


def told(cell: str) -> str:
    """Without the mark."""
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(STARTS) else cell
