"""A reading for the athlete: what was found, what it means for training, what happens next.

Everyday words, no field terms; the practitioner says it, and decides. What was not asked or not looked at
never comforts.
"""

from __future__ import annotations

import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from northstride.core.examination import Examination
from northstride.core.examination.case import complaint_of
from northstride.core.findings import URGENCY_ORDER, Action, Flag, Reading, Strength, Urgency
from northstride.core.norms.load import structures
from northstride.core.story.surgery import lately_operated
from northstride.core.terms.sides import SIDES, Side
from northstride.core.wording.phrases import day_and_month, listed

FILE = Path(__file__).parent / "plain_words.toml"
DECIDES = "Your practitioner decides with you what to do."
# What is found in no leg: nothing is said about one.
OF_NO_LEG = frozenset({"danger.chest", "danger.cauda_equina", "danger.serious_illness"})
# A replaced hip is no doubt: it is known.
NO_DOUBT = "hip_replacement"


@dataclass(frozen=True, slots=True)
class PlainSummary:
    found: tuple[str, ...]
    training: tuple[str, ...]
    next: tuple[str, ...]


@lru_cache
def plain_words() -> Mapping[str, Mapping[str, str]]:
    return tomllib.loads(FILE.read_text(encoding="utf-8"))


def plain_summary(exam: Examination, reading: Reading) -> PlainSummary:
    """The most urgent first; nothing is said twice. An emergency stands alone.

    A flag without its own words is a KeyError.
    """
    emergencies = [flag for flag in reading.flags if flag.urgency is Urgency.EMERGENCY]
    if emergencies:
        return PlainSummary(
            _unique(map(flag_in_plain_words, emergencies)), (), _unique(_what_to_do_now(emergencies))
        )
    return PlainSummary(
        found=_unique([*_stands_out(exam, reading), *_not_looked_at(reading)]),
        training=_unique(_training(exam, reading)),
        next=(*_unique(_next(exam, reading)), DECIDES),
    )


def _unique(said: Iterator[str] | Sequence[str] | map[str]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(said))


def _what_to_do_now(emergencies: Sequence[Flag]) -> Iterator[str]:
    words = plain_words()["emergency"]
    yield words["call"]
    for flag in emergencies:
        if flag.code not in OF_NO_LEG:
            yield words["leg"].replace("{leg}", _leg(flag.side))


def _stands_out(exam: Examination, reading: Reading) -> Iterator[str]:
    yield from map(flag_in_plain_words, reading.flags)
    if not reading.flags:
        words = plain_words()["nothing"]
        if not _examined(exam):
            yield words["unexamined"]
        else:
            yield words["complaint" if _complains(exam) else "examined"]


def _not_looked_at(reading: Reading) -> Iterator[str]:
    plain = {structure.code: structure.plain for structure in structures()}
    missing = _unique([plain[item.structure] for item in reading.coverage.unexamined])
    if missing:
        yield plain_words()["nothing"]["not_looked_at"].replace("{what}", ", ".join(missing))


def _complains(exam: Examination) -> bool:
    complaint = complaint_of(exam)
    return complaint is not None and complaint.region != "none"


def _examined(exam: Examination) -> bool:
    return any(entry.done for entry in exam.entries)


def flag_in_plain_words(flag: Flag) -> str:
    """A whole sentence. KeyError for a flag without its own words."""
    words = plain_words()
    side = f"{flag.side} " if flag.side else ""
    said = words["codes"][flag.code].replace("{side}", side)
    if said.endswith("."):
        return said
    return f"{words['strength'][flag.strength.code]} {said}."


def may_train_as_before(exam: Examination, reading: Reading) -> bool:
    """Only where something was examined and nothing at all is open, held, doubtful or to be done."""
    covered = reading.coverage
    return (
        _examined(exam)
        and not _complains(exam)
        and not reading.actions
        and all(flag.strength is Strength.POSSIBLE for flag in reading.flags)
        and all(doubt.gate == NO_DOUBT for doubt in reading.doubts)
        and not reading.held
        and not any(ask.urgent for ask in reading.ask)
        and not any(lately_operated(item, exam.date) for item in exam.intake.history)
        and not covered.open
        and not covered.declined
        and not covered.unexamined
        and not reading.retake
    )


def _training(exam: Examination, reading: Reading) -> Iterator[str]:
    words = plain_words()
    said = [*_stopped(reading.actions), *_doubts(reading)]
    yield from said
    if not any(action.urgency is Urgency.SAME_DAY for action in reading.actions):
        for flag in reading.flags:
            if flag.urgency is Urgency.TRAIN and flag.kind in words["training_by_kind"]:
                said.append(flag.kind)
                yield words["training_by_kind"][flag.kind]
    if may_train_as_before(exam, reading):
        yield words["training"]["none"]
    elif not said:
        yield words["training"]["careful" if _complains(exam) else "unfinished"]


def _stopped(actions: Sequence[Action]) -> Iterator[str]:
    """By the most urgent action of each side; what is of no leg speaks of none."""
    words = plain_words()
    for side in (None, *SIDES):
        here = [action for action in actions if action.side == side and action.urgency is not Urgency.TRAIN]
        if not here:
            continue
        worst = min(here, key=lambda action: URGENCY_ORDER[action.urgency])
        whole = all(action.about in OF_NO_LEG for action in here if action.urgency is worst.urgency)
        family = "training_whole" if whole else "training"
        yield words[family][worst.urgency].replace("{leg}", _leg(side))


def _doubts(reading: Reading) -> Iterator[str]:
    """Gates that are shut, where nothing of that side is seen today anyway."""
    words = plain_words()["doubt"]
    today = {action.side for action in reading.actions if action.urgency is Urgency.SAME_DAY}
    for doubt in reading.doubts:
        if doubt.gate != NO_DOUBT and not today & {doubt.side, None}:
            yield words[doubt.gate].replace("{leg}", _leg(doubt.side))


def _leg(side: Side | None) -> str:
    return f"your {side} leg" if side else "the leg that hurts"


def _next(exam: Examination, reading: Reading) -> Iterator[str]:
    words = plain_words()["next"]
    for action in reading.actions:
        dated = action.urgency is Urgency.REFER and action.end is not None
        yield _what_happens(words["refer_by" if dated else action.urgency], action)
    open_ = [plain_words()["open"][ask.item] for ask in reading.ask if ask.urgent]
    if open_:
        yield words["ask"].replace("{what}", listed(open_))
    if reading.retake:
        yield words["again"]
    if reading.next:
        yield words["more"]
    if may_train_as_before(exam, reading) and not reading.next:
        yield words["none"]
    elif not reading.actions:
        yield words["come_back"]


def _what_happens(words: str, action: Action) -> str:
    if action.start is not None:
        words = words.replace("{start}", day_and_month(action.start))
    if action.end is not None:
        words = words.replace("{end}", day_and_month(action.end))
    return words.replace("{leg}", _leg(action.side))
