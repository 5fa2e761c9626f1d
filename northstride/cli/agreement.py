"""`./stride agreement`: how well examiners agree, and the error figures a context takes."""

from __future__ import annotations

import argparse
import json
from pathlib import Path

from northstride.cli.record_files import NOT_VALID, OK, read_file, report
from northstride.core.catalogue import default_catalogue
from northstride.interchange.agreement_text import agreement_text
from northstride.record.agreement import read_agreement
from northstride.record.json_text import MANY_RECORDS, InvalidRecord, parse_json


def add_arguments(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("file", metavar="FILE", help="repeated measurements")
    parser.add_argument("--text", action="store_true", help="print for people instead of JSON")
    parser.add_argument("--sem", metavar="OUT", help="write the error figures as a context file")


def run(arguments: argparse.Namespace) -> int:
    catalogue = default_catalogue()
    try:
        found = read_agreement(parse_json(read_file(arguments.file), MANY_RECORDS), catalogue)
    except InvalidRecord as invalid:
        report("", invalid.faults)
        return NOT_VALID
    if arguments.sem is not None:
        text = json.dumps({"sem": found.sem}, indent=2) + "\n"
        Path(arguments.sem).write_text(text, encoding="utf-8")
    print(agreement_text(found, catalogue) if arguments.text else json.dumps(found.model_dump(mode="json")))
    return OK
