"""A sheet as PDF (PDF/UA-1), or its pages as SVG. Every figure of it has words; nothing is fetched."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any, Literal

import typst

from northstride.interchange.paper.letters import printable
from northstride.interchange.sheets.content import AthleteSheet, Letter, Report

HERE = Path(__file__).parent
FONTS = HERE / "fonts"
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
PIXELS_PER_INCH = 220
TEMPLATES: dict[type[Sheet], str] = {Report: "report.typ", Letter: "letter.typ", AthleteSheet: "athlete.typ"}


def pdf_of(sheet: Sheet, paper: PaperSize, made_at: dt.datetime, drawn: Drawn = NOTHING_DRAWN) -> bytes:
    """`made_at` stands in the file's properties; two at the same moment are the same bytes."""
    compiler = _compiler(sheet, paper, drawn)
    made = compiler.compile(format="pdf", pdf_standards=["ua-1"], timestamp=int(made_at.timestamp()))
    return b"".join(_parts(made))


def pages_of(sheet: Sheet, paper: PaperSize, drawn: Drawn = NOTHING_DRAWN) -> list[bytes]:
    """The same pages, drawn for the screen."""
    return _parts(_compiler(sheet, paper, drawn).compile(format="svg"))


def png_of(svg: str) -> bytes:
    """A drawing by itself as a picture, with our own fonts."""
    compiler = typst.Compiler(HERE / "drawing.typ", root=HERE, font_paths=_fonts(), sys_inputs={"svg": svg})
    return b"".join(_parts(compiler.compile(format="png", ppi=PIXELS_PER_INCH)))


def _parts(made: bytes | list[bytes] | None) -> list[bytes]:
    """One file, or one for each page."""
    return [made] if isinstance(made, bytes) else made or []


def _compiler(sheet: Sheet, paper: PaperSize, drawn: Drawn) -> typst.Compiler:
    figures = {each["code"]: {side: each[side] for side in ("left", "right")} for each in drawn.figures}
    lines = [{"svg": each["svg"], "says": each["says"]} for each in drawn.lines]
    told = {
        **printable(sheet.model_dump(mode="json")),
        "figures": figures,
        "lines": lines,
        "body": drawn.body,
    }
    content = json.dumps(told, ensure_ascii=False)
    return typst.Compiler(
        HERE / TEMPLATES[type(sheet)],
        root=HERE,
        font_paths=_fonts(),
        sys_inputs={"sheet": content, "paper": paper},
    )


@lru_cache
def _fonts() -> typst.Fonts:
    """Read once: ours, and none that a machine happens to have."""
    return typst.Fonts(include_system_fonts=False, font_paths=[FONTS])
