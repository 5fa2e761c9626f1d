"""How secrets that open something are kept."""

from __future__ import annotations

import hashlib


def hashed(value: str) -> str:
    """As secrets are kept: nobody who reads the database can use one."""
    return hashlib.sha256(value.encode()).hexdigest()
