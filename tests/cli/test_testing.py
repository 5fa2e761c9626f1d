"""The test command itself: it ends, leaves nothing behind, and tells its seed."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import tempfile
import threading
import time
import unittest
from pathlib import Path
from typing import Any
from unittest import mock

from northstride.cli.steps import ROOT
from northstride.cli.test import (
    BROWSER,
    LONGEST,
    SEED,
    SLOW_SECONDS,
    SLOWER,
    Check,
    Counted,
    HasBeenLeft,
    Running,
    checks,
    count_unittest,
    run_all,
    run_for,
    slow_checks,
)
from tests.support.database import PREFIX

HERE = Path.cwd()
STUBBORN = (
    "import signal, subprocess, sys, time; signal.signal(signal.SIGTERM, signal.SIG_IGN);"
    "child = subprocess.Popen([sys.executable, '-c', 'import time; time.sleep(600)']);"
    "print(child.pid, flush=True); time.sleep(600)"
)
ORPHAN = (
    "import subprocess, sys;"
    "print(subprocess.Popen([sys.executable, '-c', 'import time; time.sleep(600)']).pid, flush=True)"
)
WITH_CLUSTER = "from tests.support.database import fresh_database; fresh_database(); {then}"


def alive(pid: int) -> bool:
    """Whether it still runs; what was just killed is given a moment to go."""
    state = Path(f"/proc/{pid}/stat")
    for _ in range(100):
        if not state.exists() or state.read_text().rpartition(")")[2].split()[0] == "Z":
            return False
        time.sleep(0.05)
    return True


class Ending(unittest.TestCase):
    def test_what_hangs_is_stopped_with_all_it_started(self) -> None:
        from northstride.cli import test as testing

        testing.GRACE_SECONDS, kept = 1, testing.GRACE_SECONDS
        self.addCleanup(setattr, testing, "GRACE_SECONDS", kept)
        output, code = run_for(2, [sys.executable, "-c", STUBBORN], HERE, {}, Running())
        self.assertIsNone(code)
        self.assertFalse(alive(int(output)))

    def test_what_ends_leaves_no_orphan_and_holds_nobody_up(self) -> None:
        began = time.monotonic()
        output, code = run_for(60, [sys.executable, "-c", ORPHAN], HERE, {}, Running())
        self.assertEqual(code, 0)
        self.assertFalse(alive(int(output)))
        self.assertLess(time.monotonic() - began, 50)

    def test_a_check_that_never_ends_has_failed(self) -> None:
        check = Check("sleeper", [sys.executable, "-c", "import time; time.sleep(600)"], minutes=0.02)
        counted, output = check.run({})
        self.assertEqual(counted, Counted(0, 1))
        self.assertIn("was stopped", output)

    def test_every_check_has_a_limit(self) -> None:
        self.assertTrue(all(0 < check.minutes <= 20 for check in checks()))

    def test_a_machine_that_is_loaded_on_purpose_has_so_much_longer(self) -> None:
        check = Check("sleeper", [sys.executable, "-c", "import time; time.sleep(2)"], minutes=0.01)
        self.assertEqual(check.run({})[0], Counted(0, 1))
        self.assertEqual(check.run({SLOWER: "100"})[0], Counted(1, 0))

    def test_every_file_of_browser_tests_is_run_the_longest_first(self) -> None:
        files = {file.stem for file in BROWSER.glob("test_*.py")}
        run = [check.name.removeprefix("browser ") for check in checks() if "browser" in check.name]
        self.assertEqual(set(run), files)
        self.assertEqual(tuple(run[: len(LONGEST)]), LONGEST)

    def test_checks_run_beside_each_other_and_each_is_told_as_it_ends(self) -> None:
        def waits(seconds: float) -> Check:
            return Check(f"{seconds}", [sys.executable, "-c", f"import time; time.sleep({seconds})"])

        ended = [told[0].name for told in run_all([waits(6), waits(0)], {}, at_once=2)]
        self.assertEqual(ended, ["0", "6"])

    def test_one_that_is_left_ends_what_runs_and_begins_nothing_more(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            begun = Path(folder) / "begun"
            sleeper = f"import os, pathlib, time; pathlib.Path({str(begun)!r}).write_text(str(os.getpid()));"
            never = [Check("never", [sys.executable, "-c", f"{sleeper} time.sleep(600)"])] * 3
            told = run_all([Check("first", [sys.executable, "-c", "pass"]), *never], {}, at_once=2)
            next(told)
            while not begun.exists() or not begun.read_text():
                time.sleep(0.05)
            told.close()
            self.assertFalse(alive(int(begun.read_text())))

    def test_what_is_being_started_as_the_run_is_left_is_ended_or_never_starts(self) -> None:
        sleeper = [sys.executable, "-c", "import time; time.sleep(600)"]
        starting, left, started = threading.Event(), threading.Event(), []

        def slow_start(*told: Any, **how: Any) -> subprocess.Popen[bytes]:
            starting.set()
            # Time enough for a leave that does not wait for it.
            left.wait(0.5)
            started.append(popen(*told, **how))
            return started[0]

        popen = subprocess.Popen
        running = Running()
        with mock.patch("northstride.cli.test.subprocess.Popen", slow_start):
            starter = threading.Thread(target=running.start, args=(sleeper,))
            starter.start()
            starting.wait()
            running.leave()
            left.set()
            starter.join()
        self.assertEqual(started[0].wait(10), -signal.SIGKILL)
        with self.assertRaises(HasBeenLeft):
            running.start(sleeper)


class Counting(unittest.TestCase):
    RAN = "..F.\nRan 4 tests in 1.2s\n\n"

    def test_a_suite_is_counted_by_its_own_last_word_whatever_is_said_after_it(self) -> None:
        failed = f"{self.RAN}FAILED (failures=1, errors=1)\n"
        for after in ("", "a warning that comes as it ends\n"):
            self.assertEqual(count_unittest(failed + after, 1), Counted(2, 2), after)
            self.assertEqual(count_unittest(f"{self.RAN}OK (skipped=1)\n{after}", 0), Counted(3, 0), after)

    def test_what_ran_nothing_or_died_has_failed(self) -> None:
        for said in ("", "Ran 0 tests in 0.0s\n\nOK\n"):
            self.assertEqual(count_unittest(said, 0), Counted(0, 1))
        self.assertEqual(count_unittest(f"{self.RAN}OK\n", -9), Counted(0, 1))


class Slow(unittest.TestCase):
    def test_what_is_slow_is_named_the_slowest_first(self) -> None:
        seconds = {"a": 61.0, "b": SLOW_SECONDS, "c": 300.4, "d": 0.2}
        self.assertEqual(slow_checks(seconds), ["c 300 s", "a 61 s"])


class Clusters(unittest.TestCase):
    """Each run of Python here has a cluster of its own, so it is asked for in processes of their own."""

    def folders(self, parent: str) -> list[Path]:
        return list(Path(parent).glob(f"{PREFIX}*"))

    def run_python(self, then: str, folder: str, stop_after: float | None = None) -> None:
        command = [sys.executable, "-c", WITH_CLUSTER.format(then=then)]
        environment = {**os.environ, "TMPDIR": folder, "PYTHONPATH": str(ROOT)}
        started = subprocess.Popen(command, env=environment, stdout=subprocess.PIPE, cwd=ROOT)
        if stop_after is not None and started.stdout is not None:
            started.stdout.readline()
            started.terminate() if stop_after else started.kill()
        started.communicate(timeout=60)

    def test_none_is_left_whether_a_run_ends_or_is_told_to_or_is_killed(self) -> None:
        with tempfile.TemporaryDirectory(prefix="stride-", ignore_cleanup_errors=True) as folder:
            Path(folder).chmod(0o755)
            self.run_python("print('there')", folder)
            self.assertEqual(self.folders(folder), [])
            waiting = "import time; print('there', flush=True); time.sleep(600)"
            self.run_python(waiting, folder, stop_after=1)
            self.assertEqual(self.folders(folder), [])
            self.run_python(waiting, folder, stop_after=0)
            self.assertEqual(len(self.folders(folder)), 1)
            self.run_python("print('there')", folder)
            self.assertEqual(self.folders(folder), [])


class Seeds(unittest.TestCase):
    SHOW = (
        "import tests; from hypothesis import given, settings, strategies as st\n"
        "seen = []\n"
        "@settings(max_examples=5, database=None)\n"
        "@given(st.integers())\n"
        "def show(number): seen.append(number)\n"
        "show(); print(seen)"
    )

    def cases(self, seed: str) -> str:
        environment = {**os.environ, SEED: seed, "PYTHONPATH": str(ROOT)}
        command = [sys.executable, "-c", self.SHOW]
        return subprocess.run(command, env=environment, capture_output=True, text=True, check=True).stdout

    def test_a_seed_brings_its_cases_back_and_another_brings_others(self) -> None:
        self.assertEqual(self.cases("7"), self.cases("7"))
        self.assertNotEqual(self.cases("7"), self.cases("8"))

    def test_a_machine_that_calls_itself_ci_sees_new_cases_too(self) -> None:
        with mock.patch.dict(os.environ, {"CI": "true"}):
            self.test_a_seed_brings_its_cases_back_and_another_brings_others()

    def test_failures_are_kept(self) -> None:
        from hypothesis import settings

        self.assertIsNotNone(settings().database)
        self.assertFalse(settings().derandomize)
        self.assertTrue(settings().print_blob)
