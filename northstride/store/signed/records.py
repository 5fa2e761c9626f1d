"""The record of a screen, open or signed."""

from __future__ import annotations

from typing import Any

from sqlalchemy import Connection, Row

from northstride.core.catalogue import Catalogue
from northstride.store.actor import Actor
from northstride.store.screens.screens import open_record
from northstride.store.signed.frozen import latest_signature


def current_record(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> dict[str, Any]:
    """A signed screen's as its newest signature keeps it, an open one's as it stands."""
    if screen.signed_at is not None:
        return latest_signature(db, actor, screen.id).record
    return open_record(db, actor, catalogue, screen)
