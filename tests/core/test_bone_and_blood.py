"""A0 to A1d, A12 and A13: published tables as fixtures, gates and questions, the edges of days."""

from __future__ import annotations

from typing import Any

from tests.support.ankle import CoreCase, done, hurt, measured, pain, steps, tender
from tests.support.records import Reading, strengths

ANKLE, MIDFOOT = "fracture.ankle", "fracture.midfoot"
CLOT = "vascular.deep_vein_thrombosis"


class FractureRule(CoreCase):
    """The Ottawa ankle rules as reviewed by Bachmann 2003."""

    def test_a0_table(self) -> None:
        for region, points, then, now, expected in (
            ("ankle", ["lateral_malleolus_posterior"], "yes", "yes", {ANKLE}),
            ("ankle", ["medial_malleolus_posterior"], "yes", "yes", {ANKLE}),
            ("ankle", ["atfl"], "no", "no", {ANKLE}),
            ("ankle", ["atfl"], "no", "yes", set()),
            ("ankle", ["atfl"], "yes", "no", set()),
            ("ankle", ["atfl"], "yes", "yes", set()),
            ("foot", ["fifth_metatarsal_base"], "yes", "yes", {MIDFOOT}),
            ("foot", ["navicular"], "yes", "yes", {MIDFOOT}),
            ("foot", [], "no", "no", {MIDFOOT}),
            ("ankle", ["navicular"], "yes", "yes", {MIDFOOT}),
        ):
            with self.subTest(region=region, points=points, then=then, now=now):
                reading = self.reading(tender(*points), steps(then, now), **hurt(region))
                found = {flag["code"] for flag in reading["flags"]}
                self.assertEqual(found, expected)
                self.assertTrue(all(flag["urgency"] == "same_day" for flag in reading["flags"]))
                cleared = {item["code"] for item in reading["ruled_down"]}
                self.assertEqual(cleared, set() if expected else {ANKLE, MIDFOOT})

    def test_a0_never_cleared_with_a_confounder_or_under_six(self) -> None:
        sound = (tender("atfl"), steps("yes", "yes"))
        for confounder in ("lost_sensation", "intoxication", "other_painful_injury"):
            reading = self.reading(*sound, **hurt(confounders=[confounder]))
            self.assertEqual(strengths(reading), {(ANKLE, "right"): "possible"})
            self.assertEqual(reading["ruled_down"], [])
        child = {"athlete": {"ref": "T-1", "birth_date": "2020-09-15"}}
        self.assertEqual(self.right(*sound, **hurt(), **child), {ANKLE: "possible"})
        six = {"athlete": {"ref": "T-1", "birth_date": "2020-09-14"}}
        self.assertEqual(self.right(*sound, **hurt(), **six), {})

    def test_a0_says_when_it_is_late(self) -> None:
        for day, late in (("2026-09-04", False), ("2026-09-03", True)):
            reading = self.reading(tender("navicular"), steps("yes", "yes"), **hurt(onset=day))
            self.assertEqual(any("ten days" in says for says in reading["flags"][0]["against"]), late)

    def test_a0_unanswered_holds_and_asks_first(self) -> None:
        drawer = done("ankle.anterior_drawer", laxity=2)
        for entries, asked in (
            ([], ["ankle.weight_bearing", "ankle.palpation"]),
            ([steps("yes", "yes")], ["ankle.palpation"]),
            ([tender()], ["ankle.weight_bearing"]),
            ([tender(), done("ankle.weight_bearing", now="yes")], ["ankle.weight_bearing"]),
            (
                [done("ankle.palpation", tender=[], pressed=["navicular"]), steps("yes", "yes")],
                ["ankle.palpation"],
            ),
        ):
            reading = self.reading(*entries, drawer, **hurt())
            self.assertEqual([item["test"] for item in reading["next"]], asked)
            self.assertEqual([item["gate"] for item in reading["held"]], ["fracture_doubt"])
        answered = self.reading(tender(), steps("yes", "yes"), drawer, **hurt())
        asked_for = {item["test"] for item in answered["next"]}
        self.assertFalse(asked_for & {"ankle.weight_bearing", "ankle.palpation"})
        self.assertEqual(answered["held"], [])

    def test_a0_holds_fresh_injuries_only_and_not_the_other_side(self) -> None:
        drawer, other = (
            done("ankle.anterior_drawer", laxity=0),
            done("ankle.anterior_drawer", "left", laxity=0),
        )
        for parts, held in (
            (hurt(onset="2026-09-04"), True),
            (hurt(onset="2026-09-03"), False),
            (hurt(onset=None), True),
            (hurt(kind="gradual"), False),
            (hurt("hip"), False),
        ):
            found = {item["side"] for item in self.reading(drawer, other, **parts)["held"]}
            self.assertEqual(found, {"right"} if held else set())


class Bones(CoreCase):
    def test_a1_shaken(self) -> None:
        fork = done("ankle.tuning_fork", bone="fibula", result="positive")
        tap = done("ankle.percussion", bone="fibula", result="positive")
        other = done("ankle.percussion", bone="tibia", result="positive")
        under = done("ankle.squeeze", pain={"present": True, "site": "under_hand"})
        spring = done("ankle.fibula_spring", result="positive")
        self.assertEqual(self.right(fork), {"fracture.fibula": "possible"})
        self.assertEqual(self.right(fork, tap), {"fracture.fibula": "likely"})
        self.assertEqual(self.right(fork, spring), {"fracture.fibula": "likely"})
        self.assertEqual(self.right(fork, under), {"fracture.fibula": "likely"})
        for sign in ("crepitus", "excess_motion"):
            sprung = measured("ankle.fibula_spring", {sign: True, "result": "negative"})
            self.assertEqual(self.right(sprung), {"fracture.fibula": "possible"})
        both = self.right(fork, other)
        self.assertEqual(both, {"fracture.fibula": "possible", "fracture.tibia": "possible"})
        self.assertEqual(self.right(done("ankle.bump", bone="talus", result="negative")), {})

    def test_a1_a_bone_nobody_named_is_held_and_asked_for(self) -> None:
        drawer = done("ankle.anterior_drawer", laxity=2)
        for test in ("ankle.percussion", "ankle.tuning_fork", "ankle.bump"):
            reading = self.reading(done(test, result="positive"), drawer)
            self.assertEqual((reading["flags"], reading["next"][0]["test"]), ([], test))
            self.assertEqual([item["gate"] for item in reading["held"]], ["fracture_doubt"])
        self.assertEqual(self.reading(done("ankle.bump", result="negative"), drawer)["held"], [])

    def test_a1b_the_high_fibula(self) -> None:
        sound = steps("yes", "yes")
        self.assertEqual(self.right(tender("fibular_head"), sound, **hurt()), {"fracture.fibula": "possible"})
        for extra in (["deltoid"], ["syndesmosis"]):
            found = self.right(tender("fibula_shaft", *extra), sound, **hurt())
            self.assertEqual(found["fracture.fibula"], "likely")
        squeeze = done("ankle.squeeze", pain={"present": True, "site": "above_lateral_malleolus"})
        self.assertEqual(
            self.right(tender("fibular_head"), sound, squeeze, **hurt())["fracture.fibula"], "likely"
        )
        story = hurt(sites=["medial"])
        del story["intake"]["complaint"]["side"]
        self.assertEqual(self.right(tender("fibular_head"), sound, **story)["fracture.fibula"], "likely")
        gradual = self.right(tender("fibular_head"), sound, **hurt(kind="gradual"))
        self.assertEqual(gradual, {})

    def test_a1b_process_and_dome_are_referred_without_a_gate(self) -> None:
        drawer = done("ankle.anterior_drawer", laxity=0)
        for point, bone in (("anterior_process", "calcaneus"), ("talar_dome", "talus")):
            reading = self.reading(tender(point), steps("yes", "yes"), drawer, **hurt())
            self.assertEqual(strengths(reading), {(f"fracture.{bone}", "right"): "possible"})
            self.assertEqual((reading["flags"][0]["urgency"], reading["held"]), ("refer", []))

    def test_a1d_other_trauma(self) -> None:
        for point, bone in (
            ("calcaneus", "calcaneus"),
            ("tibia_shaft", "tibia"),
            ("metatarsal_shaft", "metatarsal"),
        ):
            reading = self.reading(tender(point), steps("yes", "yes"), **hurt())
            self.assertEqual(strengths(reading), {(f"fracture.{bone}", "right"): "possible"})
            self.assertEqual(reading["flags"][0]["urgency"], "same_day")
        self.assertEqual(self.right(steps("yes", "no"), **hurt("thigh")), {"fracture.femur": "possible"})
        self.assertEqual(self.right(steps("no", "yes"), **hurt("thigh")), {})

    def test_a1c_stress(self) -> None:
        def stressed(*entries: dict[str, Any], **intake: Any) -> Reading:
            return self.reading(*entries, **hurt("leg", None, "gradual", **{"load_change": True, **intake}))

        for point, bone, urgency in (
            ("navicular", "navicular", "same_day"),
            ("tibia_shaft", "tibia", "same_day"),
            ("metatarsal_shaft", "metatarsal", "refer"),
            ("calcaneus", "calcaneus", "refer"),
        ):
            flags = [f for f in stressed(tender(point))["flags"] if f["code"] == f"fracture.{bone}"]
            self.assertEqual([(f["strength"], f["urgency"]) for f in flags], [("possible", urgency)], point)
        night = stressed(tender("tibia_shaft"), symptoms=["night_pain"])
        self.assertEqual(strengths(night)[("fracture.tibia", "right")], "likely")
        unrelieved = stressed(tender("tibia_shaft"), red_flags=["night_pain_unrelieved"])
        self.assertEqual(strengths(unrelieved)[("fracture.tibia", "right")], "likely")
        tapped = stressed(done("ankle.percussion", bone="tibia", pain=pain()))["flags"]
        self.assertEqual([(f["code"], f["urgency"]) for f in tapped], [("fracture.tibia", "same_day")])
        hop = stressed(tender("tibia_shaft"), done("ankle.hop", able=True, pain={"present": True}))
        self.assertEqual(strengths(hop)[("fracture.tibia", "right")], "likely")
        fulcrum = stressed(done("hip.fulcrum", result="positive"))
        self.assertEqual(strengths(fulcrum), {("fracture.femur", "right"): "possible"})
        self.assertEqual(stressed(tender("tibia_shaft"), load_change=False)["flags"], [])

    def test_a1c_the_place_of_hop_pain_names_the_bone(self) -> None:
        story = hurt("leg", None, "gradual", load_change=True)
        for site, bone, urgency in (
            ("tibia_shaft", "tibia", "same_day"),
            ("navicular", "navicular", "same_day"),
            ("fifth_metatarsal_base", "metatarsal", "same_day"),
            ("heel", "calcaneus", "refer"),
            ("fibula_shaft", "fibula", "refer"),
            ("groin", "femoral_neck", "same_day"),
        ):
            for hop in ("ankle.hop", "ankle.side_hop"):
                flag = self.flag(f"fracture.{bone}", done(hop, pain=pain(site)), **story)
                self.assertEqual((flag["strength"], flag["urgency"]), ("likely", urgency))
        self.assertEqual(self.right(done("ankle.hop", pain=pain("calf")), **story), {})
        tapped = done("ankle.percussion", bone="metatarsal", pain=pain())
        self.assertEqual(self.right(tapped, **story), {"fracture.metatarsal": "possible"})
        fork = self.flag(
            "fracture.metatarsal",
            done("ankle.tuning_fork", bone="metatarsal", result="positive"),
            **hurt("leg", None, "gradual", load_change=True, symptoms=["night_pain"]),
        )
        self.assertEqual([reason["rule"] for reason in fork["because"]], ["A1"])


class Clot(CoreCase):
    """The score of Wells 2003."""

    def test_a12_each_item_is_a_point(self) -> None:
        for item in (
            *("cancer", "immobile", "bedridden_or_surgery", "deep_vein_tenderness", "whole_leg_swollen"),
            *("pitting_oedema", "collateral_veins", "previous_clot"),
        ):
            self.assertEqual(self.right(measured("leg.clot", {item: True})), {CLOT: "possible"}, item)
            self.assertEqual(self.right(measured("leg.clot", {item: False})), {}, item)
        for larger, expected in ((29.9, {}), (30, {CLOT: "possible"})):
            self.assertEqual(self.right(done("leg.clot", calf_girth_difference=larger)), expected)

    def test_a12_two_points_are_an_emergency_unless_the_clinic_has_a_route(self) -> None:
        two = done("leg.clot", cancer=True, immobile=True)
        for route, urgency in ((None, "emergency"), ("emergency", "emergency"), ("same_day", "same_day")):
            schools = {"schools": {"clot_route": route}} if route else {}
            (flag,) = self.reading(two, **schools)["flags"]
            self.assertEqual((flag["strength"], flag["urgency"]), ("likely", urgency))
            self.assertIn("Not answered", flag["against"][0])
        three = done("leg.clot", cancer=True, immobile=True, other_diagnosis_as_likely=True)
        self.assertEqual(self.right(three), {})

    def test_a12_history_answers_its_items(self) -> None:
        for item in (
            {"region": "leg", "kind": "clot"},
            {"region": "knee", "kind": "surgery", "weeks_ago": 12},
        ):
            self.assertEqual(
                self.right(done("leg.clot", cancer=False), intake={"history": [item]}), {CLOT: "possible"}
            )
        clot = {"history": [{"region": "leg", "kind": "clot"}]}
        self.assertEqual(self.right(done("leg.clot", previous_clot=False), intake=clot), {CLOT: "possible"})
        old = {"region": "knee", "kind": "surgery", "weeks_ago": 12.1}
        self.assertEqual(self.right(done("leg.clot", cancer=False), intake={"history": [old]}), {})

    def test_a12_the_sign_alone_says_nothing(self) -> None:
        sign = {"dorsiflexion_calf_pain": True}
        self.assertEqual(self.right(measured("leg.clot", sign)), {})
        self.assertEqual(
            self.right(measured("leg.clot", {**sign, "calf_hot_or_red": True})), {CLOT: "possible"}
        )
        self.assertEqual(
            self.right(measured("leg.clot", {**sign, "calf_girth_difference": 10})), {CLOT: "possible"}
        )
        for there, expected in ((350, {CLOT: "possible"}), (351, {})):
            girths = [done("ankle.look", girth=360), done("ankle.look", "left", girth=there)]
            self.assertEqual(self.right(measured("leg.clot", sign), *girths), expected)
        self.assertEqual(self.right(measured("leg.clot", {**sign, "calf_girth_difference": 9.9})), {})

    def test_a12_holds_the_calf_and_is_asked_first_in_calf_pain(self) -> None:
        reading = self.reading(done("leg.clot", cancer=True), done("ankle.calf_squeeze", foot_moves="brisk"))
        self.assertEqual(
            [(h["test"], h["gate"]) for h in reading["held"]], [("ankle.calf_squeeze", "clot_doubt")]
        )
        asked = self.reading(**hurt("leg", None, "gradual", sites=["calf"]))
        self.assertEqual(asked["next"][0]["test"], "leg.clot")


class Blood(CoreCase):
    def test_a13_perfusion(self) -> None:
        perfusion = "vascular.perfusion"
        ready = (tender(), steps("yes", "yes"))
        for values, expected in (
            ({"dorsalis_pedis": "absent"}, {perfusion: "strong"}),
            ({"dorsalis_pedis": "weak", "skin": "cool"}, {perfusion: "strong"}),
            ({"dorsalis_pedis": "weak", "refill": 3.1}, {perfusion: "strong"}),
            ({"dorsalis_pedis": "weak", "refill": 3}, {}),
            ({"skin": "pale", "refill": 3.1}, {perfusion: "strong"}),
            ({"skin": "pale"}, {}),
            ({"dorsalis_pedis": "strong"}, {}),
        ):
            found = self.right(*ready, done("ankle.pulses", **values), **hurt())
            self.assertEqual(found, expected, values)
        uneven = self.right(
            *ready,
            done("ankle.pulses", dorsalis_pedis="weak"),
            done("ankle.pulses", "left", dorsalis_pedis="strong"),
            **hurt(),
        )
        self.assertEqual(uneven, {perfusion: "possible"})
        self.assertEqual(
            self.right(done("ankle.pulses", dorsalis_pedis="absent"), **hurt(kind="gradual")), {}
        )

    def test_a13_compartment_whenever(self) -> None:
        for sign in ("tense", "stretch_pain"):
            reading = self.reading(measured("leg.compartment", {sign: True}))
            (flag,) = reading["flags"]
            self.assertEqual(
                (flag["code"], flag["strength"], flag["urgency"]),
                ("vascular.compartment", "likely", "emergency"),
            )
        self.assertEqual(self.right(done("leg.compartment", tense=False, stretch_pain=False)), {})
