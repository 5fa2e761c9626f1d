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
from northstride.api.unit_of_work import COOKIE, CSRF_HEADER
from northstride.cli.cluster import Cluster
from northstride.store.database import migrate
from tests.support.api import answer
from tests.support.live import LiveApp

TIMES = 300
WARM_UP = 30
ANSWERS_A_SCREEN = 30
FIELDS = ("thigh_angle", "knee_angle", "thigh_angle_knee_straight", "abduction_drift", "rotation_drift")
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
        self.count = 0
        self.client = httpx2.Client(base_url=address)
        made = self.client.post("/api/setup", json=OWNER)
        made.raise_for_status()
        self.clinic = made.json()["clinic_id"]
        self.cookie = f"{COOKIE}={made.cookies[COOKIE]}"
        self.client.headers.update({CSRF_HEADER: made.json()["token"]})
        self.athlete = str(uuid4())
        self.post("/api/athletes", {"id": self.athlete, "ref": "NS-1", "name": "Ilse Varga"})
        self.screen = self.begin()

    def begin(self) -> str:
        """A screen as it stands after one test on both sides."""
        screen = str(uuid4())
        body = {"id": screen, "athlete_id": self.athlete, "date": "2026-09-14", "purpose": "squad_screen"}
        self.post("/api/screens", body)
        answers = [answer(side, f"values.{field}", 7) for side in ("left", "right") for field in FIELDS]
        self.post(f"/api/screens/{screen}/answers", {"answers": answers})
        return screen

    def post(self, path: str, body: Any) -> None:
        self.client.post(path, json=body).raise_for_status()

    def save(self) -> None:
        self.post(f"/api/screens/{self.screen}/answers", self.one_answer())

    def one_answer(self) -> dict[str, Any]:
        self.count += 1
        side = ("left", "right")[self.count % 2]
        return {"answers": [answer(side, f"values.{FIELDS[self.count % len(FIELDS)]}", 8)]}

    def bare_save(self) -> None:
        body = self.one_answer()
        self.post(f"/bare/save/{self.clinic}/{self.screen}/{ROWS_AN_ANSWER}", body)

    def open(self) -> None:
        self.client.get(f"/api/screens/{self.screen}").raise_for_status()

    def bare_open(self) -> None:
        self.client.get(f"/bare/open/{self.clinic}/{self.screen}").raise_for_status()


def save_in_turns(couch: Couch) -> tuple[list[float], list[float]]:
    """A fresh screen now and then: nobody rewrites one field three hundred times."""
    saved: list[float] = []
    bare: list[float] = []
    for _ in range(TIMES // ANSWERS_A_SCREEN):
        couch.screen = couch.begin()
        own, floor = alternating(couch.save, couch.bare_save, ANSWERS_A_SCREEN)
        saved += own
        bare += floor
    return saved, bare


def measure_api() -> list[Figure]:
    with durable_database() as url, LiveApp(url, factory="bench.floor:make_app") as app:
        couch = Couch(app.address)
        alternating(couch.open, couch.bare_open, WARM_UP)
        opened, bare_opened = alternating(couch.open, couch.bare_open, TIMES)
        alternating(couch.save, couch.bare_save, WARM_UP)
        saved, bare_saved = save_in_turns(couch)
    return [
        Figure(f"{name}, p{int(share * 100)}", percentile(own, share), "ms", percentile(bare, share), 2)
        for name, own, bare in (
            ("save an answer", saved, bare_saved),
            ("open a screen", opened, bare_opened),
        )
        for share in (0.5, 0.95)
    ]
