"""Runs the browser tests again and again on a loaded machine: `python -m bench.under_load`.

A user on a slow tablet meets every race sooner or later; here each is looked for. WorkerPool the tests run
busy processes, `--load` for each core. Says which checks failed, and ends with 1 where one did.
"""

from __future__ import annotations

import argparse
import multiprocessing
import os
import re
import subprocess
import sys
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager

from northstride.cli.steps import ROOT
from northstride.cli.test import SLOWER

FAILED = re.compile(r"^(?P<check>.+): -?\d+ passed, [1-9]\d* failed", re.MULTILINE)


def burn() -> None:
    while True:
        pass


@contextmanager
def loaded(load: int) -> Iterator[None]:
    """So many busy processes for each core, ended with the block."""
    busy = [multiprocessing.Process(target=burn, daemon=True) for _ in range(load * (os.cpu_count() or 1))]
    for each in busy:
        each.start()
    try:
        yield
    finally:
        for each in busy:
            each.terminate()


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("parts", nargs="*", default=["browser"], help="as ./stride test takes them")
    asked.add_argument("--times", type=int, default=10)
    asked.add_argument("--load", type=int, default=4)
    told = asked.parse_args()
    failed: Counter[str] = Counter()
    environment = {**os.environ, SLOWER: str(1 + told.load)}
    with loaded(told.load):
        for time in range(1, told.times + 1):
            command = [str(ROOT / "stride"), "test", *told.parts]
            done = subprocess.run(command, capture_output=True, text=True, check=False, env=environment)
            names = FAILED.findall(done.stdout)
            failed.update(names or ([] if done.returncode == 0 else ["the run itself"]))
            print(f"{time} of {told.times}: {', '.join(names) or done.stdout.splitlines()[-1]}", flush=True)
            if names:
                print(done.stdout, flush=True)
    for name, count in failed.most_common():
        print(f"{name}: failed {count} of {told.times} times")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
