"""What the story lacks: which answers are asked for, which of them are urgent, and what they could undo.

Nothing is assumed of an open question. Every answer it could get is tried: where one changes a gate or an
emergency or same-day flag the question is urgent, and what one of them would not clear is not cleared.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache, partial
from typing import get_args

from northstride.core.examination import Complaint, Examination, Intake, Onset
from northstride.core.findings import URGENT, Ask, Question, RuledDown
from northstride.core.judgement.judge import Judgement, judge
from northstride.core.norms import limits
from northstride.core.terms.vocabulary import OnsetKind, RedFlag, SideOrBoth, Symptom

# The families whose rules are urgent.
URGENT_FAMILIES = ("danger", "bone_and_blood")
KINDS: tuple[OnsetKind, ...] = ("sudden", "gradual")
PLACES: tuple[SideOrBoth, ...] = ("left", "right", "both")
SITES = ("groin", "lateral_hip")
SYMPTOMS: tuple[Symptom, ...] = get_args(Symptom)
RED_FLAGS: tuple[RedFlag, ...] = get_args(RedFlag)
Cleared = tuple[RuledDown, ...]
Answers = Callable[[Examination], Iterator[Examination]]


def with_questions(judged: Judgement) -> tuple[Judgement, tuple[Ask, ...]]:
    """The judgement without what an open question could undo, and the questions, urgent ones first."""
    asks: list[Ask] = []
    cleared = judged.ruled_down
    for question in judged.questions:
        answers = _answers_to(judged, question)
        urgent = any(_stakes(answer) != _stakes(judged) for answer in answers)
        asks.append(Ask(question.item, question.why, urgent))
        cleared = _cleared_whatever(answers, cleared)
    return replace(judged, ruled_down=cleared), tuple(sorted(asks, key=lambda ask: not ask.urgent))


def _answers_to(judged: Judgement, question: Question) -> list[Judgement]:
    exams = ANSWERS[question.item](judged.everything.exam)
    return [judge(exam, judged.case.catalogue, judged.case.context) for exam in exams]


def _cleared_whatever(answers: Sequence[Judgement], cleared: Cleared, *, deeper: bool = True) -> Cleared:
    """What stays cleared by each of these answers, and by each answer to what is still open then.

    Two open questions may hang together: a kind nobody gave, and an age.
    """
    for answer in answers:
        still = {(item.code, item.side) for item in answer.ruled_down}
        cleared = tuple(item for item in cleared if (item.code, item.side) in still)
        for question in answer.questions if deeper and cleared else ():
            cleared = _cleared_whatever(_answers_to(answer, question), cleared, deeper=False)
    return cleared


def _stakes(judged: Judgement) -> frozenset[tuple[object, ...]]:
    gates = {(gate.gate, gate.side, gate.variant) for gate in judged.gates}
    flags = {(flag.code, flag.side, flag.urgency) for flag in judged.flags if flag.urgency in URGENT}
    return frozenset((*gates, *flags))


def _told(exam: Examination, intake: Intake) -> Examination:
    return replace(exam, intake=intake)


def _symptom(code: Symptom, exam: Examination) -> Iterator[Examination]:
    intake = exam.intake
    yield _told(exam, replace(intake, symptoms=intake.symptoms | {code}))
    yield _told(exam, replace(intake, asked=intake.asked | {code}))


def _red_flag(code: RedFlag, exam: Examination) -> Iterator[Examination]:
    intake = exam.intake
    yield _told(exam, replace(intake, red_flags=intake.red_flags | {code}))
    yield _told(exam, replace(intake, asked=intake.asked | {code}))


def _kinds(exam: Examination) -> Iterator[Examination]:
    for kind in KINDS:
        onset = replace(exam.intake.onset or Onset(), kind=kind)
        yield _told(exam, replace(exam.intake, onset=onset))


def _loads(exam: Examination) -> Iterator[Examination]:
    for load in (True, False):
        yield _told(exam, replace(exam.intake, load_change=load))


@lru_cache
def ages_apart() -> tuple[int, ...]:
    """One age, in whole years, between every two lines that the urgent rules draw."""
    lines: set[int] = set()
    for family in URGENT_FAMILIES:
        for name, value in limits(family).items():
            if "age" in name.split("_"):
                # Up to an age is one year further than from it, or below it.
                lines.add(int(value) + (1 if name.endswith("_to") else 0))
    return (min(lines) - 1, *sorted(lines))


def _ages(exam: Examination) -> Iterator[Examination]:
    for age in ages_apart():
        born = dt.date(exam.date.year - age, 1, 1)
        yield replace(exam, athlete=replace(exam.athlete, birth_date=born))


def _sides(exam: Examination) -> Iterator[Examination]:
    told = exam.intake.complaint
    if told is None and exam.purpose == "ankle_injury":
        told = Complaint("ankle")
    if told is not None:
        for side in PLACES:
            yield _told(exam, replace(exam.intake, complaint=replace(told, side=side)))


def _sites(exam: Examination) -> Iterator[Examination]:
    told = exam.intake.complaint or Complaint("hip")
    for site in SITES:
        yield _told(exam, replace(exam.intake, complaint=replace(told, sites=(site,))))


ANSWERS: Mapping[str, Answers] = {
    "onset.kind": _kinds,
    "load_change": _loads,
    "birth_date": _ages,
    "complaint.side": _sides,
    "complaint.sites": _sites,
    **{f"symptoms.{code}": partial(_symptom, code) for code in SYMPTOMS},
    **{f"red_flags.{code}": partial(_red_flag, code) for code in RED_FLAGS},
}
