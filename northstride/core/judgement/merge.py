"""One flag per code and side: highest finding, then steps; then actions, order, what next, coverage."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from typing import TypeVar

from northstride.core.examination import Entry, Examination
from northstride.core.examination.case import Case
from northstride.core.findings import (
    URGENCY_ORDER,
    Action,
    Advice,
    Cap,
    Coverage,
    Finding,
    Flag,
    Held,
    Recheck,
    Settle,
    Step,
    Strength,
    Unexamined,
    Urgency,
)
from northstride.core.norms import advice_for, default_action
from northstride.core.terms.sides import SIDES, Side

BOTH_HURT = "Both sides have been hurt: the other side is no safe normal."
WITH_SUPPORT = "Cannot balance: read as done with support."
Place = tuple[str, Side | None]
T = TypeVar("T")


def merge(
    case: Case,
    findings: Sequence[Finding],
    steps: Sequence[Step],
    caps: Sequence[Cap] = (),
    rechecks: Sequence[Recheck] = (),
) -> list[Flag]:
    """Flags in the order urgency, strength, kind, code, side."""
    again = {(item.code, item.side) for item in rechecks}
    places: dict[Place, None] = {(finding.code, finding.side): None for finding in findings}
    places |= {(step.code, step.side): None for step in steps if step.makes}
    flags = [
        _flag(
            case,
            place,
            [finding for finding in findings if (finding.code, finding.side) == place],
            [step for step in steps if (step.code, step.side) == place],
            [cap for cap in caps if (cap.code, cap.side) == place],
            again=place in again,
        )
        for place in places
    ]
    return sorted(_not_trained(flags, findings), key=_flag_order)


def _not_trained(flags: Sequence[Flag], findings: Sequence[Finding]) -> Iterator[Flag]:
    """No training beside an emergency, on a side that is seen the same day, or where a rule forbids it."""
    emergency = any(flag.urgency is Urgency.EMERGENCY for flag in flags)
    for flag in flags:
        today = any(other.urgency is Urgency.SAME_DAY and same_side(other.side, flag.side) for other in flags)
        forbidden = any(
            same_side(finding.side, flag.side) and {"*", flag.code} & {*finding.no_training_for}
            for finding in findings
        )
        trained = flag.urgency is Urgency.TRAIN
        yield replace(flag, urgency=None) if trained and (emergency or today or forbidden) else flag


def same_side(one: Side | None, other: Side | None) -> bool:
    """What has no side stands for both."""
    return one is None or other is None or one is other


def _strength(findings: list[Finding], steps: list[Step]) -> Strength:
    """The highest any rule gave, then one step more for each reason there is for one."""
    reasons = len({(step.because.rule, step.reason) for step in steps})
    if not findings:
        reasons -= 1
    strength = max((finding.strength for finding in findings), default=Strength.POSSIBLE)
    for _ in range(reasons):
        strength = strength.one_step_more()
    return strength


def _against(case: Case, findings: list[Finding], given: Sequence[Finding | Step]) -> Iterator[str]:
    tests = {item.test for item in given if item.test is not None}
    yield from (says for finding in findings for says in finding.against)
    if any(case.both_sides_hurt(test) for test in tests):
        yield BOTH_HURT
    supported = "cannot_balance" in case.exam.intake.confounders
    if supported and any(case.catalogue.tests[test].on_one_leg for test in tests):
        yield WITH_SUPPORT


def _flag(
    case: Case, place: Place, findings: list[Finding], steps: list[Step], caps: list[Cap], *, again: bool
) -> Flag:
    code, side = place
    strength = _strength(findings, steps)
    lowering = [cap for cap in caps if cap.at_most < strength]
    strength = min([strength, *(cap.at_most for cap in lowering)])
    given: list[Finding | Step | Cap] = [*findings, *steps, *lowering]
    return Flag(
        code,
        side,
        strength,
        _urgency(code, strength, findings, again=again),
        _unique([*(finding.because for finding in findings), *(step.because for step in steps)]),
        _unique([*_against(case, findings, [*findings, *steps]), *(cap.says for cap in lowering)]),
        _unique([s for finding in findings for s in finding.settle if not _done(case, s, side)]),
        # A step comes from a comparison, so a flag with one was compared.
        not steps and not any(_compared(case, finding) for finding in findings),
        _unique([source for item in given for source in item.sources]),
        min((found.within_days for found in findings if found.within_days is not None), default=None),
    )


def _urgency(code: str, strength: Strength, findings: list[Finding], *, again: bool) -> Urgency | None:
    """The highest its rules ask for; where none does, the default of kind and strength.

    What a rule asks for stays, whatever a cap did to the strength.
    """
    asked = [finding.urgency for finding in findings if finding.urgency is not None]
    usual = default_action(code.split(".", 1)[0], strength)
    if not asked and usual is not None:
        asked.append(usual)
    if again:
        asked.append(Urgency.RECHECK)
    return min(asked, key=URGENCY_ORDER.__getitem__, default=None)


def _unique(items: Iterable[T]) -> tuple[T, ...]:
    return tuple(dict.fromkeys(items))


def _compared(case: Case, finding: Finding) -> bool:
    """Whether the same thing was recorded on the other side."""
    if finding.side is None or finding.test is None:
        return True
    other = finding.side.other
    entry = case.entry(finding.test, other, finding.key)
    if entry is None:
        return False
    if finding.measure is None:
        return _says_something_of_the_side(case, entry)
    wanted = {finding.measure} | {
        measure.code
        for measure in case.catalogue.tests[finding.test].measures
        if measure.instead_of == finding.measure
    }
    return any(entry.value(code, other) is not None for code in wanted)


def _says_something_of_the_side(case: Case, entry: Entry) -> bool:
    """What is asked of the person stands in both entries and says nothing of either side."""
    of_person = {item.code for item in case.catalogue.tests[entry.test].measures if item.about_person}
    own = {code for code, _ in entry.values} - of_person
    return bool(own) or entry.pain is not None or bool(entry.seen)


def _done(case: Case, settle: Settle, side: Side | None) -> bool:
    """What was done already can settle nothing more."""
    lanes: dict[Side | None, None] = dict.fromkeys((side, lane_of(case, settle.test, side)))
    if side is None:
        lanes = dict.fromkeys((None, *SIDES))
    return any(
        settle.measure is None or entry.value(settle.measure, lane) is not None
        for lane in lanes
        for entry in case.entries(settle.test, lane)
    )


def lane_of(case: Case, test: str, side: Side | None) -> Side | None:
    """Where a test is asked for: on the side of the flag, or on none where it is done for both at once."""
    return side if case.catalogue.tests[test].sides == "each" else None


def _flag_order(flag: Flag) -> tuple[int, int, str, str, str]:
    urgency = URGENCY_ORDER[flag.urgency] if flag.urgency else len(URGENCY_ORDER)
    return (urgency, -flag.strength, flag.kind, flag.code, flag.side or "")


def actions_for(exam: Examination, flags: Sequence[Flag], rechecks: Sequence[Recheck]) -> tuple[Action, ...]:
    """One for each flag that leads to something, and each second look; the most urgent first.

    A referral carries its last day, counted from the day of the screen, where its rule names days.
    """
    actions = [
        Action(
            _action_code(flag.urgency, flag.code),
            flag.code,
            flag.side,
            flag.urgency,
            _unique([reason.rule for reason in flag.because]),
            end=_last_day(flag, exam.date),
            tests=_tests_of(exam, flag),
        )
        for flag in flags
        if flag.urgency is not None and flag.urgency is not Urgency.RECHECK
    ]
    places = dict.fromkeys((item.code, item.side) for item in rechecks)
    actions += [
        _second_look([item for item in rechecks if (item.code, item.side) == place]) for place in places
    ]
    return tuple(sorted(actions, key=lambda action: URGENCY_ORDER[action.urgency]))


def _second_look(rechecks: Sequence[Recheck]) -> Action:
    """What several tests ask to be looked at again, once: from the earliest day to the last."""
    first = rechecks[0]
    return Action(
        _action_code(Urgency.RECHECK, first.code),
        first.code,
        first.side,
        Urgency.RECHECK,
        _unique([item.rule for item in rechecks]),
        min(item.start for item in rechecks),
        max(item.end for item in rechecks),
        first.says,
        _unique([item.test for item in rechecks]),
    )


def _tests_of(exam: Examination, flag: Flag) -> tuple[str, ...]:
    at = {entry.at: entry.test for entry in exam.entries}
    return _unique([at[reason.at] for reason in flag.because if reason.at in at])


def _last_day(flag: Flag, day: dt.date) -> dt.date | None:
    if flag.urgency is not Urgency.REFER or flag.within_days is None:
        return None
    return day + dt.timedelta(days=flag.within_days)


def _action_code(urgency: Urgency, code: str) -> str:
    return f"{urgency}.{code.replace('.', '_')}"


def advice_on(flags: Sequence[Flag]) -> tuple[Advice, ...]:
    """Options for every flag strong enough to be acted on, none where something urgent comes first.

    The shape of a bone needs no action to be lived with, so its upkeep is named all the same.
    """
    return tuple(
        Advice(flag.code, flag.side, options)
        for flag in flags
        if (flag.urgency is not None or (flag.kind == "alignment" and flag.strength >= Strength.LIKELY))
        and not any(_comes_before(other, flag) for other in flags)
        and (options := advice_for(flag.code, flag.kind))
    )


def _comes_before(urgent: Flag, flag: Flag) -> bool:
    here = same_side(urgent.side, flag.side)
    return urgent.urgency is Urgency.EMERGENCY or (urgent.urgency is Urgency.SAME_DAY and here)


def coverage(case: Case, held: Sequence[Held], unexamined: tuple[Unexamined, ...]) -> Coverage:
    """A planned test is done once anything of it was recorded or while it is held, declined only if not."""
    done = {entry.test for entry in case.exam.entries if entry.done} | {item.test for item in held}
    declined = {entry.test for entry in case.exam.entries if entry.declined is not None} - done
    planned = dict.fromkeys(case.exam.planned)
    still_open = tuple(test for test in planned if test not in done and test not in declined)
    return Coverage(
        len(planned),
        sum(test in done for test in planned),
        sum(test in declined for test in planned),
        still_open,
        unexamined,
    )
