"""Likelihood ratios, words, families and the range a probability could move to."""

from __future__ import annotations

import math
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from northstride.core.catalogue import default_catalogue
from northstride.core.evidence.weights import Evidence, Ratio, evidence, probability_range, ratio_of, word
from northstride.core.examination import Context
from northstride.core.judgement.judge import judge
from northstride.core.norms.accuracy import accuracy_figures, accuracy_label
from northstride.core.reading import evaluate
from northstride.core.terms.errors import NotAProbability
from northstride.record.read import check_record
from tests.support.ankle import done, hurt, pain, steps, tender
from tests.support.records import record

CATALOGUE = default_catalogue()


def said(*entries: dict[str, Any], **parts: Any) -> list[Evidence]:
    exam = check_record(record(list(entries), **parts), CATALOGUE).exam
    case = judge(exam, CATALOGUE, Context()).case
    return list(evidence(case, evaluate(exam, CATALOGUE, Context())))


def figure(sign: str) -> Any:
    return next(item for item in accuracy_figures() if item.sign == sign)


class Figures(unittest.TestCase):
    def test_each_names_a_test_flags_and_a_published_author(self) -> None:
        from northstride.core.wording.flag_names import FLAG_NAMES

        self.assertIn("check before relying", accuracy_label())
        for item in accuracy_figures():
            test = CATALOGUE.tests[item.test]
            self.assertLessEqual(set(item.codes), set(FLAG_NAMES), item.sign)
            measures = {measure.code for measure in test.measures}
            named = {name for name in (item.reads.measure, item.reads.needs) if name}
            self.assertLessEqual(named, measures, item.sign)

    def test_ratios_of_published_pairs(self) -> None:
        for sign, result, least, most in (
            ("Calf squeeze", "positive", 13.71, 13.71),
            ("Calf squeeze", "negative", 0.043, 0.043),
            ("FADIR", "positive", 0.989, 1.088),
            ("FADIR", "negative", 0.48, 0.15),
            ("Fracture rule", "negative", 0.08, 0.08),
            ("Bruising, tender ATFL and drawer together, about day 5", "positive", 6.0, 6.0),
            ("Bruising, tender ATFL and drawer together, within 48 h", "positive", 1.06, 1.06),
            ("Anterior drawer", "positive", 4.15, 4.15),
            ("One-leg stance 30 s", "positive", 12.67, math.inf),
            ("One-leg stance 30 s", "negative", 0.639, 0.0),
            ("ATFL tenderness", "negative", math.inf, 0.0),
        ):
            ratio = ratio_of(figure(sign), result)  # type: ignore[arg-type]
            for value, expected in ((ratio.least, least), (ratio.most, most)):
                if math.isinf(expected):
                    self.assertTrue(math.isinf(value))
                else:
                    self.assertAlmostEqual(value, expected, places=2)

    def test_words_at_their_edges(self) -> None:
        for ratio, positive, negative in (
            (10, "a lot", "hardly"),
            (9.99, "some", "hardly"),
            (5, "some", "hardly"),
            (4.99, "a little", "hardly"),
            (2, "a little", "hardly"),
            (1.99, "hardly", "hardly"),
            (0.51, "hardly", "hardly"),
            (0.5, "hardly", "a little"),
            (0.2, "hardly", "some"),
            (0.1, "hardly", "a lot"),
            (0.0, "hardly", "a lot"),
            (math.inf, "a lot", "hardly"),
        ):
            self.assertEqual((word(ratio, "positive"), word(ratio, "negative")), (positive, negative), ratio)


class Probability(unittest.TestCase):
    def test_a_start_moves_by_the_odds(self) -> None:
        low, high = probability_range(0.2, Ratio(4, 4))
        self.assertAlmostEqual(low, 0.5)
        self.assertAlmostEqual(high, 0.5)
        self.assertEqual(probability_range(0.5, Ratio(1, math.inf)), (0.5, 1.0))
        self.assertEqual(probability_range(0.5, Ratio(1, 0)), (0.0, 0.5))

    def test_what_is_certain_cannot_move(self) -> None:
        for start in (0, 1, -0.1, 1.1, math.nan):
            with self.assertRaises(NotAProbability) as caught:
                probability_range(start, Ratio(1, 2))
            self.assertIs(caught.exception.value, start)

    @given(st.floats(0.01, 0.99), st.floats(0.01, 100), st.floats(0.01, 100))
    def test_stays_a_probability_and_moves_the_right_way(self, start: float, one: float, two: float) -> None:
        low, high = probability_range(start, Ratio(one, two))
        self.assertTrue(0 <= low <= high <= 1)
        if min(one, two) >= 1:
            self.assertGreaterEqual(low, start - 1e-9)
        if max(one, two) <= 1:
            self.assertLessEqual(high, start + 1e-9)


class InARecord(unittest.TestCase):
    def test_each_kind_of_sign_is_read_positive_negative_and_not_at_all(self) -> None:
        squeeze = "ankle.calf_squeeze"
        for sign, positive, negative, nothing in (
            (
                "FADIR",
                done("hip.fadir", result="positive"),
                done("hip.fadir", result="negative"),
                done("hip.fadir", result="equivocal"),
            ),
            (
                "FABER",
                done("hip.faber", pain=pain("groin")),
                done("hip.faber", pain={"present": False}),
                done("hip.faber", pain=pain("lumbar")),
            ),
            (
                "One-leg stance 30 s",
                done("hip.single_leg_stance", hold=12, pain=pain("lateral_hip")),
                done("hip.single_leg_stance", hold=30, pain={"present": False}),
                done("hip.single_leg_stance", hold=29, pain={"present": False}),
            ),
            (
                "ATFL tenderness",
                tender("atfl"),
                tender("cfl"),
                done("ankle.palpation", tender=[], pressed=["cfl"]),
            ),
            (
                "Anterior drawer",
                done("ankle.anterior_drawer", laxity=1),
                done("ankle.anterior_drawer", laxity=0),
                done("ankle.anterior_drawer", end_feel="soft"),
            ),
            (
                "Calf squeeze",
                done(squeeze, foot_moves="none", passive_range_checked=True),
                done(squeeze, foot_moves="brisk", passive_range_checked=True),
                done(squeeze, foot_moves="none"),
            ),
            (
                "Achilles gap",
                done("ankle.achilles_gap", gap=True),
                done("ankle.achilles_gap", gap=False),
                done("ankle.achilles_gap", tender=True),
            ),
            (
                "External rotation, dorsiflexed",
                done(
                    "ankle.external_rotation",
                    ankle_position="dorsiflexed",
                    pain=pain("above_lateral_malleolus"),
                ),
                done("ankle.external_rotation", ankle_position="dorsiflexed", pain={"present": False}),
                done(
                    "ankle.external_rotation", ankle_position="neutral", pain=pain("above_lateral_malleolus")
                ),
            ),
        ):
            for entry, expected in ((positive, "positive"), (negative, "negative"), (nothing, None)):
                found = [item.result for item in said(entry) if item.sign == sign]
                self.assertEqual(found[:1], [expected] if expected else [], (sign, expected))

    def test_clusters_go_by_their_rule(self) -> None:
        sound = [tender(), steps("yes", "yes")]
        cleared = [item for item in said(*sound, **hurt()) if item.sign == "Fracture rule"]
        self.assertEqual(
            {(item.code, item.result) for item in cleared},
            {("fracture.ankle", "negative"), ("fracture.midfoot", "negative")},
        )
        sore = said(tender("navicular"), steps("yes", "yes"), **hurt())
        self.assertIn(("fracture.midfoot", "positive"), {(item.code, item.result) for item in sore})
        story = {
            "complaint": {"region": "hip", "side": "right"},
            "symptoms": ["shoes_and_socks", "getting_out_of_car"],
        }
        older = {"athlete": {"ref": "T-1", "birth_date": "1960-01-01"}}
        self.assertEqual(said(intake=story, **older), [])
        stiff = [done("hip.rom.internal_rotation_90", passive=10), done("hip.rom.flexion", passive=100)]
        criteria = [item for item in said(*stiff, intake=story, **older) if item.sign.startswith("Clinical")]
        self.assertEqual([item.result for item in criteria], ["positive"])

    def test_where_no_use_was_shown_nothing_moves(self) -> None:
        (faber,) = [
            item for item in said(done("hip.faber", pain=pain("groin"))) if item.code.endswith("labral")
        ]
        self.assertEqual((faber.ratio, faber.least, faber.most), (None, "no use shown", "no use shown"))
        self.assertFalse(faber.counts)
        both = said(done("hip.faber", pain=pain("groin")), done("hip.fadir", result="positive"))
        self.assertEqual({item.sign for item in both if item.counts}, {"FADIR"})

    def test_three_signs_together_by_the_day(self) -> None:
        look, drawer = done("ankle.look", bruising=["medial"]), done("ankle.anterior_drawer", laxity=1)
        sound = steps("yes", "yes")
        for day, sign in (("2026-09-10", "about day 5"), ("2026-09-12", "within 48 h"), ("2026-09-11", None)):
            for entries, result in (
                ([look, tender("atfl"), drawer], "positive"),
                ([look, tender("cfl"), drawer], "negative"),
                ([tender("atfl"), drawer], None),
            ):
                found = [i for i in said(sound, *entries, **hurt(onset=day)) if "together" in i.sign]
                self.assertEqual(
                    [i.result for i in found], [result] if sign and result else [], (day, result)
                )
                self.assertTrue(all(i.sign.endswith(str(sign)) for i in found))

    def test_signs_of_one_structure_count_once_the_stronger(self) -> None:
        both = said(
            done("ankle.calf_squeeze", foot_moves="none", passive_range_checked=True),
            done("ankle.resting_tone", tone="less_plantarflexed"),
            done("ankle.achilles_gap", gap=True),
        )
        self.assertEqual(
            [(item.sign, item.counts) for item in both],
            [("Calf squeeze", True), ("Resting tone", False), ("Achilles gap", False)],
        )

    def test_a_held_sign_says_nothing(self) -> None:
        entries = [
            done("leg.clot", cancer=True, immobile=True),
            done("ankle.calf_squeeze", foot_moves="none", passive_range_checked=True),
        ]
        self.assertNotIn("Calf squeeze", [item.sign for item in said(*entries)])
