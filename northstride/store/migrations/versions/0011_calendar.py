"""Secret addresses at which a calendar asks for the days to come."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "calendar_feeds",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("user_id", sa.Uuid, nullable=False),
        sa.Column("secret_hash", sa.Text, nullable=False),
        sa.Column("named", sa.Boolean, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("now()")),
        sa.Column("read_at", sa.DateTime(timezone=True)),
        sa.Column("revoked_at", sa.DateTime(timezone=True)),
        sa.PrimaryKeyConstraint("clinic_id", "id"),
        sa.UniqueConstraint("secret_hash"),
        sa.ForeignKeyConstraint(["clinic_id", "user_id"], ["users.clinic_id", "users.id"]),
    )
    op.create_index(
        "uq_calendar_feeds_open",
        "calendar_feeds",
        ["clinic_id", "user_id"],
        unique=True,
        postgresql_where=sa.text("revoked_at IS NULL"),
    )
