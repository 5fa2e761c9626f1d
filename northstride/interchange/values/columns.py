"""What each column of a table becomes: guessed from its heading, or as somebody said."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from northstride.core.catalogue import Catalogue, Measure, Test
from northstride.interchange.values.out import COLUMNS

IGNORE = "ignore"
# Our own columns that are told again by others.
NOT_TAKEN = frozenset({"state", "test_name", "measure_name"})
# What only a table coming in may say.
IN_ALONE: Mapping[str, str] = {"birth_date": "the athlete's day of birth, YYYY-MM-DD"}
ROLE_WORDS: Mapping[str, str] = {**COLUMNS, **IN_ALONE}
ROLES = tuple(column for column in ROLE_WORDS if column not in NOT_TAKEN)
OF_SCREEN = ("screen", "date", "athlete", "name", "birth_date", "purpose")
NEEDED_LONG = ("date", "athlete", "test", "measure", "value")
NEEDED_WIDE = ("date", "athlete")
ALSO_CALLED: Mapping[str, str] = {
    "reference": "athlete",
    "athlete reference": "athlete",
    "ref": "athlete",
    "athlete name": "name",
    "born": "birth_date",
    "date of birth": "birth_date",
    "day of birth": "birth_date",
    "day": "date",
    "examiner": "by",
    "result": "value",
    "examination": "test",
}
WIDE = re.compile(r"(?P<test>[^/\[\]]+)/(?P<measure>[^/\[\]]+)(\[(?P<key>[^\]]+)\])?(/(?P<side>left|right))?")
Form = Literal["long", "wide"]


@dataclass(frozen=True, slots=True)
class ValueColumn:
    """A column of a wide table: one measure of one side. `measure` none is pain, or why it was declined."""

    test: Test
    measure: Measure | None
    name: str
    key: str | None
    side: str | None


def guess(catalogue: Catalogue, heads: Sequence[str]) -> list[str]:
    """A role for each heading. The first that fits a role has it."""
    taken: set[str] = set()
    roles = []
    by_name = _by_name(catalogue)
    for head in heads:
        role = _role(catalogue, by_name, head)
        roles.append(IGNORE if role in taken else role)
        taken.add(role)
    return roles


def _role(catalogue: Catalogue, by_name: Mapping[str, str], head: str) -> str:
    said = _plain(head)
    if said in _plain_roles():
        return _plain_roles()[said]
    if value_column(catalogue, head.strip()) is not None:
        return head.strip()
    return by_name.get(said, IGNORE)


@lru_cache(maxsize=1)
def _plain_roles() -> Mapping[str, str]:
    return {**{_plain(role): role for role in ROLES}, **ALSO_CALLED}


def _by_name(catalogue: Catalogue) -> Mapping[str, str]:
    """What a value column is called in words, for each that there is."""
    found: dict[str, str] = {}
    for test in catalogue.tests.values():
        for measure in test.measures:
            for side in ("left", "right") if test.sides == "each" or measure.per_side else (None,):
                column = f"{test.code}/{measure.code}" + (f"/{side}" if side else "")
                for name in (test.name, *test.other_names):
                    found.setdefault(_plain(f"{name} {measure.label} {side or ''}"), column)
    return found


def _plain(text: str) -> str:
    return " ".join(re.findall(r"[a-z0-9.]+", text.casefold().replace("_", " ")))


def value_column(catalogue: Catalogue, role: str) -> ValueColumn | None:
    """None where the role names no value of the catalogue."""
    told = WIDE.fullmatch(role)
    test = catalogue.tests.get(told["test"]) if told else None
    if told is None or test is None:
        return None
    measure = test.measure(told["measure"])
    beside = told["measure"] in ("pain", "declined")
    if (measure is None and not beside) or (told["key"] is not None) != (test.key is not None):
        return None
    sided = told["side"] is not None
    if test.sides == "each" and not sided:
        return None
    if measure is not None and sided and test.sides == "both" and not measure.per_side:
        return None
    return ValueColumn(test, measure, told["measure"], told["key"], told["side"])


def form_of(roles: Sequence[str]) -> Form:
    """Long where a column says which measure a row is of."""
    return "long" if "measure" in roles else "wide"


def mapping_faults(
    catalogue: Catalogue, heads: Sequence[str], roles: Sequence[str]
) -> Iterator[tuple[int, str]]:
    """What is wrong with the roles, by the place of the column; −1 for what no column has."""
    if len(roles) != len(heads):
        yield -1, f"the table has {len(heads)} columns, and {len(roles)} were told"
        return
    for place, role in enumerate(roles):
        if role != IGNORE and role not in ROLES and value_column(catalogue, role) is None:
            yield place, f"{role} is nothing a column can become"
        if role != IGNORE and role in roles[:place]:
            yield place, f"another column is {role} already"
    form = form_of(roles)
    for role in NEEDED_LONG if form == "long" else NEEDED_WIDE:
        if role not in roles:
            yield -1, f"no column is the {role}"
    if form == "wide" and not any(value_column(catalogue, role) for role in roles):
        yield -1, "no column holds values"
