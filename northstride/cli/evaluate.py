"""`./stride evaluate`: reads records from files, needs no database and no network."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterator
from pathlib import Path

from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.core.errors import Fault
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.record.context import check_context
from northstride.record.read import CheckedRecord, InvalidRecord, check_record, parse_json
from northstride.record.reading import reading_json, reading_out
from northstride.record.text import reading_text

OK, NOT_VALID = 0, 2


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("files", nargs="+", metavar="FILE", help="record files, or - for standard input")
    parser.add_argument("--text", action="store_true", help="print for people instead of JSON")
    parser.add_argument("--context", metavar="FILE", help="earlier records and own error figures")


def run(arguments: argparse.Namespace) -> int:
    catalogue = default_catalogue()
    try:
        context = _context(arguments.context, catalogue)
    except InvalidRecord as invalid:
        _report(arguments.context, invalid.faults)
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
            _report(where, invalid.faults)
            code = NOT_VALID
            continue
        _print(checked, catalogue, context, as_text=arguments.text)
    return code


def _print(checked: CheckedRecord, catalogue: Catalogue, context: Context, *, as_text: bool) -> None:
    reading = evaluate(checked.exam, catalogue, context)
    if as_text:
        print(reading_text(checked.record, reading_out(reading), catalogue), end="\n\n")
    else:
        print(json.dumps(reading_json(reading), ensure_ascii=False))


def _report(where: str, faults: list[Fault]) -> None:
    for fault in faults:
        print(f"{where}: {fault}" if where else str(fault), file=sys.stderr)


def _context(name: str | None, catalogue: Catalogue) -> Context:
    if name is None:
        return Context()
    return check_context(parse_json(_read_file(name)), catalogue)


def _same_athlete(checked: CheckedRecord, context: Context) -> None:
    own = checked.exam.athlete.ref
    faults = [
        Fault(f"earlier[{place}].athlete.ref", exam.athlete.ref, f'"{exam.athlete.ref}" is not "{own}"')
        for place, exam in enumerate(context.earlier)
        if exam.athlete.ref != own
    ]
    if faults:
        raise InvalidRecord(faults)


def _read_file(name: str) -> bytes:
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
            yield name, parse_json(_read_file(name))
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
