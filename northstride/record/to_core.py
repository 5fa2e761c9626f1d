"""From the record's models to the core's own types."""

from __future__ import annotations

from northstride.core.catalogue import Catalogue
from northstride.core.examination import (
    Athlete,
    Examination,
    History,
    Intake,
    Onset,
    Override,
)
from northstride.core.story.complaint import most
from northstride.record.complaint import as_told
from northstride.record.entries import to_core_entry
from northstride.record.model import AthletePart, EntryPart, IntakePart, Record


def to_examination(record: Record, catalogue: Catalogue) -> Examination:
    return Examination(
        id=str(record.id),
        date=record.date,
        purpose=record.purpose,
        athlete=_athlete(record.athlete),
        schools=record.schools,
        intake=_intake(record, record.intake, catalogue) if record.intake else Intake(),
        planned=tuple(record.planned),
        left_out={item.test: item.reason for item in record.left_out},
        entries=tuple(
            to_core_entry(catalogue, part, place)
            for place, part in enumerate(record.entries)
            if says_something(part)
        ),
        overrides=tuple(Override(item.gate, item.side, item.reason, item.by) for item in record.overrides),
        examiner=record.examiner,
    )


def says_something(part: EntryPart) -> bool:
    """An entry with nothing in it was never made: it neither replaces an earlier one nor is held."""
    told = (part.values, part.seen, part.declined, part.method, part.note)
    return any(told) or part.pain is not None or part.by_exception is not None


def _athlete(part: AthletePart) -> Athlete:
    return Athlete(
        ref=part.ref,
        birth_date=part.birth_date,
        sex=part.sex,
        sport=part.sport,
        dominant_side=part.dominant_side,
        body_mass_kg=part.body_mass_kg,
        height_cm=part.height_cm,
    )


def _intake(record: Record, part: IntakePart, catalogue: Catalogue) -> Intake:
    complaint, onset, pain = as_told(part, record.purpose, catalogue), part.onset, part.pain
    return Intake(
        complaint=complaint,
        onset=Onset(onset.date, onset.kind, onset.mechanism) if onset else None,
        pain_now=most(pain.now if pain else None, complaint.now if complaint else None),
        pain_worst=most(pain.worst if pain else None, complaint.worst if complaint else None),
        pain_at_onset=pain.at_onset if pain else None,
        symptoms=frozenset(part.symptoms),
        morning_stiffness_min=part.morning_stiffness_min,
        load_change=part.load_change,
        red_flags=frozenset(part.red_flags),
        confounders=frozenset(part.confounders),
        asked=frozenset(part.asked),
        history=tuple(
            History(
                f"intake.history[{place}]",
                item.region,
                item.kind,
                item.side,
                item.count,
                item.weeks_ago,
                item.date,
            )
            for place, item in enumerate(part.history)
        ),
    )
