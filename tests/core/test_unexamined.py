"""Coverage: structures that purpose and story call for and nothing recorded speaks about."""

from __future__ import annotations

from typing import Any

from northstride.core.norms.load import structures
from tests.support.ankle import CoreCase, done, hurt, steps, tender


class Unexamined(CoreCase):
    def missing(self, *entries: dict[str, Any], **parts: Any) -> dict[tuple[str, str | None], str]:
        covered = self.reading(*entries, **parts)["coverage"]
        return {(item["structure"], item["side"]): item["why"] for item in covered["unexamined"]}

    def test_a_story_calls_for_its_structures_on_its_sides(self) -> None:
        ankle = hurt(sites=["anterolateral"])
        found = self.missing(purpose="ankle_injury", **ankle)
        for structure in ("ankle_and_foot_bones", "weight_bearing", "circulation", "syndesmosis"):
            self.assertEqual(found[(structure, "right")], "not_recorded")
        self.assertEqual({side for _, side in found}, {"right"})
        self.assertNotIn("hip_joint", {structure for structure, _ in found})

    def test_any_of_its_tests_speaks_of_a_structure(self) -> None:
        ankle = {"purpose": "ankle_injury", **hurt(sites=["anterolateral"])}
        squeezed = self.missing(tender(), steps("yes", "yes"), done("ankle.cotton", laxity=0), **ankle)
        self.assertNotIn(("syndesmosis", "right"), squeezed)
        self.assertNotIn(("ankle_and_foot_bones", "right"), squeezed)
        other = self.missing(done("ankle.squeeze", "left", pain={"present": False}), **ankle)
        self.assertIn(("syndesmosis", "right"), other)

    def test_what_is_held_or_declined_says_so(self) -> None:
        ankle = {"purpose": "ankle_injury", **hurt(sites=["anterolateral"])}
        held = self.missing(done("ankle.anterior_drawer", laxity=0), **ankle)
        self.assertEqual(held[("lateral_ligaments", "right")], "held")
        declined = self.missing({"test": "ankle.pulses", "side": "right", "declined": "no time"}, **ankle)
        self.assertEqual(declined[("circulation", "right")], "declined")

    def test_a_screening_asks_for_its_plan_on_both_sides(self) -> None:
        found = self.missing(purpose="squad_screen")
        self.assertEqual(found[("ankle_range", "left")], found[("ankle_range", "right")])
        self.assertIn(("walking", None), found)
        own = self.missing(purpose="squad_screen", planned=["ankle.lunge"])
        self.assertEqual(set(own), {("ankle_range", "left"), ("ankle_range", "right")})
        done_ = [done("ankle.lunge", side, distance=100) for side in ("left", "right")]
        self.assertEqual(self.missing(*done_, purpose="squad_screen", planned=["ankle.lunge"]), {})

    def test_a_side_nobody_told_stands_for_both(self) -> None:
        story = hurt(sites=["anterolateral"])
        del story["intake"]["complaint"]["side"]
        found = self.missing(purpose="ankle_injury", **story)
        self.assertEqual({side for structure, side in found if structure == "syndesmosis"}, {"left", "right"})

    def test_every_structure_has_names_of_its_own(self) -> None:
        for names in ([s.name for s in structures()], [s.plain for s in structures()]):
            self.assertTrue(all(names))
            self.assertEqual(len(names), len(set(names)))
