"""What the app is told from outside. Nothing here is a secret with a default."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Literal

from pydantic import Field, SecretStr
from pydantic_settings import BaseSettings, SettingsConfigDict

from northstride.interchange.fhir.systems import OURS


class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="NORTH_STRIDE_", extra="ignore")

    database_url: SecretStr
    # Where the built web part stands; None serves the API alone.
    web_folder: Path | None = None
    demo: bool = False
    # Set behind HTTPS: the session cookie then never travels in the clear.
    secure_cookie: bool = False
    hash_cost: Literal["full", "test"] = "full"
    # Under which our code systems and profiles stand in FHIR; ends with a colon or a slash.
    code_systems: Annotated[str, Field(pattern=r"^[a-z][a-z0-9+.-]*:.*[:/]$")] = OURS
    largest_body: int = 2_000_000
