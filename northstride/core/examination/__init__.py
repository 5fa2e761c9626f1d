"""One examination as the rules see it, and the case that looks things up in it."""

from northstride.core.examination.model import (
    LOOKS_FULL,
    Athlete,
    Complaint,
    Context,
    Entry,
    Examination,
    History,
    Intake,
    Lane,
    Onset,
    Override,
    Pain,
    SorePlace,
    Trials,
    Value,
)

__all__ = [
    "LOOKS_FULL",
    "Athlete",
    "Complaint",
    "Context",
    "Entry",
    "Examination",
    "History",
    "Intake",
    "Lane",
    "Onset",
    "Override",
    "Pain",
    "SorePlace",
    "Trials",
    "Value",
]
