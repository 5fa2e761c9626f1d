"""H7, H8, H11, H12: tendon, control and strength around the hip."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination.case import Case
from northstride.core.examination.derived import torque
from northstride.core.findings import Finding, Next, Reason, Retake, RuledDown, Settle, Strength
from northstride.core.measuring.measurement import Verdict, less_than, more_than
from northstride.core.measuring.strength_grade import at_most
from northstride.core.norms import limits
from northstride.core.rules.pain import hurts, hurts_at, painless, their_own_pain
from northstride.core.rules.palpation import HIP_PALPATION as PALPATION
from northstride.core.rules.palpation import tender_hip
from northstride.core.rules.symmetry import weaker_side
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import whole

LIMIT = limits("hip_joint")

STANCE, TRENDELENBURG = "hip.single_leg_stance", "hip.trendelenburg"
ABDUCTION = "hip.resisted.abduction"
STEP_DOWN, SQUAT, GAIT = "hip.step_down", "hip.squat", "hip.gait"
GLUTEAL, ABDUCTORS = "tendon.gluteal", "control.hip_abductors"

RESISTED = {
    "hip.resisted.flexion": "hip_flexors",
    "hip.resisted.extension": "hip_extensors",
    ABDUCTION: "hip_abductors",
    "hip.resisted.adduction": "hip_adductors",
    "hip.resisted.internal_rotation": "hip_internal_rotators",
    "hip.resisted.external_rotation": "hip_external_rotators",
    "ankle.resisted.dorsiflexion": "ankle_dorsiflexors",
    "ankle.resisted.plantarflexion": "ankle_plantarflexors",
    "ankle.resisted.inversion": "ankle_invertors",
    "ankle.resisted.eversion": "ankle_evertors",
    "ankle.resisted.toe_flexion": "toe_flexors",
    "ankle.resisted.toe_extension": "toe_extensors",
}


def stance_brings_the_pain(case: Case) -> Iterator[Finding]:
    """H7: their own outer hip pain on one leg within 30 s; between 30 and 60 s it says less."""
    for side in SIDES:
        entry = case.entry(STANCE, side)
        if entry is None or not their_own_pain(entry, "lateral_hip"):
            continue
        began = case.number(STANCE, "pain_onset", side) or case.number(STANCE, "hold", side)
        if began is not None and more_than(began.value, LIMIT["stance_seconds_longest"]):
            continue
        late = began is not None and more_than(began.value, LIMIT["stance_seconds"])
        says = "Their own outer hip pain comes on one leg"
        strength = Strength.POSSIBLE if late else Strength.LIKELY
        if not late and tender_hip(case, "greater_trochanter", side):
            strength, says = Strength.STRONG, f"{says}, and the trochanter is tender"
        yield Finding(
            GLUTEAL,
            side,
            strength,
            Reason(entry.at, "H7", f"{says}."),
            STANCE,
            settle=(Settle(PALPATION, "A tender trochanter would agree.", "tender"),),
            sources=("Lequesne 2008", "Grimaldi 2017"),
        )


def outer_hip_cleared(case: Case) -> Iterator[RuledDown]:
    """H7: trochanter pressed and not tender, and a painless stance."""
    for side in SIDES:
        palpation, stance = case.entry(PALPATION, side), case.entry(STANCE, side)
        if palpation is None or stance is None or not painless(stance):
            continue
        hold = case.number(STANCE, "hold", side)
        let_go = hold is not None and less_than(hold.value, LIMIT["stance_seconds"])
        tender, pressed = palpation.value("tender", side), palpation.value("pressed", side)
        reached = pressed is None or (isinstance(pressed, tuple) and "greater_trochanter" in pressed)
        asked = isinstance(tender, tuple) and "greater_trochanter" not in tender
        if reached and asked and not let_go:
            reasons = (
                Reason(palpation.at, "H7", "The trochanter is not tender."),
                Reason(stance.at, "H7", "Standing on one leg is painless."),
            )
            yield RuledDown(GLUTEAL, side, reasons)


def _trendelenburg_signs(case: Case, side: Side) -> list[str]:
    """H8: each way in which the stance hip fails."""
    signs = []
    if case.on(side).chose(TRENDELENBURG, "lifts", "none", "partial"):
        signs.append("does not lift fully")
    hold = case.number(TRENDELENBURG, "hold", side)
    if hold is not None and less_than(hold.value, LIMIT["stance_seconds"]):
        signs.append(f"lets go after {hold.value:g} s")
    tilt = case.number(TRENDELENBURG, "tilt_end", side)
    if tilt is not None and less_than(tilt.value, LIMIT["pelvis_drop_beyond"]):
        signs.append("swing side drops below level")
    if case.on(side).ticked(TRENDELENBURG, "hand_pressure"):
        signs.append("presses on the palms")
    return signs


def pelvis_is_not_held(case: Case) -> Iterator[Finding]:
    """H8: a positive Trendelenburg, stronger with weak abductors, doubtful with pain or lost balance."""
    for side in SIDES:
        entry = case.entry(TRENDELENBURG, side)
        signs = _trendelenburg_signs(case, side)
        if entry is None or not signs:
            continue
        strength = Strength.STRONG if _abductors_weak(case, side) else Strength.LIKELY
        against: tuple[str, ...] = ()
        if entry.seen & {"hip_pain", "loses_balance"} or hurts_at(entry, "sacroiliac"):
            strength, against = Strength.POSSIBLE, ("Pain or lost balance: it may be false.",)
        because = Reason(entry.at, "H8", f"On this leg the pelvis {' and '.join(signs)}.")
        settle = (Settle(ABDUCTION, "Weak abductors would agree."),)
        yield Finding(
            ABDUCTORS, side, strength, because, TRENDELENBURG, None, against, settle, ("Bird 2001",)
        )


def _abductors_weak(case: Case, side: Side) -> bool:
    grade = case.value(ABDUCTION, "grade", side)
    weak = isinstance(grade, str) and at_most(grade, "4")
    found = _weaker_side(case, ABDUCTION)
    return weak or (found is not None and found[0] is side)


def trunk_leaned(case: Case) -> Iterator[Retake]:
    """H8: a leaning trunk hides the drop, so a negative with it is taken again."""
    for side in SIDES:
        entry = case.entry(TRENDELENBURG, side)
        if entry is not None and "trunk_lean" in entry.seen and not _trendelenburg_signs(case, side):
            yield Retake(TRENDELENBURG, side, "trunk_lean")


def gait_drops(case: Case) -> Iterator[Finding]:
    """H8: a drop or lurch in gait, on the side given, else the complaint's."""
    for lane in (*SIDES, None):
        entry = case.entry(GAIT, lane)
        pattern = case.on(lane).listed(GAIT, "pattern") or ()
        if entry is None or not {"drop", "lurch"} & set(pattern):
            continue
        complained = case.complaint_sides if case.has_complaint else (None,)
        for side in complained if lane is None else (lane,):
            settle = (Settle(TRENDELENBURG, "Shows which hip does not hold."),)
            because = Reason(entry.at, "H8", "The pelvis drops or the trunk lurches in walking.")
            yield Finding(ABDUCTORS, side, Strength.POSSIBLE, because, GAIT, settle=settle)


def weak_by_grade(case: Case) -> Iterator[Finding]:
    """H11: grade 4 or less possible, 3 or less likely; pain with it is a reason."""
    for test, group in RESISTED.items():
        for side in SIDES:
            entry = case.entry(test, side)
            grade = entry.value("grade", side) if entry else None
            if entry is None or not isinstance(grade, str) or not at_most(grade, "4"):
                continue
            says = f"Grade {grade.replace('-', '−')}"
            if hurts(entry):
                says += ", and it hurts"
            strength = Strength.LIKELY if at_most(grade, "3") else Strength.POSSIBLE
            because = Reason(entry.at, "H11", f"{says}.")
            yield Finding(f"weakness.{group}", side, strength, because, test, "grade")


def torque_of(case: Case, test: str, side: Side) -> float | None:
    """Torque in N·m where the lever arm is known on both sides, else the force in N."""
    force = case.number(test, "force", side)
    if all(case.number(test, "lever_arm", each) for each in SIDES):
        force = torque(case, test, side)
    return None if force is None else force.value


def _weaker_side(case: Case, test: str) -> tuple[Side, float] | None:
    """The weaker side and its symmetry, only where the two differ by more than error."""
    torques = [torque_of(case, test, side) for side in SIDES]
    found, (left, right) = weaker_side(*torques), torques
    if found is None or left is None or right is None or not _beyond_error(case, test, left, right):
        return None
    return found


def _beyond_error(case: Case, test: str, left: float, right: float) -> bool:
    """A clinic's own error is in newtons: held against the forces; else percent, the same for torque."""
    if case.own_sem(test, "force") is not None:
        forces = [case.number(test, "force", side) for side in SIDES]
        left, right = (force.value if force else 0.0 for force in forces)
    compared = case.compare(test, "force", left, right)
    return compared is None or compared.verdict is not Verdict.WITHIN_ERROR


def weak_by_symmetry(case: Case) -> Iterator[Finding]:
    """H11: symmetry under 90 % possible, under 80 % likely, beyond error; torque where the arm is known."""
    for test, group in RESISTED.items():
        found = _weaker_side(case, test)
        if found is None:
            continue
        side, index = found
        entry = case.entry(test, side)
        strength = Strength.LIKELY if less_than(index, LIMIT["symmetry_likely_below"]) else Strength.POSSIBLE
        because = Reason(entry.at if entry else "entries", "H11", f"{whole(index)} % of the other side.")
        yield Finding(f"weakness.{group}", side, strength, because, test, "force")


def leg_is_not_steered(case: Case) -> Iterator[Finding]:
    """H12: knee in or pelvis drop in 2 of 5 possible, 4 of 5 likely; squat knee in possible."""
    code = "control.single_leg"
    for side in SIDES:
        counts = [case.number(STEP_DOWN, measure, side) for measure in ("knee_in", "pelvis_drop")]
        worst = max((found.value for found in counts if found), default=0.0)
        entry = case.entry(STEP_DOWN, side)
        if entry is not None and worst >= LIMIT["repeats_possible_from"]:
            likely = worst >= LIMIT["repeats_likely_from"]
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            because = Reason(entry.at, "H12", f"Knee or pelvis gives way in {worst:g} of 5.")
            yield Finding(code, side, strength, because, STEP_DOWN, "knee_in")
        squat = case.entry(SQUAT, side)
        if squat is not None and case.on(side).ticked(SQUAT, "knee_in"):
            because = Reason(squat.at, "H12", "The knee falls in when squatting.")
            yield Finding(code, side, Strength.POSSIBLE, because, SQUAT, "knee_in")


def heels_lifted(case: Case) -> Iterator[Next]:
    """H12: heels that lift in the squat ask for the lunge."""
    if case.on(None).ticked(SQUAT, "heels_lift"):
        for side in SIDES:
            if case.entry("ankle.lunge", side) is None:
                yield Next("ankle.lunge", side, "The heels lifted: is the ankle stiff?")
