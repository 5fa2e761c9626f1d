"""A table of ten thousand screens checked over HTTP, and what three at once do to saving beside them."""

from __future__ import annotations

import threading

import httpx2

from bench.api import Couch, durable_database
from bench.figure import Figure, median, time_each
from bench.pace import pace_ms
from tests.support.live import LiveApp

ROWS = 10_000
SAVES = 40
WITHIN_MS = 1000 * ROWS / 2000
HEAD = "date,athlete,name,test,side,measure,value"
PATIENCE = 300.0


def one_row_screens() -> dict[str, object]:
    """The dearest kind of table: a screen and an athlete each row."""
    row = "hip.modified_thomas,left,thigh_angle"
    rows = [f"2026-09-14,T-{at},Ilva Roe {at},{row},{at % 17}" for at in range(ROWS)]
    return {"text": "\n".join([HEAD, *rows]), "roles": HEAD.split(",")}


def measure_tables() -> list[Figure]:
    body = one_row_screens()
    with durable_database() as url, LiveApp(url) as app:
        couch = Couch(app.address)
        checks = Checks(app.address, dict(couch.client.headers), couch.cookie, body)
        time_each(couch.save, SAVES)
        # The process that reads tables is there once the first was read.
        checks.one({**body, "text": f"{HEAD}\n"})
        (alone,) = time_each(checks.one, 1)
        before = time_each(couch.save, SAVES)
        with checks:
            beside = time_each(couch.save, SAVES)
        after = time_each(couch.save, SAVES)
    if checks.failed:
        raise RuntimeError(f"a check answered {checks.failed}")
    return [
        Figure("table of 10,000 screens, checked over HTTP", alone, "ms", pace_ms(), WITHIN_MS),
        Figure("save beside three such tables, p50", median(beside), "ms", median([*before, *after]), 2),
    ]


class Checks:
    """Three at once, begun with the block and waited for at its end."""

    def __init__(self, address: str, headers: dict[str, str], cookie: str, body: dict[str, object]) -> None:
        self.failed: list[int] = []
        self._address = address
        self._headers = {**headers, "Cookie": cookie}
        self._body = body
        self._threads = [threading.Thread(target=self.one) for _ in range(3)]

    def one(self, body: dict[str, object] | None = None) -> None:
        with httpx2.Client(base_url=self._address, headers=self._headers, timeout=PATIENCE) as client:
            answer = client.post("/api/values/check", json=body or self._body)
        if answer.status_code != 200:
            self.failed.append(answer.status_code)

    def __enter__(self) -> None:
        for each in self._threads:
            each.start()

    def __exit__(self, *_: object) -> None:
        for each in self._threads:
            each.join()
