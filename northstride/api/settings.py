"""What the app is told from outside. Nothing here is a secret with a default."""

from __future__ import annotations

from pathlib import Path
from typing import Literal

from pydantic import SecretStr
from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="NORTH_STRIDE_", extra="ignore")

    database_url: SecretStr
    # Where the built web part stands; None serves the API alone.
    web_folder: Path | None = None
    demo: bool = False
    # Set behind HTTPS: the session cookie then never travels in the clear.
    secure_cookie: bool = False
    hash_cost: Literal["full", "test"] = "full"
    largest_body: int = 2_000_000
