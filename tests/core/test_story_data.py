"""What is asked of a story: every question has its topic and its words, and nothing else is asked."""

from __future__ import annotations

import unittest

from northstride.core.catalogue import default_catalogue
from northstride.core.story.data import FILE, Topic, read_story, story_data
from northstride.core.terms.vocabulary import QUESTIONS, REGION_FAMILY
from northstride.core.wording.spoken import SPOKEN

TEXT = FILE.read_text(encoding="utf-8")
FAMILIES = {"danger": "red_flags", "confounders": "confounders", "symptoms": "symptoms"}


def asked_of(region: str | None = None, site: str | None = None, kind: str = "open") -> set[str]:
    """What a story of one place is asked, as the data says."""

    def holds(topic: Topic) -> bool:
        return (
            (not topic.regions or region in topic.regions)
            and (not topic.sites or site in topic.sites)
            and (not topic.kinds or kind in topic.kinds)
        )

    return {item for topic in story_data().topic if holds(topic) for item in topic.asks}


class Questions(unittest.TestCase):
    def test_every_symptom_danger_and_confounder_is_asked_somewhere_in_its_own_family(self) -> None:
        for about, family in FAMILIES.items():
            asked = {item for topic in story_data().topic if topic.about == about for item in topic.asks}
            self.assertEqual(asked, {item for item in QUESTIONS if item.startswith(f"{family}.")})
            self.assertLessEqual(asked, SPOKEN["questions"].keys())

    def test_danger_that_knows_no_place_is_asked_of_everybody(self) -> None:
        always = {"breathless_or_chest_pain", "saddle_numbness", "bladder_or_bowel", "fever_hot_joint"}
        always |= {"night_pain_unrelieved", "weight_loss", "cancer_history"}
        self.assertLessEqual({f"red_flags.{code}" for code in always}, asked_of(kind="gradual"))

    def test_an_open_beginning_is_asked_what_a_sudden_one_is(self) -> None:
        """Open is not gradual."""
        for region in REGION_FAMILY:
            self.assertLessEqual(asked_of(region, kind="sudden"), asked_of(region, kind="open"), region)
        self.assertNotIn("red_flags.open_fracture", asked_of("ankle", kind="gradual"))

    def test_each_region_makes_something_relevant(self) -> None:
        for region in REGION_FAMILY:
            symptoms = {item for item in asked_of(region) if item.startswith("symptoms.")}
            self.assertGreaterEqual(len(symptoms), 2, region)

    def test_every_site_can_be_told_or_says_that_it_cannot(self) -> None:
        for site in default_catalogue().sites.values():
            self.assertIn(site.region, REGION_FAMILY, site.code)
        self.assertEqual(
            [site.code for site in default_catalogue().sites.values() if not site.told], ["under_hand"]
        )

    def test_codes_without_words_and_items_nobody_asks_are_named(self) -> None:
        for broken, named in (
            (TEXT.replace('clot = "Clot"', ""), "clot"),
            (TEXT.replace('"symptoms.limp"', '"symptoms.dance"'), "symptoms.dance"),
        ):
            with self.assertRaises(KeyError) as caught:
                read_story(broken)
            self.assertIn(named, str(caught.exception))


if __name__ == "__main__":
    unittest.main()
