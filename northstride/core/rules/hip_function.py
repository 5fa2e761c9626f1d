"""H7, H8, H11 to H13: tendon, control and strength around the hip, and the groin by structure."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.case import Case
from northstride.core.examination import Entry
from northstride.core.findings import (
    Finding,
    Next,
    Reason,
    Retake,
    RuledDown,
    Settle,
    Strength,
    Urgency,
)
from northstride.core.measurement import less_than, more_than
from northstride.core.norms import limits
from northstride.core.rules.pain import hurts, hurts_at, painless, their_own_pain
from northstride.core.rules.symmetry import weaker_side
from northstride.core.sides import SIDES, Side
from northstride.core.strength_grade import at_most

LIMIT = limits("hip_joint")

STANCE, TRENDELENBURG, PALPATION = "hip.single_leg_stance", "hip.trendelenburg", "hip.palpation"
ABDUCTION = "hip.resisted.abduction"
STEP_DOWN, SQUAT, GAIT, SQUEEZE = "hip.step_down", "hip.squat", "hip.gait", "hip.adductor_squeeze"
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


def _tender(case: Case, point: str, side: Side) -> Entry | None:
    """The entry in which a point was tender."""
    entry = case.entry(PALPATION, side)
    tender = entry.value("tender", side) if entry else None
    return entry if isinstance(tender, tuple) and point in tender else None


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
        if not late and _tender(case, "greater_trochanter", side):
            strength, says = Strength.STRONG, f"{says}, and the trochanter is tender"
        because = Reason(entry.at, "H7", f"{says}.")
        sources = ("Lequesne 2008", "Grimaldi 2017")
        yield Finding(GLUTEAL, side, strength, because, STANCE, None, (), (), sources)


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
    if case.value(TRENDELENBURG, "lifts", side) in ("none", "partial"):
        signs.append("does not lift fully")
    hold = case.number(TRENDELENBURG, "hold", side)
    if hold is not None and less_than(hold.value, LIMIT["stance_seconds"]):
        signs.append(f"lets go after {hold.value:g} s")
    tilt = case.number(TRENDELENBURG, "tilt_end", side)
    if tilt is not None and less_than(tilt.value, LIMIT["pelvis_drop_beyond"]):
        signs.append("swing side drops below level")
    if case.value(TRENDELENBURG, "hand_pressure", side) is True:
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
        yield Finding(ABDUCTORS, side, strength, because, TRENDELENBURG, None, against, (), ("Bird 2001",))


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
    """H8: a drop or lurch in gait, on the complaint's side where there is one."""
    entry = case.entry(GAIT, None)
    pattern = entry.value("pattern", None) if entry else None
    if entry is not None and isinstance(pattern, tuple) and {"drop", "lurch"} & set(pattern):
        for side in case.complaint_sides:
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
    arms = [case.number(test, "lever_arm", each) for each in SIDES]
    if force is None:
        return None
    own = case.number(test, "lever_arm", side)
    return force.value * own.value / 1000 if own is not None and all(arms) else force.value


def _weaker_side(case: Case, test: str) -> tuple[Side, float] | None:
    return weaker_side(case, *(torque_of(case, test, side) for side in SIDES))


def weak_by_symmetry(case: Case) -> Iterator[Finding]:
    """H11: symmetry under 90 % possible, under 80 % likely, by torque where the lever arm is known."""
    for test, group in RESISTED.items():
        found = _weaker_side(case, test)
        if found is None:
            continue
        side, index = found
        entry = case.entry(test, side)
        strength = Strength.LIKELY if less_than(index, LIMIT["symmetry_likely_below"]) else Strength.POSSIBLE
        because = Reason(entry.at if entry else "entries", "H11", f"{index:.0f} % of the other side.")
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
        if squat is not None and case.value(SQUAT, "knee_in", side) is True:
            because = Reason(squat.at, "H12", "The knee falls in when squatting.")
            yield Finding(code, side, Strength.POSSIBLE, because, SQUAT, "knee_in")


def heels_lifted(case: Case) -> Iterator[Next]:
    """H12: heels that lift in the squat ask for the lunge."""
    if case.value(SQUAT, "heels_lift", None) is True:
        for side in SIDES:
            if case.entry("ankle.lunge", side) is None:
                yield Next("ankle.lunge", side, "The heels lifted: is the ankle stiff?")


def groin_by_structure(case: Case) -> Iterator[Finding]:
    """H13: adductors, iliopsoas, inguinal and hamstring origin, low back."""
    for side in SIDES:
        yield from _adductors(case, side)
        flexion = case.entry("hip.resisted.flexion", side)
        if flexion is not None and their_own_pain(flexion, "groin"):
            because = Reason(flexion.at, "H13", "Resisted flexion gives their own groin pain.")
            yield Finding("tendon.iliopsoas", side, Strength.POSSIBLE, because, flexion.test)
        inguinal = _tender(case, "inguinal", side)
        palpation = case.entry(PALPATION, side)
        if inguinal or case.value(PALPATION, "cough_impulse", side) is True:
            says = "The inguinal point is tender, or coughing gives an impulse."
            because = Reason(palpation.at if palpation else "entries", "H13", says)
            yield Finding(
                "elsewhere.inguinal", side, Strength.POSSIBLE, because, PALPATION, urgency=Urgency.REFER
            )
        yield from _hamstring_origin(case, side)
        lumbar = _tender(case, "lumbar_spine", side)
        if lumbar:
            because = Reason(lumbar.at, "H13", "The low back is tender.")
            yield Finding("elsewhere.lumbar", side, Strength.POSSIBLE, because, PALPATION)


def _both_or_one(
    code: str, side: Side | None, tender: Entry | None, loaded: Entry | None, what: str
) -> Iterator[Finding]:
    """Tender and painful under load: likely; one of them: possible."""
    at = loaded or tender
    if at is not None:
        strength = Strength.LIKELY if tender and loaded else Strength.POSSIBLE
        says = f"{what}: {'tender and painful under load' if tender and loaded else 'one sign'}."
        yield Finding(code, side, strength, Reason(at.at, "H13", says), at.test)


def _adductors(case: Case, side: Side) -> Iterator[Finding]:
    resisted = case.entry("hip.resisted.adduction", side)
    loaded = resisted if their_own_pain(resisted, "groin") else None
    if loaded is None and side in case.complaint_sides:
        loaded = _painful_squeeze(case)
    yield from _both_or_one(
        "tendon.adductor", side, _tender(case, "adductor_origin", side), loaded, "Adductor origin"
    )


def _painful_squeeze(case: Case) -> Entry | None:
    """A squeeze of any hip angle that gave their own groin pain."""
    found = (entry for entry in case.current_entries if entry.test == SQUEEZE)
    return next((entry for entry in found if their_own_pain(entry, "groin")), None)


def squeeze_without_a_side(case: Case) -> Iterator[Finding]:
    """H13: a painful squeeze where the complaint has no side."""
    if case.complaint_sides == (None,):
        code = "tendon.adductor"
        yield from _both_or_one(code, None, None, _painful_squeeze(case), "Adductor squeeze")


def _hamstring_origin(case: Case, side: Side) -> Iterator[Finding]:
    entries = (case.entry(test, side) for test in ("hip.hamstring_90_90", "hip.resisted.extension"))
    loaded = next((entry for entry in entries if hurts(entry)), None)
    tender = _tender(case, "ischial_tuberosity", side)
    yield from _both_or_one("tendon.proximal_hamstring", side, tender, loaded, "Hamstring origin")
