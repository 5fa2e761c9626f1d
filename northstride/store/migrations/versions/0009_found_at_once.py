"""Indexes for a day: open screens by date, their readings, and actions that are more than training."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    newest = (sa.text("date DESC"), sa.text("created_at DESC"))
    op.drop_index("ix_screens_open", "screens")
    op.create_index(
        "ix_screens_open", "screens", ["clinic_id", *newest], postgresql_where=sa.text("signed_at IS NULL")
    )
    op.create_index(
        "ix_readings_open",
        "readings",
        ["clinic_id", "screen_id"],
        postgresql_where=sa.text("signature IS NULL"),
    )
    op.drop_index("ix_reading_actions_clinic_id_urgency", "reading_actions")
    op.create_index(
        "ix_reading_actions_asking",
        "reading_actions",
        ["clinic_id", "urgency"],
        postgresql_where=sa.text("urgency <> 'train'"),
    )
