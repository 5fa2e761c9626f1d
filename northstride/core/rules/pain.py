"""What was said of pain in a test. No pain recorded is not asked, never painless."""

from __future__ import annotations

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.terms.sides import Side

# A hop to the side is a hop.
HOPS = ("ankle.hop", "ankle.side_hop")


def hurts(entry: Entry | None) -> bool:
    return entry is not None and entry.pain is not None and entry.pain.present


def hurts_at(entry: Entry | None, *sites: str) -> bool:
    pain = entry.pain if entry else None
    return pain is not None and pain.present and pain.site in sites


def painless(entry: Entry | None) -> bool:
    """Asked and without pain. A score above 0 beside it contradicts that, and clears nothing."""
    pain = entry.pain if entry else None
    return pain is not None and not pain.present and not pain.nrs


def their_own_pain(entry: Entry | None, site: str) -> bool:
    """The pain they came with, at this place."""
    return (
        hurts_at(entry, site) and entry is not None and entry.pain is not None and bool(entry.pain.familiar)
    )


def answers(case: Case, test: str, side: Side) -> bool:
    """Written positive, or painful: what a pressed or loaded bone does."""
    return case.on(side).positive(test) or hurts(case.entry(test, side))
