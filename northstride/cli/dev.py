"""`./stride dev`: the demo for those who work on it. Both halves start anew, or swap, as files change."""

from __future__ import annotations

import argparse
import os
import subprocess
import sys

import uvicorn

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.cli.demo import DATABASE
from northstride.cli.serving import DATABASE_VARIABLE, FIRST_PORT, database_url, stop_on_signals
from northstride.cli.steps import ROOT, WEB, install_debian_packages, install_npm_packages, say
from northstride.demo.load import is_loaded, load_demo

PAGE = "http://127.0.0.1:5173"


def add_arguments(_parser: argparse.ArgumentParser) -> None:
    """The ports are the two that Vite's proxy knows."""


def run(_arguments: argparse.Namespace) -> int:
    stop_on_signals()
    # The page is not built: Vite serves it as it is written.
    install_debian_packages(["postgresql"])
    install_npm_packages()
    with database_url(DATABASE) as url:
        if not is_loaded(url):
            say("Loading the Tarnholt demo")
            load_demo(url)
        environment = {**os.environ, DATABASE_VARIABLE: url, "NORTH_STRIDE_DEMO": "true"}
        server = subprocess.Popen([sys.executable, "-m", "northstride.cli.dev"], cwd=ROOT, env=environment)
        page = subprocess.Popen(["npx", "--no-install", "vite", "--host", "127.0.0.1"], cwd=WEB)
        say(f"Working copy: {PAGE}. Ctrl-C stops.")
        try:
            page.wait()
        finally:
            for each in (server, page):
                each.terminate()
                each.wait()
    return 0


def make_app() -> object:
    return create_app(Settings())


if __name__ == "__main__":
    uvicorn.run(
        "northstride.cli.dev:make_app",
        factory=True,
        port=FIRST_PORT,
        reload=True,
        reload_dirs=[str(ROOT / "northstride")],
        log_level="warning",
    )
