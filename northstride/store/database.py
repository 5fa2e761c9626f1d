"""One engine a process, and the migrations."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import orjson
from sqlalchemy import Connection, Engine, create_engine

MIGRATIONS = Path(__file__).parent / "migrations"


def driver_url(url: str) -> str:
    """The same address, spoken to with psycopg 3."""
    scheme, _, rest = url.partition("://")
    return f"postgresql+psycopg://{rest}" if scheme in ("postgres", "postgresql") else url


# Connections a process keeps, and the threads that use them; the rest is for what runs beside.
POOL_SIZE = 16
SPARE = 6
# No statement, lock or forgotten transaction holds up the others for longer.
TIMEOUTS = {"statement_timeout": "15s", "lock_timeout": "5s", "idle_in_transaction_session_timeout": "30s"}
OPTIONS = " ".join(f"-c {name}={value}" for name, value in {"timezone": "UTC", **TIMEOUTS}.items())


def connect(url: str, *, pool_size: int = POOL_SIZE) -> Engine:
    return create_engine(
        driver_url(url),
        pool_size=pool_size,
        max_overflow=SPARE,
        pool_timeout=10,
        # Values stand in SQL errors as well as in logs: health data belongs in neither.
        hide_parameters=True,
        json_serializer=_dumps,
        json_deserializer=orjson.loads,
        connect_args={"connect_timeout": 5, "options": OPTIONS},
    )


def _dumps(value: Any) -> str:
    return orjson.dumps(value).decode()


def migrate(url: str) -> None:
    # Of a start, not of an app that serves: an app process loads without it.
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["url"] = driver_url(url)
    command.upgrade(config, "head")


__all__ = ["Connection", "Engine", "connect", "migrate"]
