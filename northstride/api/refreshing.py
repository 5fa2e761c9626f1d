"""Keeps what lists show fresh, behind the requests, as long as the app runs."""

from __future__ import annotations

import structlog
from anyio import CapacityLimiter, sleep, to_thread
from sqlalchemy.exc import SQLAlchemyError

from northstride.api.unit_of_work import Services
from northstride.store.readings.refreshing import AT_ONCE, refresh

log = structlog.get_logger()

PAUSE_SECONDS = 1.0
PAUSE_AFTER_TROUBLE_SECONDS = 5.0


async def keep_fresh(services: Services) -> None:
    """Ends when it is cancelled. A database that is away is waited for."""
    lane = CapacityLimiter(1)

    def look(signed: bool) -> int:
        return refresh(services.engine, services.catalogue, signed=signed)

    looking_at_signed = True
    while True:
        try:
            found = await to_thread.run_sync(look, looking_at_signed, limiter=lane)
        except SQLAlchemyError as error:
            log.warning("lists are not refreshed", error=type(error).__name__)
            await sleep(PAUSE_AFTER_TROUBLE_SECONDS)
            continue
        if found < AT_ONCE:
            looking_at_signed = False
            await sleep(PAUSE_SECONDS)
