"""`./stride evaluate`: reads records from files, needs no database and no network."""

from __future__ import annotations

import argparse
import json

from northstride.cli.record_files import add_record_arguments, each_record
from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.interchange.reading_text import reading_text
from northstride.record.read import CheckedRecord
from northstride.record.reading import reading_json, reading_out


def add_arguments(parser: argparse.ArgumentParser) -> None:
    add_record_arguments(parser)


def run(arguments: argparse.Namespace) -> int:
    def handle(checked: CheckedRecord, catalogue: Catalogue, context: Context) -> str:
        reading = evaluate(checked.exam, catalogue, context)
        if arguments.text:
            return reading_text(checked.record, reading_out(reading, catalogue), catalogue) + "\n"
        return json.dumps(reading_json(reading, catalogue), ensure_ascii=False)

    return each_record(arguments, handle)
