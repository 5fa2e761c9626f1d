"""`./stride route`: which tests a record's purpose and story ask for, in which order."""

from __future__ import annotations

import argparse
import json

from northstride.cli.record_files import add_record_arguments, each_record
from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context
from northstride.core.route import make_route
from northstride.record.read import CheckedRecord
from northstride.record.route import route_out, route_text


def add_arguments(parser: argparse.ArgumentParser) -> None:
    add_record_arguments(parser)


def run(arguments: argparse.Namespace) -> int:
    def handle(checked: CheckedRecord, catalogue: Catalogue, context: Context) -> str:
        route = route_out(checked.exam.id, make_route(checked.exam, catalogue, context))
        if arguments.text:
            return route_text(checked.record, route, catalogue) + "\n"
        return json.dumps(route.model_dump(mode="json"), ensure_ascii=False)

    return each_record(arguments, handle)
