"""What a screen was begun with, so that beginning it again with another plan is told apart."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("screens", sa.Column("begun_with", postgresql.JSONB))
