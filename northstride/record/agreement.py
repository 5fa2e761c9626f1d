"""Repeated measurements from a file, checked against the catalogue, and what they say of agreement."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue, ValidationError

from northstride.core.catalogue import Catalogue, Measure
from northstride.core.examination import Trials, Value
from northstride.core.measuring.agreement import Interval, agreement_of_categories, agreement_of_numbers
from northstride.core.measuring.measurement import value_of_trials
from northstride.core.measuring.strength_grade import rank
from northstride.core.terms.errors import ConstantValues, Fault, TooFewValues
from northstride.record.json_text import InvalidRecord
from northstride.record.reading_model import Out
from northstride.record.values import Refused, read_value, shown

GRADES = [f"{whole}{sign}" for whole in range(6) for sign in ("-", "", "+")]
DECIMALS = 3
Name = Annotated[str, Field(min_length=1, max_length=120)]


class _In(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True)


class MeasurementIn(_In):
    """One subject, measured once. `occasion` tells an examiner's repeats apart."""

    subject: Name
    side: Literal["left", "right"] | None = None
    by: Name
    occasion: Annotated[int, Field(ge=1, le=99)] = 1
    test: Name
    measure: Name
    value: JsonValue


class AgreementFile(_In):
    format: Literal["north-stride/agreement"]
    version: Literal[1]
    measurements: Annotated[list[MeasurementIn], Field(min_length=1, max_length=20_000)]


class IntervalOut(Out):
    value: float
    low: float
    high: float


class LimitsOut(Out):
    between: tuple[str, str]
    bias: float
    sd: float
    low: float
    high: float


class KappaOut(Out):
    between: tuple[str, str]
    observed: float
    kappa: float
    linear: float | None
    quadratic: float | None


class MeasureAgreementOut(Out):
    test: str
    measure: str
    subjects: int
    columns: list[str]
    icc_agreement: IntervalOut | None
    icc_consistency: IntervalOut | None
    sem: float | None
    sem_within: float | None
    mdc95: float | None
    limits: list[LimitsOut]
    kappa: list[KappaOut]


class AgreementOut(Out):
    """`sem` is what a context takes: the clinic's own error of each measure."""

    measures: list[MeasureAgreementOut]
    sem: dict[str, float]


Column = tuple[str, int]
Cells = dict[tuple[str, str | None], dict[Column, Value]]


def read_agreement(raw: object, catalogue: Catalogue) -> AgreementOut:
    """Raises InvalidRecord with every fault of the file."""
    try:
        file = AgreementFile.model_validate(raw)
    except ValidationError as error:
        raise InvalidRecord([_shape_fault(dict(item)) for item in error.errors()]) from error
    faults: list[Fault] = []
    groups = _groups(file, catalogue, faults)
    found = [
        item
        for (test, code), cells in groups.items()
        for item in _judged(test, catalogue.measure(test, code), cells, faults)
    ]
    if faults:
        raise InvalidRecord(faults)
    return AgreementOut(
        measures=found,
        sem={
            f"{item.test}.{item.measure}": item.sem for item in found if item.sem is not None and item.sem > 0
        },
    )


def _shape_fault(error: Mapping[str, object]) -> Fault:
    parts = error["loc"]
    path = "$"
    for part in parts if isinstance(parts, tuple) else ():
        path = f"{path}[{part}]" if isinstance(part, int) else f"{path}.{part}"
    value = error.get("input")
    return Fault(path.removeprefix("$."), value, f"{shown(value)}: {error['msg']}")


def _groups(file: AgreementFile, catalogue: Catalogue, faults: list[Fault]) -> dict[tuple[str, str], Cells]:
    groups: dict[tuple[str, str], Cells] = {}
    for place, item in enumerate(file.measurements):
        path = f"measurements[{place}]"
        measure = catalogue.measure(item.test, item.measure)
        if measure is None or measure.kind == "choices":
            name = f"{item.test}.{item.measure}"
            faults.append(Fault(f"{path}.measure", name, f"{shown(name)} is no measure that can be compared"))
            continue
        try:
            value = read_value(measure, item.value, f"{path}.value")
        except Refused as refused:
            faults += refused.faults
            continue
        cells = groups.setdefault((item.test, item.measure), {})
        row = cells.setdefault((item.subject, item.side), {})
        column = (item.by, item.occasion)
        if column in row:
            faults.append(
                Fault(path, item.subject, f"{shown(item.subject)} stands twice for {_named(column)}")
            )
        row[column] = value
    return groups


def _named(column: Column) -> str:
    by, occasion = column
    return by if occasion == 1 else f"{by} ({occasion})"


def _judged(
    test: str, measure: Measure | None, cells: Cells, faults: list[Fault]
) -> Iterator[MeasureAgreementOut]:
    if measure is None:
        return
    columns = list(dict.fromkeys(column for row in cells.values() for column in row))
    where = f"{test}.{measure.code}"
    missing = list(_missing(where, cells, columns))
    faults += missing
    if missing:
        return
    table = [[row[column] for column in columns] for row in cells.values()]
    names = [_named(column) for column in columns]
    try:
        if measure.numeric:
            yield _numbers(test, measure, table, names)
        else:
            yield _categories(test, measure, table, names)
    except TooFewValues as error:
        faults.append(
            Fault(where, error.got, f"needs at least {error.needed} subjects and 2 columns, got {error.got}")
        )
    except ConstantValues as error:
        faults.append(Fault(where, None, str(error)))
    except TypeError:
        faults.append(Fault(where, None, "has values that were seen, not measured"))


def _missing(where: str, cells: Cells, columns: Sequence[Column]) -> Iterator[Fault]:
    for (subject, side), row in cells.items():
        for column in columns:
            if column not in row:
                who = f"{subject} {side}" if side else subject
                yield Fault(where, subject, f"{shown(who)} was not measured by {_named(column)}")


def _number(value: Value) -> float:
    """Raises TypeError for what was seen and not measured."""
    if not isinstance(value, Trials):
        raise TypeError
    return value_of_trials(value.values, "mean")


def _numbers(test: str, measure: Measure, table: list[list[Value]], names: list[str]) -> MeasureAgreementOut:
    found = agreement_of_numbers([[_number(value) for value in row] for row in table])
    return MeasureAgreementOut(
        test=test,
        measure=measure.code,
        subjects=found.subjects,
        columns=names,
        icc_agreement=_interval(found.agreement),
        icc_consistency=_interval(found.consistency),
        sem=round(found.sem, DECIMALS),
        sem_within=round(found.sem_within, DECIMALS),
        mdc95=round(found.mdc95, DECIMALS),
        limits=[
            LimitsOut(
                between=(names[item.first], names[item.second]),
                bias=round(item.bias, DECIMALS),
                sd=round(item.sd, DECIMALS),
                low=round(item.low, DECIMALS),
                high=round(item.high, DECIMALS),
            )
            for item in found.limits
        ],
        kappa=[],
    )


def _interval(found: Interval) -> IntervalOut:
    return IntervalOut(
        value=round(found.value, DECIMALS), low=round(found.low, DECIMALS), high=round(found.high, DECIMALS)
    )


def _categories(
    test: str, measure: Measure, table: list[list[Value]], names: list[str]
) -> MeasureAgreementOut:
    categories, ordered = _scale(measure)
    found = agreement_of_categories(table, categories, ordered=ordered)
    return MeasureAgreementOut(
        test=test,
        measure=measure.code,
        subjects=len(table),
        columns=names,
        icc_agreement=None,
        icc_consistency=None,
        sem=None,
        sem_within=None,
        mdc95=None,
        limits=[],
        kappa=[
            KappaOut(
                between=(names[item.first], names[item.second]),
                observed=round(item.observed, DECIMALS),
                kappa=round(item.kappa, DECIMALS),
                linear=None if item.linear is None else round(item.linear, DECIMALS),
                quadratic=None if item.quadratic is None else round(item.quadratic, DECIMALS),
            )
            for item in found
        ],
    )


def _scale(measure: Measure) -> tuple[list[Value], bool]:
    """All categories, in order where they have one."""
    if measure.kind == "grade":
        low, high = measure.plausible or (0, 0)
        return [*(measure.allowed or range(int(low), int(high) + 1))], True
    if measure.kind == "strength":
        return [*sorted(GRADES, key=rank)], True
    if measure.kind == "flag":
        return [False, True], False
    return [choice.code for choice in measure.choices], False
