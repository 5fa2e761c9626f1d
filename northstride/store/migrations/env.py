"""Alembic runs the migrations on the address it is given; nothing is read from a file."""

from __future__ import annotations

from alembic import context
from sqlalchemy import create_engine

from northstride.store.tables import Base

engine = create_engine(context.config.attributes["url"], hide_parameters=True)
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, transaction_per_migration=True)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
