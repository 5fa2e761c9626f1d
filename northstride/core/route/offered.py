"""What may still be offered beside something urgent: nothing that only costs time, and nothing that loads."""

from __future__ import annotations

from northstride.core.findings import Flag, Urgency
from northstride.core.judgement.judge import Judgement
from northstride.core.judgement.merge import same_side
from northstride.core.norms.load import danger_checks, read_by_rule
from northstride.core.terms.sides import Side


def may_be_offered(judged: Judgement, test: str, side: Side | None) -> bool:
    """Whether a test may be offered on a side, or on both at once where `side` is None.

    WorkerPool an emergency only what its own rule still asks. On a side that is seen the same day only what
    that flag's rules read, and the checks for danger.
    """
    emergencies = [flag for flag in judged.flags if flag.urgency is Urgency.EMERGENCY]
    if emergencies:
        return any(_still_asked(judged, flag, test, side) for flag in emergencies)
    today = [flag for flag in judged.flags if flag.urgency is Urgency.SAME_DAY and same_side(flag.side, side)]
    if not today:
        return True
    rules = {reason.rule for flag in today for reason in flag.because} | danger_checks()
    return any(test in read_by_rule(rule) for rule in rules)


def _still_asked(judged: Judgement, flag: Flag, test: str, side: Side | None) -> bool:
    rules = {reason.rule for reason in flag.because}
    return any(
        (item.test, item.side) == (test, side) and item.rule in rules and same_side(item.side, flag.side)
        for item in judged.asked
    )
