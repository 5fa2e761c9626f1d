"""Free lines of a letter that a clinic keeps: to whom, how it begins and ends, with named fields."""

from __future__ import annotations

import string
from collections.abc import Iterator, Mapping

from northstride.core.terms.errors import Fault
from northstride.core.wording.phrases import whole_day
from northstride.interchange.sheets.content import Basis
from northstride.interchange.sheets.letter import EDITABLE

# What is asked and what holds until then follow from this reading: no template says them.
LINES = ("to", "greeting", "last")
FIELDS: Mapping[str, str] = {
    "athlete": "the athlete's name",
    "reference": "the clinic's reference",
    "born": "the day of birth",
    "day": "the day of the screen",
    "examiner": "who examined",
    "clinic": "the clinic's name",
}


def template_faults(lines: Mapping[str, str]) -> Iterator[Fault]:
    """Each line within its length, its braces closed, and no field that nobody knows."""
    for name, text in lines.items():
        if len(text) > EDITABLE[name]:
            yield Fault(name, text, f"is longer than {EDITABLE[name]} letters")
            continue
        try:
            parts = [part for part in string.Formatter().parse(text) if part[1] is not None]
        except ValueError:
            yield Fault(name, text, "has a brace that is not closed")
            continue
        # A width of a million would be a page of spaces.
        if any(shape or conversion for _, _, shape, conversion in parts):
            yield Fault(name, text, "a field is a name in braces, and nothing else")
            continue
        fields = [str(field) for _, field, _, _ in parts]
        unknown = [field for field in fields if field not in FIELDS]
        if unknown:
            known = ", ".join(f"{{{field}}}" for field in FIELDS)
            yield Fault(name, text, f"{{{unknown[0]}}} is no field; there are {known}")


def filled(text: str, basis: Basis) -> str:
    """A line with its fields of this screen; what is not known is left empty."""
    record = basis.record
    born = record.athlete.birth_date
    told = {
        "athlete": basis.athlete,
        "reference": record.athlete.ref,
        "born": whole_day(born) if born else "",
        "day": whole_day(record.date),
        "examiner": record.examiner or "",
        "clinic": basis.clinic.name,
    }
    return "".join(
        literal + (told[field] if field is not None else "")
        for literal, field, _, _ in string.Formatter().parse(text)
    )
