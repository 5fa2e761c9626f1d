"""The sheets by their kind, and which of their words may be one's own."""

from __future__ import annotations

from collections.abc import Mapping

from northstride.core.catalogue import Catalogue
from northstride.core.terms.errors import Fault
from northstride.interchange.sheets import athlete, letter
from northstride.interchange.sheets.athlete import athlete_sheet
from northstride.interchange.sheets.content import AthleteSheet, Basis, Letter, Report, SheetKind
from northstride.interchange.sheets.letter import letter as letter_of
from northstride.interchange.sheets.report import report

# By sheet and field, how many letters it may have: the letter stays one page.
EDITABLE: Mapping[SheetKind, Mapping[str, int]] = {
    "report": {},
    "letter": letter.EDITABLE,
    "athlete": athlete.EDITABLE,
}


def sheet_of(kind: SheetKind, basis: Basis, catalogue: Catalogue) -> Report | Letter | AthleteSheet:
    if kind == "report":
        return report(basis, catalogue)
    return letter_of(basis, catalogue) if kind == "letter" else athlete_sheet(basis, catalogue)


def words_faults(sheet: SheetKind, field: str, value: str | None) -> list[Fault]:
    """What was found is no field: it comes from the reading and cannot be changed on a sheet."""
    most = EDITABLE[sheet].get(field)
    if most is None:
        return [Fault("field", field, "comes from the reading, or is no part of this sheet")]
    if value is not None and len(value) > most:
        return [Fault("value", value, f"is longer than {most} letters, so that the sheet stays short")]
    return []
