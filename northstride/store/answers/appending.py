"""The hottest write, in one round trip: answers, their measurements, the revision and the audit row.

One statement is all or nothing by itself, and a hand that types waits for it.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

import orjson
from sqlalchemy import Connection, Row, text

from northstride.record.fact_fields import is_fact
from northstride.store.actor import Actor
from northstride.store.answers.folding import AnswerRow

APPEND = text(
    """
    WITH written AS (
      INSERT INTO answers (clinic_id, screen_id, user_id, device, id, revision, test, entry_id, entry_side,
                           key, side, field, value, replaces, by_name, observed_at, observed_zone, seen_at,
                           beside, clash)
      SELECT :clinic, :screen, :user, :device, a.*
      FROM jsonb_to_recordset(CAST(:answers AS jsonb)) AS a (
        id uuid, revision int, test text, entry_id uuid, entry_side text, key text, side text, field text,
        value jsonb, replaces uuid, by_name text, observed_at timestamptz, observed_zone int,
        seen_at timestamptz, beside bool, clash uuid)
    ), replaced AS (
      UPDATE measurements SET current = false
      WHERE clinic_id = :clinic AND answer_id = ANY(:replaced)
    ), measured AS (
      INSERT INTO measurements (clinic_id, screen_id, athlete_id, date, answer_id, test, measure, key, side,
                                method, mean, median, trials, current, validity)
      SELECT :clinic, :screen, :athlete, :date, m.*
      FROM jsonb_to_recordset(CAST(:measurements AS jsonb)) AS m (
        answer_id uuid, test text, measure text, key text, side text, method text, mean float8, median float8,
        trials int, current bool, validity text)
    ), raised AS (
      UPDATE screens SET revision = :revision WHERE clinic_id = :clinic AND id = :screen
    )
    INSERT INTO audit (clinic_id, user_id, session_id, verb, noun, noun_id, detail)
    VALUES (:clinic, :user, :session, :verb, 'screen', :screen, CAST(:detail AS jsonb))
    """
)


def _told(row: AnswerRow) -> str:
    """What was asked, without what was answered: the audit names, the answer says."""
    return " ".join(part for part in (row.field, row.key, row.side) if part)


def append(
    db: Connection,
    actor: Actor,
    screen: Row[Any],
    rows: Sequence[AnswerRow],
    replaces: dict[UUID, UUID],
    replaced: Sequence[UUID],
    measurements: Sequence[dict[str, Any]],
    device: str,
    verb: str,
) -> None:
    """The screen is locked. `replaces` names, by answer, the answer it takes the place of."""
    answers = [{**row._asdict(), "replaces": replaces.get(row.id)} for row in rows]
    detail: dict[str, Any] = {"answers": len(rows), "test": rows[0].test}
    if asked := [_told(row) for row in rows if is_fact(row.test)]:
        detail["told"] = asked
    db.execute(
        APPEND,
        {
            "clinic": actor.clinic_id,
            "screen": screen.id,
            "user": actor.user_id,
            "session": actor.session_id,
            "device": device,
            "athlete": screen.athlete_id,
            "date": screen.date,
            "answers": orjson.dumps(answers).decode(),
            "replaced": list(replaced),
            "measurements": orjson.dumps(list(measurements)).decode(),
            "revision": rows[-1].revision,
            "verb": verb,
            "detail": orjson.dumps(detail).decode(),
        },
    )
