"""A reading as it leaves the core: codes and rounded numbers, ready for JSON."""

from __future__ import annotations

import math
from collections.abc import Mapping

from northstride.core import findings
from northstride.core.catalogue import Catalogue
from northstride.core.examination.follows import Follows
from northstride.core.findings.change import Change
from northstride.core.norms.load import structures
from northstride.core.terms.sides import Side
from northstride.record.edition import shipped
from northstride.record.reading_model import (
    ActionOut,
    AdviceOut,
    AskOut,
    BaselineOut,
    ChangeOut,
    CoverageOut,
    CriterionOut,
    DifferenceOut,
    FlagOut,
    FollowsOut,
    HeldOut,
    NextOut,
    ReadingOut,
    ReasonOut,
    RetakeOut,
    RuledDownOut,
    ShutOut,
    SideCode,
    StrengthCode,
    UnexaminedOut,
)

# The one place where numbers are rounded: hundredths are finer than any instrument here.
DECIMALS = 2
STRENGTH_CODES: Mapping[findings.Strength, StrengthCode] = {
    findings.Strength.POSSIBLE: "possible",
    findings.Strength.LIKELY: "likely",
    findings.Strength.STRONG: "strong",
}


def reading_out(reading: findings.Reading, catalogue: Catalogue) -> ReadingOut:
    return ReadingOut(
        record=reading.record,
        rules=reading.rules,
        fingerprint=shipped(catalogue),
        flags=[_flag(flag) for flag in reading.flags],
        ruled_down=[
            RuledDownOut(code=item.code, side=_side(item.side), because=_reasons(item.because))
            for item in reading.ruled_down
        ],
        actions=[
            ActionOut(
                code=item.code,
                side=_side(item.side),
                urgency=item.urgency.value,
                start=item.start,
                end=item.end,
                because=list(item.because),
                says=item.says,
                tests=list(item.tests),
            )
            for item in reading.actions
        ],
        retake=[
            RetakeOut(test=item.test, side=_side(item.side), reason=item.reason) for item in reading.retake
        ],
        held=[HeldOut(test=item.test, side=_side(item.side), gate=item.gate) for item in reading.held],
        shut=[
            ShutOut(gate=item.gate, side=_side(item.side), tests=list(item.tests)) for item in reading.shut
        ],
        differences=[_difference(item) for item in reading.differences],
        follows=[_follows(item) for item in reading.follows],
        next=[NextOut(test=item.test, side=_side(item.side), why=item.why) for item in reading.next],
        ask=[AskOut(item=item.item, why=item.why, urgent=item.urgent) for item in reading.ask],
        criteria=[
            CriterionOut(criterion=item.criterion, state=item.state, at=item.at) for item in reading.criteria
        ],
        changes=[_change(item) for item in reading.changes],
        coverage=CoverageOut(
            planned=reading.coverage.planned,
            done=reading.coverage.done,
            declined=reading.coverage.declined,
            open=list(reading.coverage.open),
            unexamined=[_unexamined(item) for item in reading.coverage.unexamined],
        ),
        advice=[
            AdviceOut(code=item.code, side=_side(item.side), options=list(item.options))
            for item in reading.advice
        ],
    )


def _unexamined(item: findings.Unexamined) -> UnexaminedOut:
    names = {structure.code: structure.name for structure in structures()}
    return UnexaminedOut(
        structure=item.structure,
        name=names[item.structure],
        side=_side(item.side),
        why=item.why,
        tests=list(item.tests),
    )


def _side(side: Side | None) -> SideCode:
    return None if side is None else side.value


def _reasons(reasons: tuple[findings.Reason, ...]) -> list[ReasonOut]:
    return [ReasonOut(at=item.at, rule=item.rule, says=item.says) for item in reasons]


def _flag(flag: findings.Flag) -> FlagOut:
    return FlagOut(
        code=flag.code,
        kind=flag.kind,
        side=_side(flag.side),
        strength=STRENGTH_CODES[flag.strength],
        urgency=flag.urgency.value if flag.urgency else None,
        because=_reasons(flag.because),
        against=list(flag.against),
        settle=list(dict.fromkeys(settle.test for settle in flag.settle)),
        uncompared=flag.uncompared,
        sources=list(flag.sources),
    )


def _difference(item: findings.Difference) -> DifferenceOut:
    compared = item.comparison
    return DifferenceOut(
        test=item.test,
        measure=item.measure,
        left=round(compared.left, DECIMALS),
        right=round(compared.right, DECIMALS),
        difference=round(compared.difference, DECIMALS),
        mdc95=round(compared.mdc95, DECIMALS),
        threshold=compared.threshold,
        verdict=compared.verdict.value,
        symmetry=_rounded(item.symmetry),
        source=item.source,
    )


def _follows(item: Follows) -> FollowsOut:
    return FollowsOut(
        code=item.code,
        label=item.label,
        unit=item.unit,
        test=item.test,
        left=_rounded(item.left),
        right=_rounded(item.right),
    )


def _change(item: Change) -> ChangeOut:
    compared, exam = item.comparison, item.baseline.exam
    return ChangeOut(
        test=item.test,
        measure=item.measure,
        side=_side(item.side),
        verdict=item.verdict.value,
        why=item.why,
        baseline=BaselineOut(record=exam.id, date=exam.date, why=item.baseline.why),
        before=_rounded(item.before),
        now=_rounded(item.now),
        difference=_rounded(item.difference),
        mdc95=_rounded(compared.mdc95) if compared else None,
        threshold=_rounded(compared.threshold) if compared else None,
        matters=compared.matters if compared else None,
        worse=item.worse,
        same_examiner=item.same_examiner,
        growing=item.growing,
        source=item.source,
    )


def _rounded(value: float | None) -> float | None:
    """None too where there is no limit: JSON has no infinity."""
    return None if value is None or math.isinf(value) else round(value, DECIMALS)


def reading_json(reading: findings.Reading, catalogue: Catalogue) -> dict[str, object]:
    """What `evaluate` prints: `from` and `to` where there is a date, `symmetry` on ratio scales."""
    dumped = reading_out(reading, catalogue).model_dump(mode="json", by_alias=True)
    for action in dumped["actions"]:
        for key in ("from", "to"):
            if action[key] is None:
                del action[key]
    for difference in dumped["differences"]:
        if difference["symmetry"] is None:
            del difference["symmetry"]
    return dict(dumped)
