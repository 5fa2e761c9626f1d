"""Wrong passwords slow down the next try. They lock nobody out, whoever guesses.

A try is counted before it is judged: forty at once are counted one after the other. A right password
takes its count back.
"""

from __future__ import annotations

import datetime as dt
import hashlib
import math
from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import Connection, text

from northstride.store.errors import Throttled

# After this long without a try, all is forgotten.
FORGOTTEN_AFTER = dt.timedelta(minutes=15)


@dataclass(frozen=True, slots=True)
class Throttle:
    """Tries counted under one key: `free` cost nothing, then each doubles the wait up to `longest`.

    A `soft` one lets every try through after its wait: others could otherwise keep a person out by
    guessing all the time.
    """

    key: str
    free: int
    longest: dt.timedelta
    soft: bool = False


def sign_in_throttles(login: str, address: str, device: str | None) -> list[Throttle]:
    """For a device this person signed in on before: its own count, which no other device raises.

    Else for the person at this address, for the person wherever they are, and for the address.
    """
    login = login.strip().lower()
    if device is not None:
        return [_throttle("person on device", f"{login} {device}", 5, 30)]
    return [
        _throttle("person at address", f"{login} {address}", 5, 30),
        _throttle("address", address, 50, 10),
        _throttle("person", login, 20, 4, soft=True),
    ]


def pairing_throttles(address: str) -> list[Throttle]:
    """Nobody knows who tries a code: counted for the address, apart from its sign-ins."""
    return [_throttle("pairing at address", address, 20, 30)]


def password_throttles(user_id: object) -> list[Throttle]:
    """Where somebody who is signed in is asked again: a count of its own, which only they can raise."""
    return [_throttle("asked again", str(user_id), 5, 30)]


def _throttle(kind: str, who: str, free: int, longest: int, *, soft: bool = False) -> Throttle:
    key = hashlib.sha256(f"{kind} {who}".encode()).hexdigest()
    return Throttle(key, free, dt.timedelta(seconds=longest), soft)


# One statement a key, so that tries at once queue up on its row. No row comes back while it must wait.
TRY = text(
    """
    INSERT INTO guesses AS g (key, failures, last_at, next_at)
    VALUES (:key, 1, clock_timestamp(), clock_timestamp())
    ON CONFLICT (key) DO UPDATE SET
      failures = CASE WHEN g.last_at < clock_timestamp() - :forgotten THEN 1 ELSE g.failures + 1 END,
      last_at = clock_timestamp(),
      next_at = CASE
        WHEN g.last_at < clock_timestamp() - :forgotten OR g.failures + 1 < :free THEN clock_timestamp()
        ELSE clock_timestamp() + least(:longest, interval '1 second' * 2 ^ least(g.failures + 1 - :free, 20))
      END
    WHERE :soft OR g.next_at <= clock_timestamp() OR g.last_at < clock_timestamp() - :forgotten
    RETURNING greatest(next_at - clock_timestamp(), interval '0') AS wait
    """
)
WAIT = text("SELECT greatest(next_at - clock_timestamp(), interval '0') FROM guesses WHERE key = :key")
TAKE_BACK = text(
    "UPDATE guesses SET failures = greatest(failures - 1, 0), next_at = last_at WHERE key = :key"
)
FORGET = text("DELETE FROM guesses WHERE last_at < clock_timestamp() - CAST(:forgotten AS interval)")


def count_try(db: Connection, throttles: Sequence[Throttle]) -> dt.timedelta:
    """Counts a try under each key, to be committed before it is judged. Returns how long to wait first.

    Raises Throttled, and counts nothing, where a try must come later.
    """
    wait = dt.timedelta(0)
    for throttle in throttles:
        asked = {
            "key": throttle.key,
            "free": throttle.free,
            "longest": throttle.longest,
            "soft": throttle.soft,
            "forgotten": FORGOTTEN_AFTER,
        }
        counted = db.execute(TRY, asked).first()
        if counted is None:
            later: dt.timedelta = db.execute(WAIT, {"key": throttle.key}).scalar_one()
            db.rollback()
            raise Throttled(max(1, math.ceil(later.total_seconds())))
        if throttle.soft:
            wait = max(wait, counted.wait)
    return wait


def take_back(db: Connection, throttles: Sequence[Throttle]) -> None:
    """The try was right: the first key starts afresh, the others lose this one try."""
    first, *others = throttles
    db.execute(text("DELETE FROM guesses WHERE key = :key"), {"key": first.key})
    for throttle in others:
        db.execute(TAKE_BACK, {"key": throttle.key})
    db.execute(FORGET, {"forgotten": FORGOTTEN_AFTER})
