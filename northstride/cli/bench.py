"""`./stride bench`: measures, each figure against a floor taken in the same run."""

from __future__ import annotations

import argparse
import subprocess
import sys

from northstride.cli.steps import ROOT, set_up_everything


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("only", nargs="*", help="parts to measure: core, api, web (all unless named)")


def run(arguments: argparse.Namespace) -> int:
    set_up_everything()
    return subprocess.run([sys.executable, "-m", "bench", *arguments.only], cwd=ROOT, check=False).returncode
