"""How a test is read, tried out: one answer at a time beside a sound other side, through all the rules.

Nothing is written down twice: what stands here is what the rules say of an adult with a gradual complaint
on the right, whose left side is as expected. What hangs on the story, on other tests or on both together
is not told by one answer, and does not show.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from northstride.core.catalogue import Catalogue, Measure, Test
from northstride.core.examination import (
    Athlete,
    Complaint,
    Context,
    Entry,
    Examination,
    Intake,
    Lane,
    Onset,
    Pain,
    Trials,
    Value,
)
from northstride.core.findings import Strength
from northstride.core.judgement.gates import Closed, covers
from northstride.core.judgement.judge import judge
from northstride.core.norms.load import all_gates
from northstride.core.terms.sides import Side
from northstride.core.terms.vocabulary import (
    DEFAULT_SCHOOLS,
    REGION_FAMILY,
    Confounder,
    Gate,
    RedFlag,
    Symptom,
)

DAY = dt.date(2026, 9, 14)
# Steps a range of numbers is looked through in, and how near its lines are found.
LOOKS = 24
NEAR = 0.5
STRENGTHS = ("5", "4", "3", "2")
GRADUAL, BEFORE = Onset(kind="gradual", date=dt.date(2026, 6, 1), mechanism="none"), frozenset({"history"})
ASKED = frozenset(get_args(Symptom)) | frozenset(get_args(RedFlag)) | frozenset(get_args(Confounder)) | BEFORE
Says = tuple[str, Strength | Literal["cleared"]]


@dataclass(frozen=True, slots=True)
class ReadAs:
    """An answer and what it is read as by itself.

    `value` is a code, grade or tick; numbers have `low` and `high` instead, in the measure's unit and open
    where None. `sites` are places of familiar pain that say the same. `cleared` speaks against the code.
    """

    measure: str | None
    value: str | int | bool | None
    low: float | None
    high: float | None
    sites: tuple[str, ...]
    code: str
    strength: Strength | None
    rules: tuple[str, ...]

    @property
    def cleared(self) -> bool:
        return self.strength is None


Found = Mapping[Says, tuple[str, ...]]


def how_read(catalogue: Catalogue, test: Test) -> tuple[ReadAs, ...]:
    """What each answer is read as, in the order of the test's measures, then pain by its place."""
    at = _Bench(catalogue, test)
    rows = [row for measure in test.measures for row in at.of_measure(measure)]
    return (*rows, *at.of_pain())


def held_by(catalogue: Catalogue, code: str) -> tuple[Gate, ...]:
    """The gates that hold a test while they are shut."""
    test = catalogue.tests[code]
    case = judge(_exam(test, ()), catalogue, Context()).case
    shut = [
        Closed(gate, Side.RIGHT, variant, REGION_FAMILY[test.region])
        for variant in all_gates()
        for gate in get_args(Gate)
        if variant == gate or variant.startswith(f"{gate}_")
    ]
    return tuple(dict.fromkeys(gate.gate for gate in shut if covers(case, gate, code)))


class _Bench:
    """A made-up examination of one test, its answers changed one by one."""

    def __init__(self, catalogue: Catalogue, test: Test) -> None:
        self.catalogue, self.test = catalogue, test
        self.usual = {m.code: value for m in test.measures if (value := _usual(test, m)) is not None}
        self.before = self._read(self.usual, None)

    def of_measure(self, measure: Measure) -> Iterator[ReadAs]:
        if measure.code == self.test.key:
            return
        if measure.numeric and measure.plausible is not None:
            yield from self._of_number(measure)
            return
        for value in _options(measure):
            told: Value = (str(value),) if measure.kind == "choices" else value
            for (code, strength), rules in self._new({**self.usual, measure.code: told}, None).items():
                yield ReadAs(measure.code, value, None, None, (), code, _strength(strength), rules)

    def of_pain(self) -> Iterator[ReadAs]:
        values = {**self.usual, "result": "positive"} if self.test.measure("result") else self.usual
        sites: dict[tuple[Says, tuple[str, ...]], list[str]] = {}
        for site in self.catalogue.sites.values():
            if self.test.pain_sites in site.areas:
                pain = Pain(present=True, nrs=5, site=site.code, familiar=True)
                for says, rules in self._new(values, pain).items():
                    sites.setdefault((says, rules), []).append(site.code)
        for ((code, strength), rules), codes in sites.items():
            yield ReadAs(None, None, None, None, tuple(codes), code, _strength(strength), rules)

    def _of_number(self, measure: Measure) -> Iterator[ReadAs]:
        low, high = measure.plausible or (0.0, 0.0)
        places = [low + (high - low) * step / LOOKS for step in range(LOOKS + 1)]
        found = [self._at(measure, place) for place in places]
        for says in dict.fromkeys(key for each in found for key in each):
            for first, last in _stretches([says in each for each in found]):
                start = None if first == 0 else self._line(measure, says, places[first], places[first - 1])
                end = None if last == LOOKS else self._line(measure, says, places[last], places[last + 1])
                rules = found[first][says]
                yield ReadAs(measure.code, None, start, end, (), says[0], _strength(says[1]), rules)

    def _line(self, measure: Measure, says: Says, inside: float, outside: float) -> float:
        """Where it begins to be read so, found by halving."""
        while abs(inside - outside) > NEAR:
            middle = (inside + outside) / 2
            inside, outside = (middle, outside) if says in self._at(measure, middle) else (inside, middle)
        return round(inside)

    def _at(self, measure: Measure, number: float) -> Found:
        whole = round(number) if measure.facts.whole else number
        return self._new({**self.usual, measure.code: Trials((float(whole),))}, None)

    def _new(self, values: Mapping[str, Value], pain: Pain | None) -> Found:
        return {says: rules for says, rules in self._read(values, pain).items() if says not in self.before}

    def _read(self, values: Mapping[str, Value], pain: Pain | None) -> Found:
        entries = tuple(_entries(self.test, self.usual, values, pain))
        judged = judge(_exam(self.test, entries), self.catalogue, Context())
        found: dict[Says, tuple[str, ...]] = {}
        for flag in judged.flags:
            if flag.side is not Side.LEFT:
                found[(flag.code, flag.strength)] = tuple(dict.fromkeys(r.rule for r in flag.because))
        for item in judged.ruled_down:
            if item.side is not Side.LEFT:
                found[(item.code, "cleared")] = tuple(dict.fromkeys(r.rule for r in item.because))
        return found


def _strength(says: Strength | Literal["cleared"]) -> Strength | None:
    return None if says == "cleared" else says


def _stretches(inside: Sequence[bool]) -> Iterator[tuple[int, int]]:
    start: int | None = None
    for place, here in enumerate((*inside, False)):
        if here and start is None:
            start = place
        if not here and start is not None:
            yield start, place - 1
            start = None


def _usual(test: Test, measure: Measure) -> Value | None:
    """What is expected of a sound side; of the key, its first code. None where nobody can say."""
    if measure.code == test.key:
        return measure.choices[0].code if measure.choices else int((measure.plausible or (1, 1))[0])
    if measure.normal is not None:
        return tuple(measure.normal) if isinstance(measure.normal, list) else measure.normal
    if not measure.numeric:
        return None
    if measure.usual is not None:
        return Trials((sum(measure.usual) / 2,))
    return Trials((measure.usual_adult,)) if measure.usual_adult is not None else None


def _options(measure: Measure) -> Iterator[str | int | bool]:
    if measure.kind == "flag":
        yield from (True, False)
    elif measure.kind == "strength":
        yield from STRENGTHS
    elif measure.choices:
        yield from (choice.code for choice in measure.choices)
    elif measure.plausible is not None:
        low, high = measure.plausible
        yield from measure.allowed or range(int(low), int(high) + 1)


def _entries(
    test: Test, usual: Mapping[str, Value], values: Mapping[str, Value], pain: Pain | None
) -> Iterator[Entry]:
    def placed(side: Lane, given: Mapping[str, Value]) -> dict[tuple[str, Lane], Value]:
        return {
            (code, side if (found := test.measure(code)) and found.per_side else None): value
            for code, value in given.items()
        }

    key = usual.get(test.key) if test.key else None
    if test.sides == "both":
        both = {**placed(Side.LEFT, usual), **placed(Side.RIGHT, values)}
        yield Entry("entries[0]", test.code, None, both, pain, key=key)
        return
    yield Entry("entries[0]", test.code, Side.LEFT, placed(Side.LEFT, usual), Pain(present=False), key=key)
    yield Entry("entries[1]", test.code, Side.RIGHT, placed(Side.RIGHT, values), pain, key=key)


def _exam(test: Test, entries: tuple[Entry, ...]) -> Examination:
    """An adult whose story asks for nothing and shuts nothing."""
    complaint = Complaint(test.region, "right")
    return Examination(
        id="how it is read",
        date=DAY,
        purpose="teaching",
        athlete=Athlete("nobody", birth_date=dt.date(1996, 5, 2), sex="female"),
        schools=DEFAULT_SCHOOLS,
        intake=Intake(complaint=complaint, onset=GRADUAL, load_change=False, asked=ASKED),
        planned=(),
        left_out={},
        entries=entries,
        overrides=(),
    )
