"""A11: whether the calf still moves the foot, and what an Achilles that does not is spared."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import (
    Cap,
    Finding,
    GateRaised,
    Next,
    Question,
    Reason,
    Retake,
    Strength,
    Urgency,
)
from northstride.core.norms import limits
from northstride.core.rules.onset import LOWER_LEG, days_since_onset
from northstride.core.rules.pain import hurts
from northstride.core.rules.palpation import PALPATION, tender_points
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("ankle")

SQUEEZE, TONE, GAP, LOOK = "ankle.calf_squeeze", "ankle.resting_tone", "ankle.achilles_gap", "ankle.look"
RUPTURE, ACHILLES = "tendon.achilles_rupture", "tendon.achilles"
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

    With a pop or no push-off below the knee, up to 14 days ago or undated, likely and the same day.
    """
    acute = _popped(case)
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


def _lately_below_the_knee(case: Case) -> bool:
    """Up to 14 days ago, or undated; where nobody said where, it may be here."""
    days, complaint = days_since_onset(case), case.complaint
    recent = days is None or days <= LIMIT["rupture_days_up_to"]
    return recent and (complaint is None or complaint.region in LOWER_LEG)


def _popped(case: Case) -> bool:
    """A pop was heard or pushing off is not possible, lately, in leg, ankle or foot."""
    return _lately_below_the_knee(case) and bool(POPPED & case.exam.intake.symptoms)


def achilles_gate(case: Case) -> Iterator[GateRaised | Next]:
    """A11: a torn tendon is not loaded; nor is one that popped, until the calf was squeezed."""
    signs = (*foot_does_not_move(case), *tendon_gives_partly(case))
    for side in SIDES:
        # Before the cap of an unchecked squeeze: a foot that does not move may be one.
        torn = _moves(case, side) == "none" or any(
            sign.side is side and sign.strength >= Strength.LIKELY for sign in signs
        )
        if torn:
            yield GateRaised("achilles_doubt", side)
    for side in case.sides_of_complaint if _popped(case) else ():
        if _moves(case, side) is None:
            yield GateRaised("achilles_doubt", side, until_answered=True)
            yield Next(SQUEEZE, side, "A pop or no push-off: squeeze the calf before it is loaded.", "A11")


def pop_questions(case: Case) -> Iterator[Question]:
    """A11: a tendon that gives partly is seen the same day after a pop or where pushing off fails."""
    partly = any(sign.strength < Strength.LIKELY for sign in tendon_gives_partly(case))
    if partly and _lately_below_the_knee(case):
        for item in sorted(POPPED):
            if not case.answered(item):
                yield Question(f"symptoms.{item}", "With it the Achilles is seen the same day.")


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
