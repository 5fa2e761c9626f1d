"""A second device's session belongs to the one that took it along: it begins and ends with it."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("sessions", sa.Column("maker", sa.Uuid))
    op.create_foreign_key(
        "fk_sessions_maker", "sessions", "sessions", ["clinic_id", "maker"], ["clinic_id", "id"]
    )
    op.create_index(
        "ix_sessions_maker", "sessions", ["clinic_id", "maker"], postgresql_where=sa.text("maker IS NOT NULL")
    )
