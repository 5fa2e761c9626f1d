"""F1 and F2: heel and arch under load. Hindfoot angle: plus is valgus; degrees, mm, points."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.examination.derived import navicular_drop, posture_total
from northstride.core.findings import Finding, Reason, Strength, Urgency
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.norms import limits
from northstride.core.rules.alignment import referred_for_shape
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import degrees, plain

LIMIT = limits("foot")

STANDING, DROP, INDEX, RISE = (
    "foot.standing",
    "foot.navicular_drop",
    "foot.posture_index",
    "ankle.heel_rise",
)
LOW, HIGH = "alignment.low_arch", "alignment.high_arch"


def heel_leans_out(case: Case) -> Iterator[Finding]:
    """F1: valgus beyond 7 possible, beyond 10 likely; 3 to 5 is usual."""
    for side in SIDES:
        found = case.number(STANDING, "hindfoot_angle", side)
        if found is not None and more_than(found.value, LIMIT["valgus_possible_beyond"]):
            likely = more_than(found.value, LIMIT["valgus_likely_beyond"])
            says = f"The heel leans out {degrees(found.value)}"
            yield _heel(case, "valgus", side, found.at, says, likely=likely)


def heel_leans_in(case: Case) -> Iterator[Finding]:
    """F1: varus below 0 possible, below −3 likely."""
    for side in SIDES:
        found = case.number(STANDING, "hindfoot_angle", side)
        if found is not None and less_than(found.value, LIMIT["varus_possible_below"]):
            likely = less_than(found.value, LIMIT["varus_likely_below"])
            says = f"The heel leans in {degrees(-found.value)}"
            yield _heel(case, "varus", side, found.at, says, likely=likely)


def _heel(case: Case, way: str, side: Side, at: str, says: str, *, likely: bool) -> Finding:
    """Whether it corrects on a heel rise that was possible: flexible; where not, rigid and referred."""
    turns = case.value(RISE, "heel_turns_in", side)
    count = case.number(RISE, "count", side)
    told = isinstance(turns, bool) and (count is None or count.value >= 1)
    word = (", flexible" if turns else ", rigid") if told else ""
    strength = Strength.LIKELY if likely else Strength.POSSIBLE
    because = Reason(at, "F1", f"{says}{word}.")
    urgency = Urgency.REFER if word == ", rigid" else referred_for_shape(case, side, strength)
    code = f"alignment.hindfoot_{way}"
    return Finding(code, side, strength, because, STANDING, "hindfoot_angle", urgency=urgency)


def _toes_outside(case: Case, side: Side) -> str:
    toes = case.number(STANDING, "toes_seen_outside", side)
    many = toes is not None and more_than(toes.value, LIMIT["toes_outside_beyond"])
    return f"; {plain(toes.value)} toes show outside" if many and toes is not None else ""


def arch_drops(case: Case) -> Iterator[Finding]:
    """F2: navicular drop beyond 10 mm possible, beyond 15 likely."""
    for side in SIDES:
        drop = navicular_drop(case, side)
        if drop is not None and more_than(drop.value, LIMIT["drop_possible_beyond"]):
            likely = more_than(drop.value, LIMIT["drop_likely_beyond"])
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            says = f"The navicular drops {plain(drop.value)} mm{_toes_outside(case, side)}."
            yield _arch(case, LOW, side, strength, Reason(drop.at, "F2", says), DROP, "height_standing")


def posture_out_of_line(case: Case) -> Iterator[Finding]:
    """F2: posture index 6 or more possible, 10 or more likely; −1 or less possible, −5 or less likely."""
    for side in SIDES:
        total = posture_total(case, side)
        if total is None:
            continue
        because = Reason(total.at, "F2", f"Posture index {plain(total.value)}{_toes_outside(case, side)}.")
        if total.value >= LIMIT["flat_possible_from"]:
            likely = total.value >= LIMIT["flat_likely_from"]
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            yield _arch(case, LOW, side, strength, because, INDEX, "medial_arch")
        elif total.value <= LIMIT["high_possible_up_to"]:
            likely = total.value <= LIMIT["high_likely_up_to"]
            because = Reason(total.at, "F2", f"Posture index {plain(total.value)}.")
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            yield _arch(case, HIGH, side, strength, because, INDEX, "medial_arch")


def _arch(
    case: Case, code: str, side: Side, strength: Strength, because: Reason, test: str, measure: str
) -> Finding:
    urgency = referred_for_shape(case, side, strength)
    return Finding(code, side, strength, because, test, measure, urgency=urgency)
