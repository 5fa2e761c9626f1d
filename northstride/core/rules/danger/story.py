"""S1 to S9: danger from the story, asked first, whatever was tested. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Next, Reason, Strength, Urgency
from northstride.core.measuring.measurement import less_than
from northstride.core.norms import limits
from northstride.core.rules.onset import sudden
from northstride.core.rules.pain import HOPS, hurts_at
from northstride.core.sides import SIDES, Side

LIMIT = limits("danger")

RED_FLAGS = "intake.red_flags"
ROTATION_90 = "hip.rom.internal_rotation_90"
ROTATIONS = (
    "hip.rom.internal_rotation_90",
    "hip.rom.external_rotation_90",
    "hip.rom.internal_rotation_0",
    "hip.rom.external_rotation_0",
)
GROIN = frozenset({"groin"})
HIP_REGIONS = frozenset({"hip", "groin", "thigh", "knee"})
HIP_SITES = frozenset({"groin", "lateral_hip", "anterior_thigh", "posterior_thigh", "lateral_thigh", "knee"})


def _danger(
    code: str,
    side: Side | None,
    strength: Strength,
    rule: str,
    says: str,
    urgency: Urgency,
    at: str = RED_FLAGS,
) -> Finding:
    return Finding(code, side, strength, Reason(at, rule, says), urgency=urgency)


def chest(case: Case) -> Iterator[Finding]:
    """S1: breathlessness or chest pain."""
    if "breathless_or_chest_pain" in case.exam.intake.red_flags:
        says = "Breathless or chest pain: stop and call the emergency number."
        yield _danger("danger.chest", None, Strength.STRONG, "S1", says, Urgency.EMERGENCY)


def cauda_equina(case: Case) -> Iterator[Finding]:
    """S2: saddle numbness, bladder or bowel."""
    if case.exam.intake.red_flags & {"saddle_numbness", "bladder_or_bowel"}:
        says = "Numb between the legs, or bladder or bowel out of control."
        yield _danger("danger.cauda_equina", None, Strength.STRONG, "S2", says, Urgency.EMERGENCY)


def infected_joint(case: Case) -> Iterator[Finding]:
    """S3: fever with a hot joint."""
    if "fever_hot_joint" in case.exam.intake.red_flags:
        for side in case.complaint_sides:
            says = "Fever with a hot joint that may not be moved."
            yield _danger("danger.infected_joint", side, Strength.STRONG, "S3", says, Urgency.EMERGENCY)


def open_or_displaced(case: Case) -> Iterator[Finding]:
    """S4: obvious deformity or open fracture, told or seen after a sudden injury."""
    code, urgent = "fracture.open_or_displaced", Urgency.EMERGENCY
    if case.exam.intake.red_flags & {"obvious_deformity", "open_fracture"}:
        for side in case.complaint_sides:
            says = "Shape is wrong or bone has come through."
            yield _danger(code, side, Strength.STRONG, "S4", says, urgent)
    if sudden(case):
        for side in SIDES:
            entry = case.entry("ankle.look", side)
            if entry is not None and _looks_broken(case, side):
                says = "Deformity or open wound after a sudden injury."
                yield _danger(code, side, Strength.STRONG, "S4", says, urgent, entry.at)


def _looks_broken(case: Case, side: Side) -> bool:
    return any(case.on(side).ticked("ankle.look", measure) for measure in ("deformity", "open_wound"))


def femoral_neck_stress(case: Case) -> Iterator[Finding]:
    """S5: groin pain with a load change, and groin pain on rotation, fulcrum or hop."""
    if not (_groin(case) and case.exam.intake.load_change):
        return
    for side in SIDES:
        for test, strength in (
            *((rotation, Strength.POSSIBLE) for rotation in (*ROTATIONS, "hip.fulcrum")),
            *((hop, Strength.LIKELY) for hop in HOPS),
        ):
            entry = case.entry(test, side)
            if entry is not None and _groin_pain(entry):
                says = "Groin pain under load, a load jump, and groin pain here: no further loading."
                because = Reason(entry.at, "S5", says)
                yield Finding(
                    "fracture.femoral_neck", side, strength, because, test, urgency=Urgency.SAME_DAY
                )


def _groin_pain(entry: Entry) -> bool:
    """At the groin; the pain they came with is there too, where no place was written."""
    pain = entry.pain
    unplaced = pain is not None and pain.present and pain.site is None and pain.familiar is True
    return unplaced or hurts_at(entry, "groin")


def _groin(case: Case) -> bool:
    return case.complains_of(GROIN, GROIN)


def growth_plate_hip(case: Case) -> Iterator[Finding]:
    """S6: age 8 to 16, hip to knee pain, limp, and little internal rotation."""
    if not (_of_growth_age(case) and _limping_hip(case)):
        return
    for side in _sides_in_doubt(case):
        rotation = case.range_of(ROTATION_90, side)
        if rotation is not None and (_little(rotation.value) or _less_than_other(case, side)):
            says = "Limping child of this age with little internal rotation: no weight on it."
            yield _danger(
                "danger.growth_plate_hip",
                side,
                Strength.LIKELY,
                "S6",
                says,
                Urgency.SAME_DAY,
                rotation.at,
            )


def _of_growth_age(case: Case) -> bool:
    return case.age is not None and LIMIT["growth_age_from"] <= case.age <= LIMIT["growth_age_to"]


def _limping_hip(case: Case) -> bool:
    return case.complains_of(HIP_REGIONS, HIP_SITES) and "limp" in case.exam.intake.symptoms


def _sides_in_doubt(case: Case) -> tuple[Side, ...]:
    """The complaint's sides; unknown counts for both."""
    said = tuple(side for side in case.complaint_sides if side is not None)
    return said or SIDES


def _little(rotation: float) -> bool:
    return less_than(rotation, LIMIT["little_internal_rotation"])


def _less_than_other(case: Case, side: Side) -> bool:
    both = case.alike(ROTATION_90, ROTATION_90, *SIDES)
    compared = case.compare(ROTATION_90, "passive", both[0].value, both[1].value) if both else None
    if compared is None or not compared.matters:
        return False
    return (compared.difference < 0) == (side is Side.LEFT)


def growth_plate_gate(case: Case) -> Iterator[GateRaised | Next]:
    """S6, S6b, S7: held until rotation and age say otherwise; what is missing is asked."""
    unknown_age = case.age is None and any(item.kind == "childhood_hip" for item in case.exam.intake.history)
    for side in _sides_in_doubt(case):
        rotation = case.range_of(ROTATION_90, side)
        unmeasured = _of_growth_age(case) and rotation is None
        if _limping_hip(case) and (unmeasured or unknown_age):
            yield GateRaised("growth_plate_doubt", side, until_answered=True)
            if rotation is None:
                yield Next(ROTATION_90, side, "A limping child's hip: internal rotation first.")
    for finding in (*growth_plate_hip(case), *limping_child(case)):
        for side in (finding.side,) if finding.side else SIDES:
            yield GateRaised("growth_plate_doubt", side)


def limping_child(case: Case) -> Iterator[Finding]:
    """S7: under 8 with a limp."""
    young = case.age is not None and case.age < LIMIT["growth_age_from"]
    if young and "limp" in case.exam.intake.symptoms:
        for side in case.complaint_sides:
            says = "A limping child under 8."
            at = "intake.symptoms"
            yield _danger("danger.limping_child", side, Strength.POSSIBLE, "S7", says, Urgency.SAME_DAY, at)


def serious_illness(case: Case) -> Iterator[Finding]:
    """S8: cancer history, weight loss, night pain that does not ease."""
    if case.exam.intake.red_flags & {"cancer_history", "weight_loss", "night_pain_unrelieved"}:
        says = "Cancer history, weight loss or night pain that does not ease."
        yield _danger("danger.serious_illness", None, Strength.POSSIBLE, "S8", says, Urgency.REFER)


def femoral_head(case: Case) -> Iterator[Finding]:
    """S9: steroids or alcohol with groin pain."""
    if "steroid_or_alcohol_history" in case.exam.intake.red_flags and _groin(case):
        for side in case.complaint_sides:
            says = "Steroids or alcohol in the history, with deep groin pain."
            yield _danger("danger.femoral_head", side, Strength.POSSIBLE, "S9", says, Urgency.REFER)
