"""Any record there can be, over the whole catalogue and the whole story, for property tests."""

from __future__ import annotations

from typing import Any, get_args

from hypothesis import strategies as st

from northstride.core.catalogue import Measure, Test, default_catalogue
from northstride.core.terms.vocabulary import Confounder, Purpose, RedFlag, Symptom
from tests.support.records import record

CATALOGUE = default_catalogue()


def value(measure: Measure) -> st.SearchStrategy[Any]:
    low, high = measure.plausible or (0, 0)
    codes = [choice.code for choice in measure.choices]
    if measure.kind == "count":
        return st.integers(int(low), int(high))
    if measure.numeric:
        return st.floats(low, high).map(lambda number: round(number, 1))
    match measure.kind:
        case "grade":
            return st.sampled_from(measure.allowed or list(range(int(low), int(high) + 1)))
        case "strength":
            return st.sampled_from(["0", "2-", "3", "3+", "4", "4+", "5"])
        case "flag":
            return st.booleans()
        case "choices":
            return st.lists(st.sampled_from(codes), unique=True)
        case _:
            return st.sampled_from(codes)


def values(test: Test) -> st.SearchStrategy[dict[str, Any]]:
    def lanes(measure: Measure) -> st.SearchStrategy[Any]:
        if test.sides == "both" and measure.per_side:
            return st.fixed_dictionaries({"left": value(measure)}, optional={"right": value(measure)})
        return value(measure)

    return st.fixed_dictionaries({}, optional={measure.code: lanes(measure) for measure in test.measures})


pains = st.none() | st.fixed_dictionaries(
    {"present": st.booleans()},
    optional={"site": st.sampled_from(sorted(CATALOGUE.sites)), "familiar": st.booleans()},
)


@st.composite
def entries(draw: st.DrawFn) -> dict[str, Any]:
    test = CATALOGUE.tests[draw(st.sampled_from(sorted(CATALOGUE.tests)))]
    entry: dict[str, Any] = {"test": test.code, "values": draw(values(test))}
    if test.sides == "each":
        entry["side"] = draw(st.sampled_from(["left", "right"]))
    if test.seen:
        entry["seen"] = draw(st.lists(st.sampled_from([item.code for item in test.seen]), unique=True))
    if pain := draw(pains):
        entry["pain"] = pain
    return entry


def some(literal: Any) -> st.SearchStrategy[list[Any]]:
    return st.lists(st.sampled_from(get_args(literal)), unique=True, max_size=3)


@st.composite
def records(draw: st.DrawFn) -> dict[str, Any]:
    sides = st.sampled_from(["left", "right", "both"])
    complaint = st.fixed_dictionaries(
        {"region": st.sampled_from(["hip", "groin", "thigh", "knee", "leg", "ankle", "foot", "none"])},
        optional={
            "side": sides,
            "sites": st.lists(st.sampled_from(sorted(CATALOGUE.sites)), max_size=2, unique=True),
        },
    )
    onset = st.fixed_dictionaries(
        {"kind": st.sampled_from(["sudden", "gradual"])},
        optional={"date": st.sampled_from(["2026-09-14", "2026-09-12", "2026-09-01"])},
    )
    history = st.fixed_dictionaries(
        {
            "region": st.sampled_from(["hip", "ankle", "foot"]),
            "kind": st.sampled_from(["sprain", "surgery", "hip_replacement", "clot", "childhood_hip"]),
        },
        optional={"side": sides, "weeks_ago": st.integers(0, 30)},
    )
    intake = draw(
        st.fixed_dictionaries(
            {},
            optional={
                "complaint": complaint,
                "onset": onset,
                "symptoms": some(Symptom),
                "red_flags": some(RedFlag),
                "confounders": some(Confounder),
                "load_change": st.booleans(),
                "morning_stiffness_min": st.integers(0, 90),
                "history": st.lists(history, max_size=2),
            },
        )
    )
    born = draw(st.none() | st.sampled_from(["2021-01-01", "2013-01-01", "1996-01-01", "1960-01-01"]))
    athlete = {"ref": "T-1", "sex": "male", **({"birth_date": born} if born else {})}
    return record(
        draw(st.lists(entries(), max_size=8)),
        intake=intake,
        athlete=athlete,
        purpose=draw(st.sampled_from(get_args(Purpose))),
        planned=draw(st.lists(st.sampled_from(sorted(CATALOGUE.tests)), max_size=2)),
    )
