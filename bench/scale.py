"""People with sixty thousand screens behind it, and two hundred clients at once."""

from __future__ import annotations

import threading
import time
from collections import Counter
from concurrent.futures import ProcessPoolExecutor, ThreadPoolExecutor
from multiprocessing import get_context

import httpx2
import psycopg

from bench.api import Couch, durable_database
from bench.figure import Figure, alternating, percentile
from northstride.core.catalogue import default_catalogue
from northstride.record.edition import shipped
from tests.support.api import answer
from tests.support.live import LiveApp

ATHLETES, SCREENS_EACH = 5_000, 12
TIMES = 60
PAGE = 100
CLIENTS, EACH = 200, 5

FILL = """
INSERT INTO athletes (clinic_id, id, ref, name)
SELECT %(clinic)s, gen_random_uuid(), 'S-' || n, 'Athlete ' || lpad(n::text, 5, '0')
FROM generate_series(1, %(athletes)s) n;
INSERT INTO screens (clinic_id, id, athlete_id, date, purpose, schools, planned, overrides, created_by,
                     created_at, signed_at, signed_by)
SELECT %(clinic)s, gen_random_uuid(), a.id, date '2020-01-01' + 30 * n, 'squad_screen', '{}', '[]', '[]',
       %(user)s, now(), CASE WHEN n < %(each)s THEN now() END, CASE WHEN n < %(each)s THEN %(user)s END
FROM athletes a, generate_series(1, %(each)s) n WHERE a.ref LIKE 'S-%%';
INSERT INTO readings (clinic_id, screen_id, revision, athlete_revision, shipped, signature)
SELECT clinic_id, id, 0, 1, %(shipped)s, CASE WHEN signed_at IS NOT NULL THEN 0 END FROM screens
ON CONFLICT DO NOTHING;
INSERT INTO reading_flags (clinic_id, screen_id, place, code, side, strength, urgency)
SELECT clinic_id, id, n, 'tightness.hip_flexors', CASE n WHEN 0 THEN 'left' ELSE 'right' END, 'likely',
       'train'
FROM screens, generate_series(0, 1) n
ON CONFLICT DO NOTHING;
ANALYZE;
"""


def fill(url: str, couch: Couch) -> None:
    """As years of a large club leave it: all but the newest screen of each athlete signed."""
    shipped_now = shipped(default_catalogue())
    # One transaction: the refreshing worker must not find the screens before their readings.
    with psycopg.connect(url) as db:
        user = db.execute("SELECT id FROM users").fetchone()
        values = {
            "clinic": couch.clinic,
            "user": user[0] if user else None,
            "athletes": ATHLETES,
            "each": SCREENS_EACH,
            "shipped": shipped_now,
        }
        for statement in FILL.split(";\n"):
            if statement.strip():
                db.execute(statement.encode(), values)


def measure_scale() -> list[Figure]:
    with durable_database() as url, LiveApp(url, factory="bench.floor:make_app") as app:
        couch = Couch(app.address)
        fill(url, couch)
        figures = people(couch)
        figures += many_clients(app, couch)
    return figures


def people(couch: Couch) -> list[Figure]:
    """A page of the list against the same SELECTs bare, in the middle of the list and found by search."""

    def page() -> None:
        couch.client.get("/api/athletes", params={"skip": 2000, "most": PAGE}).raise_for_status()

    def bare() -> None:
        couch.client.get(f"/bare/people/{couch.clinic}/2000/{PAGE}").raise_for_status()

    alternating(page, bare, 10)
    own, floor = alternating(page, bare, TIMES)
    return [
        Figure(
            f"People, {ATHLETES * SCREENS_EACH:,} screens, p{int(share * 100)}",
            percentile(own, share),
            "ms",
            percentile(floor, share),
            1.5,
        )
        for share in (0.5, 0.95)
    ]


def health_asked(address: str) -> float:
    """In milliseconds, from a process of its own: two hundred threads here would be timed with it."""
    began = time.perf_counter()
    with httpx2.Client(base_url=address, timeout=60, verify=False) as http:
        http.get("/api/health").raise_for_status()
    return (time.perf_counter() - began) * 1000


def many_clients(app: LiveApp, couch: Couch) -> list[Figure]:
    """All at once: opening, saving, listing. No 5xx, and the health told meanwhile."""
    statuses: Counter[int] = Counter()
    samples: list[float] = []
    health: list[float] = []
    gate = threading.Barrier(CLIENTS + 1)

    def client(number: int) -> None:
        with httpx2.Client(base_url=app.address, headers=dict(couch.client.headers), timeout=120) as http:
            http.headers["cookie"] = couch.cookie
            gate.wait()
            for turn in range(EACH):
                began = time.perf_counter()
                if (number + turn) % 3 == 0:
                    body = {"answers": [answer("left", "values.thigh_angle", turn)]}
                    said = http.post(f"/api/screens/{couch.screen}/answers", json=body)
                elif (number + turn) % 3 == 1:
                    said = http.get(f"/api/screens/{couch.screen}")
                else:
                    said = http.get("/api/athletes", params={"most": PAGE})
                samples.append((time.perf_counter() - began) * 1000)
                statuses[said.status_code] += 1

    with ThreadPoolExecutor(CLIENTS) as pool:
        clients = [pool.submit(client, number) for number in range(CLIENTS)]
        gate.wait()
        with ProcessPoolExecutor(1, mp_context=get_context("spawn")) as watch:
            while not all(done.done() for done in clients):
                health.append(watch.submit(health_asked, app.address).result())
                time.sleep(0.1)
        for done in clients:
            done.result()
    wrong = sum(count for status, count in statuses.items() if status >= 500)
    name = f"{CLIENTS} clients at once"
    return [
        Figure(f"{name}, 5xx of {sum(statuses.values()):,}", wrong, "", None, 0, limits_value=True),
        Figure(f"{name}, p95", percentile(samples, 0.95), "ms"),
        Figure(f"{name}, health, longest", max(health), "ms", None, 1000, limits_value=True),
        Figure(f"{name}, memory", app.memory / 1e6, "MB", None, 600, limits_value=True),
    ]
