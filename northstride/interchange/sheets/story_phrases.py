"""The story in sentences for a colleague, and what was not done with the reason."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from northstride.core.catalogue import Catalogue
from northstride.core.examination import Complaint
from northstride.core.story.data import story_data
from northstride.core.wording.phrases import whole_day
from northstride.core.wording.spoken import SPOKEN
from northstride.interchange.sheets.content import Basis
from northstride.interchange.sheets.phrases import words
from northstride.record.complaint import complaint_of
from northstride.record.model import IntakePart, OnsetPart, Record
from northstride.record.reading_model import SideCode


def story_lines(record: Record, catalogue: Catalogue) -> list[str]:
    intake = record.intake
    if intake is None:
        return ["No story was told."]
    complaint = complaint_of(record, catalogue)
    told = [
        complaint_said(complaint) if complaint else "",
        _began(intake, record, complaint),
        _codes("Told", [*intake.symptoms, *intake.red_flags, *intake.confounders]),
        f"Examined on {whole_day(record.date)}.",
    ]
    return [line for line in told if line]


def complaint_said(complaint: Complaint) -> str:
    """Region and side, the places with theirs, and how much it hurts."""
    if not complaint.hurts:
        return "Nothing hurts."
    with_side = {place.site for place in complaint.places}
    sites = [f"{readable(place.site)} {place.side}" for place in complaint.places]
    sites += [readable(site) for site in complaint.sites if site not in with_side]
    named = f"{story_data().words.regions[complaint.region]}{_side(complaint)}"
    return f"{named}: {', '.join(sites)}.{_pain(complaint)}" if sites else f"{named}.{_pain(complaint)}"


def _side(complaint: Complaint) -> str:
    if complaint.side is None:
        return ""
    return ", both sides" if complaint.side == "both" else f", {complaint.side}"


def _pain(complaint: Complaint) -> str:
    told = [
        f"{score} {when}"
        for score, when in ((complaint.now, "now"), (complaint.worst, "at worst"))
        if score is not None
    ]
    return f" Pain {', '.join(told)}, of 10." if told else ""


def _began(intake: IntakePart, record: Record, complaint: Complaint | None) -> str:
    """Nothing began where nothing hurts."""
    if intake.onset:
        return _onset(intake.onset, record)
    hurts = complaint is not None and complaint.hurts
    return "When and how it began was not told." if hurts else ""


def _onset(onset: OnsetPart, record: Record) -> str:
    said = story_data().words
    parts = [said.kinds[onset.kind].lower()] if onset.kind else []
    if onset.mechanism and onset.mechanism != "none":
        parts.append(said.mechanisms[onset.mechanism].lower())
    if onset.date is None:
        return f"Began {', '.join(parts)}; the day is not known." if parts else "How it began is not known."
    about = "about " if onset.about else ""
    days = (record.date - onset.date).days
    began = ", ".join([f"{about}{whole_day(onset.date)}", *parts])
    return f"Began {began}; examined {f'on day {days}' if days < 60 else f'after {days // 7} weeks'}."


def _codes(lead: str, codes: list[str]) -> str:
    return f"{lead}: {', '.join(readable(code) for code in codes)}." if codes else ""


def readable(code: str) -> str:
    return code.replace("_", " ")


class NotDone(NamedTuple):
    """What was not examined, or does not count, and why in a sentence."""

    side: SideCode
    name: str
    why: str

    @property
    def line(self) -> str:
        return f"{self.name}{f', {self.side}' if self.side else ''}: {self.why}"


def not_done(basis: Basis, catalogue: Catalogue) -> list[NotDone]:
    """Never a short list because nobody knows: what was not kept is said."""
    return list(dict.fromkeys(_not_done(basis, catalogue)))


def _not_done(basis: Basis, catalogue: Catalogue) -> Iterator[NotDone]:
    reading, said = basis.reading, words()["unexamined"]
    missing = reading.coverage.unexamined
    if missing is None:
        yield NotDone(None, said["unknown_name"], said["unknown"])
    for item in missing or []:
        yield NotDone(item.side, item.name, f"{said[item.why]}.")
    for entry in basis.record.entries:
        if entry.declined is not None:
            yield NotDone(
                entry.side, catalogue.tests[entry.test].name, f"not done, {entry.declined.rstrip('.')}."
            )
    for code in reading.coverage.open:
        yield NotDone(None, catalogue.tests[code].name, "planned and not done.")
    for held in reading.held:
        yield NotDone(held.side, catalogue.tests[held.test].name, f"held. {SPOKEN['gates'][held.gate]}")
    for again in reading.retake:
        why = f"does not count yet. {SPOKEN['retakes'][again.reason]}"
        yield NotDone(again.side, catalogue.tests[again.test].name, why)
