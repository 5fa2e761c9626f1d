"""What set-up is made of: say each step in a line, do it only where it is needed, fail with advice."""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Iterable, Sequence
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
LOCAL = ROOT / ".local"
WEB = ROOT / "web"
DIST = WEB / "dist"

# Debian package, and how to tell that it is there.
DEBIAN_PACKAGES = {
    "postgresql": lambda: any(Path("/usr/lib/postgresql").glob("*/bin/initdb")),
    "chromium": lambda: shutil.which("chromium") is not None,
}


class StepFailed(Exception):
    """What failed and what to do."""


def say(text: str) -> None:
    print(text, file=sys.stderr, flush=True)


def run(command: Sequence[str], *, folder: Path = ROOT, advice: str, quiet: bool = False) -> None:
    """Output goes to standard error as it comes: that is the progress. Raises StepFailed."""
    sink = subprocess.PIPE if quiet else sys.stderr
    done = subprocess.run(command, cwd=folder, stdout=sink, stderr=subprocess.STDOUT, check=False)
    if done.returncode != 0:
        said = done.stdout.decode(errors="replace").strip() if quiet and done.stdout else ""
        raise StepFailed(f"{said}\n{' '.join(command[:3])} failed. {advice}".strip())


def install_debian_packages(wanted: Iterable[str] = tuple(DEBIAN_PACKAGES)) -> None:
    missing = [name for name in wanted if not DEBIAN_PACKAGES[name]()]
    if not missing:
        return
    by_hand = f"apt-get install -y {' '.join(missing)}"
    if os.geteuid() == 0:
        prefix: list[str] = []
    elif shutil.which("sudo"):
        prefix = ["sudo"]
    else:
        raise StepFailed(f"{' and '.join(missing)} missing. Ask an administrator for: {by_hand}")
    say(f"Installing {' and '.join(missing)} with apt-get (a minute or two)")
    advice = f"Install by hand, then try again: {by_hand}"
    run([*prefix, "apt-get", "update", "-qq"], advice=advice)
    environment = ["env", "DEBIAN_FRONTEND=noninteractive"]
    run([*prefix, *environment, "apt-get", "install", "-y", "-qq", *missing], advice=advice)


def _fingerprint(files: Iterable[Path]) -> str:
    digest = hashlib.sha256()
    for path in sorted(files):
        digest.update(str(path.relative_to(ROOT)).encode())
        digest.update(path.read_bytes())
    return digest.hexdigest()


def _stands(stamp: Path, fingerprint: str) -> bool:
    return stamp.exists() and stamp.read_text() == fingerprint


def install_npm_packages(*, to_prove: bool = False) -> None:
    """What builds and runs; `to_prove`: and what checks and tests. Who has the latter has the former."""
    stamp, whole = (WEB / "node_modules" / f".{name}-installed" for name in ("run", "prove"))
    fingerprint = _fingerprint([WEB / "package-lock.json", WEB / "package.json"])
    if _stands(whole, fingerprint) or (not to_prove and _stands(stamp, fingerprint)):
        return
    if shutil.which("npm") is None:
        raise StepFailed("npm is missing. Install Node.js 20 with npm, then try again.")
    say("Installing the npm packages (under a minute)")
    only = [] if to_prove else ["--omit=dev"]
    command = ["npm", "ci", "--no-audit", "--no-fund", *only]
    run(command, folder=WEB, advice="Is the npm registry reachable?")
    (whole if to_prove else stamp).write_text(fingerprint)


def build_web() -> None:
    sources = [path for path in (WEB / "src").rglob("*") if path.is_file()]
    sources += [path for path in (WEB / "public").rglob("*") if path.is_file()]
    sources += [WEB / "index.html", WEB / "package-lock.json", *WEB.glob("vite.*.ts")]
    stamp = DIST / ".built-from"
    fingerprint = _fingerprint(sources)
    if _stands(stamp, fingerprint):
        return
    say("Building the web part")
    run(["npm", "run", "--silent", "build"], folder=WEB, advice="The lines above say why.", quiet=True)
    stamp.write_text(fingerprint)


def set_up_to_run() -> None:
    """What the app needs where it runs."""
    install_debian_packages(["postgresql"])
    install_npm_packages()
    build_web()


def set_up_to_prove() -> None:
    """And what its tests need."""
    install_debian_packages()
    install_npm_packages(to_prove=True)
    build_web()
