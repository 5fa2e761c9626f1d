"""The app as its own process on a free port, as users run it; it can be killed and come back."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from contextlib import suppress
from pathlib import Path
from types import TracebackType

import httpx2

from northstride.cli.cluster import free_port
from northstride.cli.steps import DIST, ROOT

SERVER = Path(__file__).with_name("live_server.py")
# A machine with other work on it takes its time to load the app.
PATIENCE_SECONDS = 120


class LiveApp:
    def __init__(
        self,
        database_url: str,
        *,
        web: Path | None = DIST,
        factory: str | None = None,
        demo: bool = False,
        hash_cost: str = "test",
    ) -> None:
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self._factory = factory or "tests.support.live:make_app"
        self._environment = {
            **os.environ,
            "NORTH_STRIDE_DATABASE_URL": database_url,
            "NORTH_STRIDE_HASH_COST": hash_cost,
            "NORTH_STRIDE_DEMO": str(demo).lower(),
            "PYTHONPATH": str(ROOT),
        }
        if web is not None and web.exists():
            self._environment["NORTH_STRIDE_WEB_FOLDER"] = str(web)
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        command = [sys.executable, "-P", str(SERVER), self._factory, str(self.port)]
        self._process = subprocess.Popen(command, env=self._environment, cwd=ROOT)
        until = time.monotonic() + PATIENCE_SECONDS
        while time.monotonic() < until and self._process.poll() is None:
            with suppress(httpx2.TransportError):
                if httpx2.get(f"{self.address}/api/health").status_code == 200:
                    return
            time.sleep(0.05)
        # One that comes up after all would go on for ever, over a database that is gone.
        self.kill()
        raise TimeoutError("the app did not start")

    @property
    def memory(self) -> int:
        """What the process holds now, in bytes."""
        if self._process is None:
            return 0
        status = Path(f"/proc/{self._process.pid}/status").read_text()
        return int(status.split("VmHWM:")[1].split()[0]) * 1024

    def kill(self) -> None:
        """As a power cut would: no farewell."""
        if self._process is not None:
            self._process.send_signal(signal.SIGKILL)
            self._process.wait()
            self._process = None

    def __enter__(self) -> LiveApp:
        self.start()
        return self

    def __exit__(
        self, _kind: type[BaseException] | None, _error: BaseException | None, _trace: TracebackType | None
    ) -> None:
        self.kill()


def make_app() -> object:
    from northstride.api.app import create_app
    from northstride.api.settings import Settings

    return create_app(Settings())
