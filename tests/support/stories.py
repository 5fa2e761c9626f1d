"""Stories as they come, with what is found first in them, for property tests about danger."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from tests.support.any_record import CATALOGUE, value
from tests.support.records import record

# What rules of danger read, and what shuts a gate.
TESTS = (
    *("ankle.weight_bearing", "ankle.palpation", "ankle.pulses", "ankle.look", "leg.clot", "leg.compartment"),
    *("ankle.percussion", "ankle.squeeze", "ankle.calf_squeeze", "ankle.resting_tone", "ankle.achilles_gap"),
    *("ankle.resisted.dorsiflexion", "ankle.resisted.plantarflexion", "ankle.cotton", "foot.midfoot_stress"),
    *("hip.rom.internal_rotation_90", "hip.fulcrum", "hip.palpation", "hip.fadir", "hip.faber", "ankle.hop"),
    *("foot.soles", "ankle.sensation", "foot.calcaneal_squeeze", "ankle.anterior_drawer", "hip.thigh_thrust"),
)
UPPER_SITES = ("groin", "knee", "lateral_hip", "anterior_thigh", "posterior_thigh")
LOWER_SITES = (
    *("calf", "tibia_shaft", "navicular", "midfoot", "anterolateral", "achilles", "heel"),
    *("above_lateral_malleolus", "medial"),
)
SITES = (*UPPER_SITES, *LOWER_SITES, "under_hand")
# A complaint hurts where its region is.
PLACES = (
    *((region, UPPER_SITES) for region in ("hip", "groin", "thigh", "knee")),
    *((region, LOWER_SITES) for region in ("leg", "ankle", "foot")),
)
SYMPTOMS = ("limp", "heard_pop", "cannot_push_off", "night_pain", "numbness", "swelling")
AGES = (3, 7, 8, 12, 16, 18, 20, 24, 30, 54, 55, 70)


@st.composite
def findings(draw: st.DrawFn) -> dict[str, Any]:
    test = CATALOGUE.tests[draw(st.sampled_from(TESTS))]
    measures = {measure.code: value(measure) for measure in test.measures}
    entry: dict[str, Any] = {
        "test": test.code,
        "side": draw(st.sampled_from(["left", "right"])),
        "values": draw(st.fixed_dictionaries({}, optional=measures)),
    }
    hurts = st.fixed_dictionaries(
        {"present": st.booleans()}, optional={"site": st.sampled_from(SITES), "familiar": st.booleans()}
    )
    if pain := draw(st.none() | hurts):
        entry["pain"] = pain
    return entry


@st.composite
def onsets(draw: st.DrawFn) -> dict[str, Any]:
    """A kind that its mechanism contradicts is left out: such a story has two readings."""
    kind = draw(st.sampled_from(["sudden", "gradual"]))
    harmless = ["overload", "none"]
    mechanisms = harmless if kind == "gradual" else [*harmless, "inversion", "landing", "push_off"]
    more = {
        "mechanism": st.sampled_from(mechanisms),
        "date": st.sampled_from(["2026-09-14", "2026-09-12", "2026-09-01", "2026-06-01"]),
    }
    return {"kind": kind, **draw(st.fixed_dictionaries({}, optional=more))}


@st.composite
def complaints(draw: st.DrawFn) -> dict[str, Any]:
    region, sites = draw(st.sampled_from(PLACES))
    more = {
        "side": st.sampled_from(["left", "right", "both"]),
        "sites": st.lists(st.sampled_from(sites), max_size=2, unique=True),
    }
    return {"region": region, **draw(st.fixed_dictionaries({}, optional=more))}


@st.composite
def stories(draw: st.DrawFn) -> dict[str, Any]:
    history = st.fixed_dictionaries(
        {
            "region": st.sampled_from(["hip", "ankle", "knee"]),
            "kind": st.sampled_from(["surgery", "hip_replacement", "clot", "childhood_hip"]),
        },
        optional={"side": st.sampled_from(["left", "right", "both"]), "weeks_ago": st.integers(0, 30)},
    )
    intake = draw(
        st.fixed_dictionaries(
            {"complaint": complaints()},
            optional={
                "onset": onsets(),
                "load_change": st.booleans(),
                "symptoms": st.lists(st.sampled_from(SYMPTOMS), unique=True, max_size=3),
                "asked": st.lists(st.sampled_from(SYMPTOMS), unique=True, max_size=2),
                "history": st.lists(history, max_size=1),
                "red_flags": st.lists(
                    st.sampled_from(["fever_hot_joint", "night_pain_unrelieved", "obvious_deformity"]),
                    max_size=1,
                ),
            },
        )
    )
    age = draw(st.none() | st.sampled_from(AGES))
    born = {} if age is None else {"birth_date": f"{2026 - age}-01-02"}
    return record(
        draw(st.lists(findings(), max_size=7)),
        intake=intake,
        athlete={"ref": "T-1", "sex": "male", **born},
        purpose=draw(st.sampled_from(["hip_complaint", "ankle_injury", "foot_complaint", "return_to_sport"])),
    )
