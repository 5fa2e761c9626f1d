"""The server stands: many at once, half-sent requests, slow statements, trouble that is logged."""

from __future__ import annotations

import json
import socket
import threading
import time
import unittest
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from typing import Any, ClassVar
from unittest import mock
from uuid import uuid4

import httpx2
from fastapi.testclient import TestClient
from sqlalchemy import text
from sqlalchemy.exc import OperationalError
from structlog.testing import capture_logs

from northstride.api import middleware as guards
from northstride.api import request_timeout as patience
from northstride.api import unit_of_work as work
from northstride.api.unit_of_work import COOKIE, CSRF_HEADER
from northstride.store.access.passwords import Passwords
from northstride.store.database import connect
from tests.support.api import ApiCase, answer
from tests.support.database import fresh_database
from tests.support.live import LiveApp

OWNER = {
    "clinic": "Tarnholt",
    "time_zone": "Europe/Helsinki",
    "login": "aino",
    "name": "Aino V.",
    "password": "a long enough password",
}
CLIENTS, EACH = 50, 4


class ManyAtOnce(unittest.TestCase):
    """Two hundred requests at once from fifty clients, signing in with passwords at full cost among them."""

    app: ClassVar[LiveApp]
    cookies: ClassVar[dict[str, str]]
    headers: ClassVar[dict[str, str]]
    athlete: ClassVar[str]
    screen: ClassVar[str]

    @classmethod
    def setUpClass(cls) -> None:
        cls.app = LiveApp(fresh_database(), web=None, hash_cost="full")
        cls.app.start()
        cls.addClassCleanup(cls.app.kill)
        made = httpx2.post(f"{cls.app.address}/api/setup", json=OWNER, timeout=60)
        made.raise_for_status()
        cls.cookies = {COOKIE: made.cookies[COOKIE]}
        cls.headers = {CSRF_HEADER: made.json()["token"]}
        cls.athlete, cls.screen = str(uuid4()), str(uuid4())
        body = {"id": cls.athlete, "ref": "NS-1", "name": "Ilse Varga"}
        cls.post("/api/athletes", body)
        begun = {"id": cls.screen, "athlete_id": cls.athlete, "date": "2026-09-14", "purpose": "squad_screen"}
        cls.post("/api/screens", begun)

    @classmethod
    def post(cls, path: str, body: Any) -> httpx2.Response:
        return httpx2.post(
            cls.app.address + path, json=body, cookies=cls.cookies, headers=cls.headers, timeout=60
        )

    def test_no_5xx_the_health_is_told_and_memory_stays(self) -> None:
        screen = f"/api/screens/{self.screen}"
        wanted: tuple[tuple[str, str, Any], ...] = (
            ("POST", f"{screen}/answers", None),
            ("GET", screen, None),
            ("GET", "/api/athletes", None),
            ("POST", "/api/session", {"login": "aino", "password": OWNER["password"]}),
        )
        statuses: Counter[int] = Counter()
        gate = threading.Barrier(CLIENTS)

        def client(number: int) -> None:
            with httpx2.Client(
                base_url=self.app.address, cookies=self.cookies, headers=self.headers, timeout=120
            ) as http:
                gate.wait()
                for turn in range(EACH):
                    method, path, body = wanted[(number + turn) % len(wanted)]
                    if path.endswith("answers"):
                        body = {"answers": [answer("left", "values.thigh_angle", turn)]}
                    statuses[http.request(method, path, json=body).status_code] += 1

        with ThreadPoolExecutor(CLIENTS + 1) as pool:
            clients = [pool.submit(client, number) for number in range(CLIENTS)]
            well = [httpx2.get(f"{self.app.address}/api/health", timeout=30).status_code for _ in range(5)]
            for done in clients:
                done.result()
        self.assertEqual(set(well), {200})
        self.assertEqual(sum(statuses.values()), CLIENTS * EACH)
        self.assertEqual({status for status in statuses if status >= 500}, set(), statuses)
        self.assertEqual(statuses[401], 0)
        self.assertGreaterEqual(statuses[200], 150)
        self.assertLess(self.app.memory, 600_000_000)


class HalfSent(unittest.TestCase):
    app: ClassVar[LiveApp]

    @classmethod
    def setUpClass(cls) -> None:
        cls.app = LiveApp(fresh_database(), web=None, factory="tests.api.test_standing:make_impatient_app")
        cls.app.start()
        cls.addClassCleanup(cls.app.kill)

    def ended(self, sent: bytes) -> bytes:
        """What comes back until the server ends the connection."""
        with socket.create_connection(("127.0.0.1", self.app.port), timeout=20) as line:
            line.sendall(sent)
            said = b""
            while piece := line.recv(4096):
                said += piece
            return said

    def test_a_head_that_never_ends_is_ended(self) -> None:
        for sent in (b"", b"GET /api/health HTTP/1.1\r\nHost: x\r\nX-Slow: "):
            self.assertEqual(self.ended(sent), b"")

    def test_a_body_that_never_comes_is_answered_and_ended(self) -> None:
        head = b"POST /api/session HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\n"
        said = self.ended(head + b'Content-Length: 50\r\n\r\n{"login":')
        self.assertTrue(said.startswith(b"HTTP/1.1 408"), said[:80])


def make_impatient_app() -> object:
    """The app with a second where users have many."""
    from northstride.api.app import create_app
    from northstride.api.settings import Settings

    mock.patch.object(guards, "BODY_SECONDS", 1).start()
    mock.patch.object(patience, "HEAD_SECONDS", 1).start()
    return create_app(Settings())


class Connections(ApiCase):
    def test_no_request_holds_one_while_it_waits_for_a_password(self) -> None:
        me = self.person()
        engine = self.app.state.services.engine
        seen: list[int] = []
        match = Passwords.match

        def counted(passwords: Any, hashed: str, password: str) -> bool:
            seen.append(engine.pool.checkedout())
            return match(passwords, hashed, password)

        screen = me.begin_screen()
        me.answer(screen, "left", "values.thigh_angle", 8)
        with mock.patch.object(Passwords, "match", counted):
            me.client.post("/api/session", json={"login": "nobody", "password": "x"})
            self.assertEqual(me.sign(screen).status_code, 204)
        self.assertEqual(seen, [0, 0])

    def test_a_connection_is_taken_in_the_thread_that_uses_it(self) -> None:
        """Of the unit and its connection: where one opens, the other works."""
        threads: list[int] = []
        unit = work.RequestContext.unit

        def opened(context: work.RequestContext) -> Any:
            threads.append(threading.get_ident())
            return unit(context)

        def listed(*_given: Any, **_more: Any) -> Any:
            threads.append(threading.get_ident())
            return 0, []

        me = self.person()
        with (
            mock.patch.object(work.RequestContext, "unit", opened),
            mock.patch("northstride.store.people.athletes.list_athletes", listed),
        ):
            me.ok("GET", "/api/athletes")
        self.assertEqual(len(set(threads)), 1)

    def test_statements_locks_and_forgotten_transactions_end_by_themselves(self) -> None:
        with self.engine.connect() as db:
            for name, value in (
                ("statement_timeout", "15s"),
                ("lock_timeout", "5s"),
                ("idle_in_transaction_session_timeout", "30s"),
            ):
                self.assertEqual(db.execute(text(f"SHOW {name}")).scalar(), value)

    def test_a_row_that_stays_locked_is_said_to_be_busy(self) -> None:
        me = self.person()
        screen = me.begin_screen()
        body = {"answers": [answer("left", "values.thigh_angle", 8)]}
        impatient = connect(self.url, pool_size=1)
        self.addCleanup(impatient.dispose)
        with self.engine.connect() as holder, impatient.connect() as waiting:
            holder.execute(text("SELECT 1 FROM screens WHERE id = :id FOR UPDATE"), {"id": screen})
            waiting.execute(text("SET lock_timeout = '50ms'"))
            with self.assertRaises(OperationalError) as raised:
                waiting.execute(text("SELECT 1 FROM screens WHERE id = :id FOR UPDATE"), {"id": screen})
        with mock.patch("northstride.api.screens.write_answers", side_effect=raised.exception):
            busy = me.call("POST", f"/api/screens/{screen}/answers", body)
        self.assertEqual((busy.status_code, busy.json()["type"]), (503, "urn:north-stride:problem:busy"))
        self.assertEqual(busy.headers["Retry-After"], "2")

    def test_an_answer_is_found_by_its_index(self) -> None:
        with self.engine.connect() as db:
            query = text("SELECT tablename, indexdef FROM pg_indexes WHERE schemaname = 'public'")
            found = {(row.tablename, row.indexdef.split("USING btree ")[1]) for row in db.execute(query)}
        for table in ("late_answers", "arrangements"):
            self.assertIn((table, "(clinic_id, screen_id)"), found)


class Logged(ApiCase):
    def logged(self, error: Exception) -> dict[str, Any]:
        me = self.person()
        screen = me.begin_screen()
        body = {"answers": [answer("left", "note", "a very telling note")]}
        with mock.patch("northstride.api.screens.write_answers", side_effect=error), capture_logs() as lines:
            response = me.call("POST", f"/api/screens/{screen}/answers", body)
        self.assertEqual(len(lines), 1)
        self.assertNotIn("telling", response.text)
        self.assertNotIn("telling", json.dumps(lines))
        return {**lines[0], "answered": response.status_code}

    def test_what_nobody_foresaw_is_one_line_without_what_was_typed(self) -> None:
        line = self.logged(ValueError("could not read: a very telling note"))
        self.assertEqual(
            (line["operation"], line["error"], line["status"]), ("write_answers", "ValueError", 500)
        )
        self.assertTrue(line["frames"])
        self.assertNotIn("telling", json.dumps(line))

    def test_trouble_with_the_database_too(self) -> None:
        cause = Exception("Key (note)=(a very telling note)")
        line = self.logged(OperationalError("INSERT ...", {"note": "a very telling note"}, cause))
        self.assertEqual(
            (line["error"], line["cause"], line["status"]), ("OperationalError", "Exception", 503)
        )
        self.assertNotIn("telling", json.dumps(line))


class Idle(ApiCase):
    def seconds_since_use(self, user: Any) -> float:
        with self.engine.connect() as db:
            query = text("SELECT extract(epoch FROM now() - last_seen_at) FROM sessions WHERE user_id = :id")
            return float(db.execute(query, {"id": user}).scalar_one())

    def wait(self, user: Any, minutes: int) -> None:
        with self.engine.begin() as db:
            earlier = text(
                "UPDATE sessions SET last_seen_at = now() - :minutes * interval '1 minute'"
                " WHERE user_id = :id"
            )
            db.execute(earlier, {"id": user, "minutes": minutes})

    def test_following_is_no_use_and_anything_else_is(self) -> None:
        me = self.person()
        screen = me.begin_screen()
        self.wait(me.user_id, 10)
        me.ok("GET", f"/api/screens/{screen}/changes", params={"after": 0})
        self.assertGreater(self.seconds_since_use(me.user_id), 590)
        me.ok("GET", f"/api/screens/{screen}")
        self.assertLess(self.seconds_since_use(me.user_id), 60)

    def test_the_clinic_says_how_long(self) -> None:
        me = self.person("owner", self.new_clinic())
        with self.engine.begin() as db:
            db.execute(text("UPDATE clinics SET idle_minutes = 3 WHERE id = :id"), {"id": me.clinic_id})
        session = me.ok("GET", "/api/session")["session"]
        self.assertEqual(session["idle_minutes"], 3)
        self.wait(me.user_id, 4)
        self.assertEqual(me.call("GET", "/api/athletes").status_code, 401)

    def test_lists_are_refreshed_while_the_app_runs(self) -> None:
        me = self.person()
        athlete = me.add_athlete()
        me.answer(me.begin_screen(athlete), "left", "values.thigh_angle", 8)
        with TestClient(self.app):
            for _ in range(100):
                (found,) = [line for line in me.listed() if line["id"] == athlete]
                if found["last_screen"]["reading"] == "current":
                    break
                time.sleep(0.1)
        self.assertEqual(found["last_screen"]["reading"], "current")
