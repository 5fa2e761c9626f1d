"""`./stride bench`: measures, each figure against a floor taken in the same run."""

from __future__ import annotations

import argparse
import subprocess
import sys

from northstride.cli.steps import ROOT, set_up_to_prove


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument(
        "only", nargs="*", help="parts to measure: core, drawing, api, leaving, web (all unless named)"
    )
    parser.add_argument("--scale", action="store_true", help="years of a large club, and many at once")


def run(arguments: argparse.Namespace) -> int:
    set_up_to_prove()
    parts = [*arguments.only, *(["scale"] if arguments.scale else [])]
    return subprocess.run([sys.executable, "-m", "bench", *parts], cwd=ROOT, check=False).returncode
