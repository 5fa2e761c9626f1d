"""A2 to A8: the syndesmosis, the three lateral ligaments, the deltoid, and an ankle that keeps giving."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Reason, Settle, Step, Strength, Urgency
from northstride.core.norms import limits
from northstride.core.rules.ankle.laxity import (
    EARLY_SOURCE,
    LAXITY,
    early_words,
    grade_of,
    lax,
    sore,
    sprains_before,
)
from northstride.core.rules.danger.bone_stress import bone_clear
from northstride.core.rules.onset import days_since_onset
from northstride.core.rules.pain import hurts_at
from northstride.core.rules.palpation import tender_points
from northstride.core.terms.sides import SIDES, Side

LIMIT = limits("ankle")

DRAWER, TILT, EXTERNAL = "ankle.anterior_drawer", "ankle.inversion_tilt", "ankle.external_rotation"
SQUEEZE, COTTON, GLIDE, PLAY = "ankle.squeeze", "ankle.cotton", "ankle.fibular_glide", "ankle.play.fibula"
HOP, LOOK, PALPATION = "ankle.hop", "ankle.look", "ankle.palpation"
ATFL, CFL, PTFL, DELTOID = "instability.atfl", "instability.cfl", "instability.ptfl", "instability.deltoid"
SYNDESMOSIS = "instability.syndesmosis"
HIGH = "above_lateral_malleolus"
SOFT_STOPS = {"soft": "The stop is soft.", "absent": "There is no stop."}
LATERAL_SOURCE = ("Netterström-Wedin 2022",)


@dataclass(frozen=True, slots=True)
class Ligament:
    """A lateral ligament, the rule that reads it, and the tests that load it."""

    name: str
    rule: str
    tests: tuple[str, ...]
    # Whether a soft stop or a clunk says one step more.
    stop_counts: bool = True

    @property
    def instability(self) -> str:
        return f"instability.{self.name}"


LATERAL = (
    Ligament("atfl", "A3", (DRAWER, "ankle.stress_atfl")),
    Ligament("cfl", "A5", (TILT, "ankle.stress_cfl")),
    Ligament("ptfl", "A7", ("ankle.posterior_drawer", "ankle.stress_ptfl"), stop_counts=False),
)
# Which fibres of the deltoid each test or ankle position loads.
DELTOID_BAND = {
    "ankle.stress_att_tn": ", front band",
    "ankle.stress_tibiocalcaneal": ", middle band",
    "ankle.stress_ptt": ", back band",
    "plantarflexed": ", front band",
    "neutral": ", middle band",
    "dorsiflexed": ", back band",
}
DELTOID_TESTS = (
    "ankle.eversion_tilt",
    "ankle.stress_att_tn",
    "ankle.stress_tibiocalcaneal",
    "ankle.stress_ptt",
)


@dataclass(frozen=True, slots=True)
class Sign:
    """A sign of the syndesmosis; `loads_it` where the joint itself was strained."""

    at: str
    test: str
    says: str
    loads_it: bool


def _syndesmosis_signs(case: Case, side: Side) -> Iterator[Sign]:
    squeeze = case.entry(SQUEEZE, side)
    if squeeze is not None and hurts_at(squeeze, HIGH):
        yield Sign(squeeze.at, SQUEEZE, "Squeezing the leg hurts above the ankle.", loads_it=True)
    for entry in case.entries(EXTERNAL, side):
        if hurts_at(entry, HIGH):
            yield Sign(entry.at, EXTERNAL, "Turning the foot out hurts above the ankle.", loads_it=True)
            break
    cotton = case.entry(COTTON, side)
    if cotton is not None and (grade_of(cotton, side) or hurts_at(cotton, HIGH)):
        yield Sign(cotton.at, COTTON, "The talus shifts, or shifting it hurts there.", loads_it=True)
    fibula = _loose_fibula(case, side)
    if fibula is not None:
        yield Sign(fibula.at, fibula.test, "The fibula glides, or gliding it hurts there.", loads_it=True)
    palpation = case.entry(PALPATION, side)
    if palpation is not None and "syndesmosis" in tender_points(case, side):
        yield Sign(palpation.at, PALPATION, "The syndesmosis is tender.", loads_it=False)
    hop = case.entry(HOP, side)
    if hop is not None and hop.value("able", side) is False and bone_clear(case, side):
        yield Sign(hop.at, HOP, "Hopping is not possible, with bone clear.", loads_it=False)


def _loose_fibula(case: Case, side: Side) -> Entry | None:
    glide, play = case.entry(GLIDE, side), case.entry(PLAY, side)
    if glide is not None and (grade_of(glide, side) or hurts_at(glide, HIGH)):
        return glide
    grade = case.on(side).grade(PLAY)
    loose = grade is not None and grade >= LIMIT["play_more_from"]
    return play if loose or hurts_at(play, HIGH) else None


def syndesmosis_by_count(case: Case) -> Iterator[Finding]:
    """A2: one sign possible, two likely, three strong, where one of them loads the joint (Sman 2015).

    A squeeze that does not hurt clears nothing: it finds one in four.
    """
    for side in SIDES:
        signs = list(_syndesmosis_signs(case, side))
        strength = Strength.POSSIBLE
        if any(sign.loads_it for sign in signs):
            strength = Strength(min(len(signs), Strength.STRONG))
        urgency = {Strength.LIKELY: Urgency.REFER, Strength.STRONG: Urgency.SAME_DAY}.get(strength)
        against = ("Only imaging under load confirms.",) if urgency else ()
        for sign in signs:
            because = Reason(sign.at, "A2", sign.says)
            settle = () if len(signs) > 1 else _settles_syndesmosis(sign.test)
            yield Finding(
                SYNDESMOSIS,
                side,
                strength,
                because,
                sign.test,
                None,
                against,
                settle,
                ("Sman 2015",),
                urgency,
            )


def syndesmosis_gate(case: Case) -> Iterator[GateRaised]:
    """A2: strong, before any cap: no weight goes on it."""
    strong = {found.side for found in syndesmosis_by_count(case) if found.strength is Strength.STRONG}
    for side in SIDES:
        if side in strong:
            yield GateRaised("unstable_doubt", side)


def _settles_syndesmosis(test: str) -> tuple[Settle, ...]:
    other = SQUEEZE if test == EXTERNAL else EXTERNAL
    return (Settle(other, "Pain above the ankle here as well would carry weight."),)


def lateral_ligaments(case: Case) -> Iterator[Finding]:
    """A3, A5, A7: laxity by grade; pain without laxity is a sprain that holds."""
    for ligament in LATERAL:
        for test in ligament.tests:
            for side in SIDES:
                entry = case.entry(test, side)
                if entry is None:
                    continue
                found = lax(case, ligament.instability, ligament.rule, entry, side, LATERAL_SOURCE)
                found = found or sore(case, f"sprain.{ligament.name}", ligament.rule, entry, side)
                if found is not None:
                    yield _with_second_ligament(found)


def _with_second_ligament(finding: Finding) -> Finding:
    """A lax front ligament asks for the one beside it, and that one for the front."""
    beside = {ATFL: TILT, CFL: DRAWER}.get(finding.code)
    if beside is None:
        return finding
    return replace(finding, settle=(Settle(beside, "Tells whether a second ligament is involved."),))


def delayed_examination(case: Case) -> Iterator[Finding]:
    """A4: bruising, tender ATFL and a lax drawer on day 4 or later (van Dijk 1996)."""
    days = days_since_onset(case)
    if days is None or days < LIMIT["recheck_from_day"]:
        return
    for side in SIDES:
        bruised, drawer = case.value(LOOK, "bruising", side), case.entry(DRAWER, side)
        if drawer is None or not bruised or not grade_of(drawer, side):
            continue
        if "atfl" in tender_points(case, side):
            says = f"Day {days}: bruised, tender and lax together."
            because = Reason(drawer.at, "A4", says)
            yield Finding(ATFL, side, Strength.STRONG, because, DRAWER, LAXITY, sources=EARLY_SOURCE)


def soft_stop(case: Case, _findings: Sequence[Finding]) -> Iterator[Step]:
    """A3, A5: a soft or absent stop, or a clunk, with laxity: one step more."""
    for ligament in LATERAL:
        for side in SIDES if ligament.stop_counts else ():
            entry = case.entry(ligament.tests[0], side)
            if entry is None or not grade_of(entry, side):
                continue
            stop = entry.value("end_feel", side)
            says = SOFT_STOPS.get(stop) if isinstance(stop, str) else None
            if says is None and entry.value("clunk", side) is True:
                says = "It clunks."
            if says is not None:
                because = Reason(entry.at, ligament.rule, says)
                code = ligament.instability
                yield Step(code, side, because, entry.test, LAXITY, makes=False, reason="stop")


def two_ligaments(case: Case, _findings: Sequence[Finding]) -> Iterator[Step]:
    """A5: drawer and tilt both clearly lax: each one step more."""
    for side in SIDES:
        drawer, tilt = case.entry(DRAWER, side), case.entry(TILT, side)
        if drawer is None or tilt is None:
            continue
        clearly = LIMIT["clearly_lax_from"]
        if all((grade_of(entry, side) or 0) >= clearly for entry in (drawer, tilt)):
            for code, entry in ((ATFL, drawer), (CFL, tilt)):
                because = Reason(entry.at, "A5", "Two ligaments give.")
                yield Step(code, side, because, entry.test, LAXITY, makes=False, reason="two ligaments")


def deltoid(case: Case) -> Iterator[Finding]:
    """A6: eversion tilt, external rotation with pain on the inside, and the three bands."""
    for side in SIDES:
        entries = [entry for test in DELTOID_TESTS for entry in case.entries(test, side)]
        entries += [entry for entry in case.entries(EXTERNAL, side) if hurts_at(entry, "medial")]
        for entry in entries:
            band = DELTOID_BAND.get(str(entry.key) if entry.test == EXTERNAL else entry.test, "")
            found = lax(case, DELTOID, "A6", entry, side, (), band)
            found = found or sore(case, DELTOID, "A6", entry, side, band)
            if found is not None:
                other = DELTOID_TESTS[0] if entry.test != DELTOID_TESTS[0] else DELTOID_TESTS[2]
                yield replace(found, settle=(Settle(other, "A second test that agrees says more."),))


def deltoid_tests_agree(_case: Case, findings: Sequence[Finding]) -> Iterator[Step]:
    """A6: two different tests agreeing say one step more."""
    for side in SIDES:
        here = [f for f in findings if f.code == DELTOID and f.side is side and f.test is not None]
        tests = list(dict.fromkeys(finding.test for finding in here))
        if len(tests) >= LIMIT["tests_agree_from"] and tests[1] is not None:
            at = next(finding.because.at for finding in here if finding.test == tests[1])
            because = Reason(at, "A6", "Two different tests agree.")
            yield Step(DELTOID, side, because, tests[1], LAXITY, makes=False)


def keeps_giving_way(case: Case) -> Iterator[Finding]:
    """A8: sprained twice or more before, giving way, and lax on the outer side."""
    if "giving_way" not in case.exam.intake.symptoms:
        return
    for side in SIDES:
        count, told = sprains_before(case, side)
        entries = (case.entry(test, side) for ligament in LATERAL for test in ligament.tests)
        loose = next((entry for entry in entries if entry is not None and grade_of(entry, side)), None)
        if loose is not None and count >= LIMIT["sprains_chronic_from"]:
            because = Reason(told, "A8", f"Sprained {count} times before, gives way, and is lax.")
            against = early_words(case, side)
            code = "instability.chronic_ankle"
            yield Finding(code, side, Strength.LIKELY, because, loose.test, None, against)
