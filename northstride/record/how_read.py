"""How a test is read and how much it can say, as it leaves the core."""

from __future__ import annotations

from typing import Literal

from northstride.core.catalogue import Catalogue
from northstride.core.evidence.how_read import ReadAs, held_by, how_read
from northstride.core.evidence.weights import NO_USE, Word, ratio_of, word
from northstride.core.norms.accuracy import AccuracyFigure, accuracy_figures, accuracy_label
from northstride.core.terms.vocabulary import Gate
from northstride.record.reading import STRENGTH_CODES
from northstride.record.reading_model import Out, StrengthCode


class ReadAsOut(Out):
    """One answer by itself: a value, a stretch of numbers (open where null), or places of familiar pain."""

    measure: str | None
    value: str | int | bool | None
    low: float | None
    high: float | None
    sites: list[str]
    code: str
    # Null where it speaks against the code.
    strength: StrengthCode | None
    rules: list[str]


class SaysOut(Out):
    """What a positive and a negative can say, least and most by study."""

    sign: str
    codes: list[str]
    result: Literal["positive", "negative"]
    least: Word
    most: Word
    source: str


class HowReadOut(Out):
    test: str
    reads: list[ReadAsOut]
    says: list[SaysOut]
    held_by: list[Gate]
    # Said beside every published figure.
    label: str


def how_read_out(catalogue: Catalogue, code: str) -> HowReadOut:
    test = catalogue.tests[code]
    return HowReadOut(
        test=code,
        reads=[_read_as(row) for row in how_read(catalogue, test)],
        says=[
            _says(figure, result)
            for figure in accuracy_figures()
            if figure.test == code
            for result in ("positive", "negative")
        ],
        held_by=list(held_by(catalogue, code)),
        label=accuracy_label(),
    )


def _read_as(row: ReadAs) -> ReadAsOut:
    return ReadAsOut(
        measure=row.measure,
        value=row.value,
        low=row.low,
        high=row.high,
        sites=list(row.sites),
        code=row.code,
        strength=None if row.strength is None else STRENGTH_CODES[row.strength],
        rules=list(row.rules),
    )


def _says(figure: AccuracyFigure, result: Literal["positive", "negative"]) -> SaysOut:
    ratio = None if figure.no_use_shown else ratio_of(figure, result)
    return SaysOut(
        sign=figure.sign,
        codes=figure.codes,
        result=result,
        least=word(ratio.least, result) if ratio else NO_USE,
        most=word(ratio.most, result) if ratio else NO_USE,
        source=figure.source,
    )
