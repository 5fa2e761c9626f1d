"""Limits, default actions and advice as sourced data."""

from northstride.core.norms.limit import Limits, limit_at, limits, with_limits
from northstride.core.norms.load import (
    HealthyRange,
    advice_for,
    default_action,
    healthy_range,
    kept_items,
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
    "limit_at",
    "limits",
    "mean_range",
    "mean_range_source",
    "with_limits",
]
