"""The error tree of the core. Every error carries its fields; its text is made from them."""

from __future__ import annotations

from dataclasses import dataclass


class CoreError(Exception):
    """Anything the core refuses to do."""


@dataclass(frozen=True)
class Fault:
    """One refused place in a document: where it stands, what stood there, why it is refused."""

    path: str
    value: object
    problem: str

    def __str__(self) -> str:
        return f"{self.path}: {self.problem}"


class NotReadable(CoreError):
    """A rule failed over what was recorded: `faults` name the entries it cannot read, or the whole."""

    def __init__(self, faults: list[Fault]) -> None:
        super().__init__("; ".join(map(str, faults)))
        self.faults = faults


class CatalogueError(CoreError):
    """The catalogue's own data is wrong."""

    def __init__(self, file: str, line: int, problem: str) -> None:
        super().__init__(f"{file}:{line}: {problem}")
        self.file = file
        self.line = line
        self.problem = problem


class ReadingOutOfRange(CoreError):
    """A number no limb can show. `suggestion` names the dial it was probably read from, if any."""

    def __init__(self, value: float, low: float, high: float, suggestion: str | None) -> None:
        super().__init__(f"{value:g} is outside {low:g} to {high:g}")
        self.value = value
        self.low = low
        self.high = high
        self.suggestion = suggestion


class TooFewValues(CoreError):
    """A statistic was asked of fewer values than it needs."""

    def __init__(self, needed: int, got: int) -> None:
        super().__init__(f"needs at least {needed} values, got {got}")
        self.needed = needed
        self.got = got


class NotARatioScale(CoreError):
    """A percent was asked of a scale whose zero is arbitrary."""

    def __init__(self, measure: str) -> None:
        super().__init__(f"{measure} has no true zero, so a percent of it means nothing")
        self.measure = measure


class NotAProbability(CoreError):
    """A starting probability must lie between 0 and 1: what is certain cannot move."""

    def __init__(self, value: float) -> None:
        super().__init__(f"{value:g} is not a probability between 0 and 1")
        self.value = value


class ConstantValues(CoreError):
    """Agreement was asked of values that do not differ: nothing tells signal from noise."""

    def __init__(self, what: str) -> None:
        super().__init__(f"all {what} are alike, so agreement cannot be told")
        self.what = what
