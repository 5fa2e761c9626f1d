"""Days to come for a calendar: one's own secret address, and the file of one date."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal
from uuid import UUID
from zoneinfo import ZoneInfo

from anyio import to_thread
from fastapi import APIRouter, Path, Query, Response

from northstride.api.bodies import Id, Input, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ServicesDep, WorkDep
from northstride.interchange.calendar import DateOf, calendar_of
from northstride.store.days import calendar as store
from northstride.store.errors import NotFound
from northstride.store.transfers.exports import went_out

router = APIRouter(prefix="/api", tags=["calendar"], route_class=StrictJsonRoute)

CALENDAR_TYPE = "text/calendar; charset=utf-8"
CALENDAR: dict[int | str, dict[str, Any]] = {200: {"content": {"text/calendar": {}}}}
Secret = Annotated[str, Path(min_length=20, max_length=80, pattern=r"^[A-Za-z0-9_-]+$")]
Action = Annotated[str, Query(max_length=100)]


class FeedInput(Input):
    """`named`: names and findings may stand in it."""

    id: Id
    named: bool = False


class FeedOut(Output):
    """Whether there is an address, and when a calendar last asked there. The address is kept nowhere."""

    on: bool
    named: bool
    since: dt.datetime | None
    read_at: dt.datetime | None


class MadeFeedOut(Output):
    """Shown once. `path` follows the address of this app."""

    path: str


@router.get("/calendar", operation_id="read_calendar")
def read(work: WorkDep) -> FeedOut:
    feed = store.feed_of(work.db, work.actor)
    if feed is None:
        return FeedOut(on=False, named=False, since=None, read_at=None)
    return FeedOut(on=True, named=feed.named, since=feed.created_at, read_at=feed.read_at)


@router.post("/calendar", operation_id="make_calendar", status_code=201)
def make(body: FeedInput, work: WorkDep) -> MadeFeedOut:
    """A new address. The one before opens nothing any more."""
    secret = store.make_feed(work.db, work.actor, body.id, named=body.named)
    work.commit()
    return MadeFeedOut(path=f"/api/calendar/{secret}.ics")


@router.delete("/calendar", operation_id="revoke_calendar", status_code=204)
def revoke(work: WorkDep) -> None:
    store.revoke_feed(work.db, work.actor)
    work.commit()


@router.get(
    "/calendar/{secret}.ics", operation_id="read_calendar_feed", response_class=Response, responses=CALENDAR
)
async def feed(secret: Secret, services: ServicesDep) -> Response:
    """Asked by a calendar, which signs in nowhere: whoever has the address reads it."""

    def whole() -> bytes:
        with services.engine.connect() as db:
            asks = store.who_asks(db, secret)
            due = store.dates_of(db, asks.actor)
            told = {"dates": len(due), "named": asks.named}
            went_out(db, asks.actor, "calendar", asks.feed_id, "calendar feed", **told)
            db.commit()
        zone = ZoneInfo(asks.actor.time_zone)
        dates = [_date(each, named=asks.named) for each in due]
        return calendar_of(dates, zone, f"{asks.clinic}: days to come")

    return Response(await to_thread.run_sync(whole), media_type=CALENDAR_TYPE)


@router.get(
    "/screens/{screen_id}/date", operation_id="export_date", response_class=Response, responses=CALENDAR
)
def export_date(
    screen_id: UUID,
    work: WorkDep,
    action: Action,
    side: Literal["left", "right"] | None = None,
    named: bool = False,
) -> Response:
    """The file of one date. Raises NotFound where the action has no days, or is done."""
    due = store.dates_of(work.db, work.actor, screen_id)
    found = [each for each in due if (each.row.code, each.row.side) == (action, side)]
    if not found:
        raise NotFound("screen", screen_id)
    went_out(work.db, work.actor, "screen", screen_id, "date, calendar file", action=action, named=named)
    work.commit()
    content = calendar_of([_date(found[0], named=named)], ZoneInfo(work.actor.time_zone), "North Stride")
    name = f"north-stride-{found[0].on}-{screen_id}.ics"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=CALENDAR_TYPE, headers=headers)


def _date(due: store.Due, *, named: bool) -> DateOf:
    row = due.row
    return DateOf(
        screen=row.screen_id,
        action=row.code,
        side=row.side,
        urgency=row.urgency,
        says=row.says,
        ref=row.athlete_ref,
        name=row.athlete_name if named else None,
        on=due.on,
        until=due.until,
        at_time=due.at_time,
        whom=due.whom,
        changes=due.changes,
        changed_at=due.changed_at,
    )
