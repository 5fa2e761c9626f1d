"""Turns the fonts of the web part into what paper wants. Run by hand when they change: the result is kept."""

from __future__ import annotations

import json
from pathlib import Path

from fontTools.merge import Merger
from fontTools.ttLib import TTFont

from northstride.cli.steps import ROOT, WEB, say

FILES = WEB / "node_modules" / "@fontsource"
FONTS = ROOT / "northstride" / "interchange" / "paper" / "fonts"
# Each family with the parts its letters come in.
FAMILIES = {
    "atkinson-hyperlegible-next": ("latin", "latin-ext"),
    "noto-sans": ("cyrillic", "greek", "vietnamese"),
    "noto-sans-hebrew": ("hebrew",),
    "noto-sans-arabic": ("arabic",),
}
WEIGHTS = {400: "Regular", 700: "Bold"}
# A family by its name, its style, both together, and what other names would contradict them.
FAMILY, STYLE, WHOLE, OTHERS = 1, 2, 4, (16, 17, 21, 22, 25)


def turned(family: str, parts: tuple[str, ...], weight: int) -> Path:
    """One file a family and weight: its parts put together, uncompressed."""
    target = FONTS / f"{family}-{weight}.ttf"
    pieces = []
    for part in parts:
        font = TTFont(FILES / family / "files" / f"{family}-{part}-{weight}-normal.woff2")
        font.flavor = None
        piece = FONTS / f"{family}-{part}-{weight}.piece"
        font.save(piece)
        pieces.append(piece)
    made = Merger().merge([str(piece) for piece in pieces]) if len(pieces) > 1 else TTFont(pieces[0])
    named = family.replace("-", " ").title()
    for number, says in ((FAMILY, named), (STYLE, WEIGHTS[weight]), (WHOLE, f"{named} {WEIGHTS[weight]}")):
        made["name"].setName(says, number, 3, 1, 0x409)
    for number in OTHERS:
        made["name"].removeNames(nameID=number)
    made.save(target)
    for piece in pieces:
        piece.unlink()
    return target


def covered() -> list[tuple[int, int]]:
    """First and last of every run of letters that some font draws."""
    letters = sorted({letter for file in FONTS.glob("*.ttf") for letter in TTFont(file).getBestCmap()})
    runs: list[tuple[int, int]] = []
    for letter in letters:
        if runs and letter == runs[-1][1] + 1:
            runs[-1] = (runs[-1][0], letter)
        else:
            runs.append((letter, letter))
    return runs


def main() -> None:
    FONTS.mkdir(parents=True, exist_ok=True)
    for family, parts in FAMILIES.items():
        for weight in WEIGHTS:
            say(f"{turned(family, parts, weight).relative_to(ROOT)}")
        licence = (FILES / family / "LICENSE").read_text(encoding="utf-8")
        (FONTS / f"{family}.LICENSE").write_text(licence, encoding="utf-8")
    (FONTS / "letters.json").write_text(json.dumps(covered()) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
