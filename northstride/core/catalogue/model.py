"""The shape of one test as data. Everything that shows, stores or reads a test goes by this."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, JsonValue, model_validator

from northstride.core.catalogue.data import Code, Data, Line
from northstride.core.catalogue.figure import Figure
from northstride.core.catalogue.kinds import KIND_FACTS, KindFacts, MeasureKind
from northstride.core.catalogue.polarity import Polarity
from northstride.core.catalogue.score import Score
from northstride.core.terms.vocabulary import LengthOrAngle, Purpose, Region, RetakeReason, Unit

Position = Literal["standing", "sitting", "supine", "side_lying", "prone"]


class SchoolChoice(Data):
    """Shown only where the screen's school `key` is one of `among`."""

    key: Line
    among: list[str | int]


class Choice(Data):
    code: Code
    label: Line


class Arms(Data):
    """How a goniometer is laid on: axis, stationary arm, moving arm."""

    axis: Line
    stationary: Line
    moving: Line


class Words(Data):
    """What the sign of a number and the direction of a difference are called aloud."""

    positive: Line = "more"
    negative: Line = "less"
    zero: Line = "zero"
    finding: Line = "more"


class ErrorFigure(Data):
    """Standard error of measurement and the side difference that matters, in the measure's unit.

    `percent` says which of the two are percent instead: the error of the mean of both sides, the
    threshold of the larger one.
    """

    sem: Annotated[float, Field(gt=0)]
    threshold: Annotated[float, Field(gt=0)]
    assumed: bool
    source: Line
    percent: Literal["threshold", "both"] | None = None


class OnMap(Data):
    """Where the codes of a list are answered on drawings: which list of points, which views in turn.

    `pressed` names the measure that says which of them were pressed at all.
    """

    points: Code
    views: Annotated[list[Code], Field(min_length=1)]
    pressed: Code | None = None


class SpotsMap(Data):
    """Measures of a step answered at places of a drawing, each with the code of its place.

    Of a keyed test the keys are the places.
    """

    points: Code
    views: Annotated[list[Code], Field(min_length=1)]
    measures: Annotated[list[Code], Field(min_length=1)]
    ask: Line


class Clock(Data):
    """A hold that is timed: its target and its end in seconds, and where the first pain is written."""

    target: Annotated[float, Field(gt=0)]
    longest: Annotated[float, Field(gt=0)]
    onset: Code | None = None


class Measure(Data):
    code: Code
    label: Line
    ask: Line
    kind: MeasureKind
    unit: Unit = "1"
    trials: Annotated[int, Field(ge=1, le=5)] = 1
    plausible: tuple[float, float] | None = None
    usual: tuple[float, float] | None = None
    polarity: Polarity = "higher"
    words: Words = Words()
    error: ErrorFigure | None = None
    arms: Arms | None = None
    choices: list[Choice] = []
    # A grade that takes only some of the whole numbers in its range.
    allowed: list[int] = []
    mirrored: dict[str, str] = {}
    # The same number told another way.
    instead_of: Code | None = None
    # Another number for the same thing: either will do, and they are not compared with each other.
    either_or: Code | None = None
    per_side: bool = True
    # Said of both sides at once, or of the side where it is seen.
    side_optional: bool = False
    # What range norms compare with where no better reference is known, in the measure's unit.
    usual_adult: float | None = None
    map: OnMap | None = None
    clock: Clock | None = None
    # The measure that says how far from the joint a force was taken: both together are a torque.
    lever: Code | None = None
    # What each grade is called, from the lowest; `ladder`: drawn as a shift that grows with it.
    grades: list[Line] = []
    ladder: bool = False
    # Offered beside the number: seen to the end, not measured.
    looks_full: bool = False
    # Watched for as long as this, in seconds, before anything is said.
    watch: Annotated[float, Field(gt=0)] | None = None
    # Asked once about the person and written for both sides.
    about_person: bool = False
    # What a grade is counted from, one point each, where nobody remembers them all.
    points_for: list[Line] = []
    # What "normal" means where it can be known without measuring.
    normal: str | int | bool | list[str] | None = None

    @property
    def facts(self) -> KindFacts:
        return KIND_FACTS[self.kind]

    @property
    def numeric(self) -> bool:
        return self.facts.numeric

    @property
    def ratio_scale(self) -> bool:
        return self.facts.ratio

    @model_validator(mode="after")
    def has_what_its_kind_needs(self) -> Self:
        if self.facts.ranged and self.plausible is None:
            raise ValueError(f"measure {self.code} needs its plausible range")
        if self.facts.chosen and not self.choices:
            raise ValueError(f"measure {self.code} needs its choices")
        if self.grades and (self.plausible is None or len(self.grades) != _steps(self.plausible)):
            raise ValueError(f"measure {self.code} needs a word for every grade")
        known = {choice.code for choice in self.choices}
        if unknown := (set(self.mirrored) | set(self.mirrored.values())) - known:
            raise ValueError(f"measure {self.code} mirrors unknown choices: {sorted(unknown)}")
        return self


def _steps(ends: tuple[float, float]) -> int:
    return int(ends[1] - ends[0]) + 1


class Derived(Data):
    """A number that follows from this test's measures and is compared and trended like one."""

    code: Code
    label: Line
    kind: Literal["angle", "length"]
    unit: LengthOrAngle
    polarity: Polarity
    words: Words = Words()
    usual: tuple[float, float] | None = None
    error: ErrorFigure


class Seen(Data):
    """Something the examiner sees that changes what a value is worth."""

    code: Code
    label: Line
    flatters: list[Code] = []
    voids: list[Code] = []
    retake: RetakeReason | None = None


class Shape(Data):
    """Measures that many tests share. Checked where a test uses them: a range is its own."""

    code: Code
    measures: Annotated[list[dict[str, JsonValue]], Field(min_length=1)]


class Step(Data):
    code: Code
    title: Line
    setup: Annotated[list[Line], Field(max_length=5)]
    measures: list[Code]
    seen: list[Code] = []
    figure: Figure | None = None
    map: SpotsMap | None = None
    school: SchoolChoice | None = None


class Test(Data):
    code: Code
    name: Line
    other_names: list[Line] = []
    region: Region
    position: Position
    sides: Literal["each", "both"]
    seconds: Annotated[int, Field(gt=0, le=600)]
    purpose: Line
    family: Code
    loads: list[Code] = []
    # The athlete stands on the tested leg alone.
    on_one_leg: bool = False
    # What danger hangs on is looked at, not assumed: nothing of it is written as expected from another stop.
    own_stop: bool = False
    # Positions it can be done in just as well.
    also_in: list[Position] = []
    # How and where it is done by those who should not lie prone; none means it is left out for them.
    instead_of_prone: Line | None = None
    instead_of_prone_in: Position | None = None
    needs: list[Line] = []
    cautions: list[Line] = []
    traps: list[Line] = []
    pain_sites: Literal["hip", "ankle", "foot"]
    planned_for: list[Purpose] = []
    key: Code | None = None
    methods: list[Code] = []
    # The school that says how it is done where an entry names no method.
    method_school: Code | None = None
    # May be empty: some tests record pain and its place alone.
    measures: list[Measure] = []
    derived: list[Derived] = []
    score: Score | None = None
    seen: list[Seen] = []
    steps: Annotated[list[Step], Field(min_length=1)]

    def measure(self, code: str) -> Measure | None:
        return next((measure for measure in self.measures if measure.code == code), None)

    def derived_code(self, code: str) -> Derived | None:
        return next((item for item in self.derived if item.code == code), None)

    def seen_code(self, code: str) -> Seen | None:
        return next((seen for seen in self.seen if seen.code == code), None)

    @model_validator(mode="after")
    def names_only_what_it_has(self) -> Self:
        measures = [measure.code for measure in self.measures]
        seen = [item.code for item in self.seen]
        for kind, codes in (("measure", measures), ("seen", seen), ("step", [s.code for s in self.steps])):
            if doubled := sorted({code for code in codes if codes.count(code) > 1}):
                raise ValueError(f"{kind} codes stand twice: {doubled}")
        named = {code for step in self.steps for code in step.measures}
        named |= {code for item in self.seen for code in (*item.flatters, *item.voids)}
        named |= {measure.instead_of for measure in self.measures if measure.instead_of}
        named |= {measure.lever for measure in self.measures if measure.lever}
        named |= {measure.either_or for measure in self.measures if measure.either_or}
        named |= {code for step in self.steps if step.map for code in step.map.measures}
        named |= {item.measure for item in self.score.items} if self.score else set()
        named |= {m.map.pressed for m in self.measures if m.map and m.map.pressed}
        named |= {m.clock.onset for m in self.measures if m.clock and m.clock.onset}
        if unknown := named - set(measures):
            raise ValueError(f"unknown measures: {sorted(unknown)}")
        if unasked := set(measures) - {code for step in self.steps for code in step.measures}:
            raise ValueError(f"measures no step asks: {sorted(unasked)}")
        if unknown := {code for step in self.steps for code in step.seen} - set(seen):
            raise ValueError(f"unknown seen codes: {sorted(unknown)}")
        if (self.instead_of_prone is None) != (self.instead_of_prone_in is None):
            raise ValueError("what stands instead of prone needs its words and its position")
        if self.key is not None and self.key not in measures:
            raise ValueError(f"unknown key measure: {self.key}")
        return self


class Site(Data):
    code: Code
    label: Line
    region: Region
    areas: list[Literal["hip", "ankle", "foot"]]
    # Whether an athlete can point to it.
    told: bool = True
