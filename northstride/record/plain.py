"""The athlete's summary as data and in lines."""

from __future__ import annotations

from northstride.core.wording.plain import PlainSummary
from northstride.record.reading_model import Out


class PlainOut(Out):
    record: str
    found: list[str]
    training: list[str]
    next: list[str]


def plain_out(record: str, summary: PlainSummary) -> PlainOut:
    return PlainOut(record=record, found=[*summary.found], training=[*summary.training], next=[*summary.next])
