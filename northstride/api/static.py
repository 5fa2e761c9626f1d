"""The built web part, from the app itself: nothing is fetched from elsewhere."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request, Response
from starlette.exceptions import HTTPException
from starlette.responses import FileResponse, HTMLResponse
from starlette.staticfiles import StaticFiles

MANIFEST = Path(".vite") / "manifest.json"
PLACE = re.compile(r"src/places/([a-z_]+)/[A-Za-z]+Place\.tsx")
NO_CACHE = {"Cache-Control": "no-cache"}


def serve_web(app: FastAPI, folder: Path) -> None:
    """Files as they are; any other path a browser goes to is a place in the app and gets its page."""
    app.mount("/assets", StaticFiles(directory=folder / "assets"))
    # Looked up by name, so that no path can lead out of the folder.
    files = {str(file.relative_to(folder)): file for file in folder.rglob("*") if file.is_file()}
    pages = _pages(folder)

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str, request: Request) -> Response:
        if path == "api" or path.startswith("api/"):
            raise HTTPException(404)
        # What the build says of itself is for us alone.
        file = None if path.startswith(".") else files.get(path)
        if file is not None:
            return FileResponse(file, headers=NO_CACHE)
        # A test's code has a dot in it: only what no browser goes to is taken for a missing file.
        if "." in path and "text/html" not in request.headers.get("accept", ""):
            raise HTTPException(404)
        return HTMLResponse(pages.get(_place_at(path), pages[""]), headers=NO_CACHE)


def _place_at(path: str) -> str:
    """The folder of the place an address leads to."""
    first, *rest = path.split("/")
    if first == "screens":
        return rest[1] if len(rest) > 1 else ""
    return {"athletes": "athlete"}.get(first, first)


def _pages(folder: Path) -> Mapping[str, str]:
    """The page by place: with what the place is made of named, so that all of it is fetched at once."""
    bare = (folder / "index.html").read_text(encoding="utf-8")
    if not (folder / MANIFEST).is_file():
        return {"": bare}
    chunks: dict[str, dict[str, Any]] = json.loads((folder / MANIFEST).read_text(encoding="utf-8"))
    pages = {"": bare}
    for name in chunks:
        if found := PLACE.fullmatch(name):
            links = "".join(link for link in dict.fromkeys(_links(chunks, name)) if link not in bare)
            pages[found[1]] = bare.replace("</head>", f"{links}</head>")
    return pages


def _links(chunks: Mapping[str, dict[str, Any]], name: str) -> Iterator[str]:
    chunk = chunks[name]
    yield f'<link rel="modulepreload" crossorigin href="/{chunk["file"]}">'
    for style in chunk.get("css", []):
        yield f'<link rel="stylesheet" crossorigin href="/{style}">'
    for imported in chunk.get("imports", []):
        if not chunks[imported].get("isEntry"):
            yield from _links(chunks, imported)
