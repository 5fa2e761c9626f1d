"""Alembic runs the migrations on the address it is given; nothing is read from a file."""

from __future__ import annotations

from alembic import context
from sqlalchemy import create_engine

from northstride.store.tables import Base

# Any number, always the same; it is let go with the connection.
MIGRATING = 0x5_7121DE

engine = create_engine(context.config.attributes["url"], hide_parameters=True)
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, transaction_per_migration=True)
    # Of two processes that begin at once the second waits, and finds it done.
    connection.exec_driver_sql(f"SELECT pg_advisory_lock({MIGRATING})")
    connection.commit()
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
