"""The core: one record read and judged, against the pace of the machine."""

from __future__ import annotations

import json
import resource
import sys
from typing import Any

from bench.figure import Figure, alternating, median
from bench.pace import pace
from northstride.core.catalogue import Measure, default_catalogue
from northstride.core.course.change import changes
from northstride.core.examination import Context
from northstride.core.judgement.judge import judge
from northstride.core.reading import evaluate
from northstride.core.route import make_route
from northstride.record.json_text import parse_json
from northstride.record.read import check_record
from northstride.record.reading import reading_json

TIMES = 400
FULL_ENTRIES = 70
MANY = 10_000
EARLIER = 20
BAR = 40

RECORD = {
    "format": "north-stride/screen",
    "version": 1,
    "id": "00000000-0000-4000-8000-000000000001",
    "date": "2026-09-14",
    "purpose": "squad_screen",
    "athlete": {"ref": "T-1", "birth_date": "2003-05-02", "sex": "female"},
    "planned": ["hip.modified_thomas"],
    "entries": [
        {
            "test": "hip.modified_thomas",
            "side": side,
            "values": {
                "thigh_angle": [thigh, thigh + 1, thigh],
                "knee_angle": knee,
                "thigh_angle_knee_straight": thigh - 10,
                "abduction_drift": 7,
                "rotation_drift": -6,
                "adduction_available": 8,
            },
            "seen": ["thigh_rises_when_crossing"],
        }
        for side, thigh, knee in (("left", 8, 84), ("right", -4, 95))
    ],
}


def full_record() -> dict[str, Any]:
    """Seventy entries, both sides, with a story: middle values of the catalogue's first tests."""
    entries: list[dict[str, Any]] = []
    for test in default_catalogue().tests.values():
        if test.sides != "each" or test.key is not None or not test.measures:
            continue
        values = {m.code: _middle(m) for m in test.measures}
        entries += [{"test": test.code, "side": side, "values": values} for side in ("left", "right")]
    intake = {
        "complaint": {"region": "hip", "side": "left", "sites": ["groin"]},
        "onset": {"date": "2026-09-12", "kind": "sudden"},
        "symptoms": ["clicking"],
        "history": [{"region": "ankle", "side": "right", "kind": "sprain", "count": 3}],
    }
    return {**RECORD, "intake": intake, "entries": entries[:FULL_ENTRIES]}


def _middle(measure: Measure) -> Any:
    low, high = measure.plausible or (0, 0)
    if measure.numeric or measure.kind == "grade":
        return int((low + high) / 2)
    if measure.kind == "flag":
        return False
    if measure.kind == "strength":
        return "4"
    first = measure.choices[0].code
    return [first] if measure.kind == "choices" else first


def many(records: int) -> tuple[float, float]:
    """Peak memory in MB after a tenth of the records, and after all of them."""
    catalogue = default_catalogue()
    exam = check_record(full_record(), catalogue).exam
    early = 0.0
    for number in range(records):
        evaluate(exam, catalogue, Context())
        if number == records // 10:
            early = _peak_mb()
        if sys.stderr.isatty() and number % 100 == 0:
            done = BAR * number // records
            print(f"\r[{'#' * done}{'.' * (BAR - done)}] {number} records", end="", file=sys.stderr)
    return early, _peak_mb()


def _peak_mb() -> float:
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


def routes() -> list[Figure]:
    """The longest route there is, and one a fresh injury asks for."""
    catalogue = default_catalogue()
    teaching = check_record({**RECORD, "purpose": "teaching", "entries": [], "planned": []}, catalogue).exam
    injury = {
        "complaint": {"region": "ankle", "side": "left", "sites": ["anterolateral", "medial"]},
        "onset": {"date": "2026-09-13", "kind": "sudden", "mechanism": "inversion"},
    }
    fresh = check_record(
        {**RECORD, "purpose": "ankle_injury", "intake": injury, "entries": [], "planned": []}, catalogue
    ).exam
    found = []
    for name, exam in (("whole list", teaching), ("fresh ankle", fresh)):
        made, paced = alternating(
            lambda exam=exam: make_route(exam, catalogue, Context()),  # type: ignore[misc]
            pace,
            TIMES // 4,
        )
        found.append(Figure(f"a route, {name}, p50", median(made), "ms", median(paced), 20))
    return found


def change_over_many() -> Figure:
    """A full record against twenty earlier full records of the same athlete."""
    catalogue = default_catalogue()
    full = full_record()
    earlier = tuple(
        check_record(
            {
                **full,
                "id": f"00000000-0000-4000-8000-{number:012d}",
                "date": f"2026-0{1 + number % 8}-10",
                "intake": {},
            },
            catalogue,
        ).exam
        for number in range(2, 2 + EARLIER)
    )
    judged = judge(check_record(full, catalogue).exam, catalogue, Context(earlier))
    compared, paced = alternating(lambda: changes(judged.case), pace, TIMES // 4)
    name = f"change over {EARLIER} earlier screens, p50"
    return Figure(name, median(compared), "ms", median(paced), 20)


def measure_core() -> list[Figure]:
    catalogue = default_catalogue()
    text = json.dumps(RECORD)
    exam = check_record(RECORD, catalogue).exam

    def evaluated() -> object:
        return evaluate(exam, catalogue, Context())

    def whole() -> object:
        checked = check_record(parse_json(text), catalogue)
        return reading_json(evaluate(checked.exam, catalogue, Context()), catalogue)

    def floor() -> object:
        return json.loads(text)

    full = full_record()
    full_exam = check_record(full, catalogue).exam
    big, big_floor = alternating(lambda: evaluate(full_exam, catalogue, Context()), pace, TIMES)
    early, peak = many(MANY)
    judged, paced = alternating(evaluated, pace, TIMES)
    read, loaded_again = alternating(whole, floor, TIMES)
    return [
        Figure("evaluate one record, p50", median(judged), "ms", median(paced), 5),
        Figure("evaluate 70 entries, p50", median(big), "ms", median(big_floor), 5),
        Figure(f"peak memory after {MANY:,} records", peak, "MB", early, 1.05),
        Figure("read, check, evaluate and write it, p50", median(read), "ms", median(loaded_again)),
        *routes(),
        change_over_many(),
    ]
