"""Reads the catalogue's TOML files. A fault names file and line."""

from __future__ import annotations

import hashlib
import re
import tomllib
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

import orjson
from pydantic import ValidationError

from northstride.core.catalogue.data import Data
from northstride.core.catalogue.figure import FigureOf
from northstride.core.catalogue.model import Derived, Measure, Seen, Shape, Site, Step, Test
from northstride.core.catalogue.score import Score
from northstride.core.catalogue.spell_out import Shapes, spelled_out
from northstride.core.terms.errors import CatalogueError

HERE = Path(__file__).parent


class _File(Data):
    test: tuple[Test, ...] = ()
    site: tuple[Site, ...] = ()
    shape: tuple[Shape, ...] = ()
    figure: tuple[FigureOf, ...] = ()


@dataclass(frozen=True)
class Catalogue:
    """All tests by code, in the order of the files, and all places of pain."""

    tests: Mapping[str, Test]
    sites: Mapping[str, Site]

    @cached_property
    def _measures(self) -> dict[tuple[str, str], Measure]:
        return {(code, item.code): item for code, test in self.tests.items() for item in test.measures}

    @cached_property
    def mark(self) -> str:
        """A hash of all it holds: two catalogues that differ anywhere differ here."""
        parts = (part.model_dump_json() for part in (*self.tests.values(), *self.sites.values()))
        return hashlib.sha256("\n".join(parts).encode()).hexdigest()

    def measure(self, test: str, measure: str) -> Measure | None:
        return self._measures.get((test, measure))

    def compared(self, test: str, measure: str) -> Measure | Derived | None:
        """What is compared and followed under this code: a measure, or what follows from measures."""
        found = self.tests.get(test)
        return self.measure(test, measure) or (found.derived_code(measure) if found else None)

    def key_measure(self, test: str) -> Measure | None:
        """The measure that tells entries of one test and side apart, where the test has one."""
        found = self.tests.get(test)
        return self.measure(test, found.key) if found is not None and found.key else None

    def seen(self, test: str, seen: str) -> Seen | None:
        found = self.tests.get(test)
        return found.seen_code(seen) if found else None

    def score(self, test: str) -> Score | None:
        found = self.tests.get(test)
        return found.score if found else None

    def pain_sites(self, test: Test) -> list[Site]:
        return [site for site in self.sites.values() if test.pain_sites in site.areas]

    def plan_for(self, purpose: str) -> list[str]:
        """Codes of the tests a purpose asks for when nobody has chosen."""
        return [code for code, test in self.tests.items() if purpose in test.planned_for]


@lru_cache(maxsize=1)
def default_catalogue() -> Catalogue:
    return read_catalogue(sorted(HERE.glob("*.toml")))


def read_catalogue(files: Iterable[Path]) -> Catalogue:
    """Raises CatalogueError with file and line at the first fault."""
    tests: dict[str, Test] = {}
    sites: dict[str, Site] = {}
    texts = [(path, path.read_text(encoding="utf-8")) for path in files]
    shapes = _shapes(texts)
    figures: dict[tuple[str, str | None], FigureOf] = {}
    places: dict[str, tuple[str, str]] = {}
    for path, text in texts:
        content = _parse(path.name, text, shapes)
        figures |= {(figure.test, figure.step): figure for figure in content.figure}
        places |= {figure.test: (path.name, text) for figure in content.figure}
        for test in content.test:
            if test.code in tests:
                raise CatalogueError(path.name, _line_of(text, [test.code]), f"{test.code} stands twice")
            tests[test.code] = test
        for site in content.site:
            if site.code in sites:
                raise CatalogueError(path.name, _line_of(text, [site.code]), f"{site.code} stands twice")
            sites[site.code] = site
    for figure in figures.values():
        if fault := _fault_of(figure, tests.get(figure.test)):
            name, text = places[figure.test]
            line = 1 + text.count("\n", 0, text.index(f'test = "{figure.test}"'))
            raise CatalogueError(name, line, f"{figure.test}: {fault}")
    drawn = {code: _drawn(test, figures) for code, test in tests.items()}
    return Catalogue(MappingProxyType(drawn), MappingProxyType(sites))


def _fault_of(figure: FigureOf, test: Test | None) -> str | None:
    """What a figure names that is not there."""
    if test is None:
        return "a figure of no test"
    if figure.step is not None and figure.step not in {step.code for step in test.steps}:
        return "a figure of no step"
    unknown = sorted(code for code in figure.moved_by if test.measure(code) is None)
    return f"a figure moved by unknown measures: {unknown}" if unknown else None


def _drawn(test: Test, figures: Mapping[tuple[str, str | None], FigureOf]) -> Test:
    """The test with the figures of its steps."""

    def with_figure(step: Step) -> Step:
        found = figures.get((test.code, step.code)) or figures.get((test.code, None))
        return step.model_copy(update={"figure": found.drawn()}) if found else step

    return test.model_copy(update={"steps": [with_figure(step) for step in test.steps]})


def _shapes(texts: Iterable[tuple[Path, str]]) -> Shapes:
    """Shapes of all files, raw: a fault in one is named where its file is checked."""
    found: dict[str, list[dict[str, object]]] = {}
    for path, text in texts:
        for shape in _toml(path.name, text).get("shape", []):
            found[shape["code"]] = shape["measures"]
    return found


def _toml(name: str, text: str) -> dict[str, Any]:
    try:
        return tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        line = re.search(r"line (\d+)", str(error))
        raise CatalogueError(name, int(line[1]) if line else 1, str(error)) from error


def _parse(name: str, text: str, shapes: Shapes) -> _File:
    raw = _toml(name, text)
    try:
        # TOML has arrays only; strict mode would refuse them where a pair is meant.
        return _File.model_validate_json(orjson.dumps(spelled_out(raw, shapes)))
    except ValidationError as error:
        first = error.errors()[0]
        place = ".".join(str(part) for part in first["loc"])
        raise CatalogueError(
            name, _line_of(text, _codes_on_the_way(raw, first["loc"])), f"{place}: {first['msg']}"
        ) from error


def _codes_on_the_way(raw: object, loc: tuple[int | str, ...]) -> list[str]:
    """The `code` values of the blocks that lead to a fault, outermost first."""
    codes: list[str] = []
    here = raw
    for part in loc:
        if isinstance(here, dict):
            here = here.get(part)
        elif isinstance(here, list) and isinstance(part, int) and part < len(here):
            here = here[part]
        else:
            break
        if isinstance(here, dict) and isinstance(here.get("code"), str):
            codes.append(here["code"])
    return codes


def _line_of(text: str, codes: list[str]) -> int:
    at = 0
    for code in codes:
        found = re.compile(rf'code *= *"{re.escape(code)}"').search(text, at)
        if found:
            at = found.start()
    return text.count("\n", 0, at) + 1
