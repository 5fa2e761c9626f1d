"""What leaves a screen is made of: one record, one reading, one status, wherever it goes."""

from __future__ import annotations

from zoneinfo import ZoneInfo

import orjson

from northstride.api.unit_of_work import Work
from northstride.interchange.sheets.content import Basis, Changed, Clinic, LaterWords, Signature
from northstride.record.model import Record
from northstride.record.reading_model import ReadingOut
from northstride.store.papers.sheets import Standing
from northstride.store.papers.words import PaperWords
from northstride.store.people.clinic import get_clinic


def basis_of_sheets(work: Work, standing: Standing) -> Basis:
    row = get_clinic(work.db, work.actor)
    zone = ZoneInfo(work.actor.time_zone)
    signature = None
    if standing.number is not None and standing.signed_at is not None:
        # By the clinic's own day, wherever the server stands.
        at = standing.signed_at.astimezone(zone)
        signature = Signature(standing.signed_by or "", at, standing.number, standing.reason)
    return Basis(
        clinic=Clinic(row.name, row.address, row.phone, row.night_phone, row.emergency_number),
        athlete=standing.screen.athlete_name or standing.screen.athlete_ref,
        record=Record.model_validate_json(orjson.dumps(standing.record)),
        reading=ReadingOut.model_validate(standing.reading),
        signature=signature,
        later=_later(standing.words, zone),
        changed=tuple(
            Changed(
                made["code"], made["side"], (made["before"] or {}).get("strength"), made["after"] is not None
            )
            for made in standing.differences or []
            if made["what"] == "flags"
        ),
    )


def _later(words: PaperWords, zone: ZoneInfo) -> LaterWords | None:
    last = words.last
    return LaterWords(words.version, last.by, last.at.astimezone(zone)) if last else None
