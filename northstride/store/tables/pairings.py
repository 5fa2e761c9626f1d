"""Codes for a second device."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from sqlalchemy import PrimaryKeyConstraint, UniqueConstraint, text
from sqlalchemy.orm import Mapped, mapped_column

from northstride.store.tables.base import Base, in_clinic


class Pairing(Base):
    """Only the hash of its code is kept. It works once, for two minutes, while its maker is signed in."""

    __tablename__ = "pairings"
    clinic_id: Mapped[UUID]
    id: Mapped[UUID]
    user_id: Mapped[UUID]
    session_id: Mapped[UUID]
    screen_id: Mapped[UUID | None]
    code_hash: Mapped[str]
    created_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    used_at: Mapped[dt.datetime | None]
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "id"),
        UniqueConstraint("code_hash"),
        in_clinic("users", "user_id"),
        in_clinic("sessions", "session_id"),
        in_clinic("screens", "screen_id"),
    )
