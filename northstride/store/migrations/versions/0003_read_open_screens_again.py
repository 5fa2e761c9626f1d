"""Open screens are read again: the rules have grown from the hip to the foot.

Kept readings are derived, so nothing is lost. Those of signed screens are frozen and stay.
"""

from __future__ import annotations

from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

FORGET = """
DELETE FROM readings USING screens
WHERE screens.clinic_id = readings.clinic_id AND screens.id = readings.screen_id
  AND screens.signed_at IS NULL
"""


def upgrade() -> None:
    op.execute(FORGET)


def downgrade() -> None:
    """What was forgotten is read again when it is asked for."""
