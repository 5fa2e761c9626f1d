"""Who acts, and the trail they leave."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal
from uuid import UUID

from sqlalchemy import Connection, insert, select

from northstride.store.tables import Audit

Role = Literal["owner", "practitioner", "assistant", "student"]


@dataclass(frozen=True, slots=True)
class Actor:
    """A signed-in user. Every query is scoped by `clinic_id`."""

    clinic_id: UUID
    user_id: UUID
    name: str
    role: Role
    session_id: UUID | None
    time_zone: str

    @classmethod
    def nobody(cls, clinic_id: UUID) -> Actor:
        """The app itself within a clinic: reads what it keeps for lists, shows nothing to anybody."""
        return cls(clinic_id, UUID(int=0), "", "assistant", None, "UTC")


def audit(
    db: Connection,
    actor: Actor,
    verb: str,
    noun: str,
    noun_id: UUID | None = None,
    detail: Mapping[str, object] | None = None,
) -> None:
    """One row for one read or write of a record. What an answer says stays out of it."""
    db.execute(
        insert(Audit).values(
            clinic_id=actor.clinic_id,
            user_id=actor.user_id,
            session_id=actor.session_id,
            verb=verb,
            noun=noun,
            noun_id=noun_id,
            detail=dict(detail) if detail else None,
        )
    )


def audit_opening_once(db: Connection, actor: Actor, noun: str, noun_id: UUID) -> None:
    """For what a page asks again and again: the session's first time is the opening, the rest adds none."""
    opened = db.execute(
        select(Audit.id)
        .where(
            Audit.clinic_id == actor.clinic_id,
            Audit.noun == noun,
            Audit.noun_id == noun_id,
            Audit.session_id == actor.session_id,
        )
        .limit(1)
    ).first()
    if opened is None:
        audit(db, actor, "open", noun, noun_id)
