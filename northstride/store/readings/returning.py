"""Return tests of an athlete over time."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection, Row

from northstride.core.catalogue import Catalogue
from northstride.core.course.return_board import BoardRow, return_board
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.store.actor import Actor
from northstride.store.readings.contexts import earlier_screens, read_context
from northstride.store.readings.readings import NO_ERRORS
from northstride.store.screens.screens import get_screen
from northstride.store.signed.records import current_record

RETURN = "return_to_sport"


@dataclass(frozen=True, slots=True)
class ReturnTest:
    """`rows` none: the record cannot be read as it stands."""

    screen: Row[Any]
    rows: Sequence[BoardRow] | None


def return_tests(
    db: Connection, actor: Actor, catalogue: Catalogue, screens: Sequence[Row[Any]]
) -> Iterator[ReturnTest]:
    """Of all screens of one athlete those for the return, the oldest first.

    The figures are of the record as it stands, or as its newest signature keeps it, by today's rules.
    """
    for screen in sorted(screens, key=lambda each: (each.date, each.created_at)):
        if screen.purpose == RETURN:
            yield ReturnTest(screen, _rows(db, actor, catalogue, screen))


def _rows(db: Connection, actor: Actor, catalogue: Catalogue, screen: Row[Any]) -> Sequence[BoardRow] | None:
    try:
        whole = get_screen(db, actor, screen.id)
        exam = check_record(current_record(db, actor, catalogue, whole), catalogue).exam
    except InvalidRecord:
        return None
    earlier = earlier_screens(db, actor, catalogue, screen)
    return return_board(exam, catalogue, read_context(db, actor, catalogue, earlier, NO_ERRORS))
