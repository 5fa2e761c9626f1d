"""Who is at which place of a screen just now: told by the devices themselves, nothing of a record."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "presence",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("screen_id", sa.Uuid, nullable=False),
        sa.Column("device", sa.Text, nullable=False),
        sa.Column("user_id", sa.Uuid, nullable=False),
        sa.Column("step", sa.Text, nullable=False),
        sa.Column("test", sa.Text),
        sa.Column("side", sa.Text),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("now()")),
        sa.PrimaryKeyConstraint("clinic_id", "screen_id", "device"),
        sa.ForeignKeyConstraint(["clinic_id", "screen_id"], ["screens.clinic_id", "screens.id"]),
        sa.ForeignKeyConstraint(["clinic_id", "user_id"], ["users.clinic_id", "users.id"]),
        sa.CheckConstraint("side IN ('left', 'right')", name="ck_presence_side"),
    )
    op.create_index("ix_presence_seen_at", "presence", ["seen_at"])
