"""Days to come as iCalendar: windows of days, booked times, the same event for the same action."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event

from northstride import CAUTION
from northstride.core.findings import REFERRED
from northstride.core.wording.flag_names import FLAG_NAMES

PRODUCT = "-//North Stride//North Stride//EN"
NAMESPACE = UUID("3f3b7a52-3c1d-5a8e-8b44-9f7f2f0a6f10")
BOOKED_FOR = dt.timedelta(minutes=30)
# An action's code names its flag this way.
FLAG_OF = {code.replace(".", "_"): name for code, name in FLAG_NAMES.items()}


@dataclass(frozen=True, slots=True)
class DateOf:
    """An action with its days. `until` is the last of them; `at_time`, HH:MM by the clinic's clock.

    `changes` counts what happened to it, `changed_at` says when the last did. `name` none leaves out
    who it is and what was found.
    """

    screen: UUID
    action: str
    side: str | None
    urgency: str
    says: str | None
    ref: str
    name: str | None
    on: dt.date
    until: dt.date
    at_time: str | None
    whom: str
    changes: int
    changed_at: dt.datetime

    @property
    def uid(self) -> str:
        return f"{uuid5(NAMESPACE, f'{self.screen} {self.action} {self.side}')}@north-stride"


def calendar_of(dates: Iterable[DateOf], zone: ZoneInfo, title: str) -> bytes:
    """Events in the order given; two of one action are a mistake of the caller."""
    calendar = Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", title)
    calendar.add("x-wr-timezone", zone.key)
    for date in dates:
        calendar.add_component(_event(date, zone))
    text: bytes = calendar.to_ical()
    return text


def _event(date: DateOf, zone: ZoneInfo) -> Event:
    event = Event()
    event.add("uid", date.uid)
    event.add("sequence", date.changes)
    event.add("dtstamp", date.changed_at.astimezone(dt.UTC))
    event.add("last-modified", date.changed_at.astimezone(dt.UTC))
    event.add("summary", _summary(date))
    event.add("description", "\n".join(part for part in (date.name and date.whom, CAUTION) if part))
    event.add("class", "PRIVATE")
    if date.at_time is not None:
        hour, minute = map(int, date.at_time.split(":"))
        begins = dt.datetime(date.on.year, date.on.month, date.on.day, hour, minute, tzinfo=zone)
        event.add("dtstart", begins.astimezone(dt.UTC))
        event.add("dtend", (begins + BOOKED_FOR).astimezone(dt.UTC))
        return event
    event.add("dtstart", date.on)
    # The end of a day is the next one.
    event.add("dtend", date.until + dt.timedelta(days=1))
    event.add("transp", "TRANSPARENT")
    return event


def _summary(date: DateOf) -> str:
    """Without a name neither who it is nor what was found: a calendar may hang anywhere."""
    asked = "Referral" if date.urgency in REFERRED else "Recheck"
    if date.name is None:
        return f"{asked}, {date.ref}"
    found = date.says or FLAG_OF.get(date.action.partition(".")[2], "")
    return ", ".join(part for part in (f"{asked}, {date.name}: {found}".rstrip(": "), date.side) if part)
