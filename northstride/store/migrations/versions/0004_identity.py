"""Readings get an identity, signatures a format, places their key, guesses a slower clock.

Kept readings of open screens are derived and made again. What was signed stays as it is, marked as
format 1. Nothing of what users wrote is touched.
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

JSON = postgresql.JSONB(none_as_null=True)

# What lists show of signed screens comes from their newest signature.
SIGNED_READINGS = """
INSERT INTO readings (clinic_id, screen_id, revision, athlete_revision, shipped, signature)
SELECT DISTINCT ON (s.clinic_id, s.screen_id) s.clinic_id, s.screen_id, s.revision, 1, '', s.number
FROM signatures s ORDER BY s.clinic_id, s.screen_id, s.number DESC
"""

# A screen goes to the right person even when it is signed; nothing else of it ever changes.
REFUSE_SIGNED_CHANGE = """
CREATE OR REPLACE FUNCTION refuse_signed_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.signed_at IS NOT NULL THEN
    IF TG_OP = 'UPDATE' AND to_jsonb(OLD) - 'athlete_id' = to_jsonb(NEW) - 'athlete_id' THEN
      RETURN NEW;
    END IF;
    RAISE EXCEPTION 'signed: % of screen % is refused', TG_OP, OLD.id USING ERRCODE = 'restrict_violation';
  END IF;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;
"""

# Whatever a reading depends on raises the revision, whoever writes it.
RAISES_REVISION = """
CREATE FUNCTION screen_change_raises_revision() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.signed_at IS NULL AND NEW.revision <= OLD.revision
     AND (NEW.date, NEW.purpose, NEW.schools, NEW.planned, NEW.overrides, NEW.athlete_id, NEW.intake)
       IS DISTINCT FROM
         (OLD.date, OLD.purpose, OLD.schools, OLD.planned, OLD.overrides, OLD.athlete_id, OLD.intake)
  THEN
    RAISE EXCEPTION 'revision: a change of screen % must raise it', OLD.id
      USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
"""


def upgrade() -> None:
    _people()
    _readings()
    _screens()


def _people() -> None:
    op.add_column("athletes", sa.Column("revision", sa.Integer, nullable=False, server_default=sa.text("1")))
    op.create_index(None, "athletes", ["clinic_id", "name", "ref", "id"])
    minutes = sa.Column("idle_minutes", sa.Integer, nullable=False, server_default=sa.text("15"))
    op.add_column("clinics", minutes)
    op.create_check_constraint("idle_minutes", "clinics", "idle_minutes BETWEEN 1 AND 120")
    key = sa.text("replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', '')")
    op.add_column("users", sa.Column("seal_key", sa.Text, nullable=False, server_default=key))
    op.add_column("sessions", sa.Column("device_hash", sa.Text))
    op.create_index(None, "sessions", ["clinic_id", "user_id", "device_hash"])
    op.drop_table("sign_in_failures")
    op.create_table(
        "guesses",
        sa.Column("key", sa.Text, primary_key=True),
        sa.Column("failures", sa.Integer, nullable=False),
        sa.Column("last_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("next_at", sa.DateTime(timezone=True), nullable=False),
    )


def _readings() -> None:
    # Columns are added before the trigger sees them: what was signed takes no UPDATE.
    whole = sa.Column("format", sa.Integer, nullable=False, server_default=sa.text("1"))
    op.add_column("signatures", whole)
    op.alter_column("signatures", "format", server_default=None)
    op.add_column("signatures", sa.Column("identity", JSON))
    op.add_column("signatures", sa.Column("differences", JSON))
    op.create_check_constraint("has_identity", "signatures", "format = 1 OR identity IS NOT NULL")
    op.drop_table("readings")
    op.create_table(
        "readings",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("screen_id", sa.Uuid, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("athlete_revision", sa.Integer, nullable=False),
        sa.Column("shipped", sa.Text, nullable=False),
        sa.Column("signature", sa.Integer),
        sa.Column("identity", JSON),
        sa.Column("document", JSON),
        sa.Column("fault", sa.Text),
        sa.PrimaryKeyConstraint("clinic_id", "screen_id"),
        sa.ForeignKeyConstraint(["clinic_id", "screen_id"], ["screens.clinic_id", "screens.id"]),
    )
    op.execute(SIGNED_READINGS)
    op.create_index(None, "late_answers", ["clinic_id", "screen_id"])
    op.create_index(None, "arrangements", ["clinic_id", "screen_id"])


def _screens() -> None:
    from_file = sa.Column("from_file", sa.Boolean, nullable=False, server_default=sa.text("false"))
    op.add_column("screens", from_file)
    # Where a signed screen came from is no change of it.
    op.execute("ALTER TABLE screens DISABLE TRIGGER screens_signed_frozen")
    op.execute("UPDATE screens SET from_file = true WHERE athlete_part IS NOT NULL")
    op.execute("ALTER TABLE screens ENABLE TRIGGER screens_signed_frozen")
    op.drop_index("ix_screens_clinic_id_athlete_id_date", "screens")
    order = (sa.text("date DESC"), sa.text("created_at DESC"))
    op.create_index("ix_screens_newest", "screens", ["clinic_id", "athlete_id", *order])
    open_ = sa.text("signed_at IS NULL")
    op.create_index("ix_screens_open", "screens", ["clinic_id", "id"], postgresql_where=open_)
    op.add_column("measurements", sa.Column("key", sa.Text, nullable=False, server_default=""))
    op.alter_column("measurements", "key", server_default=None)
    op.execute(
        "UPDATE measurements SET key = answers.key FROM answers"
        " WHERE answers.clinic_id = measurements.clinic_id AND answers.id = measurements.answer_id"
        " AND answers.key <> ''"
    )
    op.execute(REFUSE_SIGNED_CHANGE)
    op.execute(RAISES_REVISION)
    op.execute(
        "CREATE TRIGGER screens_raise_revision BEFORE UPDATE ON screens "
        "FOR EACH ROW EXECUTE FUNCTION screen_change_raises_revision()"
    )
