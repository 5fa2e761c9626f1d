"""What is held by each gate, literally; the gates of what must not be loaded, and who raises them."""

from __future__ import annotations

from typing import Any

from northstride.core.catalogue import default_catalogue
from northstride.core.norms.load import all_gates, danger_checks, rule_reads
from tests.support.ankle import CoreCase, done, hurt, pain, steps, tender
from tests.support.records import Reading, strengths

CATALOGUE = default_catalogue()
LENGTH = {
    *("hip.thomas", "hip.modified_thomas", "hip.ely", "hip.ober", "hip.hamstring_90_90"),
    *("hip.straight_leg_raise", "hip.bent_knee_fall_out"),
}
RESISTED_HIP = {code for code in CATALOGUE.tests if code.startswith("hip.resisted.")}
GROWING = {
    *("hip.fadir", "hip.flexion_circumduction_ir", "hip.posterior_impingement", "hip.faber"),
    *("hip.adductor_squeeze", "hip.single_leg_stance", "hip.trendelenburg", "hip.squat", "hip.step_down"),
    *("ankle.hop", "ankle.side_hop", "ankle.balance", "ankle.reach"),
    *RESISTED_HIP,
    *LENGTH,
}
LOADED = {
    *("ankle.lunge", "ankle.heel_rise", "ankle.hop", "ankle.side_hop", "ankle.balance", "ankle.reach"),
    *("hip.squat", "hip.step_down"),
}
HOLDS = {
    "growth_plate_doubt": GROWING,
    "growth_plate_unstable": GROWING
    | {"hip.gait", "hip.fulcrum", "ankle.walk"}
    | {code for code in CATALOGUE.tests if code.startswith("hip.rom.")},
    "achilles_doubt": LOADED
    | {"ankle.resisted.plantarflexion"}
    | {"ankle.rom.dorsiflexion_knee_bent", "ankle.rom.dorsiflexion_knee_straight"},
    "unstable_doubt": LOADED | {"ankle.walk", "hip.single_leg_stance", "hip.trendelenburg"},
    "fracture_doubt_apophysis": RESISTED_HIP | LENGTH | {"ankle.hop", "ankle.side_hop"},
    "fracture_doubt_femur": {
        *("hip.fadir", "hip.flexion_circumduction_ir", "hip.posterior_impingement", "hip.faber"),
        *("hip.adductor_squeeze", "hip.thomas", "hip.modified_thomas", "hip.ely"),
        *("hip.single_leg_stance", "hip.trendelenburg", "hip.squat", "hip.step_down"),
        *("ankle.hop", "ankle.side_hop", "ankle.reach", "ankle.balance"),
        *RESISTED_HIP,
    },
}
SPARED = {
    *("hip.palpation", "ankle.look", "ankle.palpation", "ankle.pulses", "ankle.sensation"),
    *("leg.compartment", "leg.clot", "foot.soles"),
}


def codes(patterns: tuple[str, ...]) -> set[str]:
    """Every test a list of codes and stars names."""
    found: set[str] = set()
    for pattern in patterns:
        stem = pattern.removesuffix("*")
        found |= {
            code for code in CATALOGUE.tests if code == pattern or (stem != pattern and code.startswith(stem))
        }
    return found


class Lists(CoreCase):
    def test_each_gate_holds_just_this(self) -> None:
        for gate, expected in HOLDS.items():
            self.assertEqual(codes(all_gates()[gate]["holds"]), expected, gate)
        fracture = codes(all_gates()["fracture_doubt"]["holds"])
        self.assertLessEqual({"hip.single_leg_stance", "hip.trendelenburg", "ankle.lunge"}, fracture)
        self.assertFalse(fracture & {"ankle.squeeze", "ankle.percussion", "ankle.weight_bearing"})
        for gate in ("acute_dislocation", "infection_doubt"):
            self.assertEqual({*all_gates()[gate]["spares"]}, SPARED)

    def test_no_gate_holds_what_its_own_rule_reads_first(self) -> None:
        reads = rule_reads()
        self.assertFalse(codes(all_gates()["achilles_doubt"]["holds"]) & reads["A11"])
        for rule in danger_checks() - {"A14"}:
            for gate in ("fracture_doubt", "growth_plate_doubt", "achilles_doubt", "unstable_doubt"):
                held = codes(all_gates()[gate]["holds"])
                self.assertFalse(
                    held & reads[rule] & {"ankle.weight_bearing", "ankle.palpation"}, (rule, gate)
                )


class Achilles(CoreCase):
    LUNGE = done("ankle.lunge", distance=40)

    def held(self, *entries: dict[str, Any], **parts: Any) -> set[tuple[str, str, str]]:
        reading = self.reading(*entries, **parts)
        return {(item["test"], item["side"], item["gate"]) for item in reading["held"]}

    def test_a_torn_one_is_not_sent_to_the_loaded_lunge(self) -> None:
        none = done("ankle.calf_squeeze", foot_moves="none", passive_range_checked=True)
        unchecked = done("ankle.calf_squeeze", foot_moves="none")
        for squeeze in (none, unchecked):
            reading = self.reading(squeeze, self.LUNGE)
            self.assertEqual([item["gate"] for item in reading["held"]], ["achilles_doubt"])
            self.assertNotIn("mobility.ankle_dorsiflexion", {flag["code"] for flag in reading["flags"]})
            offered = {item["test"] for item in reading["next"]}
            self.assertFalse(offered & HOLDS["achilles_doubt"])
        brisk = done("ankle.calf_squeeze", foot_moves="brisk", passive_range_checked=True)
        self.assertEqual(self.held(brisk, self.LUNGE), set())
        # Possible alone holds nothing; with a pop it is likely and does.
        gap = done("ankle.achilles_gap", gap=True)
        self.assertEqual(self.held(gap, brisk, self.LUNGE), set())
        popped = hurt("leg", onset="2026-08-31", symptoms=["heard_pop"], load_change=False)
        self.assertIn(("ankle.lunge", "right", "achilles_doubt"), self.held(gap, brisk, self.LUNGE, **popped))

    def test_a_pop_is_held_until_the_calf_is_squeezed_and_asks_for_it(self) -> None:
        brisk = done("ankle.calf_squeeze", foot_moves="brisk", passive_range_checked=True)
        sound = (tender(), steps("yes", "yes"))
        for symptom in ("heard_pop", "cannot_push_off"):
            for region, onset, expected in (
                ("ankle", "2026-08-31", True),
                ("leg", None, True),
                ("foot", "2026-08-31", True),
                ("ankle", "2026-08-30", False),
                ("hip", None, False),
            ):
                parts = hurt(region, onset, symptoms=[symptom])
                reading = self.reading(*sound, self.LUNGE, **parts)
                held = {(item["test"], item["gate"]) for item in reading["held"]}
                self.assertEqual(
                    ("ankle.lunge", "achilles_doubt") in held, expected, (symptom, region, onset)
                )
                asked = {item["test"] for item in reading["next"]}
                self.assertEqual("ankle.calf_squeeze" in asked, expected)
                squeezed = self.held(*sound, brisk, self.LUNGE, **parts)
                self.assertNotIn("achilles_doubt", {gate for _, _, gate in squeezed})

    def test_the_region_counts_and_an_unknown_one_does_too(self) -> None:
        gap = done("ankle.achilles_gap", gap=True)
        code = "tendon.achilles_rupture"
        for parts, urgency in (
            (hurt("ankle", None, symptoms=["heard_pop"]), "same_day"),
            (hurt("hip", None, symptoms=["heard_pop"]), "refer"),
            ({"intake": {"symptoms": ["heard_pop"]}}, "same_day"),
        ):
            self.assertEqual(self.flag(code, gap, **parts)["urgency"], urgency)

    def test_what_was_not_asked_of_a_partial_sign_is_asked(self) -> None:
        gap = done("ankle.achilles_gap", gap=True)
        reading = self.reading(gap, **hurt("leg", None, "gradual", load_change=False))
        asked = {item["item"]: item["urgent"] for item in reading["ask"]}
        self.assertEqual(asked, {"symptoms.cannot_push_off": True, "symptoms.heard_pop": True})
        answered = hurt("leg", None, "gradual", load_change=False, asked=["heard_pop", "cannot_push_off"])
        self.assertEqual(self.reading(gap, **answered)["ask"], [])


class Unstable(CoreCase):
    def gates(self, reading: Reading) -> set[tuple[str, str]]:
        return {(item["test"], item["gate"]) for item in reading["held"]}

    def test_a2_strong_takes_the_weight_off_before_any_cap(self) -> None:
        sore = pain("above_lateral_malleolus")
        strong = [
            done("ankle.squeeze", pain=sore),
            done("ankle.cotton", laxity=1),
            tender("syndesmosis"),
            done("ankle.lunge", distance=40),
        ]
        self.assertIn(("ankle.lunge", "unstable_doubt"), self.gates(self.reading(*strong)))
        # The same on the other side caps nothing of it.
        both = [*strong, done("ankle.cotton", "left", laxity=1)]
        self.assertIn(("ankle.lunge", "unstable_doubt"), self.gates(self.reading(*both)))
        self.assertEqual(self.gates(self.reading(*strong[1:])), set())

    def test_f3_likely_keeps_its_own_rise_and_holds_it_from_the_others(self) -> None:
        rise = done("ankle.heel_rise", count=0)
        stress = done("foot.midfoot_stress", laxity=0, pain=pain())
        reading = self.reading(stress, rise)
        found = strengths(reading)
        self.assertEqual(found[("instability.tarsometatarsal", "right")], "likely")
        self.assertIn(("ankle.heel_rise", "unstable_doubt"), self.gates(reading))
        self.assertNotIn(("tendon.tibialis_posterior", "right"), found)
        self.assertNotIn(("weakness.ankle_plantarflexors", "right"), found)
        self.assertEqual(self.gates(self.reading(stress, done("ankle.heel_rise", count=20))), set())

    def test_f3_keeps_the_midfoot_from_being_cleared(self) -> None:
        sound = (tender(), steps("yes", "yes"))
        for stress, cleared in (
            (done("foot.midfoot_stress", laxity=0, pain=pain()), True),
            (done("foot.midfoot_stress", laxity=1), False),
        ):
            codes_ = {item["code"] for item in self.reading(*sound, stress, **hurt("foot"))["ruled_down"]}
            self.assertEqual("fracture.midfoot" in codes_, cleared)

    def test_an_override_opens_it(self) -> None:
        strong = [done("foot.midfoot_stress", laxity=1), done("ankle.lunge", distance=40)]
        opened = [{"gate": "unstable_doubt", "side": "right", "reason": "imaged", "by": "K. A."}]
        self.assertEqual(self.gates(self.reading(*strong, overrides=opened)), set())


class HeldClearsNothing(CoreCase):
    def test_a_held_positive_sign_keeps_its_structure_open(self) -> None:
        """Three negative provocation tests clear the sacroiliac joint, not beside a held painful FABER."""
        negative = [
            done(f"hip.{test}", result="negative")
            for test in ("si_distraction", "si_compression", "thigh_thrust")
        ]
        sore = done("hip.faber", pain=pain("sacroiliac"))
        replaced = {
            "history": [{"region": "hip", "side": "right", "kind": "hip_replacement", "weeks_ago": 90}]
        }
        cleared = {item["code"] for item in self.reading(*negative)["ruled_down"]}
        self.assertEqual(cleared, {"elsewhere.sacroiliac"})
        self.assertEqual(self.reading(*negative, sore, intake=replaced)["ruled_down"], [])
        painless = done("hip.faber", pain={"present": False})
        self.assertEqual(len(self.reading(*negative, painless, intake=replaced)["ruled_down"]), 1)
