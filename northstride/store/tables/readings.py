"""What screens read as, what was signed, and what is to be done about it."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from sqlalchemy import (
    ARRAY,
    CheckConstraint,
    Date,
    Index,
    PrimaryKeyConstraint,
    Text,
    UniqueConstraint,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from northstride.store.tables.base import Base, Json, in_clinic, one_of


class StoredReading(Base):
    """Derived: what lists show, and the last reading of an open screen under its identity.

    A signed screen keeps no document here: `signature` says which signature its flags come from.
    `fault` says why a screen could not be read.
    """

    __tablename__ = "readings"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    revision: Mapped[int]
    athlete_revision: Mapped[int]
    shipped: Mapped[str]
    signature: Mapped[int | None]
    identity: Mapped[Json | None]
    document: Mapped[Json | None]
    fault: Mapped[str | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id"),
        in_clinic("screens", "screen_id"),
        Index("ix_readings_open", "clinic_id", "screen_id", postgresql_where=text("signature IS NULL")),
    )


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
    says: Mapped[str | None]
    tests: Mapped[list[str] | None] = mapped_column(ARRAY(Text))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id", "place"),
        in_clinic("screens", "screen_id"),
        one_of("side", "left", "right"),
        # What asks for more than training is little beside the rest, and looked for every day.
        Index(
            "ix_reading_actions_asking", "clinic_id", "urgency", postgresql_where=text("urgency <> 'train'")
        ),
    )


class Signature(Base):
    """Number 0 is the signing; each later one an amendment with its reason. Frozen documents.

    `format` says how the documents are written, and they are read by it for ever. `identity` is that
    of the reading that was seen; `differences` says what an amendment changed, and why.
    """

    __tablename__ = "signatures"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    number: Mapped[int]
    id: Mapped[UUID]
    reason: Mapped[str | None]
    revision: Mapped[int]
    format: Mapped[int]
    identity: Mapped[Json | None]
    differences: Mapped[Json | None]
    record: Mapped[Json]
    context: Mapped[Json]
    reading: Mapped[Json]
    changes: Mapped[Json]
    words: Mapped[Json | None]
    user_id: Mapped[UUID]
    by_name: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id", "number"),
        UniqueConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        CheckConstraint("(number = 0) = (reason IS NULL)", name="amendment_has_reason"),
        CheckConstraint("format = 1 OR identity IS NOT NULL", name="has_identity"),
    )


class SheetWords(Base):
    """Words a practitioner put in the place of ours on a sheet; none where they took theirs back.

    `signature`: the number of the one they were put to; none while the screen was open.
    """

    __tablename__ = "sheet_words"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    screen_id: Mapped[UUID]
    sheet: Mapped[str]
    field: Mapped[str]
    value: Mapped[str | None]
    signature: Mapped[int | None]
    user_id: Mapped[UUID]
    by_name: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("clock_timestamp()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        one_of("sheet", "report", "letter", "athlete"),
        Index(None, "clinic_id", "screen_id"),
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
        Index(None, "clinic_id", "screen_id"),
    )


class Arrangement(Base):
    """One step of what is done about an action: who saw to it, for when, how; or why not."""

    __tablename__ = "arrangements"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    screen_id: Mapped[UUID]
    action: Mapped[str]
    side: Mapped[str | None]
    does: Mapped[str] = mapped_column(server_default=text("'arranged'"))
    on: Mapped[dt.date | None] = mapped_column(Date)
    until: Mapped[dt.date | None] = mapped_column(Date)
    at_time: Mapped[str | None]
    whom: Mapped[str] = mapped_column(server_default=text("''"))
    note: Mapped[str]
    undoes: Mapped[UUID | None]
    user_id: Mapped[UUID]
    by_name: Mapped[str]
    at: Mapped[dt.datetime] = mapped_column(server_default=text("clock_timestamp()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        one_of("side", "left", "right"),
        one_of("does", "arranged", "again", "closed", "left", "undone"),
        CheckConstraint("does NOT IN ('arranged', 'again') OR \"on\" IS NOT NULL", name="has_its_day"),
        CheckConstraint("(does = 'undone') = (undoes IS NOT NULL)", name="undoes_one"),
        Index(None, "clinic_id", "screen_id"),
    )
