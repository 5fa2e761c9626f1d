"""Whether the web part's client types are what docs/openapi.json makes."""

from __future__ import annotations

import subprocess
import sys
import tempfile
from pathlib import Path

from northstride.cli.steps import WEB

KEPT = WEB / "src" / "api" / "schema.d.ts"


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        made = Path(folder) / "schema.d.ts"
        command = ["npm", "run", "--silent", "types", "--", "-o", str(made)]
        subprocess.run(command, cwd=WEB, check=True, capture_output=True)
        if made.read_text() == KEPT.read_text():
            return 0
    print("web/src/api/schema.d.ts has drifted: npm run types")
    return 1


if __name__ == "__main__":
    sys.exit(main())
