"""H13: the groin by structure: adductors, iliopsoas, inguinal and hamstring origin, low back."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Settle, Strength, Urgency
from northstride.core.norms import limits
from northstride.core.rules.danger.bone_stress import EVERYTHING
from northstride.core.rules.onset import sudden
from northstride.core.rules.pain import hurts, their_own_pain
from northstride.core.rules.palpation import HIP_PALPATION as PALPATION
from northstride.core.rules.palpation import tender_hip
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("bone_and_blood")
SQUEEZE = "hip.adductor_squeeze"


@dataclass(frozen=True, slots=True)
class Origin:
    """A tendon's origin: the flag it gives, what it is called, and the test that loads it."""

    code: str
    name: str
    loaded_by: str


ADDUCTOR = Origin("tendon.adductor", "Adductor origin", "hip.resisted.adduction")
HAMSTRING = Origin("tendon.proximal_hamstring", "Hamstring origin", "hip.resisted.extension")


def groin_by_structure(case: Case) -> Iterator[Finding]:
    """H13: adductors, iliopsoas, inguinal and hamstring origin, low back."""
    for side in SIDES:
        yield from _adductors(case, side)
        flexion = case.entry("hip.resisted.flexion", side)
        if flexion is not None and their_own_pain(flexion, "groin"):
            because = Reason(flexion.at, "H13", "Resisted flexion gives their own groin pain.")
            yield Finding("tendon.iliopsoas", side, Strength.POSSIBLE, because, flexion.test)
        inguinal = tender_hip(case, "inguinal", side)
        palpation = case.entry(PALPATION, side)
        if inguinal or case.on(side).ticked(PALPATION, "cough_impulse"):
            says = "The inguinal point is tender, or coughing gives an impulse."
            because = Reason(palpation.at if palpation else "entries", "H13", says)
            yield Finding(
                "elsewhere.inguinal", side, Strength.POSSIBLE, because, PALPATION, urgency=Urgency.REFER
            )
        yield from _hamstring_origin(case, side)
        lumbar = tender_hip(case, "lumbar_spine", side)
        if lumbar:
            because = Reason(lumbar.at, "H13", "The low back is tender.")
            yield Finding("elsewhere.lumbar", side, Strength.POSSIBLE, because, PALPATION)


def _both_or_one(
    origin: Origin, side: Side | None, tender: Entry | None, loaded: Entry | None
) -> Iterator[Finding]:
    """Tender and painful under load: likely; one of them: possible, and the other would settle it."""
    at = loaded or tender
    if at is None:
        return
    settle: tuple[Settle, ...] = ()
    if tender is None:
        settle = (Settle(PALPATION, "Tenderness at its origin would agree.", "tender"),)
    elif loaded is None:
        settle = (Settle(origin.loaded_by, "Pain under load would agree."),)
    strength = Strength.POSSIBLE if settle else Strength.LIKELY
    says = f"{origin.name}: {'one sign' if settle else 'tender and painful under load'}."
    yield Finding(origin.code, side, strength, Reason(at.at, "H13", says), at.test, settle=settle)


def _adductors(case: Case, side: Side) -> Iterator[Finding]:
    resisted = case.entry("hip.resisted.adduction", side)
    loaded = resisted if their_own_pain(resisted, "groin") else None
    if loaded is None and case.has_complaint and side in case.complaint_sides:
        loaded = _painful_squeeze(case, side)
    yield from _both_or_one(ADDUCTOR, side, tender_hip(case, "adductor_origin", side), loaded)


def _painful_squeeze(case: Case, side: Side | None) -> Entry | None:
    """A squeeze of any hip angle that gave their own groin pain. It loads both hips."""
    return next((e for e in case.entries(SQUEEZE, side) if their_own_pain(e, "groin")), None)


def squeeze_without_a_side(case: Case) -> Iterator[Finding]:
    """H13: a painful squeeze where the complaint has no side."""
    if case.complaint_sides == (None,) or not case.has_complaint:
        yield from _both_or_one(ADDUCTOR, None, None, _painful_squeeze(case, None))


def hamstring_torn_off(case: Case) -> Iterator[Finding]:
    """H13: a tender sit bone after a sudden injury with a pop, grown up or of unknown age: torn off.

    Up to 20 it is the bone that gives (H15).
    """
    grown = case.age is None or case.age > LIMIT["apophysis_age_to"]
    if not (grown and sudden(case) and "heard_pop" in case.exam.intake.symptoms):
        return
    for side in SIDES:
        entry = tender_hip(case, "ischial_tuberosity", side)
        if entry is not None:
            because = Reason(entry.at, "H13", "The sit bone is tender after an injury with a pop.")
            yield Finding(
                HAMSTRING.code,
                side,
                Strength.LIKELY,
                because,
                PALPATION,
                urgency=Urgency.REFER,
                within_days=int(LIMIT["apophysis_days"]),
                no_training_for=EVERYTHING,
            )


def _hamstring_origin(case: Case, side: Side) -> Iterator[Finding]:
    entries = (case.entry(test, side) for test in ("hip.hamstring_90_90", "hip.resisted.extension"))
    loaded = next((entry for entry in entries if hurts(entry)), None)
    yield from _both_or_one(HAMSTRING, side, tender_hip(case, "ischial_tuberosity", side), loaded)
