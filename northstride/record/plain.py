"""The athlete's summary as data and in lines."""

from __future__ import annotations

from northstride.core.plain import PlainSummary
from northstride.record.reading import Out


class PlainOut(Out):
    record: str
    found: list[str]
    training: list[str]
    next: list[str]


def plain_out(record: str, summary: PlainSummary) -> PlainOut:
    return PlainOut(record=record, found=[*summary.found], training=[*summary.training], next=[*summary.next])


def plain_text(summary: PlainOut) -> str:
    parts = (("What was found", summary.found), ("Training", summary.training), ("Next", summary.next))
    lines = []
    for title, said in parts:
        lines += [title, *(f"  {line}" for line in said or ["Nothing stands out."])]
    return "\n".join(lines)
