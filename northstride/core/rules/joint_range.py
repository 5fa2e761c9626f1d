"""R1 to R4: range against norm, and side against side."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from northstride.core.examination.case import Case, Observed
from northstride.core.findings import Finding, Reason, Step, Strength
from northstride.core.measuring.measurement import less_than, more_than, smallest_real_change
from northstride.core.norms import limits, mean_range, mean_range_source
from northstride.core.sides import SIDES, Side
from northstride.core.wording import degrees, whole_degrees

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
TELLING_END_FEEL = {"bony_block": "a bony block at the end", "empty": "an empty end"}


def reference(case: Case, motion: Motion, test: str) -> tuple[float, str] | None:
    """R1: the smaller of the published mean and the usual adult range, in degrees, and its source.

    The smaller, because our hip flexion stops when the back joins in.
    """
    usual = _usual_adult(case, test)
    if usual is None:
        return None
    mean = mean_range(motion.code, case.age, case.exam.athlete.sex)
    if mean is not None and mean < usual:
        return mean, mean_range_source()
    return usual, "usual adult range"


def _usual_adult(case: Case, test: str) -> float | None:
    if test == "hip.rom.extension":
        return float(case.schools["hip_extension_norm"])
    return case.measure(test, "passive").usual_adult


def moves_less_than_usual(case: Case) -> Iterator[Finding]:
    """R1: below reference by more than error possible, by error and threshold likely."""
    for motion in MOTIONS:
        for side in SIDES:
            yield from moves_less_than_usual_on(case, motion, side)


def moves_less_than_usual_on(case: Case, motion: Motion, side: Side) -> Iterator[Finding]:
    """R1 for one motion on one side; both hip positions of a rotation give the same flag."""
    for test in motion.tests:
        yield from _against_norm(case, motion, test, side)


def _against_norm(case: Case, motion: Motion, test: str, side: Side) -> Iterator[Finding]:
    found = case.range_of(test, side)
    if found is None:
        return
    norm, error, sem = (
        reference(case, motion, test),
        case.measure(test, "passive").error,
        case.sem(test, "passive"),
    )
    if norm is None or error is None or sem is None:
        return
    expected, source = norm
    margin = smallest_real_change(sem)
    if not less_than(found.value, expected - margin):
        return
    likely = less_than(found.value, expected - margin - error.threshold)
    strength = Strength.LIKELY if likely else Strength.POSSIBLE
    because = Reason(found.at, "R1", _says(case, test, side, found, expected))
    code = f"mobility.{motion.code}"
    sources = (source, error.source)
    yield Finding(code, side, strength, because, test, _taken(case, test, side), sources=sources)


def _taken(case: Case, test: str, side: Side) -> str:
    return "passive" if case.number(test, "passive", side) is not None else "active"


def _says(case: Case, test: str, side: Side, found: Observed, expected: float) -> str:
    """R1 says where only the active range was taken; R3 adds the end feel and the familiar pain."""
    kind = "Passive" if _taken(case, test, side) == "passive" else "Only active taken:"
    parts = [f"{kind} {degrees(found.value)} against {degrees(expected)}"]
    end_feel = case.value(test, "end_feel", side)
    if isinstance(end_feel, str) and end_feel in TELLING_END_FEEL:
        parts.append(TELLING_END_FEEL[end_feel])
    entry = case.entry(test, side)
    if entry is not None and entry.pain is not None and entry.pain.present and entry.pain.familiar:
        parts.append("with their own pain")
    return ", ".join(parts) + "."


def big_toe_moves_less(case: Case) -> Iterator[Finding]:
    """R1 for the big toe: below 65 possible, below 50 likely, without an error margin."""
    for side in SIDES:
        found = case.range_of(FIRST_MTP, side)
        if found is not None and less_than(found.value, LIMIT["first_mtp_reference"]):
            likely = less_than(found.value, LIMIT["first_mtp_likely_below"])
            because = Reason(
                found.at, "R1", _says(case, FIRST_MTP, side, found, LIMIT["first_mtp_reference"])
            )
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
    return any(True for _ in _against_norm(case, motion, test, side))


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
