"""Scores added up by the catalogue's data: unknown adds nothing and is counted."""

from __future__ import annotations

import unittest

from northstride.core.catalogue import default_catalogue
from northstride.core.examination.scoring import Scored, scored

TESTS = default_catalogue().tests


class Scores(unittest.TestCase):
    def score(self, test: str, **values: object) -> Scored:
        score = TESTS[test].score
        assert score is not None
        return scored(score, values.get)

    def test_nothing_answered_is_no_points_and_all_open(self) -> None:
        found = self.score("leg.clot")
        self.assertEqual((found.total, len(found.open)), (0, 10))

    def test_a_no_is_an_answer_of_no_points(self) -> None:
        found = self.score("leg.clot", cancer=False, immobile=True)
        self.assertEqual(found.total, 1)
        self.assertNotIn("cancer", found.open)

    def test_a_number_counts_from_its_line_on_and_another_cause_takes_away(self) -> None:
        for larger, points in ((29, 0), (29.999, 0), (30, 1), (50, 1)):
            self.assertEqual(self.score("leg.clot", calf_girth_difference=larger).total, points, larger)
        self.assertEqual(self.score("leg.clot", other_diagnosis_as_likely=True).total, -2)

    def test_grades_add_themselves(self) -> None:
        found = self.score("foot.posture_index", talar_head=2, medial_arch=-1)
        self.assertEqual((found.total, len(found.open)), (1, 4))
