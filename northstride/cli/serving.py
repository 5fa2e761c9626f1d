"""Starts database and app, and stops both cleanly."""

from __future__ import annotations

import os
import signal
import socket
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from types import FrameType
from typing import Any

import uvicorn
from pydantic import SecretStr

from northstride.api.app import create_app
from northstride.api.request_timeout import TimedProtocol
from northstride.api.settings import Settings
from northstride.cli.cluster import Cluster, folder_for
from northstride.cli.steps import DIST, LOCAL, ROOT, StepFailed, say
from northstride.store.database import migrate

FIRST_PORT = 8600
PORTS_TRIED = 50
DATABASE_VARIABLE = "NORTH_STRIDE_DATABASE_URL"


def pick_port(host: str, wanted: int) -> int:
    """The wanted port, or the next free one, and says so."""
    for port in range(wanted, wanted + PORTS_TRIED):
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((host, port))
            except OSError:
                continue
        if port != wanted:
            say(f"Port {wanted} is taken: using {port}")
        return port
    raise StepFailed(f"No free port from {wanted} on. Name one with --port.")


@contextmanager
def private_cluster() -> Iterator[Cluster]:
    cluster = Cluster(folder_for(ROOT, LOCAL / "postgres"))
    if not cluster.exists():
        say(f"Making a private PostgreSQL cluster in {cluster.folder}")
        cluster.make()
    cluster.start()
    say(f"PostgreSQL runs on 127.0.0.1:{cluster.port}")
    try:
        with cluster.kept_running():
            yield cluster
    finally:
        if cluster.started_here:
            say("Stopping PostgreSQL")
        cluster.stop()


@contextmanager
def database_url(name: str, *, fresh: bool = False) -> Iterator[str]:
    """A migrated database: the one the environment names, else one of the private cluster."""
    told = os.environ.get(DATABASE_VARIABLE)
    if told and fresh:
        raise StepFailed(f"--reset empties the private database only. Unset {DATABASE_VARIABLE} first.")
    if told:
        migrate(told)
        yield told
        return
    with private_cluster() as cluster:
        if fresh:
            cluster.drop_database(name)
        cluster.ensure_database(name)
        url = cluster.url(name)
        migrate(url)
        yield url


def server_config(app: Any, host: str, port: int) -> uvicorn.Config:
    """How the app is served, wherever it is."""
    return uvicorn.Config(
        app,
        host=host,
        port=port,
        http=TimedProtocol,
        log_level="warning",
        access_log=False,
        server_header=False,
    )


def serve(url: str, host: str, port: int, *, demo: bool, ready: Callable[[str], None]) -> None:
    """Serves app and API until told to stop."""
    settings = Settings(database_url=SecretStr(url), web_folder=DIST, demo=demo)
    config = server_config(create_app(settings), host, port)

    class Announcing(uvicorn.Server):
        async def startup(self, sockets: list[socket.socket] | None = None) -> None:
            await super().startup(sockets)
            if not self.should_exit:
                ready(f"http://{host}:{port}")

    Announcing(config).run()


def stop_on_signals() -> None:
    """A closed terminal and a plain kill stop database and app as Ctrl-C does."""

    def leave(_number: int, _frame: FrameType | None) -> None:
        raise KeyboardInterrupt

    for number in (signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, leave)
