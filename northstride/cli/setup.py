"""`./stride setup`: everything the other commands need, so that they can run without a network."""

from __future__ import annotations

import argparse

from northstride.cli.steps import say, set_up_to_run


def add_arguments(_parser: argparse.ArgumentParser) -> None:
    """Setup takes none."""


def run(_arguments: argparse.Namespace) -> int:
    set_up_to_run()
    say("All set up. ./stride demo starts North Stride with demo data, ./stride serve without.")
    return 0
