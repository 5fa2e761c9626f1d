"""`./stride evidence`: how much each recorded sign says, and where a probability could move."""

from __future__ import annotations

import argparse
import json
import sys

from northstride.cli.record_files import NOT_VALID, add_record_arguments, each_record
from northstride.core.catalogue import Catalogue
from northstride.core.evidence.weights import evidence
from northstride.core.examination import Context
from northstride.core.judgement.judge import judge
from northstride.core.reading import evaluate
from northstride.core.terms.errors import NotAProbability
from northstride.record.evidence import evidence_out, evidence_text
from northstride.record.read import CheckedRecord


def add_arguments(parser: argparse.ArgumentParser) -> None:
    add_record_arguments(parser)
    parser.add_argument("--start", type=float, metavar="P", help="starting probability between 0 and 1")


def run(arguments: argparse.Namespace) -> int:
    def handle(checked: CheckedRecord, catalogue: Catalogue, context: Context) -> str:
        case = judge(checked.exam, catalogue, context).case
        found = evidence(case, evaluate(checked.exam, catalogue, context))
        out = evidence_out(checked.exam.id, found, arguments.start)
        if arguments.text:
            return evidence_text(out, catalogue) + "\n"
        return json.dumps(out.model_dump(mode="json"), ensure_ascii=False)

    if arguments.start is not None and not 0 < arguments.start < 1:
        print(f"--start: {NotAProbability(arguments.start)}", file=sys.stderr)
        return NOT_VALID
    return each_record(arguments, handle)
