"""Limits, default actions and advice as sourced data."""

from northstride.core.norms.load import (
    Limits,
    advice_for,
    default_action,
    kept_items,
    limits,
    mean_range,
    mean_range_source,
)

__all__ = [
    "Limits",
    "advice_for",
    "default_action",
    "kept_items",
    "limits",
    "mean_range",
    "mean_range_source",
]
