"""References are told apart by case and by looks; duplicates can be brought together and parted again."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

from northstride.record.naming import fold, looks

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None

KEYS = {"ref_fold": fold, "ref_looks": looks}


def upgrade() -> None:
    for name in KEYS:
        op.add_column("athletes", sa.Column(name, sa.Text))
    op.add_column("athletes", sa.Column("merged_into", sa.Uuid))
    _fill()
    for name in KEYS:
        op.alter_column("athletes", name, nullable=False)
        op.create_unique_constraint(f"uq_athletes_{name}", "athletes", ["clinic_id", name])
    op.create_foreign_key(
        "fk_athletes_merged_into",
        "athletes",
        "athletes",
        ["clinic_id", "merged_into"],
        ["clinic_id", "id"],
    )
    op.create_table(
        "athlete_merges",
        sa.Column("clinic_id", sa.Uuid, nullable=False),
        sa.Column("id", sa.Uuid, nullable=False),
        sa.Column("kept", sa.Uuid, nullable=False),
        sa.Column("gone", sa.Uuid, nullable=False),
        # What went over and what was filled in, so that all of it can go back.
        sa.Column("moved", postgresql.JSONB, nullable=False),
        sa.Column("user_id", sa.Uuid, nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False, server_default=sa.text("now()")),
        sa.Column("undone_at", sa.DateTime(timezone=True)),
        sa.PrimaryKeyConstraint("clinic_id", "id"),
        sa.ForeignKeyConstraint(
            ["clinic_id", "kept"], ["athletes.clinic_id", "athletes.id"], name="fk_athlete_merges_kept"
        ),
        sa.ForeignKeyConstraint(
            ["clinic_id", "gone"], ["athletes.clinic_id", "athletes.id"], name="fk_athlete_merges_gone"
        ),
        sa.ForeignKeyConstraint(["clinic_id", "user_id"], ["users.clinic_id", "users.id"]),
    )


def _fill() -> None:
    """Of those that look alike already the oldest has the reference; the others are told apart by id."""
    db = op.get_bind()
    rows = db.execute(sa.text("SELECT clinic_id, id, ref FROM athletes ORDER BY created_at, id")).all()
    taken: set[tuple[object, str, str]] = set()
    for row in rows:
        keys = {}
        for name, key_of in KEYS.items():
            key = key_of(row.ref)
            twin = (row.clinic_id, name, key) in taken
            taken.add((row.clinic_id, name, key))
            keys[name] = f"{key}\x1f{row.id}" if twin else key
        db.execute(
            sa.text(
                "UPDATE athletes SET ref_fold = :ref_fold, ref_looks = :ref_looks"
                " WHERE clinic_id = :clinic AND id = :id"
            ),
            {**keys, "clinic": row.clinic_id, "id": row.id},
        )
