"""The process behind `LiveApp`: serves as `./stride serve` does.

Run by its path and with nothing imported above: the processes that set papers begin with this file again.
"""

import importlib
import sys


def main(factory: str, port: str) -> None:
    import uvicorn

    from northstride.cli.serving import server_config

    module, _, name = factory.partition(":")
    app = getattr(importlib.import_module(module), name)()
    uvicorn.Server(server_config(app, "127.0.0.1", int(port))).run()


if __name__ == "__main__":
    main(*sys.argv[1:])
