"""The built web part, from the app itself: nothing is fetched from elsewhere."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Mapping
from mimetypes import guess_type
from pathlib import Path
from typing import Any

from anyio import to_thread
from fastapi import FastAPI, Request, Response
from starlette.exceptions import HTTPException
from starlette.responses import HTMLResponse

MANIFEST = Path(".vite") / "manifest.json"
PLACE = re.compile(r"src/places/([a-z_]+)/[A-Za-z]+Place\.tsx")
NO_CACHE = {"Cache-Control": "no-cache"}
KEPT = {"Cache-Control": "public, max-age=31536000, immutable"}


def serve_web(app: FastAPI, folder: Path) -> None:
    """Files as they are; any other path a browser goes to is a place in the app and gets its page."""
    # Looked up by name, so that no path can lead out of the folder. What the build says of itself is ours.
    files = {
        name: file
        for file in folder.rglob("*")
        if file.is_file() and not (name := str(file.relative_to(folder))).startswith(".")
    }
    pages = _pages(folder)
    # Read once: a place is made of a dozen, and all of them are asked for at once.
    content: dict[str, bytes] = {}

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str, request: Request) -> Response:
        if path == "api" or path.startswith("api/"):
            raise HTTPException(404)
        if path in files:
            if path not in content:
                content[path] = await to_thread.run_sync(files[path].read_bytes)
            kind, _ = guess_type(path)
            # What bears a mark of its content in its name never changes.
            headers = KEPT if path.startswith("assets/") else NO_CACHE
            return Response(content[path], media_type=kind or "application/octet-stream", headers=headers)
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
