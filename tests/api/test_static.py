"""The web part's files and places, from a folder of two files."""

from __future__ import annotations

import json
import tempfile
import unittest
from pathlib import Path

from fastapi import FastAPI
from fastapi.testclient import TestClient

from northstride.api.static import serve_web

PAGE, SCRIPT = "<head></head><p>page</p>", "run()"
MANIFEST = {
    "index.html": {"file": "assets/index.js", "isEntry": True, "imports": ["_shared.js"]},
    "_shared.js": {"file": "assets/shared.js", "css": ["assets/shared.css"]},
    "src/places/bench/BenchPlace.tsx": {
        "file": "assets/bench.js",
        "css": ["assets/bench.css"],
        "imports": ["index.html", "_shared.js"],
    },
    "src/places/athlete/AthletePlace.tsx": {"file": "assets/athlete.js"},
}
BROWSER = {"accept": "text/html,application/xhtml+xml,*/*;q=0.8"}


class Places(unittest.TestCase):
    def setUp(self) -> None:
        held = tempfile.TemporaryDirectory()
        self.addCleanup(held.cleanup)
        folder = Path(held.name) / "dist"
        (folder / "assets").mkdir(parents=True)
        (folder / "index.html").write_text(PAGE)
        (folder / "sw.js").write_text(SCRIPT)
        (folder / ".vite").mkdir()
        (folder / ".vite" / "manifest.json").write_text(json.dumps(MANIFEST))
        (Path(held.name) / "secret.txt").write_text("not for anybody")
        app = FastAPI()
        serve_web(app, folder)
        self.client = TestClient(app)

    def text(self, path: str, **headers: str) -> str | int:
        found = self.client.get(path, headers=headers)
        return found.text if found.status_code == 200 else found.status_code

    def test_any_place_a_browser_goes_to_is_the_page_also_with_a_dot_in_it(self) -> None:
        for place in ("/", "/people", "/screens/1", "/%00", "/" + "a." * 2000):
            self.assertEqual(self.text(place, **BROWSER), PAGE, place[:40])
        self.assertIn("<p>page</p>", str(self.text("/screens/1/bench/hip.modified_thomas", **BROWSER)))
        self.assertEqual(self.text("/people"), PAGE)

    def test_the_page_names_what_its_place_is_made_of_and_nothing_twice(self) -> None:
        bench = str(self.text("/screens/1/bench/hip.modified_thomas", **BROWSER))
        for made in ("bench.js", "bench.css", "shared.js", "shared.css"):
            self.assertEqual(bench.count(f"/assets/{made}"), 1, made)
        self.assertNotIn("index.js", bench)
        self.assertIn("/assets/athlete.js", str(self.text("/athletes/1", **BROWSER)))

    def test_what_the_build_says_of_itself_is_for_nobody(self) -> None:
        self.assertEqual(self.text("/.vite/manifest.json", accept="*/*"), 404)
        self.assertEqual(self.text("/.vite/manifest.json", **BROWSER), PAGE)

    def test_files_are_files_and_a_missing_one_is_missing(self) -> None:
        self.assertEqual(self.text("/sw.js", **BROWSER), SCRIPT)
        self.assertEqual(self.text("/gone.js", accept="*/*"), 404)
        self.assertEqual(self.text("/api/nothing", **BROWSER), 404)

    def test_no_path_leads_out_of_the_folder(self) -> None:
        for path in ("/..%2Fsecret.txt", "/%2e%2e/secret.txt", "/assets/..%2f..%2fsecret.txt"):
            self.assertIn(self.text(path, **BROWSER), (PAGE, 404))
            self.assertEqual(self.text(path, accept="*/*"), 404)
