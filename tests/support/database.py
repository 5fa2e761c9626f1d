"""A cluster of the tests' own: one template, migrated once, copied for each test class."""

from __future__ import annotations

import atexit
import itertools
import os
import shutil
import signal
import sys
import tempfile
import unittest
from contextlib import suppress
from functools import lru_cache
from pathlib import Path

from sqlalchemy import Engine

from northstride.cli.cluster import Cluster, ClusterError
from northstride.store.database import connect, migrate

TEMPLATE = "template"
PREFIX = "north-stride-tests-"
_numbers = itertools.count()


@lru_cache(maxsize=1)
def cluster() -> Cluster:
    remove_left_behind()
    folder = Path(tempfile.mkdtemp(prefix=f"{PREFIX}{os.getpid()}-"))
    folder.chmod(0o755)
    made = Cluster(folder / "postgres", durable=False)
    made.make()
    atexit.register(remove, folder, made)
    # Told to stop, as when the time is up: the cluster goes too.
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(1))
    made.start()
    made.ensure_database(TEMPLATE)
    migrate(made.url(TEMPLATE))
    return made


def remove(folder: Path, made: Cluster) -> None:
    made.stop()
    shutil.rmtree(folder, ignore_errors=True)


def remove_left_behind() -> None:
    """Clusters of test runs that were killed: their processes and folders."""
    for folder in Path(tempfile.gettempdir()).glob(f"{PREFIX}*"):
        pid = folder.name.removeprefix(PREFIX).split("-")[0]
        if pid.isdecimal() and Path(f"/proc/{pid}").exists():
            continue
        left = Cluster(folder / "postgres", durable=False)
        if left.exists():
            left.started_here = True
            with suppress(ClusterError):
                left.stop()
        shutil.rmtree(folder, ignore_errors=True)


def fresh_database() -> str:
    """The address of an empty, migrated database."""
    name = f"test_{os.getpid()}_{next(_numbers)}"
    cluster().copy_database(TEMPLATE, name)
    return cluster().url(name)


class DatabaseCase(unittest.TestCase):
    """A database a class; `engine` connects to it."""

    url: str
    engine: Engine

    @classmethod
    def setUpClass(cls) -> None:
        cls.url = fresh_database()
        cls.engine = connect(cls.url, pool_size=4)
        cls.addClassCleanup(cls.engine.dispose)
