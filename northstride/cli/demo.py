"""`./stride demo`: everything set up, the Tarnholt demo loaded, North Stride started."""

from __future__ import annotations

import argparse

from northstride.api.demo_accounts import DEMO_ACCOUNTS
from northstride.cli.serving import FIRST_PORT, database_url, pick_port, serve, stop_on_signals
from northstride.cli.steps import say, set_up_to_run
from northstride.demo.load import is_loaded, load_demo

DATABASE = "north_stride_demo"


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--reset", action="store_true", help="load the demo anew; what was added is gone")
    parser.add_argument("--port", type=int, default=FIRST_PORT)


def run(arguments: argparse.Namespace) -> int:
    stop_on_signals()
    set_up_to_run()
    with database_url(DATABASE, fresh=arguments.reset) as url:
        if not is_loaded(url):
            say("Loading the Tarnholt demo")
            load_demo(url)
        port = pick_port("127.0.0.1", arguments.port)
        serve(url, "127.0.0.1", port, demo=True, ready=_announce)
    return 0


def _announce(address: str) -> None:
    say(f"\nNorth Stride: {address}\n\nDemo accounts (made up):")
    for account in DEMO_ACCOUNTS:
        say(f"  {account.role:<13} {account.login:<8} {account.password}")
    say("\nCtrl-C stops.")
