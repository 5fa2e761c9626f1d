"""Every table. `clinic_id` leads each key: isolation by construction, and the key to spread by."""

from __future__ import annotations

import datetime as dt
from typing import Any
from uuid import UUID

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    Date,
    DateTime,
    Double,
    ForeignKeyConstraint,
    Identity,
    Index,
    MetaData,
    PrimaryKeyConstraint,
    Text,
    UniqueConstraint,
    text,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

NAMES = {
    "pk": "pk_%(table_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
}
Json = Any


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMES)
    type_annotation_map = {
        str: Text,
        dt.datetime: DateTime(timezone=True),
        Json: JSONB(none_as_null=True),
        float: Double,
    }


def in_clinic(table: str, column: str, name: str | None = None) -> ForeignKeyConstraint:
    """A foreign key that cannot leave the clinic."""
    return ForeignKeyConstraint(["clinic_id", column], [f"{table}.clinic_id", f"{table}.id"], name=name)


def one_of(column: str, *values: str) -> CheckConstraint:
    listed = ", ".join(f"'{value}'" for value in values)
    return CheckConstraint(f"{column} IN ({listed})", name=column)


class Clinic(Base):
    __tablename__ = "clinics"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    name: Mapped[str]
    time_zone: Mapped[str]
    schools: Mapped[Json]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))


class User(Base):
    __tablename__ = "users"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    login: Mapped[str]
    name: Mapped[str]
    role: Mapped[str]
    password_hash: Mapped[str]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    archived_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        ForeignKeyConstraint(["clinic_id"], ["clinics.id"]),
        UniqueConstraint("login"),
        one_of("role", "owner", "practitioner", "assistant", "student"),
        CheckConstraint("login = lower(login)", name="login_is_lower"),
    )


class SignIn(Base):
    """A session. Only the hash of its token is kept."""

    __tablename__ = "sessions"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    user_id: Mapped[UUID]
    token_hash: Mapped[str]
    csrf: Mapped[str]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    last_seen_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    ended_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("users", "user_id"),
        UniqueConstraint("token_hash"),
    )


class SignInFailure(Base):
    """Counted before anyone is known, so it belongs to no clinic. Keys are hashes."""

    __tablename__ = "sign_in_failures"
    id: Mapped[int] = mapped_column(BigInteger, Identity(), primary_key=True)
    key: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (Index(None, "key", "at"),)


class Squad(Base):
    __tablename__ = "squads"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    name: Mapped[str]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    archived_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        ForeignKeyConstraint(["clinic_id"], ["clinics.id"]),
        UniqueConstraint("clinic_id", "name"),
    )


class Athlete(Base):
    __tablename__ = "athletes"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    ref: Mapped[str]
    name: Mapped[str]
    birth_date: Mapped[dt.date | None] = mapped_column(Date)
    sex: Mapped[str | None]
    sport: Mapped[str | None]
    dominant_side: Mapped[str | None]
    body_mass_kg: Mapped[float | None]
    height_cm: Mapped[float | None]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    archived_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        ForeignKeyConstraint(["clinic_id"], ["clinics.id"]),
        UniqueConstraint("clinic_id", "ref"),
        one_of("sex", "female", "male", "other"),
        one_of("dominant_side", "left", "right", "both"),
    )


class SquadMember(Base):
    __tablename__ = "squad_members"
    clinic_id: Mapped[UUID]
    squad_id: Mapped[UUID]
    athlete_id: Mapped[UUID]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "squad_id", "athlete_id"),
        in_clinic("squads", "squad_id"),
        in_clinic("athletes", "athlete_id"),
        Index(None, "clinic_id", "athlete_id"),
    )


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
    consent: Mapped[Json | None]
    overrides: Mapped[Json]
    athlete_part: Mapped[Json | None]
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
        Index(None, "clinic_id", "athlete_id", "date"),
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
    recorded_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    device: Mapped[str]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        in_clinic("answers", "replaces"),
        UniqueConstraint("clinic_id", "screen_id", "revision"),
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


class StoredReading(Base):
    """Derived: recomputed whenever revision, rules or context no longer match."""

    __tablename__ = "readings"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    revision: Mapped[int]
    rules: Mapped[str]
    context_hash: Mapped[str]
    document: Mapped[Json]
    __table_args__ = (PrimaryKeyConstraint("clinic_id", "screen_id"), in_clinic("screens", "screen_id"))


class StoredFlag(Base):
    __tablename__ = "reading_flags"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    place: Mapped[int]
    code: Mapped[str]
    side: Mapped[str | None]
    strength: Mapped[str]
    urgency: Mapped[str | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id", "place"),
        in_clinic("screens", "screen_id"),
        one_of("side", "left", "right"),
        one_of("strength", "possible", "likely", "strong"),
    )


class StoredAction(Base):
    __tablename__ = "reading_actions"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    place: Mapped[int]
    code: Mapped[str]
    side: Mapped[str | None]
    urgency: Mapped[str]
    start: Mapped[dt.date | None] = mapped_column(Date)
    end: Mapped[dt.date | None] = mapped_column(Date)
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id", "place"),
        in_clinic("screens", "screen_id"),
        one_of("side", "left", "right"),
        Index(None, "clinic_id", "urgency"),
    )


class Signature(Base):
    """Number 0 is the signing; each later one an amendment with its reason. Frozen documents."""

    __tablename__ = "signatures"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    number: Mapped[int]
    id: Mapped[UUID]
    reason: Mapped[str | None]
    revision: Mapped[int]
    record: Mapped[Json]
    context: Mapped[Json]
    reading: Mapped[Json]
    changes: Mapped[Json]
    user_id: Mapped[UUID]
    by_name: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id", "number"),
        UniqueConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        CheckConstraint("(number = 0) = (reason IS NULL)", name="amendment_has_reason"),
    )


class LateAnswer(Base):
    """An answer that arrived after signing: a draft for an amendment, never dropped."""

    __tablename__ = "late_answers"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    screen_id: Mapped[UUID]
    body: Mapped[Json]
    user_id: Mapped[UUID]
    by_name: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
    )


class Arrangement(Base):
    """Somebody saw to an action: who, when, how."""

    __tablename__ = "arrangements"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    screen_id: Mapped[UUID]
    action: Mapped[str]
    side: Mapped[str | None]
    on: Mapped[dt.date] = mapped_column(Date)
    note: Mapped[str]
    user_id: Mapped[UUID]
    by_name: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        one_of("side", "left", "right"),
    )


class Audit(Base):
    __tablename__ = "audit"
    clinic_id: Mapped[UUID]
    id: Mapped[int] = mapped_column(BigInteger, Identity())
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    user_id: Mapped[UUID]
    session_id: Mapped[UUID | None]
    verb: Mapped[str]
    noun: Mapped[str]
    noun_id: Mapped[UUID | None]
    detail: Mapped[Json | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        ForeignKeyConstraint(["clinic_id"], ["clinics.id"]),
        Index(None, "clinic_id", "noun", "noun_id", "session_id"),
    )
