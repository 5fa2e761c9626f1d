"""Sheets as they were agreed on: their words, and their first pages small and grey.

`python -m tests.support.golden` writes them anew; look at them before they are committed.
"""

from __future__ import annotations

import datetime as dt
import io
import json
from pathlib import Path

import pypdfium2
from PIL import Image, ImageChops

from northstride.api.catalogue import drawn_as
from northstride.cli.steps import ROOT
from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.core.terms.vocabulary import DEFAULT_SCHOOLS
from northstride.interchange.paper.pdf import Drawn, pdf_job
from northstride.interchange.paper.setting import set_in_type
from northstride.interchange.sheets.content import AthleteSheet, Basis, Clinic, SheetKind, Signature
from northstride.interchange.sheets.each import sheet_of
from northstride.record.read import check_record
from northstride.record.reading import reading_out

HERE = Path(__file__).parents[1] / "interchange" / "golden"
KINDS: tuple[SheetKind, ...] = ("report", "letter", "athlete")
# An injury with something to arrange, an emergency, and a complaint with measures; one of them signed.
EXAMPLES = {"lateral-sprain-day-2": None, "clot-day-3": None, "stiff-ankle-first": 0}
TARNHOLT = Clinic("Tarnholt mountain club", "4 Hut Lane", "555 0142", "555 0199", "112")
MADE = dt.datetime(2026, 11, 26, 18, 0, tzinfo=dt.UTC)
SCALE = 0.6
TILES = (16, 22)


def made(example: str, kind: SheetKind) -> bytes:
    catalogue = default_catalogue()
    raw = json.loads((ROOT / "docs" / "examples" / f"{example}.json").read_text(encoding="utf-8"))
    checked = check_record(raw, catalogue)
    reading = reading_out(evaluate(checked.exam, catalogue, Context()), catalogue)
    number = EXAMPLES[example]
    signature = None if number is None else Signature("Jonas Hestvik", MADE, number, None)
    basis = Basis(TARNHOLT, "Ilse Varga", checked.record, reading, signature)
    figures = drawn_as(catalogue).of(raw, reading.model_dump(mode="json"), DEFAULT_SCHOOLS["trial_value"])
    sheet = sheet_of(kind, basis, catalogue)
    pins = [pin.model_dump() for pin in sheet.pins] if isinstance(sheet, AthleteSheet) else []
    drawn = Drawn(figures, body=drawn_as(catalogue).body(pins))
    return b"".join(set_in_type(pdf_job(sheet, "a4", MADE, drawn)))


def words_of(pdf: bytes) -> str:
    document = pypdfium2.PdfDocument(pdf)
    lines = [
        line.strip() for page in document for line in page.get_textpage().get_text_bounded().splitlines()
    ]
    return "\n".join(line for line in lines if line) + "\n"


def picture_of(pdf: bytes) -> Image.Image:
    page: Image.Image = pypdfium2.PdfDocument(pdf)[0].render(scale=SCALE).to_pil()
    return page.convert("L")


def differs(one: Image.Image, other: Image.Image) -> int:
    """How far two pictures lie apart, 0 to 255, where they differ most: a page is mostly white.

    Another size is another picture.
    """
    if one.size != other.size:
        return 255
    tiles = ImageChops.difference(one, other).resize(TILES, Image.Resampling.BOX)
    return max(tiles.tobytes())


def kept(example: str, kind: SheetKind) -> tuple[str, Image.Image]:
    at = HERE / f"{example}-{kind}"
    picture = Image.open(io.BytesIO(at.with_suffix(".png").read_bytes()))
    return at.with_suffix(".txt").read_text(encoding="utf-8"), picture


def write() -> None:
    HERE.mkdir(exist_ok=True)
    for example in EXAMPLES:
        for kind in KINDS:
            pdf, at = made(example, kind), HERE / f"{example}-{kind}"
            at.with_suffix(".txt").write_text(words_of(pdf), encoding="utf-8")
            picture_of(pdf).quantize(32).save(at.with_suffix(".png"), optimize=True)


if __name__ == "__main__":
    write()
