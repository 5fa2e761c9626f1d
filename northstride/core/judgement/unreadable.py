"""What is to be said when a rule fails: never a reading without it, always the entry it fails on."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import TypeVar

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context, Examination
from northstride.core.terms.errors import Fault, NotReadable

T = TypeVar("T")
Reads = Callable[[Examination, Catalogue, Context], T]


def read_or_name(read: Reads[T], exam: Examination, catalogue: Catalogue, context: Context) -> T:
    """What `read` gives. Raises NotReadable where it fails, naming the entries it fails on.

    A rule that fails is a fault of ours, and a reading made without it could comfort.
    """
    try:
        return read(exam, catalogue, context)
    except NotReadable:
        raise
    except Exception as error:
        raise NotReadable(_what_fails(read, exam, catalogue, context)) from error


def _what_fails(read: Reads[T], exam: Examination, catalogue: Catalogue, context: Context) -> list[Fault]:
    """Each entry that alone keeps the rest from being read; else the screen as a whole."""
    found = []
    for place, entry in enumerate(exam.entries):
        others = exam.entries[:place] + exam.entries[place + 1 :]
        try:
            read(replace(exam, entries=others), catalogue, context)
        except Exception:  # noqa: S112  it fails without this one too
            continue
        side = f", {entry.side.value}" if entry.side else ""
        name = f"{catalogue.tests[entry.test].name}{side}"
        found.append(Fault(f"entries[{place}]", None, f"{name} cannot be read as it stands: record it again"))
    return found or [Fault("entries", None, "this screen cannot be read as it stands")]
