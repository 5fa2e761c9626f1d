"""A sheet as PDF (PDF/UA-1), or its pages as SVG. Every figure of it has words; nothing is fetched."""

from __future__ import annotations

import datetime as dt
import json
from pathlib import Path
from typing import Literal

import typst

from northstride.interchange.paper.letters import printable
from northstride.interchange.sheets.content import AthleteSheet, Letter, Report

HERE = Path(__file__).parent
FONTS = HERE / "fonts"
PaperSize = Literal["a4", "us-letter"]
Sheet = Report | Letter | AthleteSheet
TEMPLATES: dict[type[Sheet], str] = {Report: "report.typ", Letter: "letter.typ", AthleteSheet: "athlete.typ"}


def pdf_of(sheet: Sheet, paper: PaperSize, made_at: dt.datetime) -> bytes:
    """`made_at` stands in the file's properties; two at the same moment are the same bytes."""
    made = typst.compile(
        **_inputs(sheet, paper), format="pdf", pdf_standards=["ua-1"], timestamp=int(made_at.timestamp())
    )
    return bytes(made)


def pages_of(sheet: Sheet, paper: PaperSize) -> list[bytes]:
    """The same pages, drawn for the screen."""
    made = typst.compile(**_inputs(sheet, paper), format="svg")
    return [made] if isinstance(made, bytes) else [bytes(page) for page in made]


def _inputs(sheet: Sheet, paper: PaperSize) -> dict[str, object]:
    content = json.dumps(printable(sheet.model_dump(mode="json")), ensure_ascii=False)
    return {
        "input": str(HERE / TEMPLATES[type(sheet)]),
        "root": str(HERE),
        "font_paths": [str(FONTS)],
        "ignore_system_fonts": True,
        "sys_inputs": {"sheet": content, "paper": paper},
    }
