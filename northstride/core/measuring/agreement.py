"""How well examiners agree with themselves and with each other.

Numbers: intraclass correlation for single measurements, two-way, by agreement (2,1) and by consistency
(3,1) after Shrout & Fleiss 1979, intervals after McGraw & Wong 1996; limits of agreement after Bland &
Altman 1986. Categories: kappa after Cohen 1960, weighted after Cohen 1968.
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from itertools import combinations

from scipy.special import fdtri

from northstride.core.measuring.measurement import Z95, smallest_real_change
from northstride.core.terms.errors import ConstantValues, TooFewValues

FEWEST_SUBJECTS, FEWEST_COLUMNS = 3, 2
UPPER_TAIL = 0.975
# One row a subject, one column an examiner or occasion; every cell filled.
Table = Sequence[Sequence[float]]


@dataclass(frozen=True, slots=True)
class Interval:
    """A coefficient with its 95 % confidence interval."""

    value: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class MeanSquares:
    """Of a two-way table without repeats: between subjects, between columns, and what is left."""

    subjects: int
    columns: int
    between_subjects: float
    between_columns: float
    error: float


@dataclass(frozen=True, slots=True)
class Limits:
    """Limits of agreement of one column against another: bias ± 1.96 SD, in the measure's unit."""

    first: int
    second: int
    bias: float
    sd: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class NumberAgreement:
    """`sem` includes what examiners differ by; `sem_within` does not. Both in the measure's unit."""

    subjects: int
    columns: int
    agreement: Interval
    consistency: Interval
    sem: float
    sem_within: float
    mdc95: float
    limits: tuple[Limits, ...]


@dataclass(frozen=True, slots=True)
class Kappa:
    """Of one column against another. Weighted ones are None where categories have no order."""

    first: int
    second: int
    observed: float
    kappa: float
    linear: float | None
    quadratic: float | None


def mean_squares(table: Table) -> MeanSquares:
    """Raises TooFewValues under 3 subjects or 2 columns, ConstantValues where all subjects are alike."""
    _enough(table)
    n, k = len(table), len(table[0])
    rows = [statistics.fmean(row) for row in table]
    columns = [statistics.fmean(column) for column in zip(*table, strict=True)]
    grand = statistics.fmean(rows)
    between_rows = k * sum((mean - grand) ** 2 for mean in rows)
    between_columns = n * sum((mean - grand) ** 2 for mean in columns)
    total = sum((value - grand) ** 2 for row in table for value in row)
    if math.isclose(between_rows, 0, abs_tol=1e-9):
        raise ConstantValues("subjects")
    left = max(0.0, total - between_rows - between_columns)
    return MeanSquares(n, k, between_rows / (n - 1), between_columns / (k - 1), left / ((n - 1) * (k - 1)))


def _enough(table: Sequence[Sequence[object]]) -> None:
    if len(table) < FEWEST_SUBJECTS:
        raise TooFewValues(FEWEST_SUBJECTS, len(table))
    if len(table[0]) < FEWEST_COLUMNS:
        raise TooFewValues(FEWEST_COLUMNS, len(table[0]))


def by_agreement(found: MeanSquares) -> Interval:
    """ICC(2,1): every examiner a random one, their differences counted as error."""
    n, k = found.subjects, found.columns
    rows, columns, error = found.between_subjects, found.between_columns, found.error
    value = (rows - error) / (rows + (k - 1) * error + k * (columns - error) / n)
    if error == 0 and columns == 0:
        return Interval(1.0, 1.0, 1.0)
    ratio = math.inf if error == 0 else columns / error
    freedom = _freedom(n, k, value, ratio)
    rest = k * columns + (k * n - k - n) * error
    upper, lower = _quantile(n - 1, freedom), _quantile(freedom, n - 1)
    low = n * (rows - upper * error) / (upper * rest + n * rows)
    high = n * (lower * rows - error) / (rest + n * lower * rows)
    return Interval(value, low, high)


def _freedom(n: int, k: int, icc: float, ratio: float) -> float:
    """Degrees of freedom after Satterthwaite; `ratio` is columns against error.

    A negative coefficient is a variance of nought: with it the weights would turn against each other.
    """
    icc = max(0.0, icc)
    if math.isinf(ratio):
        return float(k - 1)
    a, b = k * icc * ratio, n * (1 + (k - 1) * icc) - k * icc
    return (k - 1) * (n - 1) * (a + b) ** 2 / ((n - 1) * a**2 + b**2)


def by_consistency(found: MeanSquares) -> Interval:
    """ICC(3,1): these examiners only, their steady differences not counted."""
    n, k = found.subjects, found.columns
    rows, error = found.between_subjects, found.error
    if error == 0:
        return Interval(1.0, 1.0, 1.0)
    ratio, left = rows / error, (n - 1) * (k - 1)
    low, high = ratio / _quantile(n - 1, left), ratio * _quantile(left, n - 1)
    return Interval(
        (rows - error) / (rows + (k - 1) * error), (low - 1) / (low + k - 1), (high - 1) / (high + k - 1)
    )


def _quantile(numerator: float, denominator: float) -> float:
    return float(fdtri(numerator, denominator, UPPER_TAIL))


def agreement_of_numbers(table: Table) -> NumberAgreement:
    """Everything of one measure. Raises TooFewValues, ConstantValues."""
    found = mean_squares(table)
    examiners = max(0.0, (found.between_columns - found.error) / found.subjects)
    sem = math.sqrt(examiners + found.error)
    return NumberAgreement(
        found.subjects,
        found.columns,
        by_agreement(found),
        by_consistency(found),
        sem,
        math.sqrt(found.error),
        smallest_real_change(sem),
        tuple(_limits(table, one, other) for one, other in combinations(range(found.columns), 2)),
    )


def _limits(table: Table, first: int, second: int) -> Limits:
    differences = [row[first] - row[second] for row in table]
    bias, sd = statistics.fmean(differences), statistics.stdev(differences)
    return Limits(first, second, bias, sd, bias - Z95 * sd, bias + Z95 * sd)


def agreement_of_categories(
    table: Sequence[Sequence[Hashable]], categories: Sequence[Hashable], *, ordered: bool
) -> tuple[Kappa, ...]:
    """Each column against each other. `categories` in their order where they have one.

    Raises TooFewValues, and ConstantValues where chance alone would give full agreement.
    """
    _enough(table)
    place = {category: index for index, category in enumerate(categories)}
    return tuple(
        _kappa([(place[row[first]], place[row[second]]) for row in table], first, second, len(place), ordered)
        for first, second in combinations(range(len(table[0])), 2)
    )


def _kappa(pairs: Sequence[tuple[int, int]], first: int, second: int, size: int, ordered: bool) -> Kappa:
    same = sum(one == other for one, other in pairs) / len(pairs)
    plain = _weighted(pairs, size, 0)
    weighted = [_weighted(pairs, size, power) if ordered else None for power in (1, 2)]
    return Kappa(first, second, same, plain, weighted[0], weighted[1])


def _weighted(pairs: Sequence[tuple[int, int]], size: int, power: int) -> float:
    """1 − observed over expected disagreement; power 0 counts every disagreement alike."""
    n = len(pairs)
    firsts, seconds = ([sum(pair[side] == c for pair in pairs) / n for c in range(size)] for side in (0, 1))

    def disagreement(one: int, other: int) -> float:
        return float(one != other) if power == 0 else float(abs(one - other) ** power)

    expected = sum(
        disagreement(one, other) * firsts[one] * seconds[other]
        for one in range(size)
        for other in range(size)
    )
    if math.isclose(expected, 0, abs_tol=1e-12):
        raise ConstantValues("categories")
    return 1 - sum(disagreement(one, other) for one, other in pairs) / n / expected
