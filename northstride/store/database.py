"""One engine a process, and the migrations."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import orjson
from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine

MIGRATIONS = Path(__file__).parent / "migrations"


def driver_url(url: str) -> str:
    """The same address, spoken to with psycopg 3."""
    scheme, _, rest = url.partition("://")
    return f"postgresql+psycopg://{rest}" if scheme in ("postgres", "postgresql") else url


def connect(url: str, *, pool_size: int = 10) -> Engine:
    return create_engine(
        driver_url(url),
        pool_size=pool_size,
        max_overflow=pool_size,
        # Values stand in SQL errors as well as in logs: health data belongs in neither.
        hide_parameters=True,
        json_serializer=_dumps,
        json_deserializer=orjson.loads,
        connect_args={"connect_timeout": 5, "options": "-c timezone=UTC"},
    )


def _dumps(value: Any) -> str:
    return orjson.dumps(value).decode()


def migrate(url: str) -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["url"] = driver_url(url)
    command.upgrade(config, "head")


__all__ = ["Connection", "Engine", "connect", "migrate"]
