"""What stands beside a record: earlier records of the athlete, the clinic's own error figures."""

from __future__ import annotations

from collections.abc import Mapping

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Context, Examination
from northstride.core.terms.errors import Fault
from northstride.record.json_text import InvalidRecord
from northstride.record.read import check_record
from northstride.record.values import shown


def check_context(raw: object, catalogue: Catalogue) -> Context:
    """Raises InvalidRecord with all faults."""
    if not isinstance(raw, Mapping):
        raise InvalidRecord([Fault("$", raw, "is not an object with earlier and sem")])
    faults = [
        Fault(str(key), raw[key], f"{shown(raw[key])} stands under an unknown key")
        for key in raw.keys() - {"earlier", "sem"}
    ]
    earlier = _earlier(raw.get("earlier", []), catalogue, faults)
    sem = _sem(raw.get("sem", {}), catalogue, faults)
    if faults:
        raise InvalidRecord(faults)
    return Context(tuple(earlier), sem)


def _earlier(raw: object, catalogue: Catalogue, faults: list[Fault]) -> list[Examination]:
    if not isinstance(raw, list):
        faults.append(Fault("earlier", raw, f"{shown(raw)} is not a list of records"))
        return []
    read: list[Examination] = []
    for place, item in enumerate(raw):
        try:
            read.append(check_record(item, catalogue).exam)
        except InvalidRecord as invalid:
            faults += [
                Fault(f"earlier[{place}].{fault.path}", fault.value, fault.problem)
                for fault in invalid.faults
            ]
    return read


def _sem(raw: object, catalogue: Catalogue, faults: list[Fault]) -> dict[str, float]:
    if not isinstance(raw, Mapping):
        faults.append(Fault("sem", raw, f"{shown(raw)} is not an object of measures"))
        return {}
    known = {
        name
        for code, test in catalogue.tests.items()
        for measure in (*(m.code for m in test.measures if m.numeric), *(d.code for d in test.derived))
        for name in (measure, f"{code}.{measure}")
    }
    read: dict[str, float] = {}
    for name, value in raw.items():
        if name not in known:
            faults.append(Fault(f"sem.{name}", value, f"{shown(name)} is not a measure"))
        elif isinstance(value, bool) or not isinstance(value, (int, float)) or not 0 < value < 1000:
            faults.append(Fault(f"sem.{name}", value, f"{shown(value)} is not an error figure above 0"))
        else:
            read[str(name)] = float(value)
    return read
