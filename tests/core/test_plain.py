"""The athlete's summary: words for every flag, none of them a field term, and what follows from urgency."""

from __future__ import annotations

import re
import unittest
from typing import Any

from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.findings import Urgency
from northstride.core.flag_names import FLAG_NAMES
from northstride.core.following.plain import DECIDES, PlainSummary, plain_summary, plain_words
from northstride.core.reading import evaluate
from northstride.demo.stories import stories
from northstride.record.read import check_record
from tests.support.ankle import done, hurt, steps, tender
from tests.support.records import record, thomas

FIELD_TERMS = re.compile(
    r"flexor|extensor|abduct|adduct|ligament|psoas|rectus|femor|sartor|fascia|labr|imping|arthr|version|"
    r"flexion|extension|mobility|laxity|instab|tibia|fibula|talus|talar|calcan|peron|gastroc|soleus|hamstring|"
    r"syndesm|deltoid|metatars|navicul|malleol|sacro|lumb|glute|valgus|varus|thrombo|compartment|perfusion|"
    r"neuro|tarsal|subtal|sprain|strain|rupture|lesion|diagnos|bilateral|anterior|posterior|medial|lateral",
    re.IGNORECASE,
)


def summary(*entries: dict[str, Any], **parts: Any) -> PlainSummary:
    exam = check_record(record(list(entries), **parts), default_catalogue()).exam
    return plain_summary(evaluate(exam, default_catalogue(), Context()))


class Words(unittest.TestCase):
    def test_every_flag_has_words_and_no_other(self) -> None:
        self.assertEqual(set(plain_words()["codes"]), set(FLAG_NAMES))

    def test_no_field_terms_anywhere(self) -> None:
        for part in plain_words().values():
            for code, said in part.items():
                self.assertIsNone(FIELD_TERMS.search(said), f"{code}: {said}")

    def test_short_sentences_that_state_no_disease_as_fact(self) -> None:
        for code, said in plain_words()["codes"].items():
            self.assertLessEqual(len(said.replace("{side}", "right ")), 90, code)
            grave = code.startswith(("fracture.", "vascular.deep", "tendon.achilles_rupture"))
            if grave:
                self.assertTrue(said.startswith("There are signs that"), code)

    def test_every_urgency_says_what_it_means(self) -> None:
        for urgency in Urgency:
            self.assertIn(urgency, plain_words()["next"])
            if urgency is not Urgency.TRAIN:
                self.assertIn(urgency, plain_words()["training"])
        kinds = {code.split(".")[0] for code in FLAG_NAMES}
        self.assertLessEqual(set(plain_words()["training_by_kind"]), kinds)


class Summary(unittest.TestCase):
    def test_nothing_found(self) -> None:
        found = summary()
        self.assertEqual(found.found, ())
        self.assertEqual(found.training, ("You can train as before.",))
        self.assertEqual(found.next, ("Nothing more is needed for now.", DECIDES))

    def test_a_tight_hip_trains_on(self) -> None:
        found = summary(thomas("left", thigh_angle=11, thigh_angle_knee_straight=9))
        self.assertEqual(
            found.found, ("The signs suggest that the muscle deep in front of your left hip is short.",)
        )
        self.assertEqual(found.training, ("Stretching is added to your training.",))
        self.assertIn("You get exercises, and we look again whether they help.", found.next)

    def test_what_stops_training_leaves_no_exercises_beside_it(self) -> None:
        tight = thomas("left", thigh_angle=11, thigh_angle_knee_straight=9)
        clot = done("leg.clot", cancer=True, immobile=True)
        found = summary(tight, clot)
        self.assertEqual(found.training, ("Stop. Do not use your right leg.",))
        self.assertEqual(found.next[0], "The emergency number is called now.")

    def test_the_second_look_names_its_days(self) -> None:
        drawer = done("ankle.anterior_drawer", laxity=1)
        found = summary(tender(), steps("yes", "yes"), drawer, **hurt(onset="2026-08-30"), date="2026-08-31")
        self.assertIn("We look at your right leg again between 3 September and 6 September.", found.next)
        self.assertIn("Go easy on your right leg until we have looked at it again.", found.training)

    def test_without_a_side(self) -> None:
        found = summary(intake={"red_flags": ["breathless_or_chest_pain"]})
        self.assertEqual(found.found, ("You are short of breath or have chest pain.",))
        self.assertEqual(found.training, ("Stop. Do not use this leg.",))

    def test_every_story_can_be_said(self) -> None:
        for story in stories():
            for screen in story.screens:
                exam = check_record(dict(screen.record), default_catalogue()).exam
                said = plain_summary(evaluate(exam, default_catalogue(), Context()))
                self.assertTrue(said.found and said.training and len(said.next) > 1)
                for line in (*said.found, *said.training, *said.next):
                    self.assertNotIn("{", line)

    def test_strengths_are_said_apart(self) -> None:
        self.assertEqual(set(plain_words()["strength"]), {"possible", "likely", "strong"})
        self.assertEqual(len(set(plain_words()["strength"].values())), 3)
