"""Records from files or standard input, one after the other: good ones are handled, faults reported."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.core.examination import Context
from northstride.core.terms.errors import Fault
from northstride.record.context import check_context
from northstride.record.json_text import MANY_RECORDS, InvalidRecord, parse_json
from northstride.record.read import CheckedRecord, check_record

OK, NOT_VALID = 0, 2
Handle = Callable[[CheckedRecord, Catalogue, Context], str]


def add_record_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("files", nargs="+", metavar="FILE", help="record files, or - for standard input")
    parser.add_argument("--text", action="store_true", help="print for people instead of JSON")
    parser.add_argument("--context", metavar="FILE", help="earlier records and own error figures")


def each_record(arguments: argparse.Namespace, handle: Handle) -> int:
    """Prints what `handle` makes of each good record. 2 where any was not valid, else 0."""
    catalogue = default_catalogue()
    try:
        context = _context(arguments.context, catalogue)
    except InvalidRecord as invalid:
        report(arguments.context, invalid.faults)
        return NOT_VALID
    code = OK
    several = len(arguments.files) > 1
    for name, source in _sources(arguments.files):
        where = name if several or name != arguments.files[0] else ""
        try:
            if isinstance(source, InvalidRecord):
                raise source
            checked = check_record(source, catalogue)
            _same_athlete(checked, context)
        except InvalidRecord as invalid:
            report(where, invalid.faults)
            code = NOT_VALID
            continue
        print(handle(checked, catalogue, context))
    return code


def report(where: str, faults: list[Fault]) -> None:
    for fault in faults:
        print(f"{where}: {fault}" if where else str(fault), file=sys.stderr)


def _context(name: str | None, catalogue: Catalogue) -> Context:
    if name is None:
        return Context()
    return check_context(parse_json(read_file(name), MANY_RECORDS), catalogue)


def _same_athlete(checked: CheckedRecord, context: Context) -> None:
    own = checked.exam.athlete.ref
    faults = [
        Fault(f"earlier[{place}].athlete.ref", exam.athlete.ref, f'"{exam.athlete.ref}" is not "{own}"')
        for place, exam in enumerate(context.earlier)
        if exam.athlete.ref != own
    ]
    if faults:
        raise InvalidRecord(faults)


def read_file(name: str) -> bytes:
    try:
        return Path(name).read_bytes()
    except OSError as error:
        raise InvalidRecord([Fault(name, None, f"cannot be read ({error.strerror})")]) from error


def _sources(names: list[str]) -> Iterator[tuple[str, object]]:
    """Each document, or the InvalidRecord that stands in its place."""
    for name in names:
        if name == "-":
            yield from _standard_input()
            continue
        try:
            yield name, parse_json(read_file(name))
        except InvalidRecord as invalid:
            yield name, invalid


def _standard_input() -> Iterator[tuple[str, object]]:
    """One record, or one a line."""
    text = sys.stdin.buffer.read()
    try:
        yield "-", parse_json(text)
        return
    except InvalidRecord as invalid:
        lines = [(number, line) for number, line in enumerate(text.splitlines(), 1) if line.strip()]
        if len(lines) < 2:
            yield "-", invalid
            return
    for number, line in lines:
        try:
            yield f"line {number}", parse_json(line)
        except InvalidRecord as invalid:
            yield f"line {number}", invalid
