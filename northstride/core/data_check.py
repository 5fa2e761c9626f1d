"""Data that names tests, families or conditions is held against what there is when it is loaded."""

from __future__ import annotations

from collections.abc import Iterator
from fnmatch import fnmatchcase

from northstride.core.catalogue import Catalogue
from northstride.core.following.route.asking import ASK_CONDITIONS, route_data
from northstride.core.norms import kept_items
from northstride.core.norms.load import all_gates


class UnknownNames(Exception):
    """Data of ours names what nobody knows."""

    def __init__(self, names: list[str]) -> None:
        super().__init__("; ".join(names))
        self.names = names


def check_data(catalogue: Catalogue) -> None:
    """Raises UnknownNames with all of them."""
    if names := [*_gates(catalogue), *_asks(catalogue), *_kept(catalogue)]:
        raise UnknownNames(names)


def _gates(catalogue: Catalogue) -> Iterator[str]:
    families = {test.family for test in catalogue.tests.values()}
    for gate, block in all_gates().items():
        for name in (*block.get("holds", ()), *block.get("spares", ())):
            if not any(fnmatchcase(code, name) for code in catalogue.tests):
                yield f"gates.toml: {gate} names no test: {name}"
        for family in block.get("families", ()):
            if family not in families:
                yield f"gates.toml: {gate} names no family: {family}"


def _asks(catalogue: Catalogue) -> Iterator[str]:
    data = route_data()
    families = {test.family for test in catalogue.tests.values()}
    for ask in data["ask"]:
        for name in ask.keys() - ASK_CONDITIONS - {"why", "tests", "safety"}:
            yield f"asks.toml: no condition {name}"
        for code in ask["tests"]:
            if code not in catalogue.tests:
                yield f"asks.toml: no test {code}"
    for stage, named in data["families"].items():
        for family in named:
            if family not in families:
                yield f"asks.toml: {stage} names no family: {family}"


def _kept(catalogue: Catalogue) -> Iterator[str]:
    for name in kept_items():
        test, _, item = name.rpartition(".")
        if catalogue.measure(test, item) is None and catalogue.seen(test, item) is None:
            yield f"kept.toml: no measure or seen code {name}"
