"""An arrangement becomes one of several steps, and an action says what it rests on.

What was arranged stays arranged. Kept rows of open screens are made again.
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

DOES = "does IN ('arranged', 'again', 'closed', 'left', 'undone')"
UNDOES = "(does = 'undone') = (undoes IS NOT NULL)"
DATED = "does NOT IN ('arranged', 'again') OR \"on\" IS NOT NULL"


def upgrade() -> None:
    op.add_column(
        "arrangements", sa.Column("does", sa.Text, nullable=False, server_default=sa.text("'arranged'"))
    )
    op.add_column("arrangements", sa.Column("until", sa.Date))
    op.add_column("arrangements", sa.Column("at_time", sa.Text))
    op.add_column("arrangements", sa.Column("whom", sa.Text, nullable=False, server_default=""))
    op.add_column("arrangements", sa.Column("undoes", sa.Uuid))
    # Steps of one transaction have an order too.
    op.alter_column("arrangements", "at", server_default=sa.text("clock_timestamp()"))
    op.alter_column("arrangements", "on", nullable=True)
    op.create_check_constraint("ck_arrangements_does", "arrangements", DOES)
    op.create_check_constraint("ck_arrangements_has_its_day", "arrangements", DATED)
    op.create_check_constraint("ck_arrangements_undoes_one", "arrangements", UNDOES)
    op.add_column("reading_actions", sa.Column("says", sa.Text))
    op.add_column("reading_actions", sa.Column("tests", postgresql.ARRAY(sa.Text)))
    op.execute("DELETE FROM readings WHERE signature IS NULL")
