"""`./stride test`: every check and every test, one line each, and a count at the end."""

from __future__ import annotations

import argparse
import re
import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from northstride.cli.steps import ROOT, WEB, say, set_up_everything

BIN = Path(sys.executable).parent
SUITES = ("core", "record", "cli", "store", "api", "demo", "browser")


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

    def run(self) -> tuple[Counted, str]:
        done = subprocess.run(
            self.command, cwd=self.folder, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, check=False
        )
        output = done.stdout.decode(errors="replace")
        if self.count is not None:
            return self.count(output, done.returncode), output
        return (Counted(1, 0) if done.returncode == 0 else Counted(0, 1)), output


def count_unittest(output: str, code: int) -> Counted:
    """From unittest's own last lines. A suite that ran nothing, or died, has failed."""
    ran = re.search(r"^Ran (\d+) tests?", output, re.MULTILINE)
    total = int(ran[1]) if ran else 0
    wrong = (
        sum(int(number) for number in re.findall(r"(?:failures|errors)=(\d+)", output.splitlines()[-1]))
        if ran
        else 0
    )
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


def checks() -> list[Check]:
    def python(*arguments: str) -> list[str]:
        return [sys.executable, "-W", "ignore::ResourceWarning", *arguments]

    return [
        Check("ruff check", [str(BIN / "ruff"), "check", "."]),
        Check("ruff format", [str(BIN / "ruff"), "format", "--check", "."]),
        Check("mypy", [str(BIN / "mypy")]),
        Check("import contracts", [str(BIN / "lint-imports")]),
        Check("biome", ["npx", "--no-install", "biome", "check", "--error-on-warnings", "."], WEB),
        Check("tsc", ["npx", "--no-install", "tsc", "--noEmit"], WEB),
        Check("client types", python("-m", "northstride.cli.client_types")),
        Check("vitest", ["npx", "--no-install", "vitest", "run"], WEB, count_vitest),
        *(
            Check(
                f"unittest {suite}",
                python("-m", "unittest", "discover", "-s", f"tests/{suite}", "-t", "."),
                count=count_unittest,
            )
            for suite in SUITES
        ),
        Check("schemathesis", python("-m", "tests.fuzz.run")),
    ]


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("only", nargs="*", help="names of checks, or parts of them")


def run(arguments: argparse.Namespace) -> int:
    set_up_everything()
    passed = failed = 0
    for check in checks():
        if arguments.only and not any(word in check.name for word in arguments.only):
            continue
        began = time.monotonic()
        counted, output = check.run()
        passed, failed = passed + counted.passed, failed + counted.failed
        if counted.failed:
            print(output, flush=True)
        took = time.monotonic() - began
        say(f"{check.name}: {counted.passed} passed, {counted.failed} failed ({took:.0f} s)")
    print(f"{passed} passed, {failed} failed", flush=True)
    return 1 if failed or not passed else 0
