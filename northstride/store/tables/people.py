"""Clinics, who works there, who is screened, and the audit of both."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    Date,
    ForeignKeyConstraint,
    Identity,
    Index,
    PrimaryKeyConstraint,
    UniqueConstraint,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from northstride.store.tables.base import Base, Json, in_clinic, one_of


class Clinic(Base):
    __tablename__ = "clinics"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    name: Mapped[str]
    time_zone: Mapped[str]
    schools: Mapped[Json]
    # After this long without use an open page locks and the session ends.
    idle_minutes: Mapped[int] = mapped_column(server_default=text("15"))
    # What stands on sheets that leave; what is empty is said before one does.
    address: Mapped[str] = mapped_column(server_default=text("''"))
    phone: Mapped[str] = mapped_column(server_default=text("''"))
    night_phone: Mapped[str] = mapped_column(server_default=text("''"))
    emergency_number: Mapped[str] = mapped_column(server_default=text("''"))
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (CheckConstraint("idle_minutes BETWEEN 1 AND 120", name="idle_minutes"),)


class User(Base):
    __tablename__ = "users"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    login: Mapped[str]
    name: Mapped[str]
    role: Mapped[str]
    password_hash: Mapped[str]
    # What a device keeps unsent after signing out is sealed with this; only the owner's session tells it.
    seal_key: Mapped[str] = mapped_column(
        server_default=text("replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', '')")
    )
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
    # Tells a device somebody has signed in on before from any other.
    device_hash: Mapped[str | None]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    last_seen_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    ended_at: Mapped[dt.datetime | None]
    # The session of the device that took this one along.
    maker: Mapped[UUID | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("users", "user_id"),
        in_clinic("sessions", "maker", name="fk_sessions_maker"),
        Index("ix_sessions_maker", "clinic_id", "maker", postgresql_where=text("maker IS NOT NULL")),
        UniqueConstraint("token_hash"),
        Index(None, "clinic_id", "user_id", "device_hash"),
    )


class Guess(Base):
    """How often a password was lately guessed wrong, and when the next try is taken.

    Counted before anyone is known, so it belongs to no clinic. Keys are hashes.
    """

    __tablename__ = "guesses"
    key: Mapped[str] = mapped_column(primary_key=True)
    failures: Mapped[int]
    last_at: Mapped[dt.datetime]
    next_at: Mapped[dt.datetime]


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
    # The same for references that differ in case, or only to a machine.
    ref_fold: Mapped[str]
    ref_looks: Mapped[str]
    name: Mapped[str]
    birth_date: Mapped[dt.date | None] = mapped_column(Date)
    sex: Mapped[str | None]
    sport: Mapped[str | None]
    dominant_side: Mapped[str | None]
    body_mass_kg: Mapped[float | None]
    height_cm: Mapped[float | None]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    archived_at: Mapped[dt.datetime | None]
    # The athlete this one turned out to be.
    merged_into: Mapped[UUID | None]
    # Goes up with each edit: readings depend on it, and an edit names the one it has seen.
    revision: Mapped[int] = mapped_column(server_default=text("1"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        ForeignKeyConstraint(["clinic_id"], ["clinics.id"]),
        in_clinic("athletes", "merged_into", name="fk_athletes_merged_into"),
        UniqueConstraint("clinic_id", "ref"),
        UniqueConstraint("clinic_id", "ref_fold", name="uq_athletes_ref_fold"),
        UniqueConstraint("clinic_id", "ref_looks", name="uq_athletes_ref_looks"),
        Index(None, "clinic_id", "name", "ref", "id"),
        one_of("sex", "female", "male", "other"),
        one_of("dominant_side", "left", "right", "both"),
    )


class AthleteMerge(Base):
    """Somebody who stood twice and was brought together. `moved` names what went over."""

    __tablename__ = "athlete_merges"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    kept: Mapped[UUID]
    gone: Mapped[UUID]
    moved: Mapped[Json]
    user_id: Mapped[UUID]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    undone_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("athletes", "kept", name="fk_athlete_merges_kept"),
        in_clinic("athletes", "gone", name="fk_athlete_merges_gone"),
        in_clinic("users", "user_id"),
    )


class LetterTemplate(Base):
    """Free lines of a letter that a clinic keeps, with named fields in braces."""

    __tablename__ = "letter_templates"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    name: Mapped[str]
    lines: Mapped[Json]
    created_by: Mapped[UUID]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    archived_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("users", "created_by"),
        Index(
            "ix_letter_templates_name",
            "clinic_id",
            "name",
            unique=True,
            postgresql_where=text("archived_at IS NULL"),
        ),
    )


class ClinicRoute(Base):
    """A route a clinic keeps for a purpose: tests in order. `reasons_after` hides why until they are done."""

    __tablename__ = "routes"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    purpose: Mapped[str]
    name: Mapped[str]
    tests: Mapped[Json]
    reasons_after: Mapped[bool]
    created_by: Mapped[UUID]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    archived_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("users", "created_by"),
        Index(
            "ix_routes_name",
            "clinic_id",
            "purpose",
            "name",
            unique=True,
            postgresql_where=text("archived_at IS NULL"),
        ),
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
