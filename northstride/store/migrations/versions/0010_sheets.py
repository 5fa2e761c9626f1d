"""What a clinic writes on sheets that leave, and words a practitioner put in the place of ours."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

ON_SHEETS = ("address", "phone", "night_phone", "emergency_number")


def upgrade() -> None:
    for name in ON_SHEETS:
        op.add_column("clinics", sa.Column(name, sa.Text, nullable=False, server_default=sa.text("''")))
    op.create_table(
        "sheet_words",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("screen_id", sa.Uuid, nullable=False),
        sa.Column("sheet", sa.Text, nullable=False),
        sa.Column("field", sa.Text, nullable=False),
        sa.Column("value", sa.Text),
        sa.Column("user_id", sa.Uuid, nullable=False),
        sa.Column("by_name", sa.Text, nullable=False),
        sa.Column(
            "at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("clock_timestamp()")
        ),
        sa.CheckConstraint("sheet IN ('report', 'letter', 'athlete')", name="ck_sheet_words_sheet"),
        sa.ForeignKeyConstraint(["clinic_id", "screen_id"], ["screens.clinic_id", "screens.id"]),
        sa.ForeignKeyConstraint(["clinic_id", "user_id"], ["users.clinic_id", "users.id"]),
        sa.PrimaryKeyConstraint("clinic_id", "id"),
    )
    op.create_index("ix_sheet_words_clinic_id_screen_id", "sheet_words", ["clinic_id", "screen_id"])
    op.execute(
        "CREATE TRIGGER sheet_words_append_only BEFORE UPDATE OR DELETE ON sheet_words "
        "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
    )
