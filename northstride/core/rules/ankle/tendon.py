"""A11, A15, A16: Achilles, tibialis posterior, peroneal tendons, and how the ankle is controlled."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Cap, Finding, Reason, Retake, Settle, Strength, Urgency
from northstride.core.measuring.measurement import less_than
from northstride.core.norms import limits
from northstride.core.rules.foot.shape import heel_leans_out
from northstride.core.rules.hip.function import weak_by_grade, weak_by_symmetry
from northstride.core.rules.onset import days_since_onset
from northstride.core.rules.pain import hurts, hurts_at
from northstride.core.rules.palpation import tender_points
from northstride.core.rules.symmetry import weaker_side
from northstride.core.sides import SIDES, Side

LIMIT = limits("ankle")

SQUEEZE, TONE, GAP = "ankle.calf_squeeze", "ankle.resting_tone", "ankle.achilles_gap"
PALPATION, LOOK, RISE, PERONEAL = "ankle.palpation", "ankle.look", "ankle.heel_rise", "ankle.peroneal"
INVERSION, EVERSION, STANDING = "ankle.resisted.inversion", "ankle.resisted.eversion", "foot.standing"
BALANCE, REACH, SIDE_HOP = "ankle.balance", "ankle.reach", "ankle.side_hop"
RUPTURE, ACHILLES, TIBIALIS = "tendon.achilles_rupture", "tendon.achilles", "tendon.tibialis_posterior"
CONTROL = "control.ankle"
POPPED = frozenset({"heard_pop", "cannot_push_off"})
TRIAD = ("Garras 2012", "Maffulli 1998")


def _moves(case: Case, side: Side) -> object:
    return case.value(SQUEEZE, "foot_moves", side)


def _checked(case: Case, side: Side) -> bool:
    return case.on(side).ticked(SQUEEZE, "passive_range_checked")


def _slack(case: Case, side: Side) -> list[tuple[Entry, str]]:
    """Less resting tone and a gap: what an old rupture still shows."""
    found = []
    tone, gap = case.entry(TONE, side), case.entry(GAP, side)
    if tone is not None and tone.value("tone", side) == "less_plantarflexed":
        found.append((tone, "The foot hangs with less tone."))
    if gap is not None and gap.value("gap", side) is True:
        found.append((gap, "A gap is felt in the tendon."))
    return found


def foot_does_not_move(case: Case) -> Iterator[Finding]:
    """A11: a squeeze that does not move the foot; with less tone or a gap, two of the agreed triad."""
    for side in SIDES:
        squeeze = case.entry(SQUEEZE, side)
        if squeeze is None or _moves(case, side) != "none":
            continue
        slack = _slack(case, side)
        strength = Strength.STRONG if slack else Strength.LIKELY
        reasons = [(squeeze, "Squeezing the calf does not move the foot."), *slack]
        against: tuple[str, ...] = ()
        if not _checked(case, side):
            strength, against = Strength.POSSIBLE, ("Whether the foot moves passively was not checked.",)
        for entry, says in reasons:
            yield _rupture(side, entry, says, strength, Urgency.SAME_DAY, against)


def _rupture(
    side: Side, entry: Entry, says: str, strength: Strength, urgency: Urgency, against: tuple[str, ...] = ()
) -> Finding:
    because = Reason(entry.at, "A11", says)
    return Finding(RUPTURE, side, strength, because, entry.test, None, against, (), TRIAD, urgency)


def tendon_gives_partly(case: Case) -> Iterator[Finding]:
    """A11: a weak squeeze, or less tone or a gap though it moves or was not done: partial or old.

    With a pop or no push-off and an onset of up to 14 days, or undated, likely and the same day.
    """
    days = days_since_onset(case)
    recent = days is None or days <= LIMIT["rupture_days_up_to"]
    acute = recent and bool(POPPED & case.exam.intake.symptoms)
    strength = Strength.LIKELY if acute else Strength.POSSIBLE
    urgency = Urgency.SAME_DAY if acute else Urgency.REFER
    for side in SIDES:
        moves, squeeze = _moves(case, side), case.entry(SQUEEZE, side)
        if moves == "none":
            continue
        signs = _slack(case, side)
        if squeeze is not None and moves == "weak" and _moves(case, side.other) != "weak":
            signs.insert(0, (squeeze, "Squeezing the calf moves the foot weakly."))
        for entry, says in signs:
            yield _rupture(side, entry, says, strength, urgency)


def unchecked_squeeze(case: Case, _findings: object) -> Iterator[Cap]:
    """A11: without the passive check a foot that does not move stays possible; what to do stays."""
    for side in SIDES:
        if _moves(case, side) == "none" and not _checked(case, side):
            says = "Whether the foot moves passively was not checked."
            yield Cap(RUPTURE, side, Strength.POSSIBLE, says)


def check_passive_range(case: Case) -> Iterator[Retake]:
    """A11: a squeeze that does not move an unchecked foot is done again."""
    for side in SIDES:
        if _moves(case, side) == "none" and not _checked(case, side):
            yield Retake(SQUEEZE, side, "passive_range_unchecked")


def achilles_sore(case: Case) -> Iterator[Finding]:
    """A11: pain with a brisk foot, a tender or a thickened tendon possible; tender and thickened likely."""
    for side in SIDES:
        squeeze, look = case.entry(SQUEEZE, side), case.entry(LOOK, side)
        if squeeze is not None and _moves(case, side) == "brisk" and hurts(squeeze):
            because = Reason(squeeze.at, "A11", "The calf squeeze hurts, and the foot moves.")
            yield Finding(ACHILLES, side, Strength.POSSIBLE, because, SQUEEZE)
        tender = _tender_achilles(case, side)
        thick = look if look is not None and look.value("achilles_thickening", side) is True else None
        strength = Strength.LIKELY if tender and thick else Strength.POSSIBLE
        for entry, says in ((tender, "The tendon is tender."), (thick, "The tendon is thickened.")):
            if entry is not None:
                yield Finding(ACHILLES, side, strength, Reason(entry.at, "A11", says), entry.test)


def _tender_achilles(case: Case, side: Side) -> Entry | None:
    gap = case.entry(GAP, side)
    if gap is not None and gap.value("tender", side) is True:
        return gap
    return case.entry(PALPATION, side) if "achilles" in tender_points(case, side) else None


def heel_does_not_turn_in(case: Case) -> Iterator[Finding]:
    """A15: no rise, or no turn or arch in it; with a flat foot or a sore tendon likely."""
    for side in SIDES:
        entry = case.entry(RISE, side)
        count = case.number(RISE, "count", side)
        failing = []
        if count is not None and count.value == 0:
            failing.append("no rise is possible")
        if entry is not None and entry.value("heel_turns_in", side) is False:
            failing.append("the heel does not turn in")
        if entry is not None and entry.value("arch_forms", side) is False:
            failing.append("the arch does not form")
        if entry is None or not failing:
            continue
        agrees = _tibialis_agrees(case, side)
        says = f"On one foot {' and '.join(failing)}" + (f"; {agrees}." if agrees else ".")
        strength = Strength.LIKELY if agrees else Strength.POSSIBLE
        settle = () if agrees else (Settle(STANDING, "A flat arch or a heel that leans out would agree."),)
        yield Finding(TIBIALIS, side, strength, Reason(entry.at, "A15", says), RISE, settle=settle)


def _tibialis_agrees(case: Case, side: Side) -> str:
    """What else speaks for the tibialis posterior, in words; empty where nothing does."""
    standing = case.value(STANDING, "arch", side)
    if standing in ("flat", "low"):
        return f"the arch is {standing}"
    if any(finding.side is side for finding in heel_leans_out(case)):
        return "the heel leans out"
    if "tibialis_posterior" in tender_points(case, side):
        return "its tendon is tender"
    weak = (*weak_by_grade(case), *weak_by_symmetry(case))
    if any(finding.test == INVERSION and finding.side is side for finding in weak):
        return "inversion is weak"
    return "inversion hurts" if hurts(case.entry(INVERSION, side)) else ""


def rises_less(case: Case) -> Iterator[Finding]:
    """A15: under 20 rises, or under 90 % of the other side."""
    code = "weakness.ankle_plantarflexors"
    counts = [case.number(RISE, "count", side) for side in SIDES]
    for side, found in zip(SIDES, counts, strict=True):
        if found is not None and less_than(found.value, LIMIT["heel_rises_below"]):
            because = Reason(found.at, "A15", f"{found.value:g} heel rises.")
            yield Finding(code, side, Strength.POSSIBLE, because, RISE, "count")
    yield from _less_than_other(case, RISE, code, "A15", "rises")


def _less_than_other(case: Case, test: str, code: str, rule: str, what: str) -> Iterator[Finding]:
    counts = [case.number(test, "count", side) for side in SIDES]
    found = weaker_side(case, *(each.value if each else None for each in counts))
    if found is not None:
        side, index = found
        entry = case.entry(test, side)
        because = Reason(entry.at if entry else "entries", rule, f"{index:.0f} % of the other side's {what}.")
        yield Finding(code, side, Strength.POSSIBLE, because, test, "count")


def peroneal_tendons(case: Case) -> Iterator[Finding]:
    """A16: a tendon that slips is likely unstable; tender or sore on eversion, irritated."""
    for side in SIDES:
        test = case.entry(PERONEAL, side)
        if test is not None and test.value("subluxes", side) is True:
            because = Reason(test.at, "A16", "The tendon slips out from behind the malleolus.")
            yield Finding("instability.peroneal_tendon", side, Strength.LIKELY, because, PERONEAL)
        palpation = case.entry(PALPATION, side)
        if palpation is not None and "peroneal_tendons" in tender_points(case, side):
            because = Reason(palpation.at, "A16", "The peroneal tendons are tender.")
            yield Finding("tendon.peroneal", side, Strength.POSSIBLE, because, PALPATION)
        for entry in (test, case.entry(EVERSION, side)):
            if entry is not None and hurts_at(entry, "behind_lateral_malleolus"):
                because = Reason(entry.at, "A16", "Eversion hurts behind the outer malleolus.")
                yield Finding("tendon.peroneal", side, Strength.POSSIBLE, because, entry.test)


def achilles_insertion(case: Case) -> Iterator[Finding]:
    """A16: tender behind the heel, where the tendon ends."""
    for side in SIDES:
        entry = case.entry(PALPATION, side)
        if entry is not None and "retrocalcaneal" in tender_points(case, side):
            because = Reason(entry.at, "A16", "Tender in front of the tendon's end.")
            yield Finding("tendon.achilles_insertion", side, Strength.POSSIBLE, because, PALPATION)


def ankle_not_steered(case: Case) -> Iterator[Finding]:
    """A16: holds, reaches or hops less than the other side by what matters."""
    left, right = (case.number(BALANCE, "hold", side) for side in SIDES)
    compared = case.compare(BALANCE, "hold", left.value, right.value) if left and right else None
    if compared is not None and compared.matters and left is not None and right is not None:
        side, at = (Side.LEFT, left.at) if compared.difference < 0 else (Side.RIGHT, right.at)
        because = Reason(at, "A16", f"Holds {abs(compared.difference):.0f} s less on this foot.")
        yield Finding(CONTROL, side, Strength.POSSIBLE, because, BALANCE, "hold")
    left, right = (case.number(REACH, "anterior", side) for side in SIDES)
    if left is not None and right is not None:
        apart = left.value - right.value
        if not less_than(abs(apart), LIMIT["reach_differs_from"]):
            side, at = (Side.LEFT, left.at) if apart < 0 else (Side.RIGHT, right.at)
            because = Reason(at, "A16", f"Reaches {abs(apart):.0f} mm less to the front.")
            yield Finding(CONTROL, side, Strength.POSSIBLE, because, REACH, "anterior")
    yield from _less_than_other(case, SIDE_HOP, CONTROL, "A16", "side hops")
