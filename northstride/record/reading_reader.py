"""A reading as it was kept, back in the core's own shape: for what is said of it later in other words."""

from __future__ import annotations

from northstride.core import findings
from northstride.core.findings import Strength, Urgency
from northstride.core.terms.sides import Side
from northstride.record.reading_model import ActionOut, FlagOut, ReadingOut, ReasonOut, SideCode

STRENGTHS = {strength.code: strength for strength in Strength}


def reading_in(kept: ReadingOut) -> findings.Reading:
    """What was frozen before something was kept has it empty here: ask `kept` whether it was known.

    Differences, changes and criteria are numbers for the practitioner and stay with what was kept.
    """
    return findings.Reading(
        record=kept.record,
        rules=kept.rules,
        flags=tuple(map(_flag, kept.flags)),
        ruled_down=tuple(
            findings.RuledDown(item.code, _side(item.side), _reasons(item.because))
            for item in kept.ruled_down
        ),
        actions=tuple(_action(item, kept.flags) for item in kept.actions),
        retake=tuple(findings.Retake(item.test, _side(item.side), item.reason) for item in kept.retake),
        held=tuple(findings.Held(item.test, _side(item.side), item.gate) for item in kept.held),
        shut=tuple(findings.Shut(item.gate, _side(item.side), tuple(item.tests)) for item in kept.shut or []),
        doubts=tuple(
            findings.Doubt(item.gate, Side(item.side)) for item in kept.shut or [] if item.side is not None
        ),
        differences=(),
        follows=(),
        next=tuple(findings.Next(item.test, _side(item.side), item.why) for item in kept.next),
        ask=tuple(findings.Ask(item.item, item.why, item.urgent) for item in kept.ask or []),
        criteria=(),
        changes=(),
        coverage=findings.Coverage(
            planned=kept.coverage.planned,
            done=kept.coverage.done,
            declined=kept.coverage.declined,
            open=tuple(kept.coverage.open),
            unexamined=tuple(
                findings.Unexamined(item.structure, _side(item.side), item.why, tuple(item.tests))
                for item in kept.coverage.unexamined or []
            ),
        ),
        advice=tuple(
            findings.Advice(item.code, _side(item.side), tuple(item.options)) for item in kept.advice
        ),
    )


def _side(side: SideCode) -> Side | None:
    return None if side is None else Side(side)


def _reasons(reasons: list[ReasonOut]) -> tuple[findings.Reason, ...]:
    return tuple(findings.Reason(item.at, item.rule, item.says) for item in reasons)


def _flag(flag: FlagOut) -> findings.Flag:
    return findings.Flag(
        code=flag.code,
        side=_side(flag.side),
        strength=STRENGTHS[flag.strength],
        urgency=None if flag.urgency is None else Urgency(flag.urgency),
        because=_reasons(flag.because),
        against=tuple(flag.against),
        settle=tuple(findings.Settle(test, "") for test in flag.settle),
        uncompared=flag.uncompared,
        sources=tuple(flag.sources),
    )


def _action(action: ActionOut, flags: list[FlagOut]) -> findings.Action:
    """`about` is the flag its code is made of; a recheck may be about none that stands."""
    named = action.code.partition(".")[2]
    about = next((flag.code for flag in flags if flag.code.replace(".", "_") == named), named)
    return findings.Action(
        code=action.code,
        about=about,
        side=_side(action.side),
        urgency=Urgency(action.urgency),
        because=tuple(action.because),
        start=action.start,
        end=action.end,
        says=action.says,
        tests=tuple(action.tests or ()),
    )
