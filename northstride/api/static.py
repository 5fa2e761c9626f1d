"""The built web part, from the app itself: nothing is fetched from elsewhere."""

from __future__ import annotations

from pathlib import Path

from fastapi import FastAPI, Response
from starlette.exceptions import HTTPException
from starlette.responses import FileResponse
from starlette.staticfiles import StaticFiles


def serve_web(app: FastAPI, folder: Path) -> None:
    """Files as they are; a path without a dot is a place in the app and gets its page."""
    app.mount("/assets", StaticFiles(directory=folder / "assets"))
    root = folder.resolve()

    @app.get("/{path:path}", include_in_schema=False)
    async def page(path: str) -> Response:
        if path == "api" or path.startswith("api/"):
            raise HTTPException(404)
        if "." not in path:
            return FileResponse(root / "index.html", headers={"Cache-Control": "no-cache"})
        file = (root / path).resolve()
        if not file.is_relative_to(root) or not file.is_file():
            raise HTTPException(404)

        return FileResponse(file, headers={"Cache-Control": "no-cache"})
