"""What a day needs: screens left open, actions nobody has in hand, days that open and run out."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Row, text

from northstride.core.catalogue import Catalogue
from northstride.core.findings import URGENT
from northstride.record.edition import shipped
from northstride.store.actor import Actor
from northstride.store.days.arrangements import NOTHING, Standing, arrangements_of_all
from northstride.store.people.clinic_day import today_of

# What lies further back is counted, and shown with its athlete.
LOOKS_BACK = dt.timedelta(days=180)
# Who was not screened for so long is named.
A_SEASON = dt.timedelta(days=365)
MOST_ACTIONS = 200
MOST_OPEN = 60
MOST_UNSEEN = 12
URGENT_CODES = f"({', '.join(repr(urgency.value) for urgency in URGENT)})"

# Steps that nobody took back, the newest of each kind by action. `asking` is what nobody has closed: more
# than training, or training that somebody wants to look at again on a day.
STANDING = """
    WITH steps AS (
      SELECT r.screen_id, r.action, coalesce(r.side, '') AS side, r.does, r."on", r.until, r.at
      FROM arrangements r
      WHERE r.clinic_id = :clinic AND r.does IN ('arranged', 'again', 'closed') AND NOT EXISTS (
        SELECT 1 FROM arrangements u WHERE u.clinic_id = r.clinic_id AND u.undoes = r.id)
    ), newest AS (
      SELECT DISTINCT ON (screen_id, action, side) screen_id, action, side, does FROM steps
      ORDER BY screen_id, action, side, at DESC
    ), again AS (
      SELECT DISTINCT ON (screen_id, action, side) screen_id, action, side, "on" FROM steps
      WHERE does = 'again' ORDER BY screen_id, action, side, at DESC
    ), arranged AS (
      SELECT DISTINCT screen_id, action, side FROM steps WHERE does = 'arranged'
    ), asked AS (
      SELECT * FROM reading_actions WHERE clinic_id = :clinic AND urgency <> 'train'
      UNION ALL
      SELECT a.* FROM again
      JOIN reading_actions a ON a.clinic_id = :clinic AND a.screen_id = again.screen_id
        AND a.code = again.action AND coalesce(a.side, '') = again.side
      WHERE a.urgency = 'train'
    ), asking AS MATERIALIZED (
      SELECT a.*, again.screen_id IS NOT NULL AS is_again, again."on" AS again_on FROM asked a
      LEFT JOIN newest ON {newest} LEFT JOIN again ON {again}
      WHERE newest.does IS DISTINCT FROM 'closed'
    )
"""
OF_ACTION = "{0}.screen_id = a.screen_id AND {0}.action = a.code AND {0}.side = coalesce(a.side, '')"
STANDING = STANDING.format(newest=OF_ACTION.format("newest"), again=OF_ACTION.format("again"))
# A second look has been had: what the action rests on was done again on that side, in its days or after,
# and still stands.
LOOKED_AGAIN = f"""
    (a.urgency = 'recheck' OR a.is_again) AND a.urgency NOT IN {URGENT_CODES}
    AND EXISTS (
      SELECT 1 FROM screens l JOIN examined x ON x.clinic_id = l.clinic_id AND x.screen_id = l.id
      WHERE l.clinic_id = s.clinic_id AND l.athlete_id = s.athlete_id AND l.date > s.date
        AND l.date >= coalesce(a.again_on, a.start, s.date) AND x.test = ANY(a.tests)
        AND (x.side IS NULL OR a.side IS NULL OR x.side = a.side))
"""  # noqa: S608  made of our own constants
# One by one: few actions ask, and a join would read every screen of the clinic first.
OPEN_ACTIONS = f"""
    FROM asking a
    CROSS JOIN LATERAL (
      SELECT * FROM screens WHERE clinic_id = a.clinic_id AND id = a.screen_id LIMIT 1
    ) s
    JOIN athletes t ON t.clinic_id = s.clinic_id AND t.id = s.athlete_id
    WHERE (t.archived_at IS NULL OR a.urgency IN {URGENT_CODES})
      AND NOT ({LOOKED_AGAIN})
"""  # noqa: S608  made of our own constants
SHOWN = """
    SELECT a.screen_id, a.code, a.side, a.urgency, a.start, a."end", a.says, s.date, s.athlete_id,
           t.name AS athlete_name, t.ref AS athlete_ref, s.revision, s.created_at AS found_at
"""
DUE = text(
    f"""{STANDING} {SHOWN} {OPEN_ACTIONS} AND (a.urgency IN {URGENT_CODES} OR s.date >= :since)
    ORDER BY a.urgency NOT IN {URGENT_CODES}, s.date DESC, a.screen_id, a.place LIMIT :most
    """
)
DUE_OF_ATHLETE = text(
    f"""{STANDING} {SHOWN} {OPEN_ACTIONS} AND s.athlete_id = :athlete
    ORDER BY a.urgency NOT IN {URGENT_CODES}, s.date DESC, a.screen_id, a.place LIMIT :most
    """
)
# Far more than anybody has days for; a calendar takes no list without an end.
MOST_DATES = 2000
DUE_OF_CALENDAR = text(
    f"""{STANDING} {SHOWN} {OPEN_ACTIONS} AND s.date >= :since
      AND (CAST(:screen AS uuid) IS NULL OR s.id = CAST(:screen AS uuid))
    ORDER BY s.date DESC, a.screen_id, a.place LIMIT :most
    """
)
OLDER = text(
    f"""{STANDING}
    SELECT count(*) {OPEN_ACTIONS} AND a.urgency NOT IN {URGENT_CODES} AND s.date < :since
    """
)
URGENT_COUNT = text(
    f"""{STANDING}
    SELECT count(*) FROM reading_actions a LEFT JOIN newest ON {OF_ACTION.format("newest")}
    LEFT JOIN arranged ON {OF_ACTION.format("arranged")}
    WHERE a.clinic_id = :clinic AND a.urgency IN {URGENT_CODES}
      AND newest.does IS DISTINCT FROM 'closed' AND arranged.screen_id IS NULL
    """  # noqa: S608  made of our own constants
)
OPEN_SCREENS = text(
    """
    SELECT s.id, s.date, s.purpose, s.athlete_id, t.name AS athlete_name,
           r.document -> 'coverage' AS coverage, last.by_name AS last_by, last.recorded_at AS last_at
    FROM screens s
    JOIN athletes t ON t.clinic_id = s.clinic_id AND t.id = s.athlete_id
    LEFT JOIN readings r ON r.clinic_id = s.clinic_id AND r.screen_id = s.id AND r.revision = s.revision
    LEFT JOIN LATERAL (
      SELECT by_name, recorded_at FROM answers x WHERE x.clinic_id = s.clinic_id AND x.screen_id = s.id
      ORDER BY x.revision DESC LIMIT 1
    ) last ON true
    WHERE s.clinic_id = :clinic AND s.signed_at IS NULL
    ORDER BY s.date DESC, s.created_at DESC LIMIT :most
    """
)
# How many screens are open, and of how many what they read as is known.
OPEN_COUNT = text(
    """
    SELECT (SELECT count(*) FROM screens WHERE clinic_id = :clinic AND signed_at IS NULL) AS open,
      (SELECT count(*) FROM readings r
       JOIN screens s ON s.clinic_id = r.clinic_id AND s.id = r.screen_id AND s.revision = r.revision
       JOIN athletes t ON t.clinic_id = s.clinic_id AND t.id = s.athlete_id
         AND t.revision = r.athlete_revision
       WHERE r.clinic_id = :clinic AND r.signature IS NULL AND r.fault IS NULL AND r.shipped = :shipped
         AND s.signed_at IS NULL) AS known
    """
)
UNSEEN = text(
    """
    SELECT t.id, t.name, count(*) OVER () AS total FROM athletes t
    WHERE t.clinic_id = :clinic AND t.archived_at IS NULL AND NOT EXISTS (
      SELECT 1 FROM screens s WHERE s.clinic_id = t.clinic_id AND s.athlete_id = t.id AND s.date >= :since)
    ORDER BY t.name LIMIT :most
    """
)


@dataclass(frozen=True, slots=True)
class DueAction:
    """An action of a screen and how it stands with it."""

    row: Row[Any]
    standing: Standing


@dataclass(frozen=True, slots=True)
class Day:
    """`older` counts what lies too far back to be listed, `being_read` what nobody can speak of yet."""

    day: dt.date
    open: Sequence[Row[Any]]
    open_total: int
    actions: Sequence[DueAction]
    older: int
    being_read: int
    unseen: Sequence[Row[Any]]


def day_of(db: Connection, actor: Actor, catalogue: Catalogue, day: dt.date) -> Day:
    mine = {"clinic": actor.clinic_id}
    back = {**mine, "since": day - LOOKS_BACK}
    due = db.execute(DUE, {**back, "most": MOST_ACTIONS}).all()
    count = db.execute(OPEN_COUNT, {**mine, "shipped": shipped(catalogue)}).one()
    return Day(
        day=day,
        open=db.execute(OPEN_SCREENS, {**mine, "most": MOST_OPEN}).all(),
        open_total=count.open,
        actions=_with_standing(db, actor, due),
        older=db.execute(OLDER, back).scalar_one(),
        being_read=count.open - count.known,
        unseen=db.execute(UNSEEN, {**mine, "since": day - A_SEASON, "most": MOST_UNSEEN}).all(),
    )


def due_of_athlete(db: Connection, actor: Actor, athlete_id: UUID) -> list[DueAction]:
    """What is to be done about an athlete and not closed, however far back it was found."""
    asked = {"clinic": actor.clinic_id, "athlete": athlete_id, "most": MOST_ACTIONS}
    return _with_standing(db, actor, db.execute(DUE_OF_ATHLETE, asked).all())


def due_of_calendar(db: Connection, actor: Actor, screen_id: UUID | None) -> Sequence[Row[Any]]:
    """What is not closed, of a season and all screens or of one."""
    since = today_of(actor) - A_SEASON
    asked = {"clinic": actor.clinic_id, "since": since, "screen": screen_id, "most": MOST_DATES}
    return db.execute(DUE_OF_CALENDAR, asked).all()


def _with_standing(db: Connection, actor: Actor, due: Sequence[Row[Any]]) -> list[DueAction]:
    standing = arrangements_of_all(db, actor, list({row.screen_id for row in due}))
    return [DueAction(row, standing.get((row.screen_id, row.code, row.side), NOTHING)) for row in due]


def urgent_count(db: Connection, actor: Actor) -> int:
    """How many emergency and same-day actions nobody has in hand. Names nobody."""
    return int(db.execute(URGENT_COUNT, {"clinic": actor.clinic_id}).scalar_one())
