"""Sets one job in type. It knows nothing else, so that a process of its own for it begins at once."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Literal

import typst

HERE = Path(__file__).parent
FONTS = HERE / "fonts"
PIXELS_PER_INCH = 220


@dataclass(frozen=True, slots=True)
class Job:
    """A template of ours and what fills it. `made_at`: seconds since 1970, for a PDF's properties."""

    template: str
    inputs: Mapping[str, str]
    form: Literal["pdf", "svg", "png"]
    made_at: int | None = None


def set_in_type(job: Job) -> list[bytes]:
    """One file, or one for each page."""
    compiler = typst.Compiler(
        HERE / job.template, root=HERE, font_paths=_fonts(), sys_inputs=dict(job.inputs)
    )
    match job.form:
        case "pdf":
            made = compiler.compile(format="pdf", pdf_standards=["ua-1"], timestamp=job.made_at)
        case "svg":
            made = compiler.compile(format="svg")
        case "png":
            made = compiler.compile(format="png", ppi=PIXELS_PER_INCH)
    return [made] if isinstance(made, bytes) else made or []


@lru_cache
def _fonts() -> typst.Fonts:
    """Read once: ours, and none that a machine happens to have."""
    return typst.Fonts(include_system_fonts=False, font_paths=[FONTS])
