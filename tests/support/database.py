"""A cluster of the tests' own: one template, migrated once, copied for each test class."""

from __future__ import annotations

import atexit
import itertools
import os
import tempfile
import unittest
from functools import lru_cache
from pathlib import Path

from sqlalchemy import Engine

from northstride.cli.cluster import Cluster
from northstride.store.database import connect, migrate

TEMPLATE = "template"
_numbers = itertools.count()


@lru_cache(maxsize=1)
def cluster() -> Cluster:
    folder = Path(tempfile.mkdtemp(prefix="north-stride-tests-"))
    folder.chmod(0o755)
    made = Cluster(folder / "postgres", durable=False)
    made.make()
    made.start()
    atexit.register(made.stop)
    made.ensure_database(TEMPLATE)
    migrate(made.url(TEMPLATE))
    return made


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
