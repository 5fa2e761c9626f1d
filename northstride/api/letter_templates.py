"""Templates of letters: kept by the clinic, filled into the letter of one screen."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID, uuid5

from fastapi import APIRouter
from pydantic import Field

from northstride.api.basis import basis_of_sheets
from northstride.api.bodies import Id, Input, Name, Output, Password
from northstride.api.passwords import ask_again
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, Work, WorkDep
from northstride.interchange.sheets.each import words_faults
from northstride.interchange.sheets.templates import FIELDS, LINES, filled, template_faults
from northstride.record.model import Text
from northstride.store.clinic_list import LETTER_TEMPLATES
from northstride.store.errors import Refused
from northstride.store.papers.sheets import standing_of_sheets
from northstride.store.papers.words import NewWords, keep_words

router = APIRouter(prefix="/api", tags=["letter templates"], route_class=StrictJsonRoute)

Line = Annotated[Text, Field(default="")]


class TemplateInput(Input):
    """Empty lines are left as the letter has them. Fields stand in braces: `{athlete}`."""

    id: Id
    name: Name
    to: Line
    greeting: Line
    last: Line


class TemplateOut(Output):
    id: UUID
    name: str
    to: str
    greeting: str
    last: str


class FieldOut(Output):
    field: str
    says: str


class TemplatesOut(Output):
    templates: list[TemplateOut]
    fields: list[FieldOut]


class FillInput(Input):
    """`id` is of this filling, so that a repeat does nothing. `password`: where the screen is signed."""

    id: Id
    template: Id
    password: Password | None = None


@router.get("/letter-templates", operation_id="list_letter_templates")
def list_all(work: WorkDep) -> TemplatesOut:
    found = [
        TemplateOut(id=row.id, name=row.name, **{line: row.lines.get(line, "") for line in LINES})
        for row in LETTER_TEMPLATES.in_use(work.db, work.actor)
    ]
    work.commit()
    return TemplatesOut(
        templates=found, fields=[FieldOut(field=field, says=says) for field, says in FIELDS.items()]
    )


@router.post("/letter-templates", operation_id="keep_letter_template", status_code=204)
def keep(body: TemplateInput, work: WorkDep) -> None:
    lines = {line: text for line in LINES if (text := getattr(body, line))}
    if faults := list(template_faults(lines)):
        raise Refused(faults)
    LETTER_TEMPLATES.keep(work.db, work.actor, body.id, {"name": body.name, "lines": lines})
    work.commit()


@router.post(
    "/letter-templates/{template_id}/archive", operation_id="archive_letter_template", status_code=204
)
def archive(template_id: UUID, work: WorkDep) -> None:
    LETTER_TEMPLATES.archive(work.db, work.actor, template_id)
    work.commit()


@router.post("/screens/{screen_id}/sheets/template", operation_id="fill_letter_template", status_code=204)
async def fill(screen_id: UUID, body: FillInput, context: ContextDep) -> None:
    """Its lines become words of the letter, by whoever filled them in."""
    if body.password is not None:
        await ask_again(context, body.password)
    await context.run(lambda work: _fill(work, screen_id, body))


def _fill(work: Work, screen_id: UUID, body: FillInput) -> None:
    standing = standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    template = LETTER_TEMPLATES.get(work.db, work.actor, body.template)
    basis = basis_of_sheets(work, standing)
    lines = {line: filled(text, basis) for line, text in template.lines.items()}
    if faults := [fault for line, text in lines.items() for fault in words_faults("letter", line, text)]:
        raise Refused(faults)
    for line, text in lines.items():
        new, key = NewWords("letter", line, text), uuid5(body.id, line)
        keep_words(work.db, work.actor, screen_id, key, new, proved=body.password is not None)
