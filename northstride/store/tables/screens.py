"""Screens, their answers one field a row, and a measurement row beside each number."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from sqlalchemy import (
    CheckConstraint,
    Date,
    ForeignKeyConstraint,
    Index,
    PrimaryKeyConstraint,
    UniqueConstraint,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from northstride.store.tables.base import Base, Json, in_clinic, one_of


class Screen(Base):
    """`athlete_part` is the athlete as an imported file wrote it; else the athlete's own row speaks."""

    __tablename__ = "screens"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    athlete_id: Mapped[UUID]
    date: Mapped[dt.date] = mapped_column(Date)
    purpose: Mapped[str]
    examiner: Mapped[str | None]
    schools: Mapped[Json]
    intake: Mapped[Json | None]
    planned: Mapped[Json]
    left_out: Mapped[Json] = mapped_column(server_default=text("'[]'::jsonb"))
    reasons_after: Mapped[bool | None]
    consent: Mapped[Json | None]
    overrides: Mapped[Json]
    athlete_part: Mapped[Json | None]
    # What whoever began it asked for: another plan under the same id is another screen.
    begun_with: Mapped[Json | None]
    # Names in it are as a file wrote them.
    from_file: Mapped[bool] = mapped_column(server_default=text("false"))
    revision: Mapped[int] = mapped_column(server_default=text("0"))
    created_by: Mapped[UUID]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    signed_at: Mapped[dt.datetime | None]
    signed_by: Mapped[UUID | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("athletes", "athlete_id"),
        in_clinic("users", "created_by", name="fk_screens_created_by_users"),
        in_clinic("users", "signed_by", name="fk_screens_signed_by_users"),
        CheckConstraint("(signed_at IS NULL) = (signed_by IS NULL)", name="signed_by_someone"),
        # The newest screen of each athlete is asked at every list.
        Index("ix_screens_newest", "clinic_id", "athlete_id", text("date DESC"), text("created_at DESC")),
        # Open screens are few beside signed ones, and looked through again and again.
        Index(
            "ix_screens_open",
            "clinic_id",
            text("date DESC"),
            text("created_at DESC"),
            postgresql_where=text("signed_at IS NULL"),
        ),
    )


class Answer(Base):
    """One changed field. Never updated, never deleted: the database refuses."""

    __tablename__ = "answers"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    screen_id: Mapped[UUID]
    revision: Mapped[int]
    test: Mapped[str]
    entry_id: Mapped[UUID]
    entry_side: Mapped[str | None]
    key: Mapped[str]
    side: Mapped[str | None]
    field: Mapped[str]
    value: Mapped[Json | None]
    replaces: Mapped[UUID | None]
    user_id: Mapped[UUID]
    by_name: Mapped[str | None]
    observed_at: Mapped[dt.datetime | None]
    observed_zone: Mapped[int | None]
    # By our clock; none in what was kept before that was told apart.
    seen_at: Mapped[dt.datetime | None]
    # Kept as history: at its place stands what was seen later. `clash`: differs from this other answer.
    beside: Mapped[bool] = mapped_column(server_default=text("false"))
    clash: Mapped[UUID | None]
    recorded_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    device: Mapped[str]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        in_clinic("answers", "replaces"),
        UniqueConstraint("clinic_id", "screen_id", "revision"),
        Index("ix_answers_replaces", "clinic_id", "replaces", postgresql_where=text("replaces IS NOT NULL")),
        Index("ix_answers_clash", "clinic_id", "screen_id", postgresql_where=text("clash IS NOT NULL")),
        one_of("entry_side", "left", "right"),
        one_of("side", "left", "right"),
    )


class Measurement(Base):
    """One numeric measure as trends and squads read it, beside the raw answer it comes from."""

    __tablename__ = "measurements"
    clinic_id: Mapped[UUID]
    answer_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    athlete_id: Mapped[UUID]
    date: Mapped[dt.date] = mapped_column(Date)
    test: Mapped[str]
    measure: Mapped[str]
    key: Mapped[str]
    side: Mapped[str | None]
    method: Mapped[str | None]
    mean: Mapped[float]
    median: Mapped[float]
    trials: Mapped[int]
    current: Mapped[bool]
    validity: Mapped[str]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "answer_id"),
        ForeignKeyConstraint(["clinic_id", "answer_id"], ["answers.clinic_id", "answers.id"]),
        in_clinic("screens", "screen_id"),
        in_clinic("athletes", "athlete_id"),
        one_of("side", "left", "right"),
        one_of("validity", "valid", "flattered", "void", "held"),
        Index(
            "ix_measurements_athlete_current",
            "clinic_id",
            "athlete_id",
            "test",
            "measure",
            "date",
            postgresql_where=text("current"),
        ),
        Index(
            "ix_measurements_measure_current",
            "clinic_id",
            "test",
            "measure",
            "date",
            postgresql_where=text("current"),
        ),
        Index("ix_measurements_screen", "clinic_id", "screen_id", postgresql_where=text("current")),
    )
