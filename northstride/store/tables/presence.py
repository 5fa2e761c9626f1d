"""Who is at which place of a screen just now."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from sqlalchemy import Index, PrimaryKeyConstraint, text
from sqlalchemy.orm import Mapped, mapped_column

from northstride.store.tables.base import Base, in_clinic, one_of


class Presence(Base):
    """One device at one screen: said again and again, forgotten within the hour. No record."""

    __tablename__ = "presence"
    clinic_id: Mapped[UUID]
    screen_id: Mapped[UUID]
    device: Mapped[str]
    user_id: Mapped[UUID]
    step: Mapped[str]
    test: Mapped[str | None]
    side: Mapped[str | None]
    seen_at: Mapped[dt.datetime] = mapped_column(server_default=text("now()"))
    __table_args__ = (
        PrimaryKeyConstraint("clinic_id", "screen_id", "device"),
        in_clinic("screens", "screen_id"),
        in_clinic("users", "user_id"),
        one_of("side", "left", "right"),
        Index(None, "seen_at"),
    )
