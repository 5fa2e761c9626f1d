"""Answers stand by when they were seen; views say which stand, and what was examined."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

# Taken back, replaced, or come too late for its place: it is history, and does not stand.
STANDING = """
CREATE VIEW standing_answers AS
SELECT a.* FROM answers a
WHERE NOT a.beside AND NOT EXISTS (
  SELECT 1 FROM answers n WHERE n.clinic_id = a.clinic_id AND n.replaces = a.id)
"""
# By test and side, what holds a value: of an amended screen as its newest signature has it.
EXAMINED = """
CREATE VIEW examined AS
SELECT a.clinic_id, a.screen_id, a.test, a.side FROM standing_answers a
WHERE a.field LIKE 'values.%' AND a.value IS NOT NULL AND NOT EXISTS (
  SELECT 1 FROM signatures g WHERE g.clinic_id = a.clinic_id AND g.screen_id = a.screen_id AND g.number > 0)
UNION ALL
SELECT g.clinic_id, g.screen_id, e ->> 'test', coalesce(e ->> 'side', lane.side)
FROM signatures g
CROSS JOIN LATERAL jsonb_array_elements(g.record -> 'entries') e
CROSS JOIN LATERAL jsonb_each(coalesce(e -> 'values', '{}')) v
LEFT JOIN LATERAL (
  SELECT side FROM unnest(ARRAY['left', 'right']) side
  WHERE jsonb_typeof(v.value) = 'object' AND v.value ? side) lane ON true
WHERE g.number > 0 AND v.value <> 'null' AND NOT EXISTS (
  SELECT 1 FROM signatures n
  WHERE n.clinic_id = g.clinic_id AND n.screen_id = g.screen_id AND n.number > g.number)
"""


def upgrade() -> None:
    op.add_column("answers", sa.Column("seen_at", sa.DateTime(timezone=True)))
    op.add_column("answers", sa.Column("beside", sa.Boolean, nullable=False, server_default=sa.text("false")))
    op.add_column("answers", sa.Column("clash", sa.Uuid))
    op.create_index(
        "ix_answers_replaces",
        "answers",
        ["clinic_id", "replaces"],
        postgresql_where=sa.text("replaces IS NOT NULL"),
    )
    op.create_index(
        "ix_answers_clash",
        "answers",
        ["clinic_id", "screen_id"],
        postgresql_where=sa.text("clash IS NOT NULL"),
    )
    op.execute(STANDING)
    op.execute(EXAMINED)
