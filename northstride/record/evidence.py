"""How much each sign says, as it leaves the core: ratios, words, and where a probability could move."""

from __future__ import annotations

import math
from typing import Literal

from northstride.core.catalogue import Catalogue
from northstride.core.evidence.weights import Evidence, Ratio, Word, probability_range
from northstride.core.norms.accuracy import accuracy_label
from northstride.record.reading_model import Out, SideCode


class RangeOut(Out):
    """Least and most favourable. `most` is null where a study leaves it without a bound."""

    least: float | None
    most: float | None


class ProbabilityOut(Out):
    start: float
    low: float
    high: float


class SignOut(Out):
    code: str
    side: SideCode
    sign: str
    test: str
    at: str
    result: Literal["positive", "negative"]
    ratio: RangeOut | None
    least: Word
    most: Word
    family: str
    counts: bool
    source: str
    probability: ProbabilityOut | None


class EvidenceOut(Out):
    record: str
    label: str
    signs: list[SignOut]


def evidence_out(record: str, found: tuple[Evidence, ...], start: float | None) -> EvidenceOut:
    """Raises NotAProbability for a start that is none. Only the sign that counts moves a probability."""
    return EvidenceOut(record=record, label=accuracy_label(), signs=[_sign(item, start) for item in found])


def _sign(item: Evidence, start: float | None) -> SignOut:
    moved = None
    if start is not None and item.counts and item.ratio is not None:
        low, high = probability_range(start, item.ratio)
        moved = ProbabilityOut(start=start, low=round(low, 2), high=round(high, 2))
    return SignOut(
        code=item.code,
        side=item.side.value,
        sign=item.sign,
        test=item.test,
        at=item.at,
        result=item.result,
        ratio=_range(item.ratio),
        least=item.least,
        most=item.most,
        family=item.family,
        counts=item.counts,
        source=item.source,
        probability=moved,
    )


def _range(ratio: Ratio | None) -> RangeOut | None:
    if ratio is None:
        return None
    return RangeOut(least=_two_digits(ratio.least), most=_two_digits(ratio.most))


def _two_digits(ratio: float) -> float | None:
    """As many digits as the studies carry."""
    return None if math.isinf(ratio) else float(f"{ratio:.2g}")


def evidence_text(found: EvidenceOut, catalogue: Catalogue) -> str:
    lines = [f"How much the signs say ({found.label})"]
    for sign in found.signs:
        says = sign.least if sign.least == sign.most else f"{sign.least}, at best {sign.most}"
        lines.append(f"  {sign.side} {sign.code}: {sign.sign} {sign.result}, says {says}")
        lines.append(f"    {_ratio(sign.ratio)}, {sign.source}, {catalogue.tests[sign.test].name}")
        if not sign.counts and sign.ratio is not None:
            lines.append("    not counted: another sign of the same structure says more")
        if sign.probability is not None:
            start, low, high = (
                round(p * 100) for p in (sign.probability.start, sign.probability.low, sign.probability.high)
            )
            lines.append(f"    from {start} % it could move to {low} to {high} %")
    return "\n".join(lines)


def _ratio(ratio: RangeOut | None) -> str:
    return "no figure" if ratio is None else f"ratio {_said(ratio.least)} to {_said(ratio.most)}"


def _said(ratio: float | None) -> str:
    return "no bound" if ratio is None else f"{ratio:g}"
