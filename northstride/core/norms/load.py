"""Reads the sourced data once."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from types import MappingProxyType

from northstride.core.findings import Strength, Urgency
from northstride.core.norms.limit import with_limits

HERE = Path(__file__).parent


@lru_cache
def _actions() -> Mapping[tuple[str, Strength], Urgency]:
    raw = tomllib.loads((HERE / "actions.toml").read_text(encoding="utf-8"))
    return MappingProxyType(
        {
            (kind, Strength[strength.upper()]): Urgency(urgency)
            for kind, by_strength in raw.items()
            for strength, urgency in by_strength.items()
        }
    )


@lru_cache
def _advice() -> Mapping[str, tuple[str, ...]]:
    raw = tomllib.loads((HERE / "advice.toml").read_text(encoding="utf-8"))
    return MappingProxyType({kind: tuple(block["options"]) for kind, block in raw.items()})


def default_action(kind: str, strength: Strength) -> Urgency | None:
    """What a flag of this kind and strength leads to where its rule names nothing."""
    return _actions().get((kind, strength))


def advice_for(code: str, kind: str) -> tuple[str, ...]:
    """What a flag's own code has, else what its kind has."""
    return _advice().get(code) or _advice().get(kind, ())


@lru_cache
def _gates() -> Mapping[str, Mapping[str, tuple[str, ...]]]:
    raw = tomllib.loads((HERE / "gates.toml").read_text(encoding="utf-8"))
    return MappingProxyType(
        {
            gate: MappingProxyType({key: tuple(codes) for key, codes in block.items()})
            for gate, block in raw.items()
        }
    )


def all_gates() -> Mapping[str, Mapping[str, tuple[str, ...]]]:
    return _gates()


def gate_data(gate: str) -> Mapping[str, tuple[str, ...]]:
    """What a gate holds, spares, or holds by family."""
    return _gates()[gate]


@lru_cache
def _means() -> tuple[Mapping[str, list[list[float]]], str]:
    raw = tomllib.loads((HERE / "range_means.toml").read_text(encoding="utf-8"))
    return MappingProxyType(raw["means"]), str(raw["source"])


def mean_range(motion: str, age: int | None, sex: str | None) -> float | None:
    """Mean passive range in degrees for a motion, age in years and sex; None where none is published."""
    if age is None or sex not in ("male", "female"):
        return None
    for low, high, male, female in _means()[0].get(motion, []):
        if low <= age <= high:
            return male if sex == "male" else female
    return None


def mean_range_source() -> str:
    return _means()[1]


@dataclass(frozen=True, slots=True)
class HealthyRange:
    """Mean and standard deviation of a motion in healthy adults, degrees. `source` says if assumed."""

    mean: float
    sd: float
    source: str


@lru_cache
def healthy_range(motion: str) -> HealthyRange:
    """Raises KeyError for a motion without a published range."""
    raw = tomllib.loads((HERE / "range_healthy.toml").read_text(encoding="utf-8"))
    found = raw["motions"][motion]
    source = f"assumed, spread of {raw['source']}" if found.get("assumed") else str(raw["source"])
    return HealthyRange(found["mean"], found["sd"], source)


@lru_cache
def kept_items() -> tuple[str, ...]:
    """Measures and seen codes no rule reads: kept, shown and trended. "test.measure"."""
    raw = tomllib.loads((HERE / "kept.toml").read_text(encoding="utf-8"))
    return tuple(f"{test}.{item}" for test, items in raw.items() for item in items)


@lru_cache
def _rule_reads() -> tuple[Mapping[str, frozenset[str]], frozenset[str]]:
    raw = tomllib.loads((HERE / "rule_reads.toml").read_text(encoding="utf-8"))
    reads = {rule: frozenset(tests) for rule, tests in raw["reads"].items()}
    return MappingProxyType(reads), frozenset(raw["checks"])


def rule_reads() -> Mapping[str, frozenset[str]]:
    """Tests by the rule of danger that reads them."""
    return _rule_reads()[0]


def read_by_rule(rule: str) -> frozenset[str]:
    """Empty for a rule that leads to nothing urgent."""
    return rule_reads().get(rule, frozenset())


def danger_checks() -> frozenset[str]:
    """Rules whose tests look for danger whatever else was found."""
    return _rule_reads()[1]


@dataclass(frozen=True, slots=True)
class Structure:
    """What a story may call for, and the tests that speak about it."""

    code: str
    name: str
    plain: str
    tests: tuple[str, ...]


@lru_cache
def structures() -> tuple[Structure, ...]:
    raw = tomllib.loads((HERE / "structures.toml").read_text(encoding="utf-8"))
    return tuple(
        Structure(code, item["name"], with_limits(item["plain"]), tuple(item["tests"]))
        for code, item in raw.items()
    )
