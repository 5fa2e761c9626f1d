"""What goes wrong, one JSON line each, without what anybody typed: no message, no value, no address."""

from __future__ import annotations

import sys
import traceback
from pathlib import Path

import structlog
from starlette.requests import Request

structlog.configure(
    processors=[
        structlog.processors.add_log_level,
        structlog.processors.TimeStamper(fmt="iso", utc=True),
        structlog.processors.JSONRenderer(),
    ],
    logger_factory=structlog.WriteLoggerFactory(file=sys.stderr),
    cache_logger_on_first_use=False,
)
log = structlog.get_logger()
FRAMES = 6
PACKAGE = Path(__file__).parents[1]


def log_trouble(request: Request, error: Exception, status: int) -> None:
    """The operation, the kind of error and where it came from. Its text may hold a value: it stays out."""
    route = request.scope.get("route")
    walked = traceback.extract_tb(error.__traceback__)
    own = [frame for frame in walked if frame.filename.startswith(str(PACKAGE))][-FRAMES:]
    cause = getattr(error, "orig", None)
    log.error(
        "request failed",
        operation=getattr(route, "operation_id", None) or getattr(route, "path", "unknown"),
        method=request.method,
        status=status,
        error=type(error).__name__,
        cause=type(cause).__name__ if cause is not None else None,
        sqlstate=getattr(cause, "sqlstate", None),
        frames=[f"{Path(frame.filename).relative_to(PACKAGE)}:{frame.lineno}" for frame in own],
    )
