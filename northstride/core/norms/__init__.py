"""Limits, default actions and advice as sourced data."""

from northstride.core.norms.load import (
    HealthyRange,
    Limits,
    advice_for,
    default_action,
    healthy_range,
    kept_items,
    limits,
    mean_range,
    mean_range_source,
)

__all__ = [
    "HealthyRange",
    "Limits",
    "advice_for",
    "default_action",
    "healthy_range",
    "kept_items",
    "limits",
    "mean_range",
    "mean_range_source",
]
