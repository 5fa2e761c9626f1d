"""From an examination to a reading: a pure function of examination, catalogue and context."""

from __future__ import annotations

from northstride.core.catalogue import Catalogue, default_catalogue
from northstride.core.course.change import changes
from northstride.core.course.return_criteria import return_criteria
from northstride.core.data_check import check_data
from northstride.core.examination import Context, Examination
from northstride.core.examination.follows import what_follows
from northstride.core.findings import Doubt, Reading
from northstride.core.judgement.differences import side_differences
from northstride.core.judgement.gates import shut_gates
from northstride.core.judgement.judge import judge
from northstride.core.judgement.merge import advice_on, coverage
from northstride.core.judgement.open_questions import with_questions
from northstride.core.judgement.unreadable import read_or_name
from northstride.core.route.unexamined import unexamined
from northstride.core.route.what_next import what_next
from northstride.core.rules import RULES_VERSION

# Once, when anything is about to be read: data of ours that names what nobody knows stops everything.
check_data(default_catalogue())


def evaluate(exam: Examination, catalogue: Catalogue, context: Context) -> Reading:
    """Read a whole examination: the same input gives the same output. Raises NotReadable."""
    return read_or_name(_read, exam, catalogue, context)


def _read(exam: Examination, catalogue: Catalogue, context: Context) -> Reading:
    judged, asks = with_questions(judge(exam, catalogue, context))
    differences = tuple(side_differences(judged.case))
    changed = changes(judged.case)
    return Reading(
        record=exam.id,
        rules=RULES_VERSION,
        flags=judged.flags,
        ruled_down=judged.ruled_down,
        actions=judged.actions,
        retake=judged.retake,
        held=judged.held,
        shut=shut_gates(judged.everything, judged.gates),
        doubts=tuple(dict.fromkeys(Doubt(gate.gate, gate.side) for gate in judged.gates)),
        differences=differences,
        follows=what_follows(judged.case),
        next=what_next(judged),
        ask=asks,
        criteria=return_criteria(judged, asks, differences, changed),
        changes=changed,
        coverage=coverage(judged.case, judged.held, unexamined(judged)),
        advice=advice_on(judged.flags),
    )
