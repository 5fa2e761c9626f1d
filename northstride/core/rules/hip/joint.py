"""H1 to H6: the hip joint and what only seems to be it, by place of pain and by change."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, RuledDown, Settle, Strength, Urgency
from northstride.core.measuring.measurement import less_than, more_than
from northstride.core.norms import limits
from northstride.core.rules.pain import hurts, hurts_at, painless, their_own_pain
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("hip_joint")

FABER, FADIR = "hip.faber", "hip.fadir"
CIRCUMDUCTION, POSTERIOR = "hip.flexion_circumduction_ir", "hip.posterior_impingement"
THRUST = "hip.thigh_thrust"
PROVOCATION = ("hip.si_distraction", "hip.si_compression", THRUST, "hip.si_sacral_thrust")
ROTATION, FLEXION, LUMBAR = "hip.rom.internal_rotation_90", "hip.rom.flexion", "lumbar.screen"

LABRAL, IMPINGEMENT = "intra_articular.labral", "intra_articular.impingement"
ARTHRITIS, SACROILIAC = "intra_articular.osteoarthritis", "elsewhere.sacroiliac"
GROIN = frozenset({"groin"})
MECHANICAL = frozenset({"clicking", "clunking", "giving_way", "locking", "catching"})
PAIN_REGIONS = frozenset({"hip", "groin", "thigh"})
PAIN_SITES = frozenset({"groin", "lateral_hip", "buttock", "anterior_thigh"})


def _result(case: Case, test: str, side: Side) -> object:
    return case.value(test, "result", side)


def _change(case: Case, side: Side) -> object:
    return case.value(FABER, "pain_change", side)


def _groin_worse(case: Case, side: Side) -> bool:
    return hurts_at(case.entry(FABER, side), "groin") and _change(case, side) == "worse"


def _stiff_in_the_morning(case: Case) -> bool:
    minutes = case.exam.intake.morning_stiffness_min
    return minutes is not None and 1 <= minutes <= LIMIT["stiffness_minutes_up_to"]


def _age_from(case: Case, limit: str) -> bool:
    return case.age is not None and case.age >= LIMIT[limit]


def faber_by_place(case: Case) -> Iterator[Finding]:
    """H1: where FABER hurts, and whether it eases, names what to look at next."""
    for side in SIDES:
        entry = case.entry(FABER, side)
        if entry is None:
            continue
        if _groin_worse(case, side):
            yield _groin_faber(case, side, entry)
        if _change(case, side) == "relieved" and case.complains_of(GROIN, GROIN):
            says = "FABER eases the groin pain."
            yield _from_faber(IMPINGEMENT, side, entry, says, FADIR, "A painful FADIR would agree.")
        if hurts_at(entry, "sacroiliac", "buttock"):
            says = "FABER hurts at the back of the pelvis."
            yield _from_faber(SACROILIAC, side, entry, says, THRUST, "A painful thrust would agree.")
        if hurts_at(entry, "lumbar"):
            says = "FABER hurts in the low back."
            yield _from_faber(
                "elsewhere.lumbar", side, entry, says, LUMBAR, "Tells whether the back gives it."
            )
        if hurts_at(entry, "lateral_hip"):
            says = "FABER hurts on the outer hip."
            why = "The same pain on one leg would carry weight."
            yield _from_faber("tendon.gluteal", side, entry, says, "hip.single_leg_stance", why)


def _from_faber(code: str, side: Side, entry: Entry, says: str, settle: str, why: str) -> Finding:
    because = Reason(entry.at, "H1", says)
    return Finding(code, side, Strength.POSSIBLE, because, FABER, settle=(Settle(settle, why),))


def _groin_faber(case: Case, side: Side, entry: Entry) -> Finding:
    stiff = (case.exam.intake.morning_stiffness_min or 0) > 0
    older = _age_from(case, "osteoarthritis_age_from") or (
        stiff and _age_from(case, "osteoarthritis_age_with_stiffness")
    )
    says = "FABER makes the groin pain worse"
    if older:
        says += ", at this age."
        return _from_faber(ARTHRITIS, side, entry, says, ROTATION, "The range of rotation tells more.")
    return _from_faber(LABRAL, side, entry, f"{says}.", POSTERIOR, "Pain there as well would carry weight.")


def faber_stays_high(case: Case) -> Iterator[Finding]:
    """H1: painless, but one knee stays higher by more than error and enough to matter."""
    left, right = (case.number(FABER, "knee_height", side) for side in SIDES)
    compared = case.compare(FABER, "knee_height", left.value, right.value) if left and right else None
    if compared is None or not compared.matters or left is None or right is None:
        return
    side, at = (Side.LEFT, left.at) if compared.difference > 0 else (Side.RIGHT, right.at)
    if painless(case.entry(FABER, side)):
        because = Reason(at, "H1", "The knee stays higher than the other, without pain.")
        code = "mobility.hip_external_rotation"
        yield Finding(code, side, Strength.POSSIBLE, because, FABER, "knee_height")


def labrum_by_position(case: Case) -> Iterator[Finding]:
    """H2: posterior impingement, circumduction and FABER, one, two or all three."""
    for side in SIDES:
        back, circle = case.entry(POSTERIOR, side), case.entry(CIRCUMDUCTION, side)
        behind = _result(case, POSTERIOR, side) == "positive" and their_own_pain(back, "groin")
        circled = _result(case, CIRCUMDUCTION, side) == "positive" and hurts_at(circle, "groin")
        agree = [behind, circled, _groin_worse(case, side)]
        if not (behind or circled):
            continue
        strength = (Strength.POSSIBLE, Strength.LIKELY, Strength.STRONG)[sum(agree) - 1]
        entry = back if behind else circle
        says = f"{sum(agree)} of 3 positions give the groin pain."
        because = Reason(entry.at if entry else "entries", "H2", says)
        urgency = Urgency.REFER if strength >= Strength.LIKELY else None
        here, other = (POSTERIOR, CIRCUMDUCTION) if behind else (CIRCUMDUCTION, POSTERIOR)
        settle = (Settle(other, "The same pain there would carry weight."),) if sum(agree) == 1 else ()
        yield Finding(LABRAL, side, strength, because, here, settle=settle, urgency=urgency)


def pinch_in_the_groin(case: Case) -> Iterator[Finding]:
    """H3: a painful FADIR says little alone; with FABER relieved, or story and rotation, more."""
    for side in SIDES:
        entry = case.entry(FADIR, side)
        if entry is None or _result(case, FADIR, side) != "positive" or not hurts_at(entry, "groin"):
            continue
        rotation = case.range_of(ROTATION, side)
        little = rotation is not None and less_than(rotation.value, LIMIT["impingement_rotation_below"])
        likely = _change(case, side) == "relieved" or (_impingement_story(case) and little)
        says = "FADIR gives the groin pain"
        says += ", and the rest agrees." if likely else "; alone it says little."
        yield Finding(
            IMPINGEMENT,
            side,
            Strength.LIKELY if likely else Strength.POSSIBLE,
            Reason(entry.at, "H3", says),
            FADIR,
            against=("Only imaging confirms.",) if likely else (),
            settle=() if likely else (Settle(FABER, "Pain that eases there would agree."),),
            sources=("Reiman 2015",),
            urgency=Urgency.REFER if likely else None,
        )


def _impingement_story(case: Case) -> bool:
    young = case.age is not None and case.age < LIMIT["impingement_age_below"]
    return young and case.complains_of(GROIN, GROIN) and bool(MECHANICAL & case.exam.intake.symptoms)


def fadir_clears(case: Case) -> Iterator[RuledDown]:
    """H4: a negative FADIR says much; with a painless FABER it speaks for the labrum too."""
    for side in SIDES:
        entry = case.entry(FADIR, side)
        if entry is None or _result(case, FADIR, side) != "negative" or hurts_at(entry, "groin"):
            continue
        yield RuledDown(IMPINGEMENT, side, (Reason(entry.at, "H4", "FADIR is negative."),))
        faber = case.entry(FABER, side)
        if faber is not None and painless(faber):
            reasons = (
                Reason(entry.at, "H4", "FADIR is negative."),
                Reason(faber.at, "H4", "FABER is painless."),
            )
            yield RuledDown(LABRAL, side, reasons)


def sacroiliac_provoked(case: Case) -> Iterator[Finding]:
    """H5: one positive possible, two that agree likely, three strong; a negative thrust holds it down."""
    for side in SIDES:
        positive = [test for test in PROVOCATION if _result(case, test, side) == "positive"]
        faber = hurts_at(case.entry(FABER, side), "sacroiliac", "buttock")
        count = len(positive) + faber
        if count == 0:
            continue
        strength = Strength.POSSIBLE
        if count >= LIMIT["sacroiliac_strong_from"]:
            strength = Strength.STRONG
        elif len(positive) >= LIMIT["sacroiliac_likely_from"] or (faber and THRUST in positive):
            strength = Strength.LIKELY
        against = []
        if _result(case, THRUST, side) == "negative":
            many = count >= LIMIT["sacroiliac_strong_from"]
            strength = min(strength, Strength.LIKELY if many else Strength.POSSIBLE)
            against.append("The thigh thrust is negative.")
        if case.on(None).ticked(LUMBAR, "reproduces"):
            against.append("The low back gives the pain.")
        at = case.entry(positive[0] if positive else FABER, side)
        says = f"{count} of 5 give the pain at the back of the pelvis."
        because = Reason(at.at if at else "entries", "H5", says)
        test = positive[0] if positive else FABER
        yield Finding(
            SACROILIAC,
            side,
            strength,
            because,
            test,
            against=tuple(against),
            settle=(Settle(THRUST, "A painful thrust would agree."),),
            sources=("Laslett 2005",),
        )


def sacroiliac_cleared(case: Case) -> Iterator[RuledDown]:
    """H5: three or more provocation tests done and all negative."""
    for side in SIDES:
        done = {test: _result(case, test, side) for test in PROVOCATION}
        answered = [test for test, result in done.items() if result in ("negative", "positive", "equivocal")]
        if len(answered) >= LIMIT["sacroiliac_cleared_from"] and all(
            done[test] == "negative" for test in answered
        ):
            at = case.entry(answered[0], side)
            says = f"{len(answered)} provocation tests, all negative."
            yield RuledDown(SACROILIAC, side, (Reason(at.at if at else "entries", "H5", says),))


def arthritis_criteria(case: Case) -> Iterator[Finding]:
    """H6: clinical criteria of hip osteoarthritis (Altman 1991), rotation at 90."""
    if not case.complains_of(PAIN_REGIONS, PAIN_SITES):
        return
    said = tuple(side for side in case.complaint_sides if side is not None)
    for side in said or SIDES:
        rotation, flexion = case.range_of(ROTATION, side), case.range_of(FLEXION, side)
        if rotation is None:
            continue
        entry = case.entry(ROTATION, side)
        stiff_hip = (
            less_than(rotation.value, LIMIT["osteoarthritis_rotation_below"])
            and flexion is not None
            and not more_than(flexion.value, LIMIT["osteoarthritis_flexion_up_to"])
        )
        sore_hip = (
            not less_than(rotation.value, LIMIT["osteoarthritis_rotation_below"])
            and hurts(entry)
            and _stiff_in_the_morning(case)
            and case.age is not None
            and case.age > LIMIT["osteoarthritis_age_from"]
        )
        if stiff_hip or sore_hip:
            says = (
                "Hip pain with little rotation and flexion."
                if stiff_hip
                else "Sore rotation, stiff mornings."
            )
            because = Reason(rotation.at, "H6", says)
            sources = ("Altman 1991",)
            yield Finding(
                ARTHRITIS, side, Strength.LIKELY, because, ROTATION, "passive", (), (), sources, Urgency.REFER
            )


def _complains_elsewhere(case: Case) -> bool:
    """Of something that is not the hip; a complaint nobody wrote down may be the hip."""
    return case.has_complaint and not case.complains_of(PAIN_REGIONS, PAIN_SITES)


def arthritis_story(case: Case) -> Iterator[Finding]:
    """H6: the story alone, age 45 or more and two of three."""
    told = {"shoes_and_socks", "getting_out_of_car"} & case.exam.intake.symptoms
    signs = len(told) + _stiff_in_the_morning(case)
    if signs < LIMIT["arthritis_story_signs_from"] or _complains_elsewhere(case):
        return
    if _age_from(case, "osteoarthritis_age_with_stiffness"):
        for side in case.complaint_sides:
            because = Reason("intake.symptoms", "H6", "The story fits a stiff hip at this age.")
            settle = (Settle(ROTATION, "The range of rotation tells more."),)
            yield Finding(ARTHRITIS, side, Strength.POSSIBLE, because, settle=settle, sources=("NICE 2022",))
