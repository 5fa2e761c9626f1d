"""What each flag is called aloud, as data."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from pathlib import Path
from types import MappingProxyType

FLAG_NAMES: Mapping[str, str] = MappingProxyType(
    tomllib.loads((Path(__file__).parent / "flag_names.toml").read_text(encoding="utf-8"))
)
