"""The twelve worked stories read as they are told."""

from __future__ import annotations

import unittest

from northstride.demo.stories import stories
from tests.support.records import read

# By story and screen: the flag it is about, its side, its strength and what it leads to.
TOLD = {
    ("lateral-sprain", "day-2"): ("instability.atfl", "right", "likely", "recheck"),
    ("lateral-sprain", "day-7"): ("instability.atfl", "right", "strong", "refer"),
    ("high-sprain", "day-5"): ("instability.syndesmosis", "left", "strong", "same_day"),
    ("fracture-signs", "same-day"): ("fracture.midfoot", "left", "likely", "same_day"),
    ("achilles", "same-day"): ("tendon.achilles_rupture", "right", "strong", "same_day"),
    ("clot", "day-3"): ("vascular.deep_vein_thrombosis", "left", "likely", "emergency"),
    ("midfoot", "day-4"): ("instability.tarsometatarsal", "right", "strong", "same_day"),
    ("heel-pain", "first"): ("tendon.plantar_fascia", "left", "likely", "train"),
    ("tibialis-posterior", "first"): ("tendon.tibialis_posterior", "left", "likely", "train"),
    ("stiff-ankle", "first"): ("mobility.talocrural_posterior_glide", "right", "likely", "train"),
    ("tarsal-tunnel", "first"): ("nerve.tarsal_tunnel", "left", "likely", "refer"),
    ("chronic-ankle", "first"): ("instability.chronic_ankle", "right", "likely", "train"),
    ("bone-stress", "first"): ("fracture.tibia", "left", "likely", "same_day"),
}


class Stories(unittest.TestCase):
    def test_each_reads_as_it_is_told(self) -> None:
        written = {(story.slug, screen.name) for story in stories() for screen in story.screens}
        self.assertEqual(written, set(TOLD))
        self.assertEqual(len(stories()), 12)
        for story in stories():
            for screen in story.screens:
                flags = read(dict(screen.record))["flags"]
                found = {(f["code"], f["side"], f["strength"], f["urgency"]) for f in flags}
                self.assertIn(TOLD[(story.slug, screen.name)], found, story.slug)
