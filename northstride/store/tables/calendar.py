"""Addresses at which a calendar asks for the days to come."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from sqlalchemy import Index, PrimaryKeyConstraint, UniqueConstraint, text
from sqlalchemy.orm import Mapped, mapped_column

from northstride.store.tables.base import Base, in_clinic


class CalendarFeed(Base):
    """Only the hash of its secret is kept. `named`: names and findings may stand in it."""

    __tablename__ = "calendar_feeds"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    user_id: Mapped[UUID]
    secret_hash: Mapped[str]
    named: Mapped[bool]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    read_at: Mapped[dt.datetime | None]
    revoked_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        UniqueConstraint("secret_hash"),
        in_clinic("users", "user_id"),
        # One address a user.
        Index(
            "uq_calendar_feeds_open",
            "clinic_id",
            "user_id",
            unique=True,
            postgresql_where=text("revoked_at IS NULL"),
        ),
    )
