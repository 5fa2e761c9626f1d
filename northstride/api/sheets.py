"""Sheets that leave the room: what stands on each, words of one's own, the pages, and PDF."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from typing import Annotated, Any, Literal
from uuid import UUID

from fastapi import APIRouter, Path, Response
from pydantic import Field
from sqlalchemy import Row

from northstride.api.basis import basis_of_sheets
from northstride.api.bodies import Id, Input, Output
from northstride.api.catalogue import drawn_as
from northstride.api.course import lines_until
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.work import Work, WorkDep
from northstride.core.vocabulary import DEFAULT_SCHOOLS
from northstride.interchange.paper.letters import undrawable
from northstride.interchange.paper.pdf import Drawn, PaperSize, pages_of, pdf_of
from northstride.interchange.sheets.content import (
    AthleteSheet,
    Basis,
    Clinic,
    Letter,
    Report,
    SheetKind,
    Status,
)
from northstride.interchange.sheets.each import EDITABLE, sheet_of, words_faults
from northstride.record.model import Text
from northstride.store import sheets as store
from northstride.store.actor import audit_opening_once
from northstride.store.errors import NotFound, Refused
from northstride.store.leaving import went_out, where_it_went

router = APIRouter(prefix="/api/screens/{screen_id}/sheets", tags=["sheets"], route_class=StrictJsonRoute)

Kind = Annotated[SheetKind, Path()]
PageNumber = Annotated[int, Path(ge=1, le=20)]


class WordsOut(Output):
    """A field whose words may be put in the place of ours. `by` and `at` where somebody did."""

    sheet: SheetKind
    field: str
    value: str
    ours: str
    most: int
    by: str | None
    at: dt.datetime | None


class WentOut(Output):
    """`status` is none where it left as a part of something larger; `named`: with the athlete's name."""

    at: dt.datetime
    by: str
    form: str
    status: Status | None
    named: bool


class SheetsOut(Output):
    """`pages` by sheet; `before` is what to see to before one leaves."""

    report: Report
    letter: Letter
    athlete: AthleteSheet
    pages: dict[SheetKind, int]
    words: list[WordsOut]
    before: list[Literal["emergency_number", "phone", "night_phone", "letters", "long_letter"]]
    went: list[WentOut]


class WordsInput(Input):
    """`value` none takes one's words back."""

    id: Id
    sheet: SheetKind
    field: Annotated[str, Field(max_length=40)]
    value: Text | None = None


@router.get("", operation_id="read_sheets")
def read(screen_id: UUID, work: WorkDep) -> SheetsOut:
    standing = store.standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    kept = _kept(work, screen_id)
    basis = basis_of_sheets(work, standing)
    sheets = {kind: _sheet(work, basis, kind, kept) for kind in EDITABLE}
    drawn = {kind: _drawn(work, standing, kind, sheet) for kind, sheet in sheets.items()}
    pages = {kind: len(pages_of(sheet, "a4", drawn[kind])) for kind, sheet in sheets.items()}
    went = where_it_went(work.db, work.actor, screen_id)
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    work.commit()
    return SheetsOut.model_validate(
        {
            **sheets,
            "pages": pages,
            "words": _words(work, basis, kept),
            "before": _before(basis.clinic, sheets, pages),
            "went": [_went(row) for row in went],
        }
    )


def _went(row: Row[dt.datetime, Any | None, str]) -> WentOut:
    told = row.detail or {}
    # A sheet carries its athlete's name; of other forms it was asked.
    named = told.get("named", True)
    return WentOut(at=row.at, by=row.by, form=told["form"], status=told.get("status"), named=named)


Kept = dict[tuple[str, str], Any]
Sheet = Report | Letter | AthleteSheet


# More would push out what is asked for on a first page.
MOST_LINES: dict[SheetKind, int] = {"report": 3, "letter": 0, "athlete": 1}


def _drawn(work: Work, standing: store.Standing, kind: SheetKind, sheet: Sheet) -> Drawn:
    """The figures of the findings, as Reading shows them, and the lines up to this screen's day."""
    how = {**DEFAULT_SCHOOLS, **standing.screen.schools}["trial_value"]
    figures = drawn_as(work.catalogue).of(standing.record, standing.reading, how)
    most = MOST_LINES[kind]
    screen = standing.screen
    lines = lines_until(work, screen.athlete_id, screen.date)[:most] if most else []
    pins = [pin.model_dump() for pin in sheet.pins] if isinstance(sheet, AthleteSheet) else []
    return Drawn(figures, lines, drawn_as(work.catalogue).body(pins))


def _kept(work: Work, screen_id: UUID) -> Kept:
    return {(row.sheet, row.field): row for row in store.words_of(work.db, work.actor, screen_id)}


def _sheet(work: Work, basis: Basis, kind: SheetKind, kept: Kept) -> Sheet:
    own = {
        field: row.value for (sheet, field), row in kept.items() if sheet == kind and row.value is not None
    }
    return sheet_of(kind, replace(basis, edited=own), work.catalogue)


def _words(work: Work, basis: Basis, kept: Kept) -> list[WordsOut]:
    found = []
    for kind, fields in EDITABLE.items():
        ours, shown = _sheet(work, basis, kind, {}), _sheet(work, basis, kind, kept)
        for field, most in fields.items():
            row = kept.get((kind, field))
            own = row if row is not None and row.value is not None else None
            found.append(
                WordsOut(
                    sheet=kind,
                    field=field,
                    value=_in_lines(getattr(shown, field)),
                    ours=_in_lines(getattr(ours, field)),
                    most=most,
                    by=own.by_name if own else None,
                    at=own.at if own else None,
                )
            )
    return found


def _in_lines(said: str | list[str]) -> str:
    return said if isinstance(said, str) else "\n".join(said)


def _before(clinic: Clinic, sheets: dict[SheetKind, Sheet], pages: dict[SheetKind, int]) -> list[str]:
    empty = [name for name in ("emergency_number", "phone", "night_phone") if not getattr(clinic, name)]
    letters = any(undrawable(sheet.model_dump_json()) for sheet in sheets.values())
    return [*empty, *(["letters"] if letters else []), *(["long_letter"] if pages["letter"] > 1 else [])]


@router.get(
    "/{kind}/pages/{page}",
    operation_id="read_sheet_page",
    response_class=Response,
    responses={200: {"content": {"image/svg+xml": {}}}},
)
def read_page(
    screen_id: UUID, kind: Kind, page: PageNumber, work: WorkDep, paper: PaperSize = "a4"
) -> Response:
    """One page as it will be printed. Looking at it is reading the screen, not handing it over."""
    standing = store.standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    sheet = _sheet(work, basis_of_sheets(work, standing), kind, _kept(work, screen_id))
    audit_opening_once(work.db, work.actor, "screen", screen_id)
    work.commit()
    pages = pages_of(sheet, paper, _drawn(work, standing, kind, sheet))
    if page > len(pages):
        raise NotFound("page", str(page))
    return Response(pages[page - 1], media_type="image/svg+xml", headers={"Cache-Control": "no-store"})


@router.get(
    "/{kind}/pdf",
    operation_id="hand_over_sheet",
    response_class=Response,
    responses={200: {"content": {"application/pdf": {}}}},
)
def hand_over(screen_id: UUID, kind: Kind, work: WorkDep, paper: PaperSize = "a4") -> Response:
    standing = store.standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    sheet = _sheet(work, basis_of_sheets(work, standing), kind, _kept(work, screen_id))
    made = pdf_of(sheet, paper, dt.datetime.now(dt.UTC), _drawn(work, standing, kind, sheet))
    went_out(work.db, work.actor, "screen", screen_id, f"{kind}, PDF", status=sheet.head.status)
    work.commit()
    # No name in the file's: folders and mail show it to others.
    name = f"north-stride-{kind}-{sheet.head.date.isoformat()}.pdf"
    headers = {"Content-Disposition": f'attachment; filename="{name}"', "Cache-Control": "no-store"}
    return Response(made, media_type="application/pdf", headers=headers)


@router.post("/{kind}/printed", operation_id="print_sheet", status_code=204)
def printed(screen_id: UUID, kind: Kind, work: WorkDep) -> None:
    """Told by the page as it prints: paper leaves the room as a file does."""
    standing = store.standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    status = basis_of_sheets(work, standing).status
    went_out(work.db, work.actor, "screen", screen_id, f"{kind}, paper", status=status)
    work.commit()


@router.post("/words", operation_id="word_sheet", status_code=204)
def word(screen_id: UUID, body: WordsInput, work: WorkDep) -> None:
    faults = words_faults(body.sheet, body.field, body.value)
    if faults:
        raise Refused(faults)
    store.keep_words(work.db, work.actor, screen_id, body.id, body.sheet, body.field, body.value)
    work.commit()
