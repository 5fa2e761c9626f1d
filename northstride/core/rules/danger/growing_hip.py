"""S6, S6u, S6b and S7: a child's hip, and what is missing before it may be moved. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Next, Question, Reason, Strength, Urgency
from northstride.core.measuring.measurement import less_than
from northstride.core.norms import limits
from northstride.core.norms.limit import with_limits
from northstride.core.rules.limp import (
    GAIT,
    cannot_take_steps,
    hurts_from_hip_to_knee,
    limps,
    limps_or_toes_out,
)
from northstride.core.rules.onset import sudden
from northstride.core.rules.pain import hurts
from northstride.core.rules.palpation import STEPS
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("danger")

ROTATION_90 = "hip.rom.internal_rotation_90"
GROWTH_PLATE, LIMPING_CHILD = "danger.growth_plate_hip", "danger.limping_child"
LIMPING = "A limping child is seen the same day."
LODER, SLIP = ("Loder 1993",), "A growing hip: may the growth plate have slipped?"
STEPS_FIRST = with_limits(
    "A growing hip: {danger.steps_to_take:word} steps, if they are possible, before anything else."
)
NO_STEPS = with_limits(
    "At this age {danger.steps_to_take:word} steps are not possible: do not move that hip."
)
CHILD_LIMPS = with_limits("A limping child under {danger.growth_age_from}.")


def _of_growth_age(case: Case) -> bool:
    return case.age is not None and LIMIT["growth_age_from"] <= case.age <= LIMIT["growth_age_to"]


def _little(case: Case, side: Side) -> bool:
    rotation = case.range_of(ROTATION_90, side)
    return rotation is not None and less_than(rotation.value, LIMIT["little_internal_rotation"])


def _less_than_other(case: Case, side: Side) -> bool:
    """A side difference beyond error and threshold, with less on this side."""
    both = case.alike(ROTATION_90, ROTATION_90, side, side.other)
    compared = case.compare(ROTATION_90, "passive", both[0].value, both[1].value) if both else None
    return compared is not None and compared.matters and compared.difference < 0


def growth_plate_hip(case: Case) -> Iterator[Finding]:
    """S6: age 8 to 16, pain from hip to knee and little internal rotation, limping or not."""
    if not (_of_growth_age(case) and hurts_from_hip_to_knee(case)):
        return
    for side in case.sides_of_complaint:
        entry = case.entry(ROTATION_90, side)
        if entry is None or not (_little(case, side) or _less_than_other(case, side)):
            continue
        likely = limps_or_toes_out(case) or hurts(entry)
        says = "At this age little internal rotation with pain from hip to knee: no weight on it."
        yield Finding(
            GROWTH_PLATE,
            side,
            Strength.LIKELY if likely else Strength.POSSIBLE,
            Reason(entry.at, "S6", says),
            ROTATION_90,
            urgency=Urgency.SAME_DAY,
        )


def _unstable(case: Case) -> bool:
    """S6u: such a hip, and four steps are not possible now. A sudden knee injury has rules of its own."""
    complaint = case.complaint
    knee_injury = sudden(case) and complaint is not None and complaint.region == "knee"
    suspect = _of_growth_age(case) and hurts_from_hip_to_knee(case) and cannot_take_steps(case)
    return suspect and not knee_injury


def growth_plate_unstable(case: Case) -> Iterator[Finding]:
    """S6u: four steps not possible at this age (Loder 1993): an emergency, and the hip is left alone."""
    if not _unstable(case):
        return
    entry = next(entry for side in SIDES if (entry := case.entry(STEPS, side)) is not None)
    for side in case.complaint_sides:
        because = Reason(entry.at, "S6u", NO_STEPS)
        yield Finding(GROWTH_PLATE, side, Strength.LIKELY, because, sources=LODER, urgency=Urgency.EMERGENCY)


def limping_child(case: Case) -> Iterator[Finding]:
    """S7: under 8 with a limp sign."""
    if case.age is None or case.age >= LIMIT["growth_age_from"] or not limps(case):
        return
    at = "intake.symptoms" if "limp" in case.exam.intake.symptoms else _where_it_limps(case)
    for side in case.complaint_sides:
        because = Reason(at, "S7", CHILD_LIMPS)
        yield Finding(LIMPING_CHILD, side, Strength.POSSIBLE, because, urgency=Urgency.SAME_DAY)


def _where_it_limps(case: Case) -> str:
    entries = (case.entry(test, lane) for test in (GAIT, STEPS) for lane in (None, *SIDES))
    return next(entry.at for entry in entries if entry is not None)


def growth_plate_gate(case: Case) -> Iterator[GateRaised | Next]:
    """S6b: a limping hip of growing, or unknown, age is held until rotation and age are known."""
    if _unstable(case):
        for side in case.sides_of_complaint:
            yield GateRaised("growth_plate_doubt", side, variant="growth_plate_unstable")
        return
    for finding in (*growth_plate_hip(case), *limping_child(case)):
        for side in (finding.side,) if finding.side else SIDES:
            yield GateRaised("growth_plate_doubt", side)
    for side in _in_doubt(case):
        yield GateRaised("growth_plate_doubt", side, until_answered=True)
        if not _walked(case) and case.value(STEPS, "now", side) is None:
            yield Next(STEPS, side, STEPS_FIRST, "S6b")
        if case.range_of(ROTATION_90, side) is None:
            yield Next(ROTATION_90, side, "A growing hip: internal rotation before it is loaded.", "S6b")
        elif case.range_of(ROTATION_90, side.other) is None and _of_growth_age(case):
            yield Next(ROTATION_90, side.other, "A growing hip: is the other side the same?", "S6b")


def _walked(case: Case) -> bool:
    return any(case.entry(GAIT, lane) is not None for lane in (None, *SIDES))


def _in_doubt(case: Case) -> tuple[Side, ...]:
    """Sides held until something is answered: rotation not measured, or nobody knows the age (U4)."""
    hip = hurts_from_hip_to_knee(case)
    if case.age is None:
        childhood = [item for item in case.exam.intake.history if item.kind == "childhood_hip"]
        sides = {side for item in childhood for side in _sides(item.side)}
        if hip and limps_or_toes_out(case):
            sides.update(case.sides_of_complaint)
        return tuple(side for side in SIDES if side in sides)
    if not (_of_growth_age(case) and hip):
        return ()
    return tuple(side for side in case.sides_of_complaint if _unmeasured(case, side))


def _unmeasured(case: Case, side: Side) -> bool:
    """Not measured with a limp sign; or measured here alone, so that a difference cannot be seen."""
    here, there = (case.range_of(ROTATION_90, each) is not None for each in (side, side.other))
    return not (here and there) and (here or limps_or_toes_out(case)) and not _little(case, side)


def _sides(side: str | None) -> tuple[Side, ...]:
    return SIDES if side in (None, "both") else (Side(side),)


def growing_hip_questions(case: Case) -> Iterator[Question]:
    """U4, S6b, S7, S3: what only the story can answer about a child's hip."""
    hip, age = hurts_from_hip_to_knee(case), case.age
    childhood = any(item.kind == "childhood_hip" for item in case.exam.intake.history)
    slipping = hip and any(
        _little(case, side) or _less_than_other(case, side) for side in case.sides_of_complaint
    )
    if age is None and (limps_or_toes_out(case) or childhood or slipping):
        yield Question("birth_date", SLIP)
    elif age is None and case.has_complaint and not case.answered("limp"):
        # Not even the age is known that would make anybody ask about a limp.
        yield Question("birth_date", LIMPING)
    if _limp_would_tell(case):
        yield Question("symptoms.limp", LIMPING)
    young = age is not None and age < LIMIT["infected_joint_age_below"]
    if young and hip and cannot_take_steps(case) and not case.answered("fever_hot_joint"):
        yield Question("red_flags.fever_hot_joint", "Fever beside it would mean an infected joint.")


def _limp_would_tell(case: Case) -> bool:
    """Nobody asked about a limp, nothing shows one, and at this age it would hold or hurry something."""
    if case.age is None or case.answered("limp") or limps(case):
        return False
    small = case.age < LIMIT["growth_age_from"] and case.has_complaint
    growing = _of_growth_age(case) and hurts_from_hip_to_knee(case)
    unmeasured = any(case.range_of(ROTATION_90, side) is None for side in case.sides_of_complaint)
    return small or (growing and unmeasured)
