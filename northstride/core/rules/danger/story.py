"""S1 to S5, S8 and S9: danger from the story, asked first, whatever was tested. Reads every entry."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Question, Reason, Strength, Urgency
from northstride.core.measuring.strength_grade import at_most
from northstride.core.norms import limits
from northstride.core.norms.limit import with_limits
from northstride.core.rules.load import as_if_load_went_up, at_most_possible_unasked, load_unknown
from northstride.core.rules.onset import looks_broken, sudden
from northstride.core.rules.pain import HOPS, hurts_at
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("danger")
SEEN_SOONER = with_limits(
    "Under {danger.illness_age_below} such night pain is seen within {danger.illness_days_likely:word} days."
)

RED_FLAGS = "intake.red_flags"
ROTATIONS = (
    "hip.rom.internal_rotation_90",
    "hip.rom.external_rotation_90",
    "hip.rom.internal_rotation_0",
    "hip.rom.external_rotation_0",
)
FULCRUM = "hip.fulcrum"
GROIN = frozenset({"groin"})
# Regions a groin may hurt in where no site was pointed at.
NEAR_THE_GROIN = frozenset({"hip", "thigh", "knee"})
BOTH_FEET = ("ankle.resisted.dorsiflexion", "ankle.resisted.plantarflexion")
CAUDA = "danger.cauda_equina"
ILLNESS = frozenset({"cancer_history", "weight_loss", "night_pain_unrelieved"})


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
        yield _danger(CAUDA, None, Strength.STRONG, "S2", says, Urgency.EMERGENCY)


def _weak_foot(case: Case, side: Side) -> Entry | None:
    """Lifting or pressing the foot at grade 3 or less."""
    for test in BOTH_FEET:
        entry = case.entry(test, side)
        grade = entry.value("grade", side) if entry else None
        if isinstance(grade, str) and at_most(grade, "3"):
            return entry
    return None


def both_feet_weak(case: Case) -> Iterator[Finding]:
    """S2b: both feet weak, in either motion."""
    weak = [_weak_foot(case, side) for side in SIDES]
    if weak[0] is not None and weak[1] is not None:
        says = "Both feet are weak: think of the nerves in the low back."
        yield _danger(CAUDA, None, Strength.POSSIBLE, "S2b", says, Urgency.SAME_DAY, weak[0].at)


def saddle_questions(case: Case) -> Iterator[Question]:
    """S2b: what would make weak feet on both sides an emergency."""
    for _ in both_feet_weak(case):
        for item in ("saddle_numbness", "bladder_or_bowel"):
            if not case.answered(item):
                yield Question(f"red_flags.{item}", "With weak feet on both sides it would be an emergency.")


def infected_joint(case: Case) -> Iterator[Finding]:
    """S3: fever with a hot joint."""
    if "fever_hot_joint" in case.exam.intake.red_flags:
        for side in case.complaint_sides:
            says = "Fever with a hot joint that may not be moved."
            yield _danger("danger.infected_joint", side, Strength.STRONG, "S3", says, Urgency.EMERGENCY)


def infection_gate(case: Case) -> Iterator[GateRaised]:
    """S3: nothing is moved while a joint may be infected; side unknown: both."""
    for _ in infected_joint(case):
        for side in case.sides_of_complaint:
            yield GateRaised("infection_doubt", side)


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
            if entry is not None and looks_broken(case, side):
                says = "Deformity or open wound after a sudden injury."
                yield _danger(code, side, Strength.STRONG, "S4", says, urgent, entry.at)


def _groin_under_load(case: Case, side: Side) -> Iterator[tuple[Entry, Strength]]:
    """Where rotation, fulcrum or a hop gives groin pain, and how much that says."""
    for test, strength in (
        *((test, Strength.POSSIBLE) for test in (*ROTATIONS, FULCRUM)),
        *((hop, Strength.LIKELY) for hop in HOPS),
    ):
        entry = case.entry(test, side)
        if entry is not None and _groin_pain(entry):
            yield entry, strength


def femoral_neck_stress(case: Case) -> Iterator[Finding]:
    """S5: groin pain with a load change, and groin pain on rotation, fulcrum or hop.

    Nobody asked about load: read as yes, at most possible (U3).
    """
    if not (_groin(case) and as_if_load_went_up(case)):
        return
    for side in SIDES:
        for entry, strength in _groin_under_load(case, side):
            says = "Groin pain under load, and groin pain here: no further loading."
            because = Reason(entry.at, "S5", says)
            yield Finding(
                "fracture.femoral_neck",
                side,
                at_most_possible_unasked(case, strength),
                because,
                entry.test,
                urgency=Urgency.SAME_DAY,
            )


def groin_questions(case: Case) -> Iterator[Question]:
    """S5: what the story lacks where a hip gives groin pain under load."""
    if not any(True for side in SIDES for _ in _groin_under_load(case, side)):
        return
    if _groin(case) and load_unknown(case):
        yield Question("load_change", "With more load than before, groin pain is seen the same day.")
    complaint = case.complaint
    unplaced = complaint is None or (complaint.region in NEAR_THE_GROIN and not complaint.sites)
    if unplaced and as_if_load_went_up(case):
        yield Question("complaint.sites", "Where does it hurt: the groin decides whether bone comes first.")


def _groin_pain(entry: Entry) -> bool:
    """At the groin; the pain they came with is there too, where no place was written."""
    pain = entry.pain
    unplaced = pain is not None and pain.present and pain.site is None and pain.familiar is True
    return unplaced or hurts_at(entry, "groin")


def _groin(case: Case) -> bool:
    return case.complains_of(GROIN, GROIN)


def serious_illness(case: Case) -> Iterator[Finding]:
    """S8: cancer history, weight loss, night pain that does not ease; two, or the last under 25, sooner."""
    told = ILLNESS & case.exam.intake.red_flags
    if not told:
        return
    young = case.age is not None and case.age < LIMIT["illness_age_below"]
    sooner = len(told) >= LIMIT["illness_likely_from"] or (young and "night_pain_unrelieved" in told)
    says = f"{', '.join(sorted(told)).replace('_', ' ').capitalize()}."
    yield Finding(
        "danger.serious_illness",
        None,
        Strength.LIKELY if sooner else Strength.POSSIBLE,
        Reason(RED_FLAGS, "S8", says),
        sources=("NICE NG12 2015",),
        urgency=Urgency.REFER,
        within_days=int(LIMIT["illness_days_likely" if sooner else "illness_days"]),
    )


def age_with_night_pain(case: Case) -> Iterator[Question]:
    """S8: night pain that does not ease is seen sooner under 25."""
    told = ILLNESS & case.exam.intake.red_flags
    if case.age is None and told == {"night_pain_unrelieved"}:
        yield Question("birth_date", SEEN_SOONER)


def femoral_head(case: Case) -> Iterator[Finding]:
    """S9: steroids or alcohol with groin pain."""
    if "steroid_or_alcohol_history" in case.exam.intake.red_flags and _groin(case):
        for side in case.complaint_sides:
            says = "Steroids or alcohol in the history, with deep groin pain."
            yield _danger("danger.femoral_head", side, Strength.POSSIBLE, "S9", says, Urgency.REFER)


def side_of_the_complaint(case: Case) -> Iterator[Question]:
    """U2: a complaint without a side holds and reads both. §12: without one there is no other to compare."""
    complaint, returning = case.complaint, case.exam.purpose == "return_to_sport"
    sideless = complaint is not None and case.has_complaint and complaint.side is None
    if sideless or (returning and (complaint is None or complaint.side is None)):
        yield Question("complaint.side", "Left, right or both: until then both sides count.")
