"""Whether the web part's client types are what docs/openapi.json makes."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from pathlib import Path

from northstride.cli.steps import WEB

KEPT = WEB / "src" / "api" / "schema.d.ts"


def main() -> int:
    script = json.loads((WEB / "package.json").read_text())["scripts"]["types"]
    with tempfile.TemporaryDirectory() as folder:
        made = Path(folder) / "schema.d.ts"
        command = [str(made) if word == "src/api/schema.d.ts" else word for word in script.split()]
        subprocess.run(["npx", "--no-install", *command], cwd=WEB, check=True, capture_output=True)
        if made.read_text() == KEPT.read_text():
            return 0
    print("web/src/api/schema.d.ts has drifted: npm run types")
    return 1


if __name__ == "__main__":
    sys.exit(main())
