"""A9 and A10: how the talocrural and subtalar joints move and play, and what is pinched at the end."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Settle, Step, Strength
from northstride.core.measuring.measurement import less_than
from northstride.core.norms import limits
from northstride.core.rules.joint_range import (
    MOTIONS,
    moves_less_than_usual_on,
)
from northstride.core.rules.pain import hurts_at
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import degrees, plain, unit_after, whole

LIMIT = limits("ankle")

MEDIAL, LATERAL = "subtalar.medial_glide", "subtalar.lateral_glide"
POSTERIOR_GLIDE, SWING, LUNGE = "ankle.play.posterior_glide", "ankle.talar_swing", "ankle.lunge"
BENT, STRAIGHT = "ankle.rom.dorsiflexion_knee_bent", "ankle.rom.dorsiflexion_knee_straight"
PLANTARFLEXION = "ankle.rom.plantarflexion"
PLAY = "ankle.play."
DORSIFLEXION = "mobility.ankle_dorsiflexion"
TALUS_BACK = "mobility.talocrural_posterior_glide"
BENDS = next(motion for motion in MOTIONS if motion.code == "ankle_dorsiflexion")
LUNGE_LIMITS = (("distance", "lunge_distance_below"), ("tibia_angle", "lunge_angle_below"))


def _at(case: Case, test: str, side: Side) -> str:
    entry = case.entry(test, side)
    return entry.at if entry else "entries"


def subtalar_plays(case: Case) -> Iterator[Finding]:
    """A9: little glide possible, much medial glide possible; two grades from the other side likely."""
    for side in SIDES:
        for test, less in ((MEDIAL, "subtalar_eversion"), (LATERAL, "subtalar_inversion")):
            grade, other = case.on(side).grade(test), case.on(side.other).grade(test)
            if grade is None:
                continue
            apart = other is not None and abs(grade - other) >= LIMIT["play_sides_differ_from"]
            strength = Strength.LIKELY if apart else Strength.POSSIBLE
            says = f"Play {grade} of 6" + (f", {other} on the other side." if apart else ".")
            because = Reason(_at(case, test, side), "A9", says)
            if grade <= LIMIT["play_less_up_to"]:
                yield Finding(f"mobility.{less}", side, strength, because, test, "grade")
            elif test == MEDIAL and grade >= LIMIT["play_more_from"]:
                yield Finding("instability.subtalar", side, strength, because, test, "grade")


def lunge_short(case: Case) -> Iterator[Finding]:
    """A10: the lunge stops under 60 mm or 33°: about one healthy adult in twenty (assumed)."""
    for side in SIDES:
        for measure, limit in LUNGE_LIMITS:
            found = case.number(LUNGE, measure, side)
            if found is not None and less_than(found.value, LIMIT[limit]):
                because = Reason(
                    found.at, "A10", f"The lunge stops at {plain(found.value)}{_unit(case, measure)}."
                )
                settle = (Settle(POSTERIOR_GLIDE, "Tells whether the joint or the calf stops it."),)
                yield Finding(DORSIFLEXION, side, Strength.POSSIBLE, because, LUNGE, measure, settle=settle)


def _unit(case: Case, measure: str) -> str:
    return unit_after(case.measure(LUNGE, measure).unit)


def lunges_less_than_other_side(case: Case, _findings: Sequence[Finding]) -> Iterator[Step]:
    """R2 for the lunge: a side difference that matters, one step more on the shorter side."""
    for measure, _limit in LUNGE_LIMITS:
        left, right = (case.number(LUNGE, measure, side) for side in SIDES)
        compared = case.compare(LUNGE, measure, left.value, right.value) if left and right else None
        if compared is None or not compared.matters or left is None or right is None:
            continue
        side, at = (Side.LEFT, left.at) if compared.difference < 0 else (Side.RIGHT, right.at)
        by = f"{whole(compared.difference)}{_unit(case, measure)}"
        because = Reason(at, "R2", f"The lunge stops {by} sooner than on the other side, beyond error.")
        error = case.measure(LUNGE, measure).error
        sources = (error.source,) if error else ()
        yield Step(DORSIFLEXION, side, because, LUNGE, measure, makes=True, sources=sources)


def _bends_less(case: Case, side: Side) -> bool:
    """Dorsiflexion or lunge under its line on this side."""
    short = (*moves_less_than_usual_on(case, BENDS, side), *lunge_short(case))
    return any(finding.side is side for finding in short)


def talus_does_not_glide_back(case: Case) -> Iterator[Finding]:
    """A10: little posterior glide, or a talus that does not swing; likely where the ankle bends less."""
    for side in SIDES:
        grade, swing = case.on(side).grade(POSTERIOR_GLIDE), case.value(SWING, "swing", side)
        signs = []
        if grade is not None and grade <= LIMIT["play_less_up_to"]:
            signs.append((POSTERIOR_GLIDE, "grade", f"Posterior glide {grade} of 6"))
        if swing in ("reduced", "blocked"):
            signs.append((SWING, "swing", f"The talus swings back {swing}"))
        if not signs:
            continue
        bends_less = _bends_less(case, side)
        strength = Strength.LIKELY if bends_less else Strength.POSSIBLE
        settle = () if bends_less else (Settle(LUNGE, "Tells whether the ankle bends less."),)
        for test, measure, says in signs:
            says += ", and the ankle bends less." if bends_less else "."
            because = Reason(_at(case, test, side), "A10", says)
            yield Finding(TALUS_BACK, side, strength, because, test, measure, settle=settle)


def other_play_is_little(case: Case) -> Iterator[Finding]:
    """A10: any other play of the ankle at 2 or less."""
    for code, test in case.catalogue.tests.items():
        if code.startswith(PLAY) and code != POSTERIOR_GLIDE:
            for side in SIDES:
                grade = case.on(side).grade(code)
                if grade is not None and grade <= LIMIT["play_less_up_to"]:
                    because = Reason(_at(case, code, side), "A10", f"{test.name}: {grade} of 6.")
                    yield Finding("mobility.talocrural", side, Strength.POSSIBLE, because, code, "grade")


def calf_short(case: Case) -> Iterator[Finding]:
    """A10: gastrocnemius where straightening the knee takes range away, soleus where the joint plays."""
    for side in SIDES:
        both = case.alike(STRAIGHT, BENT, side, side)
        if both is not None:
            straight, bent = both
            short = less_than(straight.value, LIMIT["straight_knee_below"])
            apart = not less_than(bent.value - straight.value, LIMIT["bent_beyond_straight_from"])
            if short and apart:
                likely = less_than(straight.value, LIMIT["straight_knee_likely_below"])
                strength = Strength.LIKELY if likely else Strength.POSSIBLE
                says = f"{degrees(straight.value)} with the knee straight, {degrees(bent.value)} bent."
                because = Reason(straight.at, "A10", says)
                yield Finding("tightness.gastrocnemius", side, strength, because, STRAIGHT, "passive")
        if case.on(side).grade(POSTERIOR_GLIDE) == LIMIT["play_usual"]:
            for finding in moves_less_than_usual_on(case, BENDS, side):
                says = "The bent-knee range is short though the talus glides back."
                because = Reason(finding.because.at, "A10", says)
                yield Finding("tightness.soleus", side, Strength.POSSIBLE, because, BENT, finding.measure)


def pinched_at_the_end(case: Case) -> Iterator[Finding]:
    """A10: front pain in the lunge, back pain when the foot is pressed down."""
    for side in SIDES:
        lunge, down = case.entry(LUNGE, side), case.entry(PLANTARFLEXION, side)
        if lunge is not None and hurts_at(lunge, "anterior"):
            because = Reason(lunge.at, "A10", "The lunge pinches in front.")
            yield Finding("impingement.anterior_ankle", side, Strength.POSSIBLE, because, LUNGE)
        only_active = down is not None and down.value("active", side) and not down.value("passive", side)
        if down is not None and hurts_at(down, "posterior") and not only_active:
            because = Reason(down.at, "A10", "Pressing the foot down pinches behind.")
            yield Finding("impingement.posterior_ankle", side, Strength.POSSIBLE, because, PLANTARFLEXION)
