"""R1 to R4: range against norm, and side against side."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from northstride.core.examination.case import Case
from northstride.core.findings import Finding, Reason, Step, Strength
from northstride.core.measuring.measurement import less_than, more_than, smallest_real_change
from northstride.core.norms import healthy_range, limits, mean_range, mean_range_source
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import degrees, whole_degrees

LIMIT = limits("range")


@dataclass(frozen=True, slots=True)
class Motion:
    """A motion code, the tests that measure it, and the muscle group that makes it."""

    code: str
    tests: tuple[str, ...]
    group: str


MOTIONS = (
    Motion("hip_flexion", ("hip.rom.flexion",), "hip_flexors"),
    Motion("hip_extension", ("hip.rom.extension",), "hip_extensors"),
    Motion("hip_abduction", ("hip.rom.abduction",), "hip_abductors"),
    Motion("hip_adduction", ("hip.rom.adduction",), "hip_adductors"),
    Motion(
        "hip_internal_rotation",
        ("hip.rom.internal_rotation_90", "hip.rom.internal_rotation_0"),
        "hip_internal_rotators",
    ),
    Motion(
        "hip_external_rotation",
        ("hip.rom.external_rotation_90", "hip.rom.external_rotation_0"),
        "hip_external_rotators",
    ),
    Motion("ankle_dorsiflexion", ("ankle.rom.dorsiflexion_knee_bent",), "ankle_dorsiflexors"),
    Motion("ankle_plantarflexion", ("ankle.rom.plantarflexion",), "ankle_plantarflexors"),
    Motion("ankle_inversion", ("ankle.rom.inversion",), "ankle_invertors"),
    Motion("ankle_eversion", ("ankle.rom.eversion",), "ankle_evertors"),
)
FIRST_MTP = "foot.rom.first_mtp_extension"
BIG_TOE = Motion("first_mtp_extension", (FIRST_MTP,), "toe_extensors")
# One stop in the way of moving tells more than the number; it is a reason, not a step.
LOWER = "lower than in about 19 of 20 healthy adults"
AGE_OR_SEX = "Age or sex is not known: held against adults of 30 to 40."
TELLING_END_FEEL = {"bony_block": "a bony block at the end", "empty": "an empty end"}


@dataclass(frozen=True, slots=True)
class Line:
    """Where one in twenty healthy people lies lower, degrees, and whom that was measured in."""

    at: float
    sources: tuple[str, ...]


def line_of(case: Case, motion: Motion) -> Line:
    """R1: 1.65 standard deviations under the mean.

    The mean is the smaller of that of healthy adults and of the athlete's own age and sex, where known:
    our hip flexion stops when the back joins in.
    """
    healthy = healthy_range(motion.code)
    own = mean_range(motion.code, case.age, case.exam.athlete.sex)
    smaller = own is not None and own < healthy.mean
    mean = own if own is not None and smaller else healthy.mean
    sources = (healthy.source, mean_range_source()) if smaller else (healthy.source,)
    return Line(mean - LIMIT["deviations_below"] * healthy.sd, sources)


def moves_less_than_usual(case: Case) -> Iterator[Finding]:
    """R1: lower than in 19 of 20 healthy people possible, beyond error too likely."""
    for motion in MOTIONS:
        for side in SIDES:
            yield from moves_less_than_usual_on(case, motion, side)


def moves_less_than_usual_on(case: Case, motion: Motion, side: Side) -> Iterator[Finding]:
    """R1 for one motion on one side; both hip positions of a rotation give the same flag."""
    for test in motion.tests:
        yield from _against_the_healthy(case, motion, test, side)


def _against_the_healthy(case: Case, motion: Motion, test: str, side: Side) -> Iterator[Finding]:
    found, line = case.range_of(test, side), line_of(case, motion)
    if found is None or not less_than(found.value, line.at):
        return
    error, sem = case.measure(test, "passive").error, case.sem(test, "passive")
    if error is None or sem is None:
        return
    likely = less_than(found.value, line.at - smallest_real_change(sem))
    says = f"{_taken_as(case, test, side)} {degrees(found.value)}: {LOWER}{_felt(case, test, side)}."
    unknown = case.age is None or case.exam.athlete.sex is None
    yield Finding(
        f"mobility.{motion.code}",
        side,
        Strength.LIKELY if likely else Strength.POSSIBLE,
        Reason(found.at, "R1", says),
        test,
        _taken(case, test, side),
        against=(AGE_OR_SEX,) if unknown else (),
        sources=(*line.sources, error.source),
    )


def _taken(case: Case, test: str, side: Side) -> str:
    return "passive" if case.number(test, "passive", side) is not None else "active"


def _taken_as(case: Case, test: str, side: Side) -> str:
    return "Passive" if _taken(case, test, side) == "passive" else "Only active taken:"


def _felt(case: Case, test: str, side: Side) -> str:
    """R3: the end feel and the familiar pain are reasons, not steps."""
    parts = []
    end_feel = case.value(test, "end_feel", side)
    if isinstance(end_feel, str) and end_feel in TELLING_END_FEEL:
        parts.append(TELLING_END_FEEL[end_feel])
    entry = case.entry(test, side)
    if entry is not None and entry.pain is not None and entry.pain.present and entry.pain.familiar:
        parts.append("with their own pain")
    return "".join(f", {part}" for part in parts)


def big_toe_moves_less(case: Case) -> Iterator[Finding]:
    """R1 for the big toe: below 65 possible, below 50 likely, without an error margin."""
    for side in SIDES:
        found = case.range_of(FIRST_MTP, side)
        if found is not None and less_than(found.value, LIMIT["first_mtp_reference"]):
            likely = less_than(found.value, LIMIT["first_mtp_likely_below"])
            says = f"{_taken_as(case, FIRST_MTP, side)} {degrees(found.value)} against "
            says += f"{degrees(LIMIT['first_mtp_reference'])}{_felt(case, FIRST_MTP, side)}."
            because = Reason(found.at, "R1", says)
            strength = Strength.LIKELY if likely else Strength.POSSIBLE
            taken = _taken(case, FIRST_MTP, side)
            yield Finding("mobility.first_mtp_extension", side, strength, because, FIRST_MTP, taken)


def moves_less_than_other_side(case: Case, _findings: Sequence[Finding]) -> Iterator[Step]:
    """R2: a side difference that matters, one step more on the shorter side."""
    for motion in (*MOTIONS, BIG_TOE):
        for test in motion.tests:
            both = case.alike(test, test, *SIDES)
            if both is None:
                continue
            left, right = both
            compared = case.compare(test, "passive", left.value, right.value)
            if compared is None or not compared.matters:
                continue
            side, at = (Side.LEFT, left.at) if compared.difference < 0 else (Side.RIGHT, right.at)
            says = f"{whole_degrees(compared.difference)} less than the other side, beyond error."
            error = case.measure(test, "passive").error
            sources = (error.source,) if error else ()
            because = Reason(at, "R2", says)
            yield Step(f"mobility.{motion.code}", side, because, test, "passive", makes=True, sources=sources)


def _is_short(case: Case, motion: Motion, test: str, side: Side) -> bool:
    if motion is BIG_TOE:
        return any(finding.side is side for finding in big_toe_moves_less(case))
    return any(True for _ in _against_the_healthy(case, motion, test, side))


def moves_less_by_itself(case: Case) -> Iterator[Finding]:
    """R4: active lags behind passive by more than 10° with passive in range."""
    for motion in (*MOTIONS, BIG_TOE):
        for test in motion.tests:
            for side in SIDES:
                passive = case.number(test, "passive", side)
                active = case.number(test, "active", side)
                if passive is None or active is None or _is_short(case, motion, test, side):
                    continue
                lag = passive.value - active.value
                if more_than(lag, LIMIT["active_lag_beyond"]):
                    says = f"Moves {degrees(lag)} further when helped."
                    because = Reason(active.at, "R4", says)
                    code = f"weakness.{motion.group}"
                    yield Finding(code, side, Strength.POSSIBLE, because, test, "active")
