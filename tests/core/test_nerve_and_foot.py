"""A14 and F1 to F12: each rule firing, just short of it, missing input, its urgency and caps."""

from __future__ import annotations

from typing import Any

from tests.support.ankle import CoreCase, done, hurt, measured, pain, steps, tender

TUNNEL, PERONEAL = "nerve.tarsal_tunnel", "nerve.common_peroneal"
MIDFOOT, FASCIA, SKIN = "instability.tarsometatarsal", "tendon.plantar_fascia", "danger.foot_skin"
VALGUS, VARUS, LOW, HIGH = (
    "alignment.hindfoot_valgus",
    "alignment.hindfoot_varus",
    "alignment.low_arch",
    "alignment.high_arch",
)
ITEMS = (
    "talar_head",
    "malleolar_curves",
    "calcaneal_angle",
    "talonavicular_bulge",
    "medial_arch",
    "forefoot_abduction",
)


def standing(**right: Any) -> dict[str, Any]:
    return {"test": "foot.standing", "values": {name: {"right": value} for name, value in right.items()}}


class Nerves(CoreCase):
    TINEL = done("ankle.tinel", site="tarsal_tunnel", result="positive")

    def test_a14_single_fields(self) -> None:
        for field in ("superficial_peroneal", "deep_peroneal", "sural", "saphenous"):
            for felt, expected in (("less", "possible"), ("absent", "possible"), ("same", None)):
                found = self.right(done("ankle.sensation", **{field: felt}))
                self.assertEqual(found.get(f"nerve.{field}"), expected)
        self.assertEqual(self.flag("nerve.sural", done("ankle.sensation", sural="less"))["urgency"], "refer")

    def test_a14_the_tunnel_takes_its_fields(self) -> None:
        for field in ("medial_plantar", "lateral_plantar", "medial_calcaneal"):
            found = self.right(done("ankle.sensation", **{field: "less"}))
            self.assertEqual(found, {TUNNEL: "possible"})
        here = done("ankle.toe_spread", result="unable")
        there = {side: done("ankle.toe_spread", "left", result=side) for side in ("able", "unable")}
        numb = done("ankle.sensation", medial_plantar="absent")
        for entries, expected in (
            ([self.TINEL], "possible"),
            ([self.TINEL, numb], "likely"),
            ([self.TINEL, numb, here, there["able"]], "likely"),
            ([here, there["able"]], "possible"),
            ([here, there["unable"]], None),
            ([here], None),
            ([done("ankle.tinel", site="fibular_neck", result="positive")], None),
            ([done("ankle.tinel", site="tarsal_tunnel", result="negative")], None),
        ):
            self.assertEqual(self.right(*entries).get(TUNNEL), expected)

    def test_a14_foot_drop(self) -> None:
        neck = done("ankle.tinel", site="fibular_neck", result="positive")
        lifts = {grade: done("ankle.resisted.dorsiflexion", grade=grade) for grade in ("3", "3+", "4", "4+")}
        steppage = {"test": "hip.gait", "values": {"steppage": True}}
        listed = {"test": "hip.gait", "values": {"pattern": ["steppage"]}}
        sound = (tender(), steps("yes", "yes"))
        for entries, parts, expected in (
            ([lifts["4"], neck], {}, ("likely", "refer")),
            ([lifts["4+"], neck], {}, None),
            ([lifts["4"], steppage], {}, ("likely", "refer")),
            ([lifts["4"], listed], {}, ("likely", "refer")),
            ([lifts["4"]], {}, None),
            ([neck], {}, None),
            ([lifts["3"]], {}, ("likely", "refer")),
            ([*sound, lifts["3"]], hurt("leg"), ("likely", "same_day")),
            ([*sound, lifts["3+"]], hurt("leg"), None),
            ([*sound, lifts["3"]], hurt("leg", kind="gradual"), ("likely", "refer")),
        ):
            flags = [f for f in self.reading(*entries, **parts)["flags"] if f["code"] == PERONEAL]
            self.assertEqual((flags[0]["strength"], flags[0]["urgency"]) if flags else None, expected)

    def test_a14_a_foot_drop_is_seen_within_a_week_and_not_trained(self) -> None:
        reading = self.reading(done("ankle.resisted.dorsiflexion", grade="3"), **hurt(kind="gradual"))
        self.assertEqual(
            [(a["code"], a.get("to")) for a in reading["actions"]],
            [("refer.nerve_common_peroneal", "2026-09-21")],
        )
        weak = self.flag(
            "weakness.ankle_dorsiflexors",
            done("ankle.resisted.dorsiflexion", grade="3"),
            **hurt(kind="gradual"),
        )
        self.assertEqual((weak["strength"], weak["urgency"]), ("likely", None))
        other = self.reading(done("ankle.resisted.plantarflexion", grade="3"), **hurt(kind="gradual"))
        self.assertEqual([a["code"] for a in other["actions"]], ["train.weakness_ankle_plantarflexors"])
        unknown = self.reading(done("ankle.resisted.dorsiflexion", grade="3"))
        self.assertEqual([(a["item"], a["urgent"]) for a in unknown["ask"]], [("onset.kind", True)])

    def test_a14_a_held_foot_drop_is_not_lost(self) -> None:
        drop = done("ankle.resisted.dorsiflexion", grade="3")
        reading = self.reading(drop, **hurt("leg"))
        self.assertEqual([item["test"] for item in reading["held"]], ["ankle.resisted.dorsiflexion"])
        flag = next(flag for flag in reading["flags"] if flag["code"] == PERONEAL)
        self.assertEqual((flag["strength"], flag["urgency"]), ("likely", "same_day"))
        self.assertIn("recorded while held", flag["against"])

    def test_a14_asks_for_the_low_back(self) -> None:
        numb = done("ankle.sensation", sural="less")
        reading = self.reading(numb)
        self.assertIn("lumbar.screen", [item["test"] for item in reading["next"]])
        self.assertTrue(any("low back" in says for says in reading["flags"][0]["against"]))
        screened = self.reading(numb, {"test": "lumbar.screen", "values": {"reproduces": False}})
        self.assertEqual((screened["next"], screened["flags"][0]["against"]), ([], []))

    def test_f5_web_space(self) -> None:
        code = "nerve.interdigital"
        for values, hurts, expected in (
            ({"space": 3, "result": "positive"}, True, "likely"),
            ({"space": 3, "click": True}, False, "likely"),
            ({"result": "positive"}, True, "possible"),
            ({"space": 3, "result": "negative", "click": False}, False, None),
        ):
            entry = done("foot.web_squeeze", pain=pain("web_space") if hurts else None, **values)
            self.assertEqual(self.right(entry).get(code), expected)

    def test_f5_pain_at_a_toe_joint_asks_for_its_plate(self) -> None:
        joint = done("foot.web_squeeze", pain=pain("lesser_mtp"), space=3, result="positive")
        reading = self.reading(joint)
        self.assertEqual(reading["flags"], [])
        self.assertEqual([item["test"] for item in reading["next"]], ["foot.plantar_plate"])
        clicks = {**joint, "values": {"space": 3, "click": True}}
        self.assertEqual(self.right(clicks), {"nerve.interdigital": "likely"})


class Shape(CoreCase):
    def test_f1_hindfoot(self) -> None:
        for angle, code, expected in (
            (7, VALGUS, None),
            (7.1, VALGUS, "possible"),
            (10, VALGUS, "possible"),
            (10.1, VALGUS, "likely"),
            (0, VARUS, None),
            (-0.1, VARUS, "possible"),
            (-3, VARUS, "possible"),
            (-3.1, VARUS, "likely"),
            (4, VALGUS, None),
        ):
            self.assertEqual(self.right(standing(hindfoot_angle=angle)).get(code), expected, angle)

    def test_f1_flexible_or_rigid(self) -> None:
        for turns, count, word, urgency in (
            (True, 1, "flexible", None),
            (False, 1, "rigid", "refer"),
            (False, None, "rigid", "refer"),
            (False, 0, "out 8°.", None),
            (None, 5, "out 8°.", None),
        ):
            told = {name: v for name, v in (("heel_turns_in", turns), ("count", count)) if v is not None}
            rise = [measured("ankle.heel_rise", told)]
            flag = self.flag(VALGUS, standing(hindfoot_angle=8), *rise)
            self.assertIn(word, flag["because"][0]["says"])
            self.assertEqual(flag["urgency"], urgency)

    def test_f2_drop_index_and_toes(self) -> None:
        for standing_height, expected in ((40, None), (39.9, "possible"), (35, "possible"), (34.9, "likely")):
            entry = done("foot.navicular_drop", height_neutral=50, height_standing=standing_height)
            self.assertEqual(self.right(entry).get(LOW), expected, standing_height)
        self.assertEqual(self.right(done("foot.navicular_drop", height_neutral=50)), {})
        for total, code, expected in (
            (5, LOW, None),
            (6, LOW, "possible"),
            (9, LOW, "possible"),
            (10, LOW, "likely"),
            (0, HIGH, None),
            (-1, HIGH, "possible"),
            (-4, HIGH, "possible"),
            (-5, HIGH, "likely"),
        ):
            found = self.right(measured("foot.posture_index", index(total)))
            self.assertEqual(found, {code: expected} if expected else {}, total)
        five = dict.fromkeys(ITEMS[:5], 2)
        self.assertEqual(self.right(measured("foot.posture_index", five)), {})
        flag = self.flag(LOW, measured("foot.posture_index", index(6)), standing(toes_seen_outside=3))
        self.assertIn("toes", flag["because"][0]["says"])
        self.assertEqual(self.right(standing(toes_seen_outside=5)), {})


def index(total: int) -> dict[str, Any]:
    """Six items that add up."""
    sign, left = (1 if total >= 0 else -1), abs(total)
    scores: dict[str, Any] = {}
    for item in ITEMS:
        scores[item] = sign * min(2, left)
        left -= min(2, left)
    return scores


class Midfoot(CoreCase):
    SORE = done("foot.midfoot_stress", laxity=0, pain=pain("midfoot"))
    BRUISE = done("ankle.look", bruising=["plantar_midfoot"])

    def test_f3_table(self) -> None:
        for entries, expected in (
            ([done("foot.midfoot_stress", laxity=1)], ("strong", "same_day")),
            ([self.SORE, self.BRUISE], ("strong", "same_day")),
            ([self.SORE, done("ankle.heel_rise", count=0)], ("likely", "same_day")),
            ([self.SORE, done("ankle.heel_rise", count=1)], ("possible", "refer")),
            ([self.SORE], ("possible", "refer")),
            ([self.SORE, done("ankle.look", bruising=["toes"])], ("possible", "refer")),
        ):
            flag = self.flag(MIDFOOT, *entries)
            self.assertEqual((flag["strength"], flag["urgency"]), expected)
        self.assertNotIn(MIDFOOT, self.right(done("foot.midfoot_stress", laxity=0), self.BRUISE))

    def test_f3_the_cap_never_takes_the_urgency(self) -> None:
        both = [done("foot.midfoot_stress", side, laxity=1) for side in ("left", "right")]
        flag = self.flag(MIDFOOT, *both)
        self.assertEqual((flag["strength"], flag["urgency"]), ("possible", "same_day"))
        sore = done("foot.midfoot_stress", laxity=1, pain=pain("midfoot"))
        self.assertEqual(self.flag(MIDFOOT, sore, both[0], self.BRUISE)["strength"], "strong")

    def test_f3_hidden_under_an_ankle_complaint(self) -> None:
        stress = done("foot.midfoot_stress", laxity=1)
        answered = self.flag(MIDFOOT, tender(), steps("yes", "yes"), stress, **hurt("ankle"))
        self.assertEqual((answered["strength"], answered["urgency"]), ("strong", "same_day"))
        held = self.flag(MIDFOOT, stress, **hurt("ankle"))
        self.assertEqual((held["strength"], held["urgency"]), ("likely", "same_day"))

    def test_f4_f6_by_grade_and_by_place(self) -> None:
        for code, test, key, here, elsewhere in (
            ("instability.intermetatarsal", "foot.metatarsal_shear", "between", "1_2", "4_5"),
            ("instability.plantar_plate", "foot.plantar_plate", "toe", 2, 3),
        ):
            for grade, expected in ((1, "possible"), (2, "likely"), (3, "strong")):
                self.assertEqual(self.right(measured(test, {"laxity": grade, key: here})), {code: expected})
            entry = measured(test, {"laxity": 2, key: here})
            same = measured(test, {"laxity": 2, key: here}, "left")
            other = measured(test, {"laxity": 2, key: elsewhere}, "left")
            self.assertEqual(self.right(entry, same)[code], "possible")
            self.assertEqual(self.right(entry, other)[code], "likely")
            sound = measured(test, {"laxity": 0, key: elsewhere})
            self.assertEqual(self.right(entry, sound)[code], "likely")


class SoleAndHeel(CoreCase):
    HEEL = done("foot.plantar_fascia", pain=pain("heel_medial"))

    def heel(self, *entries: dict[str, Any], symptoms: tuple[str, ...] = (), side: str = "right") -> Any:
        intake = {"complaint": {"region": "foot", "side": side}, "symptoms": list(symptoms)}
        flags = self.reading(*entries, intake=intake)["flags"]
        found = [(f["strength"], f["urgency"]) for f in flags if f["code"] == FASCIA and f["side"] == "right"]
        return found[0] if found else None

    def test_f9_heel(self) -> None:
        first = "first_step_pain"
        for entries, symptoms, expected in (
            ([self.HEEL], (first,), ("likely", "train")),
            ([tender("plantar_fascia_medial")], (first,), ("likely", "train")),
            ([self.HEEL], (), ("possible", None)),
            ([], (first,), ("possible", None)),
            ([done("foot.windlass", result="positive")], (), ("possible", None)),
            ([done("foot.windlass", pain=pain("heel_medial"))], (), ("possible", None)),
            ([done("foot.plantar_fascia", pain=pain("arch"))], (), None),
            ([done("foot.plantar_fascia", pain={"present": False})], (), None),
            ([self.HEEL], (first, "psoriasis"), ("likely", "refer")),
            ([self.HEEL], ("not_better_after_care",), ("possible", "refer")),
        ):
            self.assertEqual(self.heel(*entries, symptoms=symptoms), expected, (entries, symptoms))
        both = [self.HEEL, done("foot.plantar_fascia", "left", pain=pain("heel_medial"))]
        self.assertEqual(self.heel(*both, symptoms=(first,)), ("likely", "refer"))
        self.assertEqual(self.heel(self.HEEL, symptoms=(first,), side="both"), ("likely", "refer"))

    def test_f9_the_heel_bone_speaks_against_and_feeds_stress(self) -> None:
        squeeze = done("foot.calcaneal_squeeze", result="positive")
        flag = self.flag(FASCIA, self.HEEL, squeeze)
        self.assertTrue(any("bone" in says for says in flag["against"]))
        story = hurt("foot", None, "gradual", load_change=True)
        self.assertEqual(self.right(self.HEEL, squeeze, **story)["fracture.calcaneus"], "possible")

    def test_f7_f8_f10(self) -> None:
        for entry, expected in (
            (done("foot.mtp_grind", toe=1, result="positive"), {"mobility.mtp_joint": "possible"}),
            (done("foot.mtp_grind", toe=1, result="negative"), {}),
            (done("foot.sesamoid", which="inner", pain=pain("sesamoid")), {"tendon.sesamoid": "possible"}),
            (done("foot.sesamoid", which="inner", pain={"present": False}), {}),
            (done("foot.sinus_tarsi", pain=pain("sinus_tarsi")), {"impingement.sinus_tarsi": "possible"}),
            (tender("sinus_tarsi"), {"impingement.sinus_tarsi": "possible"}),
            (tender("spring_ligament"), {"sprain.spring_ligament": "possible"}),
            (done("foot.spring_ligament", pain=pain("arch")), {"sprain.spring_ligament": "possible"}),
            (done("foot.spring_ligament", pain={"present": False}), {}),
        ):
            self.assertEqual(self.right(entry), expected)

    def test_f12_the_sole(self) -> None:
        broken = done("foot.soles", skin_break=True)
        for entries, intake, urgency in (
            ([broken], {}, "refer"),
            ([done("foot.soles", infection=True)], {}, "refer"),
            ([broken], {"symptoms": ["numbness"]}, "same_day"),
            ([broken, done("ankle.sensation", monofilament="not_felt")], {}, "same_day"),
            ([broken, done("ankle.sensation", monofilament="felt")], {}, "refer"),
            ([broken, done("ankle.sensation", "left", monofilament="not_felt")], {}, "refer"),
            ([broken, done("ankle.sensation", sural="absent")], {}, "same_day"),
        ):
            flag = self.flag(SKIN, *entries, intake=intake)
            self.assertEqual((flag["strength"], flag["urgency"]), ("likely", urgency))
        self.assertEqual(self.right(done("foot.soles", skin_break=False, infection=False)), {})
