"""The athlete's own sheet, in everyday words. An emergency stands alone on it."""

from __future__ import annotations

from collections.abc import Iterator

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Examination
from northstride.core.norms.load import structures
from northstride.core.wording.plain import flag_in_plain_words, plain_summary
from northstride.interchange.sheets.content import AthleteSheet, Basis, Days, Line, Numbers, Pin
from northstride.interchange.sheets.phrases import head_of, once, words
from northstride.record.complaint import complaint_of
from northstride.record.reading_reader import reading_in
from northstride.record.to_core import to_examination

EDITABLE = {"to_do": 600, "come_back": 600}
# More than a hand can hold is read by nobody; the practitioner says the rest.
MOST_STANDING_OUT = 6


def athlete_sheet(basis: Basis, catalogue: Catalogue) -> AthleteSheet:
    exam, reading = to_examination(basis.record, catalogue), reading_in(basis.reading)
    summary = plain_summary(exam, reading)
    emergency = any(flag.urgency == "emergency" for flag in basis.reading.flags)
    said, clinic = words(), basis.clinic
    flagged = [
        Line(side=flag.side.value if flag.side else None, lead="", says=flag_in_plain_words(flag))
        for flag in reading.flags
    ]
    return AthleteSheet(
        head=head_of(basis),
        alone=[*summary.found, *summary.next] if emergency else [],
        looked_at=[] if emergency else _looked_at(exam),
        not_yet=[] if emergency else _not_yet(basis),
        stands_out=[] if emergency else _shown(flagged) or _nothing(summary.found[0]),
        pins=[] if emergency else list(_pins(basis, catalogue)),
        to_do=[] if emergency else _edited(basis, "to_do", summary.training),
        come_back=[] if emergency else _edited(basis, "come_back", summary.next),
        days=[] if emergency else _days(basis),
        call_now=list(said["call_now"]["everybody"]),
        call_same_day=list(said["call_same_day"]["everybody"]),
        numbers=Numbers(emergency=clinic.emergency_number, phone=clinic.phone, night=clinic.night_phone),
        caution=said["athlete"]["caution"],
    )


def _edited(basis: Basis, name: str, ours: tuple[str, ...]) -> list[str]:
    own = basis.edited.get(name)
    return list(ours) if own is None else [line for line in own.splitlines() if line.strip()]


def _pins(basis: Basis, catalogue: Catalogue) -> Iterator[Pin]:
    """Where each finding of a side lies: where its first reason was looked for."""
    for place, flag in enumerate(basis.reading.flags[:MOST_STANDING_OUT]):
        region = _region(basis, catalogue, flag.because[0].at)
        if flag.side is not None and region is not None:
            yield Pin(number=place + 1, side=flag.side, region=region)


def _region(basis: Basis, catalogue: Catalogue, at: str) -> str | None:
    """Of the entry a reason names; of the story where it names none."""
    number = at.removeprefix("entries[").partition("]")[0]
    if at.startswith("entries[") and int(number) < len(basis.record.entries):
        test = catalogue.tests.get(basis.record.entries[int(number)].test)
        return test.region if test else None
    complaint = complaint_of(basis.record, catalogue)
    return complaint.region if complaint else None


def _days(basis: Basis) -> list[Days]:
    """Stretches that the reading named, in everyday words; the same stretch once."""
    said = words()["athlete"]["days"]
    found = {
        (action.start, action.end, said[action.urgency])
        for action in basis.reading.actions
        if action.start and action.end and action.urgency in said
    }
    return [Days(start=start, end=end, says=says) for start, end, says in sorted(found)]


def _shown(flagged: list[Line]) -> list[Line]:
    """A sheet that stops short says so: what is left out is not nothing."""
    if len(flagged) <= MOST_STANDING_OUT:
        return flagged
    more = len(flagged) - MOST_STANDING_OUT
    return [
        *flagged[:MOST_STANDING_OUT],
        Line(side=None, lead="", says=words()["athlete"]["more"].format(more=more)),
    ]


def _nothing(says: str) -> list[Line]:
    """Where nothing was flagged: what that rests on, in the summary's own words."""
    return [Line(side=None, lead="", says=says)]


def _looked_at(exam: Examination) -> list[str]:
    done = {entry.test for entry in exam.entries if entry.done}
    return once(structure.plain for structure in structures() if done & set(structure.tests))


def _not_yet(basis: Basis) -> list[str]:
    missing = basis.reading.coverage.unexamined
    if missing is None:
        return [words()["athlete"]["unknown"]]
    plain = {structure.code: structure.plain for structure in structures()}
    return once(plain[item.structure] for item in missing)
