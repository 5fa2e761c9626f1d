"""How much each recorded sign of a screen says."""

from __future__ import annotations

from typing import Any

from sqlalchemy import Connection, Row

from northstride.core.catalogue import Catalogue
from northstride.core.evidence.weights import evidence
from northstride.core.judgement.judge import judge
from northstride.core.reading import evaluate
from northstride.record.evidence import EvidenceOut, evidence_out
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.store.actor import Actor
from northstride.store.readings.contexts import earlier_screens, read_context
from northstride.store.readings.readings import NO_ERRORS, unreadable
from northstride.store.signed.records import current_record


def evidence_of(
    db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any], start: float | None
) -> EvidenceOut:
    """Of the record as it stands, by today's figures. `start` between 0 and 1. Raises Unreadable."""
    record = current_record(db, actor, catalogue, screen)
    try:
        exam = check_record(record, catalogue).exam
    except InvalidRecord as invalid:
        raise unreadable(catalogue, record, invalid) from invalid
    earlier = earlier_screens(db, actor, catalogue, screen)
    context = read_context(db, actor, catalogue, earlier, NO_ERRORS)
    found = evidence(judge(exam, catalogue, context).case, evaluate(exam, catalogue, context))
    return evidence_out(str(screen.id), found, start)
