"""`./stride mutants`: changes the core and the web's state a little, and lists what no test notices.

Bounded and seeded: some modules of each, chosen by the seed. Survivors stand in bench/results.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from functools import partial
from pathlib import Path

from northstride.cli.steps import ROOT, WEB, StepFailed, say, set_up_to_prove
from northstride.cli.test import SEED

RESULTS = ROOT / "bench" / "results" / "mutants.json"
CORE, STATE = "northstride/core", "web/src/state"
# Of each; a module takes minutes, all of them a night.
MODULES = 4
# Tests that read the sources themselves see the mutants' own scaffold.
READ_SOURCES = (
    "tests/core/test_data.py",
    "tests/core/test_every_item_is_used.py",
    "tests/core/test_reading.py::OneVisibleOrder",
)
CONFIGURED = """
[tool.mutmut]
source_paths = ["northstride/"]
only_mutate = {modules}
also_copy = ["tests", "docs", "web/src", "requirements"]
pytest_add_cli_args_test_selection = ["tests/core", "tests/record"]
pytest_add_cli_args = {ignored}
"""
# Of the core: each runs every test that reaches it.
MOST_TRIED = 24
# A name no mutant has.
NONE = "none.of.these"
SURVIVED = ("survived", "no tests", "NoCoverage", "Survived")


@dataclass(frozen=True)
class Mutants:
    """How many were tried, and those that no test noticed, each as one line."""

    tried: int
    survivors: list[str]


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--seed", type=int, help="brings a run back; any unless given")
    parser.add_argument(
        "--modules", type=int, default=MODULES, help=f"of each language, {MODULES} unless given"
    )


def run(arguments: argparse.Namespace) -> int:
    set_up_to_prove()
    seed = arguments.seed if arguments.seed is not None else random.SystemRandom().randrange(2**32)
    say(f"Modules are chosen by seed {seed}: --seed {seed} brings them back")
    found = {}
    # Property tests see the same cases each time: none is killed by chance.
    os.environ[SEED] = str(seed)
    for part, try_them in ((CORE, partial(in_core, seed=seed)), (STATE, in_state)):
        modules = chosen(candidates(part), seed, arguments.modules)
        say(f"Changing {', '.join(modules)}")
        mutants = try_them(modules)
        found[part] = {"modules": modules, "tried": mutants.tried, "survivors": mutants.survivors}
        print(f"{part}: {mutants.tried} tried, {len(mutants.survivors)} survived", flush=True)
        print("".join(f"  {line}\n" for line in mutants.survivors), end="", flush=True)
    RESULTS.parent.mkdir(exist_ok=True)
    RESULTS.write_text(json.dumps({"seed": seed, **found}, indent=1, ensure_ascii=False) + "\n")
    return 0


def candidates(part: str) -> list[str]:
    """Modules with something to change, in the order of their names."""
    suffix = ".py" if part == CORE else ".ts"
    found = (path for path in (ROOT / part).rglob(f"*{suffix}") if ".test." not in path.name)
    return sorted(str(path.relative_to(ROOT)) for path in found if path.name != "__init__.py")


def chosen(modules: list[str], seed: int, count: int) -> list[str]:
    return sorted(random.Random(seed).sample(modules, min(count, len(modules))))  # noqa: S311  not for secrets


def in_core(modules: list[str], *, seed: int) -> Mutants:
    """In a copy: what runs here is never what is changed."""
    with tempfile.TemporaryDirectory(prefix="stride-mutants-") as folder:
        copy_tracked(Path(folder))
        # Tests are unittest's: a plain function is a helper, whatever it is called.
        ignored = ["-o", "python_functions=none_is", *(f"--deselect={name}" for name in READ_SOURCES)]
        told = CONFIGURED.format(modules=json.dumps(modules), ignored=json.dumps(ignored))
        with (Path(folder) / "pyproject.toml").open("a") as file:
            file.write(told)

        def mutmut(*arguments: str) -> subprocess.CompletedProcess[str]:
            command = [sys.executable, "-m", "mutmut", *arguments]
            return subprocess.run(command, cwd=folder, check=False, capture_output=True, text=True)

        # Made first, and none of them run: what a module in the middle of all is made of takes a night.
        mutmut("run", "--max-children", "1", NONE)
        names = [name for name, _ in statuses(mutmut("results", "--all", "true").stdout)]
        tried = chosen(names, seed, MOST_TRIED)
        done = mutmut("run", *tried)
        found = dict(statuses(mutmut("results", "--all", "true").stdout))
        if not tried or any(found[name] == "not checked" for name in tried):
            raise StepFailed(f"{done.stdout[-2000:]}\n{done.stderr[-2000:]}\nNot every mutant was tried.")
        survived = [name for name in tried if found[name] in SURVIVED]
        return Mutants(
            len(tried), [f"{name}: {changed_lines(mutmut('show', name).stdout)}" for name in survived]
        )


def statuses(listed: str) -> list[tuple[str, str]]:
    """Each mutant by name with what became of it."""
    lines = (line.strip().rpartition(": ") for line in listed.splitlines() if ": " in line)
    return [(name, status) for name, _, status in lines]


def changed_lines(diff: str) -> str:
    """What a diff takes away and puts in its place."""
    kept = (line for line in diff.splitlines() if line[:1] in "+-" and line[:3] not in ("---", "+++"))
    return " ".join(" ".join(line.split()) for line in kept)


def in_state(modules: list[str]) -> Mutants:
    with tempfile.TemporaryDirectory(prefix="stride-mutants-") as folder:
        copy_tracked(Path(folder))
        web = Path(folder) / "web"
        (web / "node_modules").symlink_to(WEB / "node_modules")
        report = web / "mutants.json"
        settings = {
            "testRunner": "vitest",
            "plugins": ["@stryker-mutator/vitest-runner"],
            "mutate": [module.removeprefix("web/") for module in modules],
            "ignoreStatic": True,
            "concurrency": 1,
            "inPlace": True,
            "reporters": ["json"],
            "jsonReporter": {"fileName": str(report)},
            "vitest": {"configFile": "vitest.state.ts"},
        }
        (web / "vitest.state.ts").write_text('export default { test: { include: ["src/**/*.test.ts"] } };\n')
        (web / "stryker.config.json").write_text(json.dumps(settings))
        command = ["npx", "--no-install", "stryker", "run"]
        done = subprocess.run(command, cwd=web, check=False, capture_output=True, text=True)
        if not report.exists():
            raise StepFailed(f"{done.stdout[-2000:]}\n{done.stderr[-2000:]}\nNo mutant was tried.")
        return of_report(json.loads(report.read_text()))


def of_report(report: dict[str, object]) -> Mutants:
    """From the open format such reports are written in."""
    files: dict[str, dict[str, list[dict[str, object]]]] = report["files"]  # type: ignore[assignment]
    tried, survivors = 0, []
    for name, file in files.items():
        for mutant in file["mutants"]:
            tried += mutant["status"] != "Ignored"
            if mutant["status"] in SURVIVED:
                line = mutant["location"]["start"]["line"]  # type: ignore[index]
                survivors.append(f"{name}:{line}: {mutant['mutatorName']} {mutant['replacement']}")
    return Mutants(tried, survivors)


def copy_tracked(folder: Path) -> None:
    """All that git knows of, as it stands."""
    listed = subprocess.run(["git", "ls-files", "-z"], cwd=ROOT, check=True, capture_output=True, text=True)
    for name in filter(None, listed.stdout.split("\0")):
        if (ROOT / name).is_file():
            (folder / name).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy2(ROOT / name, folder / name)
