"""Limits, default actions and advice as sourced data."""

from northstride.core.norms.load import Limits, advice_for, default_action, limits

__all__ = ["Limits", "advice_for", "default_action", "limits"]
