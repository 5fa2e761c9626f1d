"""Sixty thousand screens and a million numbers behind every place, twenty examiners, two hundred clients."""

from __future__ import annotations

import itertools
import threading
import time
from collections import Counter
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor, ThreadPoolExecutor
from multiprocessing import get_context

import httpx2

from bench.api import Couch, durable_database
from bench.figure import Figure, alternating, percentile, time_each
from bench.years import ATHLETES, NUMBERS, SCREENS_EACH, fill
from tests.support.api import answer
from tests.support.live import LiveApp

TIMES = 60
WARM_UP = 10
PAGE = 100
LOOKED_FOR = "thlete 021"
CLIENTS, EACH = 200, 5
EXAMINERS, MINUTE_SECONDS = 20, 60


def measure_scale() -> list[Figure]:
    with durable_database() as url, LiveApp(url, factory="bench.floor:make_app") as app:
        couch = Couch(app.address)
        fill(url, couch.clinic)
        figures = [Figure(f"numbers behind {ATHLETES * SCREENS_EACH:,} screens", NUMBERS, "")]
        figures += places(couch)
        figures += examiners(app, couch)
        figures += many_clients(app, couch)
    return figures


def places(couch: Couch) -> list[Figure]:
    """Each place against the same SELECTs bare, turn by turn."""
    found = couch.client.get("/api/athletes", params={"search": "Athlete 02", "most": 2}).json()
    athlete = found["athletes"][0]["id"]
    screen = found["athletes"][0]["last_screen"]["id"]

    def get(path: str, **params: str | int) -> Callable[[], object]:
        return lambda: couch.client.get(path, params=params).raise_for_status()

    bare = f"/bare/{{}}/{couch.clinic}".format
    pairs: dict[str, tuple[Callable[[], object], Callable[[], object]]] = {
        "People, page": (
            get("/api/athletes", skip=2000, most=PAGE),
            get(f"{bare('people')}/2000/{PAGE}"),
        ),
        "People, search": (
            get("/api/athletes", search=LOOKED_FOR, most=PAGE),
            get(f"{bare('search')}/{LOOKED_FOR}/{PAGE}"),
        ),
        "Day": (get("/api/day"), get(bare("day"))),
        "what cannot wait, counted": (get("/api/day/urgent"), get(bare("urgent"))),
        "Athlete": (get(f"/api/athletes/{athlete}/course"), get(f"{bare('course')}/{athlete}")),
        "open a screen": (get(f"/api/screens/{screen}"), get(f"{bare('open')}/{screen}")),
        "save an answer": (couch.save, couch.bare_save),
    }
    return [figure for name, (own, floor) in pairs.items() for figure in _figures(name, own, floor)]


def _figures(name: str, own: Callable[[], object], bare: Callable[[], object]) -> list[Figure]:
    alternating(own, bare, WARM_UP)
    mine, floor = alternating(own, bare, TIMES)
    return [Figure(f"{name}, p95", percentile(mine, 0.95), "ms", percentile(floor, 0.95), 2)]


def examiners(app: LiveApp, couch: Couch) -> list[Figure]:
    """Twenty at their couches for a minute: they open, save, follow, look at Day and search. No error.

    Each asks a bare route now and then: what waits there waits for the machine.
    """
    statuses: Counter[int] = Counter()
    samples: list[float] = []
    bare: list[float] = []
    screens = [couch.begin() for _ in range(EXAMINERS)]
    until = time.monotonic() + MINUTE_SECONDS

    def examiner(number: int) -> None:
        screen, device = screens[number], f"tablet-{number}"
        with httpx2.Client(base_url=app.address, headers=dict(couch.client.headers), timeout=60) as http:
            http.headers["cookie"] = couch.cookie
            for turn in itertools.count():
                if time.monotonic() > until:
                    return
                for ask in turns(http, screen, device, turn):
                    began = time.perf_counter()
                    said = ask()
                    samples.append((time.perf_counter() - began) * 1000)
                    statuses[said.status_code] += 1
                bare.extend(time_each(lambda: http.get(f"/bare/open/{couch.clinic}/{screen}"), 1))
                # A hand needs a moment between two values.
                time.sleep(0.6)

    with ThreadPoolExecutor(EXAMINERS) as pool:
        for done in [pool.submit(examiner, number) for number in range(EXAMINERS)]:
            done.result()
    wrong = sum(count for status, count in statuses.items() if status >= 400)
    name = f"{EXAMINERS} examiners for a minute"
    return [
        Figure(f"{name}, errors of {sum(statuses.values()):,}", wrong, "", None, 0, limits_value=True),
        Figure(f"{name}, p95", percentile(samples, 0.95), "ms", percentile(bare, 0.95), 2),
    ]


def turns(http: httpx2.Client, screen: str, device: str, turn: int) -> list[Callable[[], httpx2.Response]]:
    """What a device asks between two values; now and then somebody looks up from the couch."""
    side = ("left", "right")[turn % 2]
    value = {"answers": [answer(side, "values.thigh_angle", turn % 20)]}
    asks: list[Callable[[], httpx2.Response]] = [
        lambda: http.post(f"/api/screens/{screen}/answers", json=value),
        lambda: http.get(f"/api/screens/{screen}/changes", params={"after": 0, "device": device}),
    ]
    if turn % 4 == 0:
        where = {"device": device, "step": "bench", "test": "hip.modified_thomas"}
        asks.append(lambda: http.post(f"/api/screens/{screen}/presence", json=where))
    if turn % 20 == 5:
        asks.append(lambda: http.get(f"/api/screens/{screen}"))
    if turn % 20 == 10:
        asks.append(lambda: http.get("/api/day/urgent"))
    if turn % 20 == 15:
        asks.append(lambda: http.get("/api/athletes", params={"search": "thlete 04", "most": 20}))
    return asks


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
