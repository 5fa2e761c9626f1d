"""`./stride summary`: a reading in the athlete's own words."""

from __future__ import annotations

import argparse
import json

from northstride.cli.record_files import add_record_arguments, each_record
from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.core.wording.plain import plain_summary
from northstride.interchange.plain_text import plain_text
from northstride.record.plain import plain_out
from northstride.record.read import CheckedRecord


def add_arguments(parser: argparse.ArgumentParser) -> None:
    add_record_arguments(parser)


def run(arguments: argparse.Namespace) -> int:
    def handle(checked: CheckedRecord, catalogue: Catalogue, context: Context) -> str:
        out = plain_out(
            checked.exam.id, plain_summary(checked.exam, evaluate(checked.exam, catalogue, context))
        )
        if arguments.text:
            return plain_text(out) + "\n"
        return json.dumps(out.model_dump(mode="json"), ensure_ascii=False)

    return each_record(arguments, handle)
