"""Many files as one zip, written as it is made: nothing of it is ever held as a whole."""

from __future__ import annotations

import datetime as dt
import hashlib
import io
import json
import re
import unicodedata
import zipfile
from typing import Any

from northstride import CAUTION

FORMAT, VERSION = "north-stride/archive", 1
MANIFEST = "manifest.json"


class _Stream(io.RawIOBase):
    """Takes what is written and gives it away; a zip is written from front to back."""

    def __init__(self) -> None:
        super().__init__()
        self.parts: list[bytes] = []

    def writable(self) -> bool:
        return True

    def write(self, data: Any) -> int:
        self.parts.append(bytes(data))
        return len(data)

    def taken(self) -> bytes:
        whole = b"".join(self.parts)
        self.parts.clear()
        return whole


class Archive:
    """Give each file, send what comes back, and end with the manifest that names them all."""

    def __init__(self, made: dt.datetime, about: dict[str, Any]) -> None:
        self._stream = _Stream()
        self._zip = zipfile.ZipFile(self._stream, "w", zipfile.ZIP_DEFLATED)
        self._made = made
        self._about = about
        self._files: list[dict[str, Any]] = []

    def add(self, name: str, content: bytes) -> bytes:
        """The next piece of the zip. Raises ValueError for a name that stands already."""
        if any(file["name"] == name for file in self._files):
            raise ValueError(f"{name} stands twice")
        self._files.append(
            {"name": name, "bytes": len(content), "sha256": hashlib.sha256(content).hexdigest()}
        )
        return self._put(name, content)

    def end(self) -> bytes:
        """The manifest and what closes the zip."""
        manifest = {
            "format": FORMAT,
            "version": VERSION,
            "notice": CAUTION,
            "made": self._made.isoformat(),
            **self._about,
            "files": self._files,
        }
        self._put(MANIFEST, json.dumps(manifest, indent=2, ensure_ascii=False).encode(), keep=True)
        self._zip.close()
        return self._stream.taken()

    def _put(self, name: str, content: bytes, *, keep: bool = False) -> bytes:
        info = zipfile.ZipInfo(name, self._made.timetuple()[:6])
        info.compress_type = zipfile.ZIP_DEFLATED
        self._zip.writestr(info, content)
        return b"" if keep else self._stream.taken()


def file_name(text: str) -> str:
    """Letters, digits and dashes of a text, so that every disk takes it."""
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return re.sub(r"[^A-Za-z0-9]+", "-", plain).strip("-")[:60] or "unnamed"
