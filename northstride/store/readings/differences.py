"""What an amendment changed in a reading, and whether answers or rules did it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, Literal

Document = dict[str, Any]
Cause = Literal["answers", "rules"]
# The two lists of a reading that people act on, with what can differ in an item of each.
COMPARED = {"flags": ("strength", "urgency"), "actions": ("urgency", "from", "to")}


def differences_between(before: Document, by_rules: Document, after: Document) -> list[dict[str, Any]]:
    """Flags and actions that came, went or changed.

    `by_rules` is the unchanged record as today's rules read it: what differs already there is the
    rules' doing, the rest that of the answers.
    """
    return [*_changed(before, by_rules, "rules"), *_changed(by_rules, after, "answers")]


def differences_by_rules(before: Document, today: Document) -> list[dict[str, Any]]:
    """What reading the same record by today's rules would add, take away or change."""
    return [*_changed(before, today, "rules")]


def _changed(before: Document, after: Document, cause: Cause) -> Iterator[dict[str, Any]]:
    for what, names in COMPARED.items():
        old, new = _by_place(before[what], names), _by_place(after[what], names)
        for code, side in dict.fromkeys((*old, *new)):
            was, now = old.get((code, side)), new.get((code, side))
            if was != now:
                yield {"what": what, "code": code, "side": side, "before": was, "after": now, "cause": cause}


def _by_place(items: list[Document], names: tuple[str, ...]) -> dict[tuple[str, str | None], dict[str, str]]:
    return {
        (item["code"], item["side"]): {name: item[name] for name in names if item.get(name) is not None}
        for item in items
    }
