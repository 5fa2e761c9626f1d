"""Phrases the sheets share: names, sides, days, and what stands at the head of each."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable, Mapping
from functools import lru_cache
from pathlib import Path
from typing import Any

from northstride.core.terms.age import age_on
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.core.wording.phrases import whole_day
from northstride.interchange.sheets.content import Basis, Head, LaterWords
from northstride.record.reading_model import ActionOut, FlagOut, SideCode

FILE = Path(__file__).parent / "words.toml"


@lru_cache
def words() -> Mapping[str, Any]:
    return tomllib.loads(FILE.read_text(encoding="utf-8"))


def called(code: str, side: SideCode) -> str:
    """A flag by its name and the side it is on."""
    name = FLAG_NAMES.get(code, code.replace(".", " ").replace("_", " "))
    return name if side is None else f"{name}, {side}"


def flag_of(action: ActionOut, flags: Iterable[FlagOut]) -> FlagOut | None:
    """The flag an action is about: its code is made of it."""
    named = action.code.partition(".")[2]
    return next(
        (flag for flag in flags if flag.code.replace(".", "_") == named and flag.side == action.side), None
    )


def action_words(action: ActionOut, flags: Iterable[FlagOut]) -> str:
    if action.says is not None:
        return action.says.rstrip(".")
    flag = flag_of(action, flags)
    named = action.code.partition(".")[2].replace("_", " ")
    return named.capitalize() if flag is None else called(flag.code, None)


def changed_words(basis: Basis, code: str, side: SideCode) -> list[str]:
    """What the newest amendment changed about a flag, where it did."""
    return [
        f"Changed by the amendment: it was {change.was or 'not flagged'}."
        for change in basis.changed
        if (change.code, change.side) == (code, side)
    ]


def once(parts: Iterable[str]) -> list[str]:
    return list(dict.fromkeys(part for part in parts if part))


def _later(later: LaterWords) -> dict[str, object]:
    return {"version": later.version, "by": later.by, "day": whole_day(later.at.date())}


def head_of(basis: Basis) -> Head:
    record, signature = basis.record, basis.signature
    said = words()["status"]
    notice, signed = said["draft"], None
    if signature is not None:
        facts = {"by": signature.by, "day": whole_day(signature.at.date())}
        signed = said["signed"].format(**facts)
        amended = said["amended"].format(**facts, reason=signature.reason or "")
        later = said["later"].format(**_later(basis.later)) if basis.later else ""
        notice = " ".join(part for part in (amended if basis.status == "amended" else "", later) if part)
    return Head(
        athlete=basis.athlete,
        ref=record.athlete.ref,
        born=record.athlete.birth_date,
        age=age_on(record.athlete.birth_date, record.date),
        date=record.date,
        examiner=record.examiner,
        clinic=basis.clinic.name,
        address=basis.clinic.address,
        phone=basis.clinic.phone,
        status=basis.status,
        notice=notice,
        signed=signed,
        rules=basis.reading.rules,
    )
