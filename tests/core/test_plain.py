"""The athlete's summary: words for every flag, none of them a field term, and what follows from urgency."""

from __future__ import annotations

import re
import unittest
from typing import Any, get_args

from northstride.core.catalogue import default_catalogue
from northstride.core.examination import Context
from northstride.core.findings import Urgency
from northstride.core.judgement.open_questions import ANSWERS
from northstride.core.norms.load import structures
from northstride.core.reading import evaluate
from northstride.core.terms.vocabulary import Gate
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.core.wording.plain import DECIDES, PlainSummary, plain_summary, plain_words
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
    return plain_summary(exam, evaluate(exam, default_catalogue(), Context()))


class Words(unittest.TestCase):
    def test_every_flag_has_words_and_no_other(self) -> None:
        self.assertEqual(set(plain_words()["codes"]), set(FLAG_NAMES))

    def test_no_field_terms_anywhere(self) -> None:
        for part in plain_words().values():
            for code, said in part.items():
                # The one disease whose everyday name is its own.
                said = said.replace("osteoarthritis of the", "")
                self.assertIsNone(FIELD_TERMS.search(said), f"{code}: {said}")

    def test_short_sentences_that_state_no_disease_as_fact(self) -> None:
        for code, said in plain_words()["codes"].items():
            self.assertLessEqual(len(said.replace("{side}", "right ")), 90, code)
            grave = code.startswith(("fracture.", "vascular.deep", "tendon.achilles_rupture"))
            if grave:
                self.assertTrue(said.startswith("There are signs that"), code)

    def test_everything_that_can_be_said_has_words(self) -> None:
        words = plain_words()
        self.assertEqual(set(words["doubt"]), {*get_args(Gate)} - {"hip_replacement"})
        self.assertEqual(set(words["training_whole"]), {"same_day", "refer"})
        for urgency in (Urgency.SAME_DAY, Urgency.REFER, Urgency.RECHECK):
            self.assertIn(urgency, words["training"])
            self.assertIn(urgency, words["next"])
        self.assertLessEqual(set(words["open"]), set(ANSWERS))
        kinds = {code.split(".")[0] for code in FLAG_NAMES}
        self.assertLessEqual(set(words["training_by_kind"]), kinds)
        for structure in structures():
            self.assertIsNone(FIELD_TERMS.search(structure.plain), structure.code)


AS_BEFORE, NOTHING_MORE = "You can train as before.", "Nothing more is needed for now."
# All that a screening asks for, on both sides, as in health.
SOUND = (
    {"test": "hip.gait", "values": {"pattern": ["smooth"]}},
    {"test": "hip.squat", "values": {"depth": "full"}},
    *(
        entry
        for side in ("left", "right")
        for entry in (
            thomas(side, thigh_angle=-10, knee_angle=95),
            done("ankle.lunge", side, distance=110),
            done("hip.trendelenburg", side, lifts="full", hold=30),
        )
    ),
)
PLAN = ["hip.gait", "hip.squat", "hip.modified_thomas", "ankle.lunge", "hip.trendelenburg"]


class Summary(unittest.TestCase):
    def squad(self, *entries: dict[str, Any], **parts: Any) -> PlainSummary:
        return summary(*(entries or SOUND), **{"purpose": "squad_screen", "planned": PLAN, **parts})

    def test_a_sound_athlete_trains_as_before(self) -> None:
        found = self.squad()
        self.assertEqual(found.found, ("Nothing stands out in what we looked at.",))
        self.assertEqual(found.training, (AS_BEFORE,))
        self.assertEqual(found.next, (NOTHING_MORE, DECIDES))

    def test_nobody_is_comforted_where_something_is_open(self) -> None:
        """Each of the things that keep an athlete from being told to train as before, one at a time."""
        hip = [{"region": "hip", "side": "left"}]
        for why, entries, parts in (
            ("nothing was examined", ({"test": "hip.gait", "declined": "no room"},), {"planned": []}),
            ("something is to be done", (*SOUND[:-1], thomas("right", thigh_angle=8)), {}),
            ("a gate is shut", SOUND, {"intake": {"history": [{**hip[0], "kind": "childhood_hip"}]}}),
            ("something is held", SOUND, {"intake": {"history": [{**hip[0], "kind": "surgery"}]}}),
            ("planned and not done", SOUND, {"planned": [*PLAN, "hip.craig"]}),
            ("declined", SOUND, {"planned": [*PLAN, "hip.craig"]}),
            ("not looked at", SOUND[1:], {"planned": PLAN}),
            ("there is a complaint", SOUND, {"intake": {"complaint": {"region": "foot", "side": "left"}}}),
            ("an urgent question is open", SOUND, {"intake": {"complaint": {"region": "hip"}}}),
            ("one test is to be done again", (*SOUND, thomas("left", ["lumbar_arch"], thigh_angle=-9)), {}),
        ):
            if why == "declined":
                entries = (*entries, {"test": "hip.craig", "side": "left", "declined": "too sore"})
            unknown = {"athlete": {"ref": "T-1"}} if why == "a gate is shut" else {}
            said = self.squad(*entries, **parts, **unknown)
            self.assertNotIn(AS_BEFORE, said.training, why)
            self.assertNotIn(NOTHING_MORE, said.next, why)
            self.assertTrue(said.training, why)

    def test_an_old_operation_is_no_bar(self) -> None:
        old = {"history": [{"region": "hip", "side": "left", "kind": "surgery", "weeks_ago": 13}]}
        self.assertEqual(self.squad(intake=old).training, (AS_BEFORE,))
        recent = {"history": [{"region": "foot", "side": "left", "kind": "surgery", "weeks_ago": 11}]}
        opened = [{"gate": "recent_surgery", "side": "left", "reason": "cleared", "by": "K. A."}]
        self.assertNotIn(AS_BEFORE, self.squad(intake=recent, overrides=opened).training)

    def test_a_complaint_without_a_flag_is_not_comforted(self) -> None:
        found = summary(
            done("hip.fadir", "left", result="negative"),
            intake={"complaint": {"region": "hip", "side": "left", "sites": ["groin"]}},
        )
        self.assertEqual(found.found[0], "What we looked at today did not show the reason.")
        self.assertIn("how far your hip moves", found.found[1])
        self.assertEqual(found.training, ("Train only what does not hurt, until we know more.",))
        self.assertIn("come back", found.next[-2])

    def test_a_tight_hip_trains_on(self) -> None:
        found = self.squad(*SOUND, thomas("left", thigh_angle=11, thigh_angle_knee_straight=9, knee_angle=95))
        self.assertEqual(
            found.found, ("Several signs agree that the muscle deep in front of your left hip is short.",)
        )
        self.assertEqual(found.training, ("Stretching is added to your training.",))
        self.assertIn("You get exercises, and we look again whether they help.", found.next)

    def test_an_emergency_stands_first_and_alone(self) -> None:
        tight = thomas("left", thigh_angle=11, thigh_angle_knee_straight=9)
        clot = done("leg.clot", cancer=True, immobile=True)
        found = summary(tight, clot)
        self.assertEqual(len(found.found), 1)
        self.assertIn("blood clot", found.found[0])
        self.assertEqual(found.training, ())
        self.assertEqual(
            found.next,
            (
                "Stop. The emergency number is called now.",
                "Do not put weight on your right leg and do not move it more than you must.",
            ),
        )

    def test_what_is_of_no_leg_says_nothing_of_one(self) -> None:
        for red in ("breathless_or_chest_pain", "saddle_numbness", "cancer_history"):
            said = summary(intake={"red_flags": [red]})
            self.assertNotIn("leg", " ".join((*said.found, *said.training, *said.next)).split(), red)
        weak = [done("ankle.resisted.dorsiflexion", side, grade="2") for side in ("left", "right")]
        today = summary(*weak, **hurt(kind="gradual"))
        self.assertIn("No training until a doctor has seen you today.", today.training)

    def test_what_is_seen_today_leaves_no_exercises_beside_it(self) -> None:
        tight = thomas("right", thigh_angle=11, thigh_angle_knee_straight=9)
        found = summary(tight, tender("navicular"), steps("yes", "yes"), **hurt("foot"))
        self.assertEqual(
            found.training,
            ("No weight on your right leg and no training until a doctor has looked at it today.",),
        )
        self.assertNotIn("You get exercises, and we look again whether they help.", found.next)

    def test_a_doubt_is_said(self) -> None:
        found = summary(done("ankle.anterior_drawer", laxity=0), purpose="ankle_injury", **hurt())
        self.assertIn(
            "We could not rule out a broken bone yet; until then put no weight on your right leg.",
            found.training,
        )

    def test_an_urgent_question_is_said(self) -> None:
        sore = summary(tender("calcaneus"), **hurt("foot", None, "gradual", asked=["night_pain"]))
        self.assertIn("We still have to ask you whether you trained more than before.", sore.next)

    def test_a_referral_with_a_last_day_names_it(self) -> None:
        dated = summary(intake={"red_flags": ["weight_loss"]})
        self.assertEqual(dated.next[0], "You are seen by a doctor by 28 September.")
        self.assertNotIn("without hurry", " ".join(dated.next))
        undated = summary(done("ankle.sensation", sural="less"))
        self.assertIn("You are sent on to a doctor, without hurry.", undated.next)

    def test_the_second_look_names_its_days(self) -> None:
        drawer = done("ankle.anterior_drawer", laxity=1)
        found = summary(tender(), steps("yes", "yes"), drawer, **hurt(onset="2026-08-30"), date="2026-08-31")
        self.assertIn("We look at your right leg again between 3 September and 6 September.", found.next)
        self.assertIn("Go easy on your right leg until we have looked at it again.", found.training)

    def test_every_story_can_be_said(self) -> None:
        for story in stories():
            for screen in story.screens:
                exam = check_record(dict(screen.record), default_catalogue()).exam
                said = plain_summary(exam, evaluate(exam, default_catalogue(), Context()))
                self.assertTrue(said.found and len(said.next) > 1)
                for line in (*said.found, *said.training, *said.next):
                    self.assertNotIn("{", line)

    def test_strengths_are_said_apart(self) -> None:
        self.assertEqual(set(plain_words()["strength"]), {"possible", "likely", "strong"})
        self.assertEqual(len(set(plain_words()["strength"].values())), 3)
