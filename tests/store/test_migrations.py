"""The migrations make exactly the tables the models describe."""

from __future__ import annotations

import os
import subprocess
import sys

from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext

from northstride.cli.steps import ROOT
from northstride.store.database import driver_url, migrate
from northstride.store.tables import Base
from tests.support.database import DatabaseCase, cluster


class Migrations(DatabaseCase):
    def test_nothing_differs(self) -> None:
        with self.engine.connect() as db:
            context = MigrationContext.configure(db)
            self.assertEqual(compare_metadata(context, Base.metadata), [])

    def test_migrating_again_does_nothing(self) -> None:
        migrate(self.url)

    def test_two_that_begin_at_once_make_it_once(self) -> None:
        """One of them died of tables that the other was just making."""
        name = f"two_{os.getpid()}"
        cluster().ensure_database(name)
        url = cluster().url(name)
        code = f"from northstride.store.database import migrate; migrate({url!r})"
        command = [sys.executable, "-c", code]
        both = [subprocess.Popen(command, stderr=subprocess.PIPE, cwd=ROOT) for _ in range(3)]
        told = [each.communicate(timeout=120)[1].decode()[-400:] for each in both]
        self.assertEqual([each.returncode for each in both], [0, 0, 0], told)

    def test_plain_addresses_get_the_driver(self) -> None:
        for given in ("postgres://h/d", "postgresql://h/d"):
            self.assertEqual(driver_url(given), "postgresql+psycopg://h/d")
        self.assertEqual(driver_url("postgresql+psycopg://h/d"), "postgresql+psycopg://h/d")
