"""A14 and F5: nerves of leg and foot. None of these says where the nerve is caught."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Next, Question, Reason, Settle, Strength, Urgency
from northstride.core.measuring.strength_grade import at_most
from northstride.core.norms import limits
from northstride.core.rules.limp import GAIT
from northstride.core.rules.onset import SUDDEN_OR_GRADUAL, kind_unknown, sudden
from northstride.core.rules.pain import hurts, hurts_at
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("ankle")

SENSATION, TINEL, SPREAD = "ankle.sensation", "ankle.tinel", "ankle.toe_spread"
DORSIFLEXION, LUMBAR, WEB = "ankle.resisted.dorsiflexion", "lumbar.screen", "foot.web_squeeze"
PLATE = "foot.plantar_plate"
FIELDS = ("superficial_peroneal", "deep_peroneal", "sural", "saphenous")
TUNNEL_FIELDS = ("medial_plantar", "lateral_plantar", "medial_calcaneal")
TUNNEL, PERONEAL = "nerve.tarsal_tunnel", "nerve.common_peroneal"
NOT_SCREENED = "The low back was not screened: the nerve may be caught there."


def _against(case: Case) -> tuple[str, ...]:
    return () if case.entry(LUMBAR, None) else (NOT_SCREENED,)


def _lost(case: Case, field: str, side: Side) -> bool:
    return case.on(side).chose(SENSATION, field, "less", "absent")


def _nerve(
    case: Case,
    code: str,
    side: Side,
    strength: Strength,
    entry: Entry,
    says: str,
    urgency: Urgency = Urgency.REFER,
    within_days: int | None = None,
) -> Finding:
    return Finding(
        code,
        side,
        strength,
        Reason(entry.at, "A14", says),
        entry.test,
        None,
        _against(case),
        urgency=urgency,
        within_days=within_days,
        key=entry.key,
    )


def field_is_numb(case: Case) -> Iterator[Finding]:
    """A14: light touch less or absent in one nerve's field. The tunnel's own fields count there."""
    for side in SIDES:
        entry = case.entry(SENSATION, side)
        for field in FIELDS if entry is not None else ():
            if entry is not None and _lost(case, field, side):
                says = f"Touch is less in the {field.replace('_', ' ')} field."
                yield _nerve(case, f"nerve.{field}", side, Strength.POSSIBLE, entry, says)


def _tinel(case: Case, site: str, side: Side) -> Entry | None:
    entry = case.entry(TINEL, side, site)
    return entry if entry is not None and entry.value("result", side) == "positive" else None


def _tunnel_signs(case: Case, side: Side) -> Iterator[tuple[Entry, str]]:
    tinel, touch, spread = (
        _tinel(case, "tarsal_tunnel", side),
        case.entry(SENSATION, side),
        case.entry(SPREAD, side),
    )
    if tinel is not None:
        yield tinel, "Tapping the tarsal tunnel tingles."
    numb = [field.replace("_", " ") for field in TUNNEL_FIELDS if _lost(case, field, side)]
    if touch is not None and numb:
        yield touch, f"Touch is less: {', '.join(numb)}."
    only_here = case.on(side.other).chose(SPREAD, "result", "able")
    if spread is not None and spread.value("result", side) == "unable" and only_here:
        yield spread, "The toes do not spread, on this side only."


def tarsal_tunnel(case: Case) -> Iterator[Finding]:
    """A14: Tinel there, touch lost in its fields, toe spread lost on one side: one possible, two likely."""
    for side in SIDES:
        signs = list(_tunnel_signs(case, side))
        strength = Strength.LIKELY if len(signs) >= 2 else Strength.POSSIBLE
        for entry, says in signs:
            other = TINEL if entry.test == SENSATION else SENSATION
            settle = () if len(signs) > 1 else (Settle(other, "A second sign would say more."),)
            yield replace(_nerve(case, TUNNEL, side, strength, entry, says), settle=settle)


def foot_drops(case: Case) -> Iterator[Finding]:
    """A14: grade 3 or less in lifting the foot, at once when sudden; up to 4 with Tinel or steppage."""
    for side in SIDES:
        entry = case.entry(DORSIFLEXION, side)
        if entry is None:
            continue
        if lifts_at_most(case, side, "3"):
            urgent = sudden(case)
            says = "The foot dropped suddenly." if urgent else "Lifting the foot is weak, grade 3 or less."
            urgency = Urgency.SAME_DAY if urgent else Urgency.REFER
            days = None if urgent else int(LIMIT["foot_drop_days"])
            found = _nerve(case, PERONEAL, side, Strength.LIKELY, entry, says, urgency, days)
            yield replace(found, no_training_for=("weakness.ankle_dorsiflexors",))
        elif lifts_at_most(case, side, "4") and (_tinel(case, "fibular_neck", side) or _steppage(case, side)):
            says = "Lifting the foot is weak, and the nerve at the fibular neck agrees."
            yield _nerve(case, PERONEAL, side, Strength.LIKELY, entry, says)


def lifts_at_most(case: Case, side: Side, most: str) -> bool:
    grade = case.value(DORSIFLEXION, "grade", side)
    return isinstance(grade, str) and at_most(grade, most)


def foot_drop_question(case: Case) -> Iterator[Question]:
    """A14: a foot that dropped suddenly is seen the same day."""
    dropped = any(lifts_at_most(case, side, "3") for side in SIDES)
    if dropped and kind_unknown(case) and not sudden(case):
        yield Question("onset.kind", SUDDEN_OR_GRADUAL)


def _steppage(case: Case, side: Side) -> bool:
    told = (case.value(GAIT, "steppage", lane) for lane in (side, None))
    seen = (case.on(lane).listed(GAIT, "pattern") or () for lane in (side, None))
    return True in told or any("steppage" in pattern for pattern in seen)


def screen_the_back(case: Case) -> Iterator[Next]:
    """A14: a nerve sign asks for the low back where it was not screened."""
    signs = (field_is_numb, tarsal_tunnel, foot_drops)
    if not case.entry(LUMBAR, None) and any(True for rule in signs for _ in rule(case)):
        yield Next(LUMBAR, None, "A nerve sign: is it the low back?")


def _pinched_between(entry: Entry, side: Side) -> bool:
    """Pain of the squeeze, though not at a toe joint, or a click."""
    at_the_joint = hurts_at(entry, "lesser_mtp")
    positive = hurts(entry) or entry.value("result", side) == "positive"
    return (positive and not at_the_joint) or entry.value("click", side) is True


def web_space(case: Case) -> Iterator[Finding]:
    """F5: web squeeze painful or clicking, likely with the space known, possible without."""
    for side in SIDES:
        for entry in case.entries(WEB, side):
            if not _pinched_between(entry, side):
                continue
            space = entry.value("space", side)
            strength = Strength.POSSIBLE if space is None else Strength.LIKELY
            says = "Squeezing the forefoot hurts or clicks" + (f" in space {space}." if space else ".")
            because = Reason(entry.at, "F5", says)
            yield Finding("nerve.interdigital", side, strength, because, WEB, None, key=entry.key)


def toe_joint_instead(case: Case) -> Iterator[Next]:
    """F5: a squeeze that hurts at a toe joint asks for the plate below it."""
    for side in SIDES:
        hurt = any(hurts_at(entry, "lesser_mtp") for entry in case.entries(WEB, side))
        if hurt and not case.entries(PLATE, side):
            yield Next(PLATE, side, "The squeeze hurts at a toe joint: does its plate hold?")
