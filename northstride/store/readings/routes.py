"""The route of a screen, and the routes a clinic keeps."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row

from northstride.core.catalogue import Catalogue
from northstride.core.route import make_route
from northstride.core.terms.errors import Fault
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.record.route import RouteOut, route_out
from northstride.store.actor import Actor
from northstride.store.clinic_list import CLINIC_ROUTES
from northstride.store.errors import Refused
from northstride.store.readings.contexts import earlier_screens, read_context
from northstride.store.readings.readings import NO_ERRORS, unreadable
from northstride.store.signed.records import current_record


def route_of(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> RouteOut:
    """With what is done on it, held against the athlete's earlier screens. Raises Unreadable."""
    record = current_record(db, actor, catalogue, screen)
    try:
        exam = check_record(record, catalogue).exam
    except InvalidRecord as invalid:
        raise unreadable(catalogue, record, invalid) from invalid
    earlier = earlier_screens(db, actor, catalogue, screen)
    context = read_context(db, actor, catalogue, earlier, NO_ERRORS)
    return route_out(str(screen.id), make_route(exam, catalogue, context, whole=True))


def keep_route(
    db: Connection,
    actor: Actor,
    catalogue: Catalogue,
    route_id: UUID,
    *,
    purpose: str,
    name: str,
    tests: Sequence[str],
    reasons_after: bool,
) -> None:
    """Safe to repeat. Raises Refused for unknown tests or a name in use, Differs for another content."""
    faults = [
        Fault(f"tests[{place}]", code, f'"{code}" is not a test in the catalogue')
        for place, code in enumerate(tests)
        if code not in catalogue.tests
    ]
    if faults:
        raise Refused(faults)
    content = {"purpose": purpose, "name": name, "tests": list(tests), "reasons_after": reasons_after}
    CLINIC_ROUTES.keep(db, actor, route_id, content)
