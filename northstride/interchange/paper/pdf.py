"""A sheet as a job to be set: PDF (PDF/UA-1), or its pages as SVG. Every figure of it has words."""

from __future__ import annotations

import datetime as dt
import json
import unicodedata
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from northstride.interchange.paper.letters import named, printable, undrawable
from northstride.interchange.paper.setting import Job
from northstride.interchange.sheets.content import AthleteSheet, Letter, Report

PaperSize = Literal["a4", "us-letter"]
Sheet = Report | Letter | AthleteSheet
Drawings = Sequence[Mapping[str, Any]]


@dataclass(frozen=True, slots=True)
class Drawn:
    """Figures of the findings, by flag and side, change lines, and the body with what stands out."""

    figures: Drawings = ()
    lines: Drawings = ()
    body: str = ""


NOTHING_DRAWN = Drawn()
TEMPLATES: dict[type[Sheet], str] = {Report: "report.typ", Letter: "letter.typ", AthleteSheet: "athlete.typ"}


def pdf_job(sheet: Sheet, paper: PaperSize, made_at: dt.datetime, drawn: Drawn = NOTHING_DRAWN) -> Job:
    """`made_at` stands in the file's properties; two at the same moment are the same bytes."""
    return Job(TEMPLATES[type(sheet)], _inputs(sheet, paper, drawn), "pdf", int(made_at.timestamp()))


def pages_job(sheet: Sheet, paper: PaperSize, drawn: Drawn = NOTHING_DRAWN) -> Job:
    """The same pages, drawn for the screen."""
    return Job(TEMPLATES[type(sheet)], _inputs(sheet, paper, drawn), "svg")


def picture_job(svg: str) -> Job:
    """A drawing by itself as a picture, with our own fonts."""
    return Job("drawing.typ", {"svg": svg}, "png")


def _texts(value: Any) -> Iterator[str]:
    if isinstance(value, str):
        yield value
    elif isinstance(value, dict | list):
        for item in value.values() if isinstance(value, dict) else value:
            yield from _texts(item)


def _inputs(sheet: Sheet, paper: PaperSize, drawn: Drawn) -> dict[str, str]:
    content = sheet.model_dump(mode="json")
    letters = {
        letter for text in _texts(content) for letter in undrawable(unicodedata.normalize("NFC", text))
    }
    told = {
        **printable(content),
        "missing": named(letters),
        "figures": {each["code"]: {side: each[side] for side in ("left", "right")} for each in drawn.figures},
        "lines": [{"svg": each["svg"], "says": each["says"]} for each in drawn.lines],
        "body": drawn.body,
    }
    return {"sheet": json.dumps(told, ensure_ascii=False), "paper": paper}
