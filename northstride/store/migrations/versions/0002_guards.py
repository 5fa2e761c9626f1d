"""What the database itself refuses, whoever asks: changes to answers, audit and signed screens.

Kept apart from the tables so that the promise can be read in one place.
"""

from __future__ import annotations

from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

APPEND_ONLY = ("answers", "audit", "signatures", "late_answers", "arrangements")

REFUSE_CHANGE = """
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'append-only: % of % is refused', TG_OP, TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
"""

REFUSE_SIGNED_CHANGE = """
CREATE FUNCTION refuse_signed_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.signed_at IS NOT NULL THEN
    RAISE EXCEPTION 'signed: % of screen % is refused', TG_OP, OLD.id USING ERRCODE = 'restrict_violation';
  END IF;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;
"""

REFUSE_ANSWER_TO_SIGNED = """
CREATE FUNCTION refuse_answer_to_signed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM screens
             WHERE clinic_id = NEW.clinic_id AND id = NEW.screen_id AND signed_at IS NOT NULL) THEN
    RAISE EXCEPTION 'signed: an answer to screen % is refused', NEW.screen_id
      USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
"""


def statements() -> list[str]:
    made = [REFUSE_CHANGE, REFUSE_SIGNED_CHANGE, REFUSE_ANSWER_TO_SIGNED]
    for table in APPEND_ONLY:
        made.append(
            f"CREATE TRIGGER {table}_append_only BEFORE UPDATE OR DELETE ON {table} "
            "FOR EACH ROW EXECUTE FUNCTION refuse_change()"
        )
        made.append(
            f"CREATE TRIGGER {table}_no_truncate BEFORE TRUNCATE ON {table} "
            "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
        )
    made.append(
        "CREATE TRIGGER screens_signed_frozen BEFORE UPDATE OR DELETE ON screens "
        "FOR EACH ROW EXECUTE FUNCTION refuse_signed_change()"
    )
    made.append(
        "CREATE TRIGGER screens_no_truncate BEFORE TRUNCATE ON screens "
        "FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()"
    )
    made.append(
        "CREATE TRIGGER answers_open_screen BEFORE INSERT ON answers "
        "FOR EACH ROW EXECUTE FUNCTION refuse_answer_to_signed()"
    )
    return made


def upgrade() -> None:
    for statement in statements():
        op.execute(statement)
