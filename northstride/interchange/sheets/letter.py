"""The letter: who, why, what was found, what is asked and by when, what was not done. One page."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator

from northstride import CAUTION
from northstride.core.catalogue import Catalogue
from northstride.core.findings import REFERRED
from northstride.core.wording.phrases import day_and_month, listed, whole_day
from northstride.core.wording.spoken import SPOKEN
from northstride.interchange.sheets.content import Basis, Letter, Line
from northstride.interchange.sheets.phrases import (
    action_words,
    called,
    changed_words,
    flag_of,
    head_of,
    once,
    words,
)
from northstride.interchange.sheets.story_phrases import not_done, story_lines
from northstride.record.complaint import complaint_of
from northstride.record.reading_model import ActionOut, FlagOut, ReadingOut

# So that the letter stays one page; the rest is named by number and stands in the report.
MOST_FOUND = 6
MOST_NOT_DONE = 6
# Words that may be put in the place of ours, and how long they may be.
EDITABLE = {"to": 120, "asked": 300, "greeting": 200, "until_then": 400, "last": 200}


def letter(basis: Basis, catalogue: Catalogue) -> Letter:
    reading, said, edited = basis.reading, words()["letter"], basis.edited
    weighty = [flag for flag in reading.flags if flag.urgency != "train"]
    shown = [*weighty, *(flag for flag in reading.flags if flag.urgency == "train")]
    lines = [*(_found(basis, flag) for flag in shown), *_ruled_down(reading)]
    missing = [item.line for item in not_done(basis, catalogue)]
    return Letter(
        head=head_of(basis),
        to=edited.get("to", said["to_nobody"]),
        about=_about(basis, catalogue),
        asked=edited.get("asked", asked_of(basis)),
        by=_by(reading),
        sooner=words()["sooner"]["refer"] if _most_urgent(reading) == "refer" else "",
        greeting=edited.get("greeting", _greeting(basis)),
        why=story_lines(basis.record, catalogue),
        found=lines[:MOST_FOUND],
        more=max(0, len(lines) - MOST_FOUND),
        not_done=[*missing[:MOST_NOT_DONE], *_rest(len(missing) - MOST_NOT_DONE)],
        until_then=edited.get("until_then", until_then(basis)),
        last=edited.get("last", said["last"]),
        caution=CAUTION,
    )


def _greeting(basis: Basis) -> str:
    key = "greeting" if _asking(basis.reading) else "greeting_nothing"
    return str(words()["letter"][key].format(name=basis.athlete))


def _rest(more: int) -> list[str]:
    return [f"And {more} more, in our report."] if more > 0 else []


def _about(basis: Basis, catalogue: Catalogue) -> str:
    complaint = complaint_of(basis.record, catalogue)
    if complaint is None or not complaint.hurts:
        return basis.record.purpose.replace("_", " ")
    side = (
        "" if complaint.side is None else "both sides, " if complaint.side == "both" else f"{complaint.side} "
    )
    return f"{side}{complaint.region}"


def _most_urgent(reading: ReadingOut) -> str | None:
    there = {action.urgency for action in reading.actions}
    return next((urgency for urgency in REFERRED if urgency in there), None)


def _asking(reading: ReadingOut) -> list[ActionOut]:
    urgency = _most_urgent(reading)
    return [action for action in reading.actions if action.urgency == urgency]


def asked_of(basis: Basis) -> str:
    """In our words: the most urgent of what was found, and nothing beside it."""
    said, reading = words()["asked"], basis.reading
    asking = _asking(reading)
    if not asking:
        return str(said["nothing"])
    what = listed(once(_named(action, reading.flags) for action in asking))
    urgency, by = asking[0].urgency, _by(reading)
    key = "refer_by" if urgency == "refer" and by is not None else urgency
    return str(said[key].format(what=what, name=basis.athlete, day=whole_day(by) if by else ""))


def _named(action: ActionOut, flags: list[FlagOut]) -> str:
    flag = flag_of(action, flags)
    return called(flag.code, flag.side) if flag else action_words(action, flags)


def _by(reading: ReadingOut) -> dt.date | None:
    """The earliest last day of what is asked."""
    return min((action.end for action in _asking(reading) if action.end is not None), default=None)


def _found(basis: Basis, flag: FlagOut) -> Line:
    reasons = " ".join(reason.says for reason in flag.because)
    against = f" Against: {' '.join(flag.against)}" if flag.against else ""
    uncompared = " Not compared with the other side." if flag.uncompared else ""
    strength = words()["strengths"][flag.strength]
    changed = "".join(f" {says}" for says in changed_words(basis, flag.code, flag.side))
    return Line(
        code=flag.code,
        side=flag.side,
        lead=called(flag.code, None),
        says=f"{strength}. {reasons}{against}{uncompared}{changed}",
    )


def _ruled_down(reading: ReadingOut) -> Iterator[Line]:
    """Only what would be urgent is worth a line: that it was looked for."""
    for item in reading.ruled_down:
        if item.code.startswith(("fracture.", "vascular.", "danger.")):
            reasons = " ".join(reason.says for reason in item.because)
            says = f"speaks against it, and does not rule it out. {reasons}"
            yield Line(side=item.side, lead=called(item.code, None), says=says)


def until_then(basis: Basis) -> str:
    """What holds and what is planned with us, in our words."""
    reading = basis.reading
    said = [
        f"{shut.side.capitalize()}: {SPOKEN['gates'][shut.gate]}" if shut.side else SPOKEN["gates"][shut.gate]
        for shut in reading.shut or []
    ]
    for action in reading.actions:
        if action.urgency in REFERRED:
            continue
        name = action_words(action, reading.flags)
        side = f", {action.side}" if action.side else ""
        if action.start is not None and action.end is not None:
            said.append(f"{name}{side}: {day_and_month(action.start)} to {whole_day(action.end)}.")
        elif action.urgency == "train":
            said.append(f"Exercises for {name[0].lower()}{name[1:]}{side}.")
        else:
            said.append(f"{name}{side}.")
    return " ".join(once(said)) or str(words()["letter"]["until_nothing"])
