"""The migrations make exactly the tables the models describe."""

from __future__ import annotations

from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext

from northstride.store.database import driver_url, migrate
from northstride.store.tables import Base
from tests.support.database import DatabaseCase


class Migrations(DatabaseCase):
    def test_nothing_differs(self) -> None:
        with self.engine.connect() as db:
            context = MigrationContext.configure(db)
            self.assertEqual(compare_metadata(context, Base.metadata), [])

    def test_migrating_again_does_nothing(self) -> None:
        migrate(self.url)

    def test_plain_addresses_get_the_driver(self) -> None:
        for given in ("postgres://h/d", "postgresql://h/d"):
            self.assertEqual(driver_url(given), "postgresql+psycopg://h/d")
        self.assertEqual(driver_url("postgresql+psycopg://h/d"), "postgresql+psycopg://h/d")
