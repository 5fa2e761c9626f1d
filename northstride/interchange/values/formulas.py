"""Cells that no spreadsheet takes for a formula, and that come back as they were."""

from __future__ import annotations

import re
import unicodedata

UNSEEN = ("Cc", "Cf")
# What a spreadsheet begins to calculate at, full-width letters and our own mark among them.
STARTS = ("=", "+", "-", "−", "@", "'", "＝", "＋", "－", "＠", "﹦", "﹢", "﹣", "﹫")
NUMBER = re.compile(r"[+-]?\d+(\.\d+)?")


def guarded(cell: str) -> str:
    """With a mark before it where it could be a formula. A number is none."""
    return f"'{cell}" if _could_be_one(cell) and not NUMBER.fullmatch(cell) else cell


def unguarded(cell: str) -> str:
    """Without the mark."""
    return cell[1:] if cell.startswith("'") and _could_be_one(cell[1:]) else cell


def _could_be_one(cell: str) -> bool:
    """Also behind what a spreadsheet skips or nobody sees: blanks of every kind, control and format marks."""
    at = 0
    while at < len(cell) and (cell[at].isspace() or unicodedata.category(cell[at]) in UNSEEN):
        at += 1
    # A line break or a tab alone moves what follows into a cell of its own.
    return cell.startswith(STARTS, at) or cell.startswith(("\t", "\r", "\n"))
