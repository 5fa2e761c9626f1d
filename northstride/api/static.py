"""The built web part, from the app itself: nothing is fetched from elsewhere."""

from __future__ import annotations

from pathlib import Path

from fastapi import FastAPI, Request, Response
from starlette.exceptions import HTTPException
from starlette.responses import FileResponse
from starlette.staticfiles import StaticFiles


def serve_web(app: FastAPI, folder: Path) -> None:
    """Files as they are; any other path a browser goes to is a place in the app and gets its page."""
    app.mount("/assets", StaticFiles(directory=folder / "assets"))
    # Looked up by name, so that no path can lead out of the folder.
    files = {str(file.relative_to(folder)): file for file in folder.rglob("*") if file.is_file()}

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str, request: Request) -> Response:
        if path == "api" or path.startswith("api/"):
            raise HTTPException(404)
        file = files.get(path)
        # A test's code has a dot in it: only what no browser goes to is taken for a missing file.
        if file is None and "." in path and "text/html" not in request.headers.get("accept", ""):
            raise HTTPException(404)
        return FileResponse(file or files["index.html"], headers={"Cache-Control": "no-cache"})
