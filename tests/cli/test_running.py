"""What the commands are made of: the cluster, free ports, counting, starting and stopping."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import unittest
from contextlib import suppress
from pathlib import Path

import httpx2
import psycopg

from northstride.cli.cluster import Cluster, folder_for, free_port
from northstride.cli.serving import DATABASE_VARIABLE, database_url, pick_port
from northstride.cli.steps import ROOT, StepFailed
from northstride.cli.test import count_unittest, count_vitest
from tests.support.database import fresh_database


class PrivateCluster(unittest.TestCase):
    def test_is_made_started_joined_and_stopped_with_its_data(self) -> None:
        with tempfile.TemporaryDirectory(prefix="north-stride-cluster-") as folder:
            Path(folder).chmod(0o755)
            cluster = Cluster(Path(folder) / "postgres", durable=False)
            self.assertFalse(cluster.exists())
            cluster.make()
            cluster.start()
            self.addCleanup(cluster.stop)
            cluster.ensure_database("kept")
            cluster.ensure_database("kept")
            joined = Cluster(cluster.folder, durable=False)
            joined.start()
            self.assertEqual((joined.port, joined.started_here), (cluster.port, False))
            joined.stop()
            with psycopg.connect(cluster.url("kept")) as db:
                listens = db.execute("SHOW listen_addresses").fetchone()
            self.assertEqual(listens, ("127.0.0.1",))
            cluster.stop()
            with self.assertRaises(psycopg.OperationalError):
                psycopg.connect(cluster.url("kept"), connect_timeout=2)
            again = Cluster(cluster.folder, durable=False)
            again.start()
            self.addCleanup(again.stop)
            with psycopg.connect(again.url("kept")) as db:
                self.assertEqual(db.execute("SELECT 1").fetchone(), (1,))
            mode = (cluster.folder / "password").stat().st_mode & 0o777
            self.assertEqual(mode, 0o600)
            wrong = again.url("kept").replace("north_stride:", "north_stride:x", 1)
            with self.assertRaises(psycopg.OperationalError):
                psycopg.connect(wrong)
            again.stop()

    def test_one_that_was_stopped_meanwhile_is_started_again_where_it_was(self) -> None:
        with tempfile.TemporaryDirectory(prefix="north-stride-cluster-") as folder:
            Path(folder).chmod(0o755)
            cluster = Cluster(Path(folder) / "postgres", durable=False)
            cluster.make()
            cluster.start()
            self.addCleanup(cluster.stop)
            port = cluster.port
            with cluster.kept_running():
                pid = int((cluster.data / "postmaster.pid").read_text().splitlines()[0])
                os.kill(pid, signal.SIGKILL)
                until = time.monotonic() + 60
                while time.monotonic() < until:
                    with suppress(psycopg.OperationalError, OSError, ValueError, IndexError):
                        now = int((cluster.data / "postmaster.pid").read_text().splitlines()[0])
                        if now != pid and psycopg.connect(cluster.url("postgres"), connect_timeout=2):
                            break
                    time.sleep(0.2)
                with psycopg.connect(cluster.url("postgres")) as db:
                    self.assertEqual(db.execute("SELECT 1").fetchone(), (1,))
            self.assertEqual(cluster.port, port)
            cluster.stop()

    def test_moves_where_postgres_can_reach_it(self) -> None:
        """Only root runs it as another user, who may not get into root's folders."""
        with tempfile.TemporaryDirectory() as closed:
            Path(closed).chmod(0o700)
            wanted = Path(closed) / ".local" / "postgres"
            found = folder_for(Path(closed), wanted)
            if os.geteuid() == 0:
                self.assertTrue(str(found).startswith("/var/lib/north-stride/"))
            else:
                self.assertEqual(found, wanted)


class Ports(unittest.TestCase):
    def test_the_next_free_one_is_taken(self) -> None:
        wanted = free_port()
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", wanted))
            taken.listen()
            self.assertGreater(pick_port("127.0.0.1", wanted), wanted)
        self.assertEqual(pick_port("127.0.0.1", wanted), wanted)


class Counting(unittest.TestCase):
    def test_unittest(self) -> None:
        for output, code, expected in (
            ("....\nRan 4 tests in 1s\n\nOK", 0, (4, 0)),
            ("Ran 4 tests in 1s\n\nFAILED (failures=1, errors=2)", 1, (1, 3)),
            ("Ran 4 tests in 1s\n\nOK (skipped=1)", 0, (3, 0)),
            ("Ran 0 tests in 0s\n\nOK", 0, (0, 1)),
            ("Traceback", 1, (0, 1)),
            ("Ran 4 tests in 1s\n\nOK", -9, (0, 1)),
        ):
            counted = count_unittest(output, code)
            self.assertEqual((counted.passed, counted.failed), expected, output)

    def test_vitest(self) -> None:
        for output, code, expected in (
            ("\x1b[2m      Tests \x1b[22m 57 passed (57)", 0, (57, 0)),
            ("      Tests  2 failed | 55 passed (57)", 1, (55, 2)),
            ("no tests", 1, (0, 1)),
        ):
            counted = count_vitest(output, code)
            self.assertEqual((counted.passed, counted.failed), expected)


class OtherDatabase(unittest.TestCase):
    def test_reset_never_empties_a_database_it_did_not_make(self) -> None:
        os.environ[DATABASE_VARIABLE] = "postgresql://127.0.0.1:1/precious"
        self.addCleanup(os.environ.pop, DATABASE_VARIABLE)
        with self.assertRaises(StepFailed), database_url("any", fresh=True):
            self.fail("it went on")


class Serve(unittest.TestCase):
    def test_starts_on_another_database_says_where_and_stops_on_ctrl_c(self) -> None:
        port = free_port()
        environment = {**os.environ, DATABASE_VARIABLE: fresh_database()}
        command = [sys.executable, "-m", "northstride.cli", "serve", "--port", str(port)]
        with subprocess.Popen(
            command, cwd=ROOT, env=environment, stderr=subprocess.PIPE, text=True
        ) as serving:
            self.addCleanup(serving.kill)
            address = f"http://127.0.0.1:{port}"
            until = time.monotonic() + 60
            while time.monotonic() < until:
                try:
                    page = httpx2.get(f"{address}/people")
                    break
                except httpx2.TransportError:
                    time.sleep(0.1)
            self.assertIn("<title>North Stride</title>", page.text)
            self.assertIn("default-src 'self'", page.headers["content-security-policy"])
            self.assertFalse(httpx2.get(f"{address}/api/session").json()["set_up"])
            for path in ("/api/none", "/none.js", "/assets/../../pyproject.toml", "/..%2fpyproject.toml"):
                self.assertEqual(httpx2.get(address + path).status_code, 404, path)
            serving.send_signal(signal.SIGINT)
            self.assertEqual(serving.wait(timeout=20), 0)
            said = serving.stderr.read() if serving.stderr else ""
        self.assertIn(address, said)
        self.assertNotIn("Traceback", said)
