"""The commands behind `./stride`."""

from __future__ import annotations

import argparse
import importlib
import sys

COMMANDS = {
    "setup": "install what is missing and build the web part",
    "demo": "set up, load the demo data and start",
    "serve": "set up and start without demo data",
    "test": "run every check and test",
    "evaluate": "read record files and print what they read as",
    "route": "print which tests a record asks for, in the order with the fewest turns",
    "evidence": "print how much each sign of a record says, with published figures",
    "summary": "print a record's reading in the athlete's own words",
    "agreement": "print how well examiners agree, from repeated measurements",
    "bench": "measure, each figure against a floor",
    "mutants": "change core and state a little, and list what no test notices",
    "dev": "the demo for those who work on it: each half follows its files",
}


def main() -> int:
    parser = argparse.ArgumentParser(prog="./stride", description="North Stride")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    # A command's module is loaded when it is asked for: evaluate must not wait for a web server.
    chosen = next((name for name in sys.argv[1:] if name in COMMANDS), None)
    for name, says in COMMANDS.items():
        own = commands.add_parser(name, help=says, description=says)
        if name == chosen:
            module = importlib.import_module(f"northstride.cli.{name}")
            module.add_arguments(own)
            own.set_defaults(run=module.run)
    arguments = parser.parse_args()
    try:
        return int(arguments.run(arguments))
    except KeyboardInterrupt:
        return 0
    except Exception as error:
        if type(error).__name__ not in ("StepFailed", "ClusterError"):
            raise
        print(f"Stopped: {error}", file=sys.stderr)
        return 1


if __name__ == "__main__":
    sys.exit(main())
