"""The athlete's summary in lines."""

from __future__ import annotations

from northstride.record.plain import PlainOut


def plain_text(summary: PlainOut) -> str:
    parts = (("What was found", summary.found), ("Training", summary.training), ("Next", summary.next))
    lines = []
    for title, said in parts:
        lines += [title, *(f"  {line}" for line in said or ["Nothing stands out."])]
    return "\n".join(lines)
