"""F3: whether the midfoot holds, and what it is spared where it may not."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from northstride.core.examination import Entry
from northstride.core.examination.case import Case
from northstride.core.findings import Finding, GateRaised, Reason, Settle, Strength, Urgency
from northstride.core.rules.ankle.laxity import lax
from northstride.core.rules.pain import hurts
from northstride.core.terms.sides import SIDES, Side

MIDFOOT, LOOK, RISE = "foot.midfoot_stress", "ankle.look", "ankle.heel_rise"
TARSOMETATARSAL = "instability.tarsometatarsal"


def midfoot_gives(case: Case) -> Iterator[Finding]:
    """F3: laxity, or pain with a bruised sole: strong; no rise: likely; pain alone is referred."""
    for side in SIDES:
        entry = case.entry(MIDFOOT, side)
        if entry is None:
            continue
        loose = lax(case, TARSOMETATARSAL, "F3", entry, side)
        if loose is not None:
            yield _midfoot(side, entry, loose.because.says, Strength.STRONG, Urgency.SAME_DAY, "laxity")
        if not hurts(entry):
            continue
        bruised, rises = case.on(side).listed(LOOK, "bruising") or (), case.number(RISE, "count", side)
        if "plantar_midfoot" in bruised:
            says = "Stressing the midfoot hurts, and the sole is bruised."
            yield _midfoot(side, entry, says, Strength.STRONG, Urgency.SAME_DAY)
        elif rises is not None and rises.value == 0:
            says = "Stressing the midfoot hurts, and no rise on one foot is possible."
            yield _midfoot(side, entry, says, Strength.LIKELY, Urgency.SAME_DAY)
        else:
            says = "Stressing the midfoot hurts."
            found = _midfoot(side, entry, says, Strength.POSSIBLE, Urgency.REFER)
            why = "A bruised sole would make it a matter for today."
            yield replace(found, settle=(Settle(LOOK, why, "bruising"),))


def _midfoot(
    side: Side, entry: Entry, says: str, strength: Strength, urgency: Urgency, measure: str | None = None
) -> Finding:
    because = Reason(entry.at, "F3", says)
    return Finding(TARSOMETATARSAL, side, strength, because, MIDFOOT, measure, urgency=urgency)


def midfoot_keeps_bone_open(case: Case) -> frozenset[Side]:
    """F3: sides on which a midfoot that may give keeps its bones from being cleared."""
    found = (finding for finding in midfoot_gives(case) if finding.strength >= Strength.LIKELY)
    return frozenset(finding.side for finding in found if finding.side is not None)


def midfoot_gate(case: Case) -> Iterator[GateRaised]:
    """F3: likely or strong, before any cap: no weight goes on it."""
    for side in sorted(midfoot_keeps_bone_open(case)):
        yield GateRaised("unstable_doubt", side)
