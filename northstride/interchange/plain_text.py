"""The athlete's summary in lines."""

from __future__ import annotations

from northstride.record.plain import PlainOut


def plain_text(summary: PlainOut) -> str:
    parts = (("What was found", summary.found), ("Training", summary.training), ("Next", summary.next))
    lines = []
    for title, said in parts:
        # What is empty is left out: an emergency says nothing about training.
        lines += [title, *(f"  {line}" for line in said)] if said else []
    return "\n".join(lines)
