"""Free lines of letters that a clinic keeps."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "letter_templates",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("lines", postgresql.JSONB, nullable=False),
        sa.Column("created_by", sa.Uuid, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("now()")),
        sa.Column("archived_at", sa.DateTime(timezone=True)),
        sa.PrimaryKeyConstraint("clinic_id", "id"),
        sa.ForeignKeyConstraint(["clinic_id", "created_by"], ["users.clinic_id", "users.id"]),
    )
    op.create_index(
        "ix_letter_templates_name",
        "letter_templates",
        ["clinic_id", "name"],
        unique=True,
        postgresql_where=sa.text("archived_at IS NULL"),
    )
