"""`./stride serve`: North Stride without demo data; the first visitor becomes the owner."""

from __future__ import annotations

import argparse

from northstride.cli.serving import FIRST_PORT, database_url, pick_port, serve, stop_on_signals
from northstride.cli.steps import say, set_up_to_run

DATABASE = "north_stride"


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--host", default="127.0.0.1", help="address to listen on (loopback unless told)")
    parser.add_argument("--port", type=int, default=FIRST_PORT)


def run(arguments: argparse.Namespace) -> int:
    stop_on_signals()
    set_up_to_run()

    def ready(address: str) -> None:
        say(f"North Stride: {address}")
        say("Nobody here yet? The first page makes the first owner. Ctrl-C stops.")

    with database_url(DATABASE) as url:
        port = pick_port(arguments.host, arguments.port)
        serve(url, arguments.host, port, demo=False, ready=ready)
    return 0
