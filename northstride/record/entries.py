"""What only the catalogue can tell about a record: tests, measures, seen codes, places of pain."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from northstride.core.catalogue import Catalogue, Test
from northstride.core.examination import Entry, Lane, Pain, Value
from northstride.core.terms.errors import Fault
from northstride.core.terms.sides import Side
from northstride.record.model import EntryPart
from northstride.record.values import Refused, is_per_side, read_value, shown


def entry_faults(catalogue: Catalogue, raw: object, path: str) -> Iterator[Fault]:
    """Every fault of one raw entry that needs the catalogue. What is no entry at all is left to the model."""
    if not isinstance(raw, Mapping) or not isinstance(code := raw.get("test"), str):
        return
    test = catalogue.tests.get(code)
    if test is None:
        yield Fault(f"{path}.test", code, f"{shown(code)} is not a test in the catalogue")
        return
    values = raw.get("values", {})
    if isinstance(values, Mapping):
        for measure, value in values.items():
            try:
                _lane_values(test, str(measure), value, raw.get("side"), f"{path}.values.{measure}")
            except Refused as refused:
                yield from refused.faults
        if raw.get("declined") is not None and values:
            yield Fault(f"{path}.declined", raw["declined"], "is declined, yet values stand beside it")
    yield from _code_faults(catalogue, test, raw, path)


def _code_faults(catalogue: Catalogue, test: Test, raw: Mapping[str, object], path: str) -> Iterator[Fault]:
    seen = raw.get("seen", [])
    for place, code in enumerate(seen if isinstance(seen, list) else []):
        if isinstance(code, str) and test.seen_code(code) is None:
            yield Fault(f"{path}.seen[{place}]", code, f"{shown(code)} is not seen in {test.code}")
    pain = raw.get("pain")
    site = pain.get("site") if isinstance(pain, Mapping) else None
    if isinstance(site, str) and site not in catalogue.sites:
        yield Fault(f"{path}.pain.site", site, f"{shown(site)} is not a place of pain")
    method = raw.get("method")
    if isinstance(method, str) and test.methods and method not in test.methods:
        allowed = ", ".join(test.methods)
        yield Fault(f"{path}.method", method, f"{shown(method)} is not one of {allowed}")


def _lane_values(
    test: Test, measure_code: str, raw: object, side: object, path: str
) -> dict[tuple[str, Lane], Value]:
    """One measure's value by lane. Raises Refused."""
    measure = test.measure(measure_code)
    if measure is None:
        raise Refused([Fault(path, raw, f"{shown(raw)} stands under an unknown measure")])
    if side is not None:
        # What belongs to no side keeps to none, whichever side the entry was written under.
        once = test.sides == "both" and not measure.per_side
        lane = Side(side) if side in ("left", "right") and not once else None
        return {(measure_code, lane): read_value(measure, raw, path)}
    if is_per_side(raw) and isinstance(raw, Mapping):
        read: dict[tuple[str, Lane], Value] = {}
        faults: list[Fault] = []
        for own, value in raw.items():
            try:
                read[(measure_code, Side(own))] = read_value(measure, value, f"{path}.{own}")
            except Refused as refused:
                faults += refused.faults
        if faults:
            raise Refused(faults)
        return read
    if test.sides == "each":
        why = "needs a side, or a value for left and right"
        raise Refused([Fault(path, raw, f"{shown(raw)} {why}")])
    return {(measure_code, None): read_value(measure, raw, path)}


def to_core_entry(catalogue: Catalogue, part: EntryPart, place: int) -> Entry:
    """A checked entry as the rules see it. Raises Refused where it was not checked."""
    test = catalogue.tests[part.test]
    path = f"entries[{place}]"
    values: dict[tuple[str, Lane], Value] = {}
    for measure, raw in part.values.items():
        values |= _lane_values(test, measure, raw, part.side, f"{path}.values.{measure}")
    side = Side(part.side) if part.side else None
    pain = part.pain
    return Entry(
        at=path,
        test=part.test,
        side=side,
        values=values,
        pain=Pain(pain.present, pain.nrs, pain.site, pain.familiar) if pain else None,
        seen=frozenset(part.seen),
        declined=part.declined,
        method=part.method,
        key=values.get((test.key, side)) if test.key else None,
        by=part.by,
    )
