"""What is left out of a plan and why, and a clinic's own routes.

Nothing of what users wrote is touched.
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

JSON = postgresql.JSONB(none_as_null=True)

# Whatever a reading, its identity or the route depends on raises the revision, whoever writes it.
RAISES_REVISION = """
CREATE OR REPLACE FUNCTION screen_change_raises_revision() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.signed_at IS NULL AND NEW.revision <= OLD.revision
     AND (NEW.date, NEW.purpose, NEW.schools, NEW.planned, NEW.overrides, NEW.athlete_id, NEW.intake,
          NEW.left_out, NEW.reasons_after, NEW.consent)
       IS DISTINCT FROM
         (OLD.date, OLD.purpose, OLD.schools, OLD.planned, OLD.overrides, OLD.athlete_id, OLD.intake,
          OLD.left_out, OLD.reasons_after, OLD.consent)
  THEN
    RAISE EXCEPTION 'revision: a change of screen % must raise it', OLD.id
      USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
"""


def upgrade() -> None:
    empty = sa.text("'[]'::jsonb")
    op.add_column("screens", sa.Column("left_out", JSON, nullable=False, server_default=empty))
    op.add_column("screens", sa.Column("reasons_after", sa.Boolean))
    op.execute(RAISES_REVISION)
    op.create_table(
        "routes",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("purpose", sa.Text, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("tests", JSON, nullable=False),
        sa.Column("reasons_after", sa.Boolean, nullable=False),
        sa.Column("created_by", sa.Uuid, nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("now()")),
        sa.Column("archived_at", sa.DateTime(timezone=True)),
        sa.PrimaryKeyConstraint("clinic_id", "id"),
        sa.ForeignKeyConstraint(["clinic_id", "created_by"], ["users.clinic_id", "users.id"]),
    )
    op.create_index(
        "ix_routes_name",
        "routes",
        ["clinic_id", "purpose", "name"],
        unique=True,
        postgresql_where=sa.text("archived_at IS NULL"),
    )
