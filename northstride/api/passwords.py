"""Asking for the password again: an open screen is not a signature."""

from __future__ import annotations

from northstride.api.unit_of_work import RequestContext, Work
from northstride.store.access.sessions import own_password_hash
from northstride.store.access.throttle import count_try, password_throttles, take_back
from northstride.store.actor import audit
from northstride.store.errors import WrongPassword


async def ask_again(context: RequestContext, password: str) -> None:
    """The try is counted before it is judged. Raises Throttled, WrongPassword."""

    def count(work: Work) -> str:
        count_try(work.db, password_throttles(work.actor.user_id))
        return own_password_hash(work.db, work.actor)

    hashed = await context.run(count)
    if not await context.services.matches(hashed, password):
        # Kept by itself: what was asked for is not done, that somebody tried is.
        tried = {"for": context.operation}
        await context.run(lambda work: audit(work.db, work.actor, "refuse password", *context.noun, tried))
        raise WrongPassword
    await context.run(lambda work: take_back(work.db, password_throttles(work.actor.user_id)))
