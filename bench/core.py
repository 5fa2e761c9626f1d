"""The core: one record read and judged, against reading its JSON."""

from __future__ import annotations

import json

from bench.figure import Figure, alternating, median
from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.record.read import check_record, parse_json
from northstride.record.reading import reading_json

TIMES = 400

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


def measure_core() -> list[Figure]:
    catalogue = default_catalogue()
    text = json.dumps(RECORD)
    exam = check_record(RECORD, catalogue).exam

    def judge() -> object:
        return evaluate(exam, catalogue, Context())

    def whole() -> object:
        checked = check_record(parse_json(text), catalogue)
        return reading_json(evaluate(checked.exam, catalogue, Context()))

    def floor() -> object:
        return json.loads(text)

    judged, loaded = alternating(judge, floor, TIMES)
    read, loaded_again = alternating(whole, floor, TIMES)
    return [
        Figure("evaluate one record, p50", median(judged), "ms", median(loaded), 5, limits_value=True),
        Figure("read, check, evaluate and write it, p50", median(read), "ms", median(loaded_again)),
    ]
