"""`./stride test`: every check and every test, one line each, and a count at the end."""

from __future__ import annotations

import argparse
import os
import re
import secrets
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Generator, Mapping
from concurrent.futures import ThreadPoolExecutor, as_completed
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from northstride.cli.steps import ROOT, WEB, say, set_up_to_prove

BIN = Path(sys.executable).parent
GRACE_SECONDS = 10
SEED = "NORTH_STRIDE_TEST_SEED"
# How many times slower than alone this machine was made, where somebody loads it.
SLOWER = "NORTH_STRIDE_TEST_SLOWER"
SUITES = ("api", "core", "cli", "demo", "interchange", "record", "store")
BROWSER = ROOT / "tests" / "browser"
# What takes longest goes first, so that nothing is waited for alone at the end.
LONGEST = ("test_accessible", "test_kinds_survive", "test_twelve", "test_every_test", "test_story")
# Named at the end: what is worth making cheaper.
SLOW_SECONDS = 60
# Each check has a process and a cluster of its own; more at once than cores would only wait for each other.
AT_ONCE = min(os.cpu_count() or 1, 4)


@dataclass(frozen=True)
class Counted:
    passed: int
    failed: int


@dataclass(frozen=True)
class Check:
    """A command; how its output is counted; None counts the command itself as one."""

    name: str
    command: list[str]
    folder: Path = ROOT
    count: Callable[[str, int], Counted] | None = None
    # Many times what it takes: what has not ended by then never will.
    minutes: float = 15

    def run(self, environment: Mapping[str, str], running: Running | None = None) -> tuple[Counted, str]:
        seconds = self.minutes * 60 * float({**os.environ, **environment}.get(SLOWER, "1"))
        output, code = run_for(seconds, self.command, self.folder, environment, running or Running())
        if code is None:
            return Counted(0, 1), f"{output}\n{self.name} was stopped after {self.minutes:g} minutes"
        if self.count is not None:
            return self.count(output, code), output
        return (Counted(1, 0) if code == 0 else Counted(0, 1)), output


class HasBeenLeft(Exception):
    """Nothing more is started."""


class Running:
    """What runs now, by its leader. None of it outlives the run: what starts is known, or never starts."""

    def __init__(self) -> None:
        self._leaders: set[int] = set()
        self._left = False
        self._changes = threading.Lock()

    def start(self, command: list[str], **how: Any) -> subprocess.Popen[bytes]:
        """Raises HasBeenLeft."""
        with self._changes:
            if self._left:
                raise HasBeenLeft
            started = subprocess.Popen(command, start_new_session=True, **how)
            self._leaders.add(started.pid)
            return started

    def ended(self, leader: int) -> None:
        with self._changes:
            self._leaders.discard(leader)

    def leave(self) -> None:
        with self._changes:
            self._left = True
            for leader in self._leaders:
                end_group(leader, signal.SIGKILL)


def run_for(
    seconds: float, command: list[str], folder: Path, environment: Mapping[str, str], running: Running
) -> tuple[str, int | None]:
    """Output and exit code; None for what had to be stopped. Nothing it started outlives it."""
    with tempfile.TemporaryFile() as told:
        started = running.start(
            command,
            cwd=folder,
            env={**os.environ, **environment},
            stdin=subprocess.DEVNULL,
            stdout=told,
            stderr=subprocess.STDOUT,
        )
        code: int | None = None
        try:
            code = started.wait(seconds)
        except subprocess.TimeoutExpired:
            # Asked first, so that it can stop what it started itself.
            end_group(started.pid, signal.SIGTERM)
            with suppress(subprocess.TimeoutExpired):
                started.wait(GRACE_SECONDS)
        finally:
            end_group(started.pid, signal.SIGKILL)
            started.wait()
            running.ended(started.pid)
        told.seek(0)
        return told.read().decode(errors="replace"), code


def end_group(leader: int, number: signal.Signals) -> None:
    """Everything a check started, whether or not it is still there."""
    with suppress(ProcessLookupError):
        os.killpg(leader, number)


def count_unittest(output: str, code: int) -> Counted:
    """From unittest's own last lines. A suite that ran nothing, or died, has failed."""
    ran = re.search(r"^Ran (\d+) tests?", output, re.MULTILINE)
    total = int(ran[1]) if ran else 0
    # Its own last word; what ends after it may still say something.
    last = re.findall(r"^FAILED \((.*)\)$", output, re.MULTILINE)
    wrong = sum(int(number) for number in re.findall(r"(?:failures|errors)=(\d+)", last[-1])) if last else 0
    skipped = re.search(r"skipped=(\d+)", output)
    if total == 0 or (code != 0 and wrong == 0):
        return Counted(0, max(1, wrong))
    return Counted(total - wrong - (int(skipped[1]) if skipped else 0), wrong)


def count_vitest(output: str, code: int) -> Counted:
    plain = re.sub(r"\x1b\[[0-9;]*m", "", output)
    line = re.search(r"^\s*Tests\s+(.*)$", plain, re.MULTILINE)
    said = line[1] if line else ""
    passed = re.search(r"(\d+) passed", said)
    failed = re.search(r"(\d+) failed", said)
    counted = Counted(int(passed[1]) if passed else 0, int(failed[1]) if failed else 0)
    if code != 0 and counted.failed == 0:
        return Counted(counted.passed, 1)
    return counted


def vitest(project: str) -> Check:
    """One of the web's own: what has no view, and components in Chromium."""
    command = ["npx", "--no-install", "vitest", "run", "--project", project]
    return Check(f"vitest {project}", command, WEB, count_vitest)


def checks() -> list[Check]:
    def python(*arguments: str) -> list[str]:
        return [sys.executable, "-W", "ignore::ResourceWarning", *arguments]

    statics = [
        Check("ruff check", [str(BIN / "ruff"), "check", "."]),
        Check("ruff format", [str(BIN / "ruff"), "format", "--check", "."]),
        Check("mypy", [str(BIN / "mypy")]),
        Check("import contracts", [str(BIN / "lint-imports")]),
        Check("biome", ["npx", "--no-install", "biome", "check", "--error-on-warnings", "."], WEB),
        Check("tsc", ["npx", "--no-install", "tsc", "--noEmit"], WEB),
        Check("client types", python("-m", "northstride.cli.client_types")),
        vitest("state"),
    ]
    others = [
        *(
            Check(
                f"unittest {suite}",
                python("-m", "unittest", "discover", "-s", f"tests/{suite}", "-t", "."),
                count=count_unittest,
                minutes=20,
            )
            for suite in SUITES
        ),
        Check("schemathesis", python("-m", "tests.fuzz.run")),
    ]
    browser = [
        Check(f"browser {module}", python("-m", "unittest", f"tests.browser.{module}"), count=count_unittest)
        for module in browser_modules()
    ]
    return [*statics, vitest("components"), *browser, *others]


def browser_modules() -> list[str]:
    """Every file there, so that none is forgotten."""
    found = sorted(file.stem for file in BROWSER.glob("test_*.py"))
    return sorted(found, key=lambda module: LONGEST.index(module) if module in LONGEST else len(LONGEST))


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("only", nargs="*", help="names of checks, or parts of them")


def run(arguments: argparse.Namespace) -> int:
    set_up_to_prove()
    seed = os.environ.get(SEED) or str(secrets.randbelow(2**32))
    say(f"Property tests begin at seed {seed}: {SEED}={seed} brings it back")
    chosen = [
        check
        for check in checks()
        if not arguments.only or any(word in check.name for word in arguments.only)
    ]
    passed = failed = 0
    seconds: dict[str, float] = {}
    for check, counted, output, took in run_all(chosen, {SEED: seed}):
        passed, failed = passed + counted.passed, failed + counted.failed
        if counted.failed:
            print(output, flush=True)
        say(f"{check.name}: {counted.passed} passed, {counted.failed} failed ({took:.0f} s)")
        seconds[check.name] = took
    if slow := slow_checks(seconds):
        say(f"Slow: {', '.join(slow)}")
    print(f"{passed} passed, {failed} failed", flush=True)
    return 1 if failed or not passed else 0


def slow_checks(seconds: Mapping[str, float]) -> list[str]:
    """The slowest first, with how long each took."""
    slow = sorted(seconds.items(), key=lambda item: -item[1])
    return [f"{name} {took:.0f} s" for name, took in slow if took > SLOW_SECONDS]


def run_all(
    chosen: list[Check], environment: Mapping[str, str], at_once: int = AT_ONCE
) -> Generator[tuple[Check, Counted, str, float]]:
    """Each as it ends, with its output and its seconds. Interrupted, it ends what runs."""

    running = Running()

    def timed(check: Check) -> tuple[Check, Counted, str, float]:
        began = time.monotonic()
        counted, output = check.run(environment, running)
        return check, counted, output, time.monotonic() - began

    with ThreadPoolExecutor(at_once) as pool:
        started = [pool.submit(timed, check) for check in chosen]
        try:
            for done in as_completed(started):
                yield done.result()
        finally:
            pool.shutdown(wait=False, cancel_futures=True)
            running.leave()
