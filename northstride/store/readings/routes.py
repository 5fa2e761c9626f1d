"""The route of a screen, and the routes a clinic keeps."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, func, insert, select, update

from northstride.core.catalogue import Catalogue
from northstride.core.route import make_route
from northstride.core.terms.errors import Fault
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.record.route import RouteOut, route_out
from northstride.store.actor import Actor, audit
from northstride.store.errors import Differs, NotFound, Refused
from northstride.store.readings.contexts import earlier_screens, read_context
from northstride.store.readings.readings import NO_ERRORS, unreadable
from northstride.store.signed.records import current_record
from northstride.store.tables import ClinicRoute


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


def list_routes(db: Connection, actor: Actor) -> Sequence[Row[Any]]:
    """Those in use, by purpose and name."""
    return db.execute(
        select(ClinicRoute.__table__)
        .where(ClinicRoute.clinic_id == actor.clinic_id, ClinicRoute.archived_at.is_(None))
        .order_by(ClinicRoute.purpose, ClinicRoute.name)
    ).all()


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
    content = {"purpose": purpose, "name": name, "tests": list(tests), "reasons_after": reasons_after}
    standing = db.execute(
        select(ClinicRoute.__table__).where(
            ClinicRoute.clinic_id == actor.clinic_id, ClinicRoute.id == route_id
        )
    ).first()
    if standing is not None:
        if paths := [part for part, value in content.items() if getattr(standing, part) != value]:
            raise Differs("route", route_id, paths)
        return
    faults = [
        Fault(f"tests[{place}]", code, f'"{code}" is not a test in the catalogue')
        for place, code in enumerate(tests)
        if code not in catalogue.tests
    ]
    if faults:
        raise Refused(faults)
    _check_name(db, actor, purpose, name)
    db.execute(
        insert(ClinicRoute).values(
            clinic_id=actor.clinic_id, id=route_id, created_by=actor.user_id, **content
        )
    )
    audit(db, actor, "keep", "route", route_id)


def archive_route(db: Connection, actor: Actor, route_id: UUID) -> None:
    """Out of use. Safe to repeat. Raises NotFound."""
    found = db.execute(
        update(ClinicRoute)
        .where(ClinicRoute.clinic_id == actor.clinic_id, ClinicRoute.id == route_id)
        .values(archived_at=func.coalesce(ClinicRoute.archived_at, func.now()))
    )
    if found.rowcount == 0:
        raise NotFound("route", route_id)
    audit(db, actor, "archive", "route", route_id)


def _check_name(db: Connection, actor: Actor, purpose: str, name: str) -> None:
    taken = db.execute(
        select(ClinicRoute.id).where(
            ClinicRoute.clinic_id == actor.clinic_id,
            ClinicRoute.purpose == purpose,
            ClinicRoute.name == name,
            ClinicRoute.archived_at.is_(None),
        )
    ).first()
    if taken is not None:
        raise Refused([Fault("name", name, f'"{name}" is another route of this purpose')])
