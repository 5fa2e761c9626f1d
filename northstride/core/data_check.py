"""Data that names tests, families or conditions is held against what there is when it is loaded."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator, Mapping, Sequence
from fnmatch import fnmatchcase

from northstride.core.catalogue import Catalogue
from northstride.core.norms import kept_items
from northstride.core.norms.limit import bare_numbers, limit_blocks
from northstride.core.norms.load import all_gates, danger_checks, rule_reads, structures
from northstride.core.route.selection import ASK_CONDITIONS, route_data
from northstride.core.route.selection import FILE as ASKS_FILE
from northstride.core.story.data import story_data
from northstride.core.wording.plain import FILE as PLAIN_FILE
from northstride.core.wording.spoken import FILE as SPOKEN_FILE


class UnknownNames(Exception):
    """Data of ours names what nobody knows."""

    def __init__(self, names: list[str]) -> None:
        super().__init__("; ".join(names))
        self.names = names


def check_data(catalogue: Catalogue) -> None:
    """Raises UnknownNames with all of them."""
    named = (*_gates(catalogue), *_asks(catalogue), *_kept(catalogue), *_rules(catalogue))
    told = (*_given_twice(limit_blocks()), *_bare(sentences()))
    if names := [*named, *_structures(catalogue), *_story(catalogue), *told]:
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


def _rules(catalogue: Catalogue) -> Iterator[str]:
    for rule, tests in rule_reads().items():
        for code in tests - catalogue.tests.keys():
            yield f"rule_reads.toml: {rule} names no test: {code}"
    for rule in danger_checks() - rule_reads().keys():
        yield f"rule_reads.toml: checks name no rule: {rule}"


def _story(catalogue: Catalogue) -> Iterator[str]:
    for topic in story_data().topic:
        for site in topic.sites:
            if site not in catalogue.sites:
                yield f"story.toml: no site {site}"


def _structures(catalogue: Catalogue) -> Iterator[str]:
    spoken_of = {code for structure in structures() for code in structure.tests}
    for code in sorted(spoken_of - catalogue.tests.keys()):
        yield f"structures.toml: no test {code}"
    asked = {code for ask in route_data()["ask"] for code in ask["tests"]}
    planned = {code for code, test in catalogue.tests.items() if test.planned_for}
    for code in sorted((asked | planned) - spoken_of):
        yield f"structures.toml: no structure for {code}"


def _given_twice(blocks: Mapping[str, Sequence[str]]) -> Iterator[str]:
    """A limit stands once: of two, one would be changed and the other forgotten."""
    first: dict[str, str] = {}
    for family, names in blocks.items():
        for name in names:
            if (other := first.setdefault(name, family)) != family:
                yield f"{family}.toml: {name} stands in {other}.toml already"


def _bare(sentences: Mapping[str, str]) -> Iterator[str]:
    """A number in a sentence is the reference of a limit."""
    for place, sentence in sentences.items():
        for number in bare_numbers(sentence):
            yield f"{place}: {number!r} is no reference to a limit"


def sentences() -> Mapping[str, str]:
    """As they are written, by their place."""
    found: dict[str, str] = {}
    for family, words in tomllib.loads(SPOKEN_FILE.read_text(encoding="utf-8")).items():
        found |= {f"{SPOKEN_FILE.name}: {family}.{code}": said for code, said in words.items()}
    for place, ask in enumerate(tomllib.loads(ASKS_FILE.read_text(encoding="utf-8"))["ask"]):
        found[f"{ASKS_FILE.name}: {place + 1}"] = ask["why"]
    for family, words in tomllib.loads(PLAIN_FILE.read_text(encoding="utf-8")).items():
        found |= {f"{PLAIN_FILE.name}: {family}.{code}": said for code, said in words.items()}
    return found
