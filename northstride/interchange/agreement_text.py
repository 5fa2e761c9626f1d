"""How well examiners agree, in lines."""

from __future__ import annotations

from northstride.core.catalogue import Catalogue
from northstride.record.agreement import AgreementOut, KappaOut, LimitsOut


def agreement_text(found: AgreementOut, catalogue: Catalogue) -> str:
    lines: list[str] = []
    for item in found.measures:
        measure = catalogue.measure(item.test, item.measure)
        name = measure.label if measure else item.measure
        lines.append(
            f"{catalogue.tests[item.test].name}, {name}: {item.subjects} subjects, {', '.join(item.columns)}"
        )
        if item.icc_agreement and item.icc_consistency:
            for kind, icc in (("(2,1)", item.icc_agreement), ("(3,1)", item.icc_consistency)):
                lines.append(f"  ICC{kind} {icc.value:.2f} ({icc.low:.2f} to {icc.high:.2f})")
            lines.append(f"  SEM {item.sem:.2f}, smallest real change {item.mdc95:.2f}")
        lines += [_limits_line(pair) for pair in item.limits]
        lines += [_kappa_line(pair) for pair in item.kappa]
    return "\n".join(lines)


def _limits_line(pair: LimitsOut) -> str:
    one, other = pair.between
    return f"  {one} − {other}: {pair.bias:+.2f}, 95 % within {pair.low:.2f} to {pair.high:.2f}"


def _kappa_line(pair: KappaOut) -> str:
    one, other = pair.between
    line = f"  {one} and {other}: {pair.observed:.0%} alike, kappa {pair.kappa:.2f}"
    if pair.linear is None or pair.quadratic is None:
        return line
    return f"{line}, weighted {pair.linear:.2f} linear, {pair.quadratic:.2f} quadratic"
