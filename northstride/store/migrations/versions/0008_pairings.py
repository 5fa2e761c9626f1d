"""Codes by which a signed-in person takes a second device along: short-lived, used once."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "pairings",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("user_id", sa.Uuid, nullable=False),
        sa.Column("session_id", sa.Uuid, nullable=False),
        sa.Column("screen_id", sa.Uuid),
        sa.Column("code_hash", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("now()")),
        sa.Column("used_at", sa.DateTime(timezone=True)),
        sa.PrimaryKeyConstraint("clinic_id", "id"),
        sa.UniqueConstraint("code_hash"),
        sa.ForeignKeyConstraint(["clinic_id", "user_id"], ["users.clinic_id", "users.id"]),
        sa.ForeignKeyConstraint(["clinic_id", "session_id"], ["sessions.clinic_id", "sessions.id"]),
        sa.ForeignKeyConstraint(["clinic_id", "screen_id"], ["screens.clinic_id", "screens.id"]),
    )
