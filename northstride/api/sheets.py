"""Sheets that leave the room: what stands on each, words of one's own, the pages, and PDF."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal
from uuid import UUID

from anyio import to_thread
from fastapi import APIRouter, Path, Response
from pydantic import Field
from sqlalchemy import Row

from northstride.api.basis import basis_of_sheets
from northstride.api.bodies import Id, Input, Output, Password
from northstride.api.catalogue import drawn_as
from northstride.api.course import course_until
from northstride.api.passwords import ask_again
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, RequestContext, Work, WorkDep
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS
from northstride.interchange.paper.letters import undrawable
from northstride.interchange.paper.pdf import Drawn, PaperSize, Sheet, pages_job, pdf_job
from northstride.interchange.paper.setting import Job, set_in_type
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
from northstride.store.actor import audit_opening_once
from northstride.store.errors import NotFound, Refused
from northstride.store.papers import sheets as store
from northstride.store.papers.words import OF_THE_READING, NewWords, keep_words
from northstride.store.transfers.exports import went_out, where_it_went

router = APIRouter(prefix="/api/screens/{screen_id}/sheets", tags=["sheets"], route_class=StrictJsonRoute)

Kind = Annotated[SheetKind, Path()]
PageNumber = Annotated[int, Path(ge=1, le=20)]


class WordsOut(Output):
    """A field whose words may be put in the place of ours. `by` and `at` where somebody did.

    `amend`: what it says was signed, so that only an amendment says it anew. `later`: put there after that.
    """

    sheet: SheetKind
    field: str
    value: str
    ours: str
    most: int
    by: str | None
    at: dt.datetime | None
    amend: bool
    later: bool


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
    """`value` none takes one's words back. `password`: on a signed screen, for a new version of its paper."""

    id: Id
    sheet: SheetKind
    field: Annotated[str, Field(max_length=40)]
    value: Text | None = None
    password: Password | None = None


@dataclass(frozen=True, slots=True)
class Material:
    """What the database has to say for papers of one screen: drawn and set without holding it."""

    work: Work
    standing: store.Standing
    basis: Basis
    course: dict[str, Any]

    def sheet(self, kind: SheetKind, *, ours: bool = False) -> Sheet:
        """With the words that stand on it, or in our own alone."""
        own = {each.field: each.value or "" for each in self.standing.words.standing if each.sheet == kind}
        return sheet_of(kind, replace(self.basis, edited={} if ours else own), self.work.catalogue)

    def drawn(self, kind: SheetKind, sheet: Sheet) -> Drawn:
        """The figures of the findings, as Reading shows them, and the lines up to this screen's day."""
        screen, draws = self.standing.screen, drawn_as(self.work.catalogue)
        how = {**DEFAULT_SCHOOLS, **screen.schools}["trial_value"]
        figures = draws.of(self.standing.record, self.standing.reading, how)
        most = MOST_LINES[kind]
        lines = draws.lines(self.course, str(screen.date))[:most] if most else []
        pins = [pin.model_dump() for pin in sheet.pins] if isinstance(sheet, AthleteSheet) else []
        return Drawn(figures, lines, draws.body(pins))

    def pages(self, kind: SheetKind, paper: PaperSize) -> Job:
        sheet = self.sheet(kind)
        return pages_job(sheet, paper, self.drawn(kind, sheet))


# More would push out what is asked for on a first page.
MOST_LINES: dict[SheetKind, int] = {"report": 3, "letter": 0, "athlete": 1}


def _material(work: Work, screen_id: UUID) -> Material:
    standing = store.standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    course = course_until(work, standing.screen.athlete_id, standing.screen.date)
    return Material(work, standing, basis_of_sheets(work, standing), course)


async def _set(context: RequestContext, job: Job) -> list[bytes]:
    return await context.services.papers.run(set_in_type, job)


@router.get("", operation_id="read_sheets")
async def read(screen_id: UUID, context: ContextDep) -> SheetsOut:
    def ask(work: Work) -> tuple[Material, list[WentOut]]:
        found = _material(work, screen_id)
        went = where_it_went(work.db, work.actor, screen_id)
        audit_opening_once(work.db, work.actor, "screen", screen_id)
        return found, [_went(row) for row in went]

    material, went = await context.run(ask)
    jobs = await to_thread.run_sync(lambda: {kind: material.pages(kind, "a4") for kind in EDITABLE})
    pages = {kind: len(await _set(context, job)) for kind, job in jobs.items()}
    sheets = {kind: material.sheet(kind) for kind in EDITABLE}
    return SheetsOut.model_validate(
        {
            **sheets,
            "pages": pages,
            "words": _words(material),
            "before": _before(material.basis.clinic, sheets, pages),
            "went": went,
        }
    )


def _went(row: Row[dt.datetime, Any | None, str]) -> WentOut:
    told = row.detail or {}
    # A sheet carries its athlete's name; of other forms it was asked.
    named = told.get("named", True)
    return WentOut(at=row.at, by=row.by, form=told["form"], status=told.get("status"), named=named)


def _words(material: Material) -> list[WordsOut]:
    own = {each.place: each for each in material.standing.words.standing}
    signed = material.standing.number is not None
    found = []
    for kind, fields in EDITABLE.items():
        ours, shown = material.sheet(kind, ours=True), material.sheet(kind)
        for field, most in fields.items():
            words = own.get((kind, field))
            found.append(
                WordsOut(
                    sheet=kind,
                    field=field,
                    value=_in_lines(getattr(shown, field)),
                    ours=_in_lines(getattr(ours, field)),
                    most=most,
                    by=words.by if words else None,
                    at=words.at if words else None,
                    amend=signed and (kind, field) in OF_THE_READING,
                    later=words is not None and words.later,
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
async def read_page(
    screen_id: UUID, kind: Kind, page: PageNumber, context: ContextDep, paper: PaperSize = "a4"
) -> Response:
    """One page as it will be printed. Looking at it is reading the screen, not handing it over."""

    def ask(work: Work) -> Material:
        found = _material(work, screen_id)
        audit_opening_once(work.db, work.actor, "screen", screen_id)
        return found

    material = await context.run(ask)
    pages = await _set(context, await to_thread.run_sync(material.pages, kind, paper))
    if page > len(pages):
        raise NotFound("page", str(page))
    return Response(pages[page - 1], media_type="image/svg+xml", headers={"Cache-Control": "no-store"})


@router.get(
    "/{kind}/pdf",
    operation_id="hand_over_sheet",
    response_class=Response,
    responses={200: {"content": {"application/pdf": {}}}},
)
async def hand_over(screen_id: UUID, kind: Kind, context: ContextDep, paper: PaperSize = "a4") -> Response:
    material = await context.run(lambda work: _material(work, screen_id))
    sheet = material.sheet(kind)

    def job() -> Job:
        return pdf_job(sheet, paper, dt.datetime.now(dt.UTC), material.drawn(kind, sheet))

    made = b"".join(await _set(context, await to_thread.run_sync(job)))
    status = sheet.head.status
    # In the audit before it leaves.
    await context.run(
        lambda work: went_out(work.db, work.actor, "screen", screen_id, f"{kind}, PDF", status=status)
    )
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
async def word(screen_id: UUID, body: WordsInput, context: ContextDep) -> None:
    """Of a signed screen a new version of its paper, by whoever gives their password."""
    if faults := words_faults(body.sheet, body.field, body.value):
        raise Refused(faults)
    if body.password is not None:
        await ask_again(context, body.password)
    new, proved = NewWords(body.sheet, body.field, body.value), body.password is not None
    await context.run(lambda work: keep_words(work.db, work.actor, screen_id, body.id, new, proved=proved))
