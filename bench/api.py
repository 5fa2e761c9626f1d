"""Saving an answer and opening a screen over HTTP, against bare routes in the same stack."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any
from uuid import uuid4

import httpx2

from bench.figure import Figure, alternating, percentile
from northstride.api.work import COOKIE, CSRF_HEADER
from northstride.cli.cluster import Cluster
from northstride.store.database import migrate
from tests.support.api import answer
from tests.support.live import LiveApp

TIMES = 300
WARM_UP = 30
# One answer writes itself, its measurement and its audit row.
ROWS_AN_ANSWER = 3
OWNER = {
    "clinic": "Tarnholt",
    "time_zone": "Europe/Helsinki",
    "login": "aino",
    "name": "Aino V.",
    "password": "a long enough password",
}


@contextmanager
def durable_database() -> Iterator[str]:
    """As users have it: every commit reaches the disk."""
    with tempfile.TemporaryDirectory(prefix="north-stride-bench-") as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "postgres")
        cluster.make()
        cluster.start()
        try:
            cluster.ensure_database()
            migrate(cluster.url())
            yield cluster.url()
        finally:
            cluster.stop()


class Couch:
    """A signed-in client with one open screen."""

    def __init__(self, address: str) -> None:
        self.client = httpx2.Client(base_url=address)
        made = self.client.post("/api/setup", json=OWNER)
        made.raise_for_status()
        self.clinic = made.json()["clinic_id"]
        self.cookie = f"{COOKIE}={made.cookies[COOKIE]}"
        self.client.headers.update({CSRF_HEADER: made.json()["token"]})
        athlete, self.screen = str(uuid4()), str(uuid4())
        self.post("/api/athletes", {"id": athlete, "ref": "NS-1", "name": "Ilse Varga"})
        screen = {"id": self.screen, "athlete_id": athlete, "date": "2026-09-14", "purpose": "squad_screen"}
        self.post("/api/screens", screen)

    def post(self, path: str, body: Any) -> None:
        self.client.post(path, json=body).raise_for_status()

    def save(self) -> None:
        body = {"answers": [answer("left", "values.thigh_angle", 8)]}
        self.post(f"/api/screens/{self.screen}/answers", body)

    def bare_save(self) -> None:
        body = {"answers": [answer("left", "values.thigh_angle", 8)]}
        self.post(f"/bare/save/{self.clinic}/{self.screen}/{ROWS_AN_ANSWER}", body)

    def open(self) -> None:
        self.client.get(f"/api/screens/{self.screen}").raise_for_status()

    def bare_open(self) -> None:
        self.client.get(f"/bare/open/{self.clinic}/{self.screen}").raise_for_status()


def fill(couch: Couch) -> None:
    """A screen as it stands after one test on both sides."""
    fields = ("thigh_angle", "knee_angle", "thigh_angle_knee_straight", "abduction_drift", "rotation_drift")
    for side in ("left", "right"):
        for field in fields:
            couch.post(
                f"/api/screens/{couch.screen}/answers", {"answers": [answer(side, f"values.{field}", 7)]}
            )


def measure_api() -> list[Figure]:
    with durable_database() as url, LiveApp(url, factory="bench.floor:make_app") as app:
        couch = Couch(app.address)
        fill(couch)
        alternating(couch.open, couch.bare_open, WARM_UP)
        opened, bare_opened = alternating(couch.open, couch.bare_open, TIMES)
        alternating(couch.save, couch.bare_save, WARM_UP)
        saved, bare_saved = alternating(couch.save, couch.bare_save, TIMES)
    return [
        Figure(f"{name}, p{int(share * 100)}", percentile(own, share), "ms", percentile(bare, share), 2)
        for name, own, bare in (
            ("save an answer", saved, bare_saved),
            ("open a screen", opened, bare_opened),
        )
        for share in (0.5, 0.95)
    ]
