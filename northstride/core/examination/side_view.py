"""One side of a case, asked in the words of a rule."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from northstride.core.examination.model import Entry, Lane, Value

if TYPE_CHECKING:
    from northstride.core.examination.case import Case


@dataclass(frozen=True, slots=True)
class SideView:
    """What stands, was done, and is not held on one lane. What was not recorded answers no question."""

    case: Case
    lane: Lane

    def entry(self, test: str) -> Entry | None:
        return self.case.entry(test, self.lane)

    def value(self, test: str, measure: str) -> Value | None:
        return self.case.value(test, measure, self.lane)

    def ticked(self, test: str, measure: str) -> bool:
        """Recorded as there. What was not looked at is not."""
        return self.value(test, measure) is True

    def chose(self, test: str, measure: str, *codes: str) -> bool:
        """Recorded as one of these."""
        found = self.value(test, measure)
        return isinstance(found, str) and found in codes

    def positive(self, test: str) -> bool:
        """The test's own result."""
        return self.chose(test, "result", "positive")

    def grade(self, test: str, measure: str = "grade") -> int | None:
        """A whole-number grade; None where none was given."""
        found = self.value(test, measure)
        return found if isinstance(found, int) and not isinstance(found, bool) else None

    def listed(self, test: str, measure: str) -> tuple[str, ...] | None:
        """What was ticked of a list; empty is an answer, None is none."""
        found = self.value(test, measure)
        return found if isinstance(found, tuple) else None
