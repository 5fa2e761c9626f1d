"""Words of sheets are frozen with each signature; later ones say which signature they were put to."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # None where a signature kept none yet: what stood by then is read from the words themselves.
    op.add_column("signatures", sa.Column("words", postgresql.JSONB))
    op.add_column("sheet_words", sa.Column("signature", sa.Integer))
