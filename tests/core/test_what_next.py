"""What next: at most three, rules' questions first, then what settles, then what tells most for its cost."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.ankle import done, hurt, pain, steps, tender
from tests.support.records import read, record

SQUEEZE, GAP = "ankle.calf_squeeze", "ankle.achilles_gap"


def named(entries: list[dict[str, Any]], **parts: Any) -> list[tuple[str, str | None]]:
    return [(item["test"], item["side"]) for item in read(record(entries, **parts))["next"]]


class WhatNext(unittest.TestCase):
    def test_nothing_flagged_nothing_offered(self) -> None:
        self.assertEqual(named([]), [])
        self.assertEqual(named([done("ankle.anterior_drawer", laxity=0)]), [])

    def test_what_settles_comes_first_and_only_until_it_is_done(self) -> None:
        fadir = done("hip.fadir", result="positive", pain=pain("groin"))
        faber = done("hip.faber", pain=pain("sacroiliac"))
        self.assertEqual(named([fadir, faber])[0], ("hip.thigh_thrust", "right"))
        thrust = done("hip.thigh_thrust", result="negative")
        self.assertNotIn(("hip.thigh_thrust", "right"), named([fadir, faber, thrust]))
        other = done("hip.thigh_thrust", "left", result="negative")
        self.assertEqual(named([faber, other])[0], ("hip.thigh_thrust", "right"))

    def test_every_open_flag_says_what_would_settle_it_until_that_is_done(self) -> None:
        """One sign, the test that would settle it, and that test done without the sign."""
        groin, low = pain("groin", True), pain()
        for sign, code, test, sound in (
            (
                done("hip.fadir", pain=groin, result="positive"),
                "intra_articular.impingement",
                "hip.faber",
                {"pain_change": "none"},
            ),
            (
                done("hip.posterior_impingement", pain=groin, result="positive"),
                "intra_articular.labral",
                "hip.flexion_circumduction_ir",
                {"result": "negative"},
            ),
            (
                done("hip.trendelenburg", lifts="none"),
                "control.hip_abductors",
                "hip.resisted.abduction",
                {"grade": "5"},
            ),
            (
                done("hip.resisted.adduction", pain=groin, grade="5"),
                "tendon.adductor",
                "hip.palpation",
                {"tender": []},
            ),
            (
                done("hip.palpation", tender=["ischial_tuberosity"]),
                "tendon.proximal_hamstring",
                "hip.resisted.extension",
                {"grade": "5"},
            ),
            (
                done("hip.craig", torsion=16),
                "alignment.femoral_anteversion",
                "hip.rom.internal_rotation_0",
                {"passive": 45},
            ),
            (
                done("ankle.inversion_tilt", laxity=1),
                "instability.cfl",
                "ankle.anterior_drawer",
                {"laxity": 0},
            ),
            (
                done("ankle.eversion_tilt", laxity=1),
                "instability.deltoid",
                "ankle.stress_tibiocalcaneal",
                {"laxity": 0},
            ),
            (
                done("ankle.talar_swing", swing="reduced"),
                "mobility.talocrural_posterior_glide",
                "ankle.lunge",
                {"distance": 120},
            ),
            (
                done("ankle.lunge", distance=50),
                "mobility.ankle_dorsiflexion",
                "ankle.play.posterior_glide",
                {"grade": 3},
            ),
            (
                done("ankle.heel_rise", count=25, arch_forms=False),
                "tendon.tibialis_posterior",
                "foot.standing",
                {"arch": "normal"},
            ),
            (
                done("foot.midfoot_stress", pain=low, laxity=0),
                "instability.tarsometatarsal",
                "ankle.look",
                {"bruising": []},
            ),
            (
                done("ankle.toe_spread", result="unable"),
                "nerve.tarsal_tunnel",
                "ankle.sensation",
                {"medial_plantar": "same"},
            ),
        ):
            with self.subTest(code=code):
                other = [done("ankle.toe_spread", "left", result="able")]
                self.assertIn(test, self._settles([sign, *other], code))
                self.assertIn(test, [asked for asked, _ in named([sign, *other])])
                settled = done(test, **sound)
                self.assertNotIn(test, self._settles([sign, settled, *other], code))

    def _settles(self, entries: list[dict[str, Any]], code: str) -> list[str]:
        found = [flag for flag in read(record(entries))["flags"] if flag["code"] == code]
        self.assertEqual(len(found), 1, code)
        return list(found[0]["settle"])

    def test_one_test_is_offered_once(self) -> None:
        """FABER and the raised leg both ask for the low back, which has no side."""
        faber = done("hip.faber", pain=pain("lumbar"))
        raised = done("hip.straight_leg_raise", foot_up_worse=True)
        asked = [item for item in named([faber, raised]) if item[0] == "lumbar.screen"]
        self.assertEqual(asked, [("lumbar.screen", None)])

    def test_untested_signs_by_what_they_tell_for_their_cost(self) -> None:
        gap = done(GAP, gap=True)
        # Tone beside a gap would change nothing, so only the squeeze is offered.
        self.assertEqual(named([gap]), [(SQUEEZE, "right")])
        thrust = done("hip.thigh_thrust", result="positive")
        offered = [test for test, _ in named([thrust])]
        self.assertLess(offered.index("hip.si_distraction"), offered.index("hip.si_compression"))
        self.assertNotIn("hip.thigh_thrust", offered)

    def test_the_position_the_athlete_lies_in_counts(self) -> None:
        supine = [done("hip.thigh_thrust", result="positive")]
        prone = [*supine, done("hip.si_sacral_thrust", "left", result="negative")]
        self.assertNotEqual(named(supine)[0], ("hip.si_sacral_thrust", "right"))
        self.assertEqual(named(prone)[0], ("hip.si_sacral_thrust", "right"))

    def test_never_what_can_change_nothing(self) -> None:
        """The dorsiflexion sign alone changes neither flag nor action."""
        whole = {
            "cancer": True,
            "immobile": True,
            **dict.fromkeys(("bedridden_or_surgery", "deep_vein_tenderness", "whole_leg_swollen"), False),
            **dict.fromkeys(("pitting_oedema", "collateral_veins", "previous_clot"), False),
            "other_diagnosis_as_likely": False,
            "calf_girth_difference": 0,
        }
        self.assertEqual(named([{"test": "leg.clot", "side": "right", "values": whole}]), [])
        strong = [done(SQUEEZE, foot_moves="none", passive_range_checked=True), done(GAP, gap=True)]
        self.assertEqual(named(strong), [])

    def test_never_what_is_held_recorded_or_not(self) -> None:
        bruise = done("ankle.anterior_drawer", "left", laxity=2)
        lax = done("ankle.stress_atfl", laxity=2)
        sound = [tender(), steps("yes", "yes")]
        free = named([*sound, lax], **hurt())
        self.assertIn(("ankle.inversion_tilt", "right"), free)
        broken = [tender("lateral_malleolus_posterior"), steps("no", "no"), lax, bruise]
        offered = named(broken, **hurt())
        self.assertNotIn(("ankle.inversion_tilt", "right"), offered)
        self.assertIn(("ankle.inversion_tilt", "left"), offered)

    def test_a_rule_asks_for_nothing_that_is_held(self) -> None:
        look = {"test": "hip.standing", "values": {"patella": {"right": "squinting"}}}
        told = {"complaint": {"region": "hip", "side": "right"}, "red_flags": ["obvious_deformity"]}
        self.assertEqual(named([look]), [("hip.craig", "right")])
        self.assertEqual(named([look], intake=told), [])

    def test_an_entry_written_while_held_does_not_make_its_sign_the_next_one(self) -> None:
        gap = {"test": GAP, "side": "left", "values": {"gap": True}}
        told = {"symptoms": ["cannot_push_off"], "red_flags": ["obvious_deformity"]}
        self.assertNotIn((GAP, "left"), named([gap], intake={"complaint": {"region": "hip"}, **told}))

    def test_gate_questions_come_before_all_else(self) -> None:
        offered = named([done("ankle.anterior_drawer", laxity=2)], **hurt())
        self.assertEqual(offered, [("ankle.weight_bearing", "right"), ("ankle.palpation", "right")])

    def test_the_pregnant_are_not_turned_prone(self) -> None:
        expecting = {"intake": {"confounders": ["pregnant"]}}
        look = {"test": "hip.standing", "values": {"patella": {"right": "squinting"}}}
        self.assertEqual(named([look]), [("hip.craig", "right")])
        self.assertEqual(named([look], **expecting), [])
        squeeze = read(record([done(GAP, gap=True)], **expecting))["next"][0]
        self.assertEqual(squeeze["test"], SQUEEZE)
        self.assertIn("Kneeling", squeeze["why"])
        plain = read(record([done(GAP, gap=True)]))["next"][0]
        self.assertNotIn("Kneeling", plain["why"])

    def test_at_most_three(self) -> None:
        many = [done("hip.faber", pain=pain(site)) for site in ("groin",)]
        many += [done("hip.faber", "left", pain=pain("sacroiliac")), done("ankle.sensation", sural="less")]
        many += [done("hip.fadir", result="positive", pain=pain("groin")), done(GAP, gap=True)]
        self.assertEqual(len(named(many)), 3)
