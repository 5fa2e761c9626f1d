"""A figure, its floor, and the table they are printed in."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass


@dataclass(frozen=True)
class Figure:
    """`limit` is on the ratio to the floor where there is one, else on the value."""

    name: str
    value: float
    unit: str
    floor: float | None = None
    limit: float | None = None
    limits_value: bool = False

    @property
    def ratio(self) -> float | None:
        return self.value / self.floor if self.floor else None

    @property
    def held(self) -> bool | None:
        if self.limit is None:
            return None
        measured = self.value if self.limits_value or self.ratio is None else self.ratio
        return measured <= self.limit

    def as_json(self) -> dict[str, object]:
        return {**asdict(self), "ratio": self.ratio, "held": self.held}


def percentile(samples: Sequence[float], share: float) -> float:
    ordered = sorted(samples)
    return ordered[min(len(ordered) - 1, int(len(ordered) * share))]


def time_each(work: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each call."""
    samples = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        samples.append((time.perf_counter() - began) * 1000)
    return samples


def alternating(
    mine: Callable[[], object], floor: Callable[[], object], times: int
) -> tuple[list[float], list[float]]:
    """Turn by turn, so that a noisy neighbour disturbs both alike."""
    own: list[float] = []
    bare: list[float] = []
    for _ in range(times):
        own += time_each(mine, 1)
        bare += time_each(floor, 1)
    return own, bare


def table(figures: Sequence[Figure]) -> str:
    lines = [f"{'figure':<52}{'value':>12}{'floor':>12}{'ratio':>8}{'limit':>9}  held"]
    for figure in figures:
        floor = f"{figure.floor:.3f}" if figure.floor is not None else "–"
        ratio = f"{figure.ratio:.2f}" if figure.ratio is not None else "–"
        limit = "–"
        if figure.limit is not None:
            limit = f"{figure.limit:g} {figure.unit}" if figure.limits_value else f"{figure.limit:g} ×"
        held = {True: "yes", False: "NO", None: ""}[figure.held]
        value = f"{figure.value:.3f} {figure.unit}"
        lines.append(f"{figure.name:<52}{value:>12}{floor:>12}{ratio:>8}{limit:>9}  {held}")
    return "\n".join(lines)


def median(samples: Sequence[float]) -> float:
    return statistics.median(samples)
