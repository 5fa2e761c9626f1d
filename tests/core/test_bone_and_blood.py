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
                stepped = "yes" in (then, now)
                self.assertEqual(cleared, set() if expected or not stepped else {ANKLE, MIDFOOT})

    def test_a0_clears_only_after_a_sudden_injury_with_every_answer(self) -> None:
        sound = (tender("atfl"), steps("yes", "yes"))
        self.assertEqual(len(self.reading(*sound, **hurt())["ruled_down"]), 2)
        for parts in (hurt(kind="gradual"), hurt("foot", kind="gradual", onset=None)):
            self.assertEqual(self.reading(*sound, **parts)["ruled_down"], [])
        by_mechanism = hurt()
        by_mechanism["intake"]["onset"] = {"mechanism": "inversion"}
        self.assertEqual(len(self.reading(*sound, **by_mechanism)["ruled_down"]), 2)
        for entries in (
            (tender("atfl"), done("ankle.weight_bearing", now="yes")),
            (tender("atfl"),),
            (steps("yes", "yes"),),
            (done("ankle.palpation", tender=[], pressed=["navicular"]), steps("yes", "yes")),
        ):
            cleared = {item["code"] for item in self.reading(*entries, **hurt())["ruled_down"]}
            self.assertNotIn(ANKLE, cleared, entries)

    def test_a0_a_broken_bone_keeps_every_code_of_its_own_side_open(self) -> None:
        told = hurt()
        told["intake"]["complaint"]["side"] = "both"
        left = [{**entry, "side": "left"} for entry in (tender("atfl"), steps("yes", "yes"))]
        reading = self.reading(tender("navicular"), steps("yes", "yes"), *left, **told)
        cleared = {(item["code"], item["side"]) for item in reading["ruled_down"]}
        self.assertEqual(cleared, {(ANKLE, "left"), (MIDFOOT, "left")})

    def test_danger_keeps_the_joint_of_its_side_open(self) -> None:
        negative = [done("hip.fadir", side, result="negative") for side in ("left", "right")]
        for red_flags, cleared in (
            ([], {"left", "right"}),
            (["fever_hot_joint"], {"left"}),
            (["breathless_or_chest_pain"], set()),
        ):
            told = hurt("hip", kind="gradual", red_flags=red_flags)
            found = self.reading(*negative, **told)["ruled_down"]
            sides = {item["side"] for item in found if item["code"] == "intra_articular.impingement"}
            self.assertEqual(sides, cleared, red_flags)

    def test_a0_not_able_both_times_clears_nothing_in_whatever_zone_the_pain_is(self) -> None:
        for region in ("ankle", "foot", "leg", "knee", "none"):
            reading = self.reading(tender(), steps("no", "no"), **hurt(region))
            self.assertEqual(reading["ruled_down"], [], region)

    def test_a0_reads_a_kind_nobody_gave_as_sudden_and_clears_nothing_by_it(self) -> None:
        sound = (tender("atfl"), steps("yes", "yes"))
        parts = {"purpose": "ankle_injury", **hurt()}
        del parts["intake"]["onset"]
        reading = self.reading(*sound, **parts)
        self.assertEqual((reading["ruled_down"], reading["held"]), ([], []))
        self.assertEqual([(a["item"], a["urgent"]) for a in reading["ask"]], [("onset.kind", False)])
        (asked,) = self.reading(tender("atfl"), **parts)["ask"]
        self.assertEqual((asked["item"], asked["urgent"]), ("onset.kind", True))

    def test_a0_age_not_known_clears_nothing(self) -> None:
        unknown = {"athlete": {"ref": "T-1"}}
        reading = self.reading(tender("atfl"), steps("yes", "yes"), **hurt(), **unknown)
        self.assertEqual(reading["ruled_down"], [])
        self.assertEqual([(a["item"], a["urgent"]) for a in reading["ask"]], [("birth_date", True)])

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
        gradual = self.right(tender("fibular_head"), sound, **hurt(kind="gradual", load_change=False))
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
        for region in ("hip", "groin", "thigh"):
            found = self.flag("fracture.femur", steps("yes", "no"), **hurt(region))
            self.assertEqual((found["strength"], found["urgency"]), ("possible", "same_day"))
            self.assertEqual(self.right(steps("no", "yes"), **hurt(region)), {})
        leg = self.flag("fracture.tibia", steps("no", "no"), **hurt("leg"))
        self.assertEqual((leg["strength"], leg["urgency"]), ("possible", "same_day"))
        for then, now in (("yes", "no"), ("no", "yes")):
            self.assertEqual(self.right(steps(then, now), **hurt("leg")), {})

    def test_a1d_the_knee_rule(self) -> None:
        """Stiell 1995: no steps then and now, a tender fibular head, or 55 and older."""
        knee = "fracture.knee"
        for entry in (steps("no", "no"), tender("fibular_head")):
            found = self.flag(knee, entry, **hurt("knee"))
            self.assertEqual((found["strength"], found["urgency"]), ("possible", "same_day"))
        for entry in (steps("yes", "no"), steps("no", "yes"), tender("fibula_shaft")):
            self.assertNotIn(knee, self.right(entry, **hurt("knee")))
        for born, old in (("1971-09-14", True), ("1971-09-15", False)):
            athlete = {"athlete": {"ref": "T-1", "birth_date": born}}
            found = self.right(**hurt("knee"), **athlete)
            self.assertEqual(found, {knee: "possible"} if old else {})
        for parts in (hurt("ankle"), hurt("knee", kind="gradual")):
            self.assertNotIn(knee, self.right(steps("no", "no"), **parts))
        held = self.reading(
            done("hip.fadir", result="positive"),
            done("ankle.lunge", distance=90),
            steps("no", "no"),
            **hurt("knee"),
        )["held"]
        self.assertEqual({item["test"] for item in held}, {"hip.fadir", "ankle.lunge"})

    def test_a1c_stress(self) -> None:
        def stressed(*entries: dict[str, Any], **intake: Any) -> Reading:
            return self.reading(*entries, **hurt("leg", None, "gradual", **{"load_change": True, **intake}))

        for point, bone, urgency in (
            ("navicular", "navicular", "same_day"),
            ("tibia_shaft", "tibia", "refer"),
            ("medial_malleolus_posterior", "tibia", "same_day"),
            ("talar_dome", "talus", "same_day"),
            ("fifth_metatarsal_base", "metatarsal", "same_day"),
            ("anterior_process", "calcaneus", "refer"),
            ("fibula_shaft", "fibula", "refer"),
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
        self.assertEqual([(f["code"], f["urgency"]) for f in tapped], [("fracture.tibia", "refer")])
        hop = stressed(tender("tibia_shaft"), done("ankle.hop", able=True, pain={"present": True}))
        self.assertEqual(strengths(hop)[("fracture.tibia", "right")], "likely")
        fulcrum = stressed(done("hip.fulcrum", result="positive"))
        self.assertEqual(strengths(fulcrum), {("fracture.femur", "right"): "possible"})
        self.assertEqual(stressed(tender("tibia_shaft"), load_change=False)["flags"], [])

    def test_a1c_the_shin_is_seen_the_same_day_when_likely_and_within_a_week_else(self) -> None:
        for intake, strength, urgency, last in (
            ({"load_change": True}, "possible", "refer", "2026-09-21"),
            ({"load_change": True, "symptoms": ["night_pain"]}, "likely", "same_day", None),
            ({}, "possible", "refer", "2026-09-21"),
            # Nobody asked about load: what yes would give is to be done, and it stays possible.
            ({"symptoms": ["night_pain"]}, "possible", "same_day", None),
        ):
            reading = self.reading(tender("tibia_shaft"), **hurt("leg", None, "gradual", **intake))
            (flag,) = [f for f in reading["flags"] if f["code"] == "fracture.tibia"]
            self.assertEqual((flag["strength"], flag["urgency"]), (strength, urgency), intake)
            (action,) = [a for a in reading["actions"] if a["code"].endswith("fracture_tibia")]
            self.assertEqual(action.get("to"), last)

    def test_a1c_load_nobody_asked_about_is_asked(self) -> None:
        story = hurt("leg", None, "gradual", asked=["night_pain"])
        reading = self.reading(tender("calcaneus"), **story)
        self.assertEqual(strengths(reading), {("fracture.calcaneus", "right"): "possible"})
        self.assertEqual([(a["item"], a["urgent"]) for a in reading["ask"]], [("load_change", True)])

    def test_u3_a_sore_bone_of_unknown_kind_is_no_flag_and_a_question(self) -> None:
        for point in ("calcaneus", "tibia_shaft", "fibular_head", "talar_dome", "metatarsal_shaft"):
            reading = self.reading(tender(point), intake={"complaint": {"region": "leg"}})
            self.assertEqual(reading["flags"], [], point)
            self.assertIn("onset.kind", [a["item"] for a in reading["ask"]], point)

    def test_a1c_the_inner_edge_of_the_shin_is_not_the_bone(self) -> None:
        code = "tendon.medial_tibia"
        for points, load, expected in (
            (["tibia_inner_edge"], True, {code: "likely"}),
            (["tibia_inner_edge"], False, {code: "possible"}),
            (["tibia_inner_edge"], None, {code: "possible"}),
            (["tibia_inner_edge", "tibia_shaft"], True, {"fracture.tibia": "possible"}),
        ):
            intake = {} if load is None else {"load_change": load}
            found = self.right(tender(*points), **hurt("leg", None, "gradual", **intake))
            self.assertEqual(found, expected)
        self.assertEqual(self.right(tender("tibia_inner_edge"), steps("yes", "yes"), **hurt("leg")), {})

    def test_a1c_the_thigh(self) -> None:
        for site in ("anterior_thigh", "lateral_thigh"):
            story = hurt("thigh", None, "gradual", load_change=True, sites=[site])
            for test, strength in (
                ("ankle.hop", "likely"),
                ("hip.fulcrum", "possible"),
                ("hip.rom.internal_rotation_90", "possible"),
            ):
                flag = self.flag("fracture.femur", done(test, pain=pain(site)), **story)
                self.assertEqual((flag["strength"], flag["urgency"]), (strength, "same_day"))
            elsewhere = hurt("thigh", None, "gradual", load_change=True, sites=["groin"])
            turned = done("hip.rom.internal_rotation_90", pain=pain(site))
            self.assertNotIn("fracture.femur", self.right(turned, **elsewhere))

    def test_a1c_a_sesamoid_with_load_and_night_pain(self) -> None:
        sore = done("foot.sesamoid", which="inner", pain=pain())
        story = hurt("foot", None, "gradual", load_change=True, symptoms=["night_pain"])
        flag = self.flag("fracture.sesamoid", sore, **story)
        self.assertEqual((flag["strength"], flag["urgency"]), ("possible", "refer"))
        self.assertEqual(set(self.right(sore, **story)), {"fracture.sesamoid"})
        for less in ({"load_change": True}, {"load_change": False, "symptoms": ["night_pain"]}):
            found = self.right(sore, **hurt("foot", None, "gradual", **less))
            self.assertEqual(found, {"tendon.sesamoid": "possible"})

    def test_a1c_the_place_of_hop_pain_names_the_bone(self) -> None:
        story = hurt("leg", None, "gradual", load_change=True)
        for site, bone, urgency in (
            ("anterior_thigh", "femur", "same_day"),
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

    def test_a12_surgery_known_by_its_day_alone_counts_up_to_twelve_weeks(self) -> None:
        for day, expected in (("2026-06-22", {CLOT: "possible"}), ("2026-06-21", {})):
            history = [{"region": "knee", "kind": "surgery", "date": day}]
            found = self.right(done("leg.clot", cancer=False), intake={"history": history})
            self.assertEqual(found, expected, day)

    def test_a12_half_a_sign_holds_until_the_other_half_is_answered(self) -> None:
        def doubts(**values: Any) -> list[str]:
            reading = self.reading(
                measured("leg.clot", values), done("ankle.calf_squeeze", foot_moves="brisk")
            )
            return [item["gate"] for item in reading["held"]]

        self.assertEqual(doubts(calf_hot_or_red=True), ["clot_doubt"])
        self.assertEqual(doubts(calf_hot_or_red=True, dorsiflexion_calf_pain=False), [])
        self.assertEqual(doubts(dorsiflexion_calf_pain=True), ["clot_doubt"])
        answered = {"calf_hot_or_red": False, "whole_leg_swollen": False}
        self.assertEqual(doubts(dorsiflexion_calf_pain=True, **answered), [])
        self.assertEqual(doubts(dorsiflexion_calf_pain=False), [])

    def test_a12_what_the_story_scores_holds_until_the_check_is_done(self) -> None:
        parts = hurt("hip", None, "gradual", sites=["groin"])
        parts["intake"]["history"] = [{"region": "hip", "kind": "clot"}]
        squeeze = done("ankle.calf_squeeze", foot_moves="brisk")
        waiting = self.reading(squeeze, **parts)
        self.assertEqual([item["gate"] for item in waiting["held"]], ["clot_doubt"])
        self.assertEqual(waiting["next"][0]["test"], "leg.clot")
        other = self.reading(done("ankle.calf_squeeze", "left", foot_moves="brisk"), **parts)
        self.assertEqual(other["held"], [])

    def test_a12_holds_the_calf_and_is_asked_first_in_calf_pain(self) -> None:
        reading = self.reading(done("leg.clot", cancer=True), done("ankle.calf_squeeze", foot_moves="brisk"))
        self.assertEqual(
            [(h["test"], h["gate"]) for h in reading["held"]], [("ankle.calf_squeeze", "clot_doubt")]
        )
        asked = self.reading(**hurt("leg", None, "gradual", sites=["calf"]))
        self.assertEqual(asked["next"][0]["test"], "leg.clot")

    def test_a12_where_a_clot_is_thinkable_it_is_asked_before_the_bone(self) -> None:
        surgery = [{"region": "knee", "side": "right", "kind": "surgery", "weeks_ago": 3}]
        for entries, parts, thinkable in (
            ([], hurt("leg"), True),
            ([], hurt("thigh", sites=["posterior_thigh"]), True),
            ([done("ankle.look", swelling_site=["calf"])], hurt("ankle"), True),
            ([], hurt("ankle", history=surgery), True),
            ([done("ankle.look", swelling=1)], {"intake": {"history": surgery}}, True),
            ([], hurt("ankle", history=[{**surgery[0], "side": "both"}]), True),
            # Nobody knows which leg, or when.
            ([], hurt("ankle", history=[{"region": "knee", "kind": "surgery", "weeks_ago": 3}]), True),
            ([], hurt("ankle", history=[{"region": "knee", "side": "right", "kind": "surgery"}]), True),
            ([], hurt("ankle", history=[{**surgery[0], "weeks_ago": 13}]), False),
            ([], hurt("ankle", history=[{**surgery[0], "side": "left"}]), False),
            ([], {"intake": {"history": surgery}}, False),
            ([done("ankle.look", swelling_site=["medial"])], hurt("ankle"), False),
            ([], hurt("ankle"), False),
        ):
            asked = [item["test"] for item in self.reading(*entries, **parts)["next"]]
            self.assertEqual(asked[:1] == ["leg.clot"], thinkable, (entries, parts))


class Blood(CoreCase):
    def test_a13_perfusion(self) -> None:
        perfusion = "vascular.perfusion"
        ready = (tender(), steps("yes", "yes"))
        for values, expected in (
            ({"dorsalis_pedis": "absent", "skin": "warm"}, {perfusion: "strong"}),
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

    def test_a13_a_cold_pulseless_foot_is_an_emergency_whatever_the_onset(self) -> None:
        perfusion = "vascular.perfusion"
        for parts in (hurt(kind="gradual"), {}, hurt("none", kind="gradual"), hurt(onset="2020-01-01")):
            for more in ({"skin": "cool"}, {"skin": "pale"}, {"refill": 3.1}):
                flag = self.flag(perfusion, done("ankle.pulses", dorsalis_pedis="absent", **more), **parts)
                self.assertEqual((flag["strength"], flag["urgency"]), ("strong", "emergency"))
            warm = done("ankle.pulses", dorsalis_pedis="absent", skin="warm", refill=2)
            flag = self.flag(perfusion, warm, **parts)
            self.assertEqual((flag["strength"], flag["urgency"]), ("possible", "refer"))

    def test_a13_a_kind_nobody_gave(self) -> None:
        """U1: a weak pulse in a cold foot is read as an injury, a missing one in a warm foot is not."""
        perfusion = "vascular.perfusion"
        story: dict[str, Any] = {"intake": {"complaint": {"region": "foot", "side": "right"}}}
        weak = done("ankle.pulses", dorsalis_pedis="weak", refill=4)
        self.assertEqual(self.flag(perfusion, weak, **story)["urgency"], "emergency")
        warm = done("ankle.pulses", dorsalis_pedis="absent", skin="warm", refill=2)
        self.assertEqual(self.flag(perfusion, warm, **story)["urgency"], "refer")
        slow = done("ankle.pulses", skin="cool", refill=4)
        for entry in (weak, warm, slow):
            asked = [(a["item"], a["urgent"]) for a in self.reading(entry, **story)["ask"]]
            self.assertIn(("onset.kind", True), asked)

    def test_a13_a_missing_pulse_asks_for_skin_and_refill(self) -> None:
        reading = self.reading(done("ankle.pulses", dorsalis_pedis="absent"), **hurt(kind="gradual"))
        self.assertEqual(reading["next"][0]["test"], "ankle.pulses")

    def test_a13_compartment_whenever(self) -> None:
        for sign in ("tense", "stretch_pain"):
            reading = self.reading(measured("leg.compartment", {sign: True}))
            (flag,) = reading["flags"]
            self.assertEqual(
                (flag["code"], flag["strength"], flag["urgency"]),
                ("vascular.compartment", "likely", "emergency"),
            )
        self.assertEqual(self.right(done("leg.compartment", tense=False, stretch_pain=False)), {})
