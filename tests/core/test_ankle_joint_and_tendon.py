"""A9 to A11, A15, A16: each rule firing, just short of it, missing input, its steps and caps."""

from __future__ import annotations

from typing import Any

from tests.support.ankle import CoreCase, done, hurt, measured, pain, steps, tender

BENT, STRAIGHT = "ankle.rom.dorsiflexion_knee_bent", "ankle.rom.dorsiflexion_knee_straight"
DORSIFLEXION, TALUS = "mobility.ankle_dorsiflexion", "mobility.talocrural_posterior_glide"
GASTROCNEMIUS, SOLEUS = "tightness.gastrocnemius", "tightness.soleus"
RUPTURE, ACHILLES = "tendon.achilles_rupture", "tendon.achilles"
TIBIALIS, CALF, CONTROL = "tendon.tibialis_posterior", "weakness.ankle_plantarflexors", "control.ankle"
SQUEEZE = "ankle.calf_squeeze"


class Subtalar(CoreCase):
    def test_a9_by_grade_and_against_the_other_side(self) -> None:
        for test, low in (
            ("subtalar.medial_glide", "mobility.subtalar_eversion"),
            ("subtalar.lateral_glide", "mobility.subtalar_inversion"),
        ):
            for grade, other, expected in (
                (3, None, {}),
                (2, None, {low: "possible"}),
                (0, None, {low: "possible"}),
                (2, 3, {low: "possible"}),
                (2, 4, {low: "likely"}),
                (1, 3, {low: "likely"}),
            ):
                entries = [done(test, grade=grade)]
                entries += [done(test, "left", grade=other)] if other is not None else []
                with self.subTest(test=test, grade=grade, other=other):
                    self.assertEqual(self.right(*entries), expected)
        loose = "instability.subtalar"
        medial = "subtalar.medial_glide"
        self.assertEqual(self.right(done(medial, grade=4)), {loose: "possible"})
        self.assertEqual(self.right(done(medial, grade=5), done(medial, "left", grade=3)), {loose: "likely"})
        self.assertEqual(self.right(done("subtalar.lateral_glide", grade=5)), {})


class Talocrural(CoreCase):
    def test_a10_glide_and_swing(self) -> None:
        for entry, expected in (
            (done("ankle.play.posterior_glide", grade=2), "possible"),
            (done("ankle.play.posterior_glide", grade=3), None),
            (done("ankle.talar_swing", swing="reduced"), "possible"),
            (done("ankle.talar_swing", swing="blocked"), "possible"),
            (done("ankle.talar_swing", swing="full"), None),
        ):
            self.assertEqual(self.right(entry).get(TALUS), expected)

    def test_a10_a_joint_that_also_bends_less_is_likely(self) -> None:
        stiff = done("ankle.play.posterior_glide", grade=2)
        for extra, expected in (
            ([done("ankle.lunge", distance=59)], "likely"),
            ([done("ankle.lunge", distance=60)], "possible"),
            ([done("ankle.lunge", tibia_angle=32.9)], "likely"),
            ([done(BENT, passive=5.7)], "likely"),
            ([done(BENT, passive=5.8)], "possible"),
            ([done("ankle.lunge", distance=100), done("ankle.lunge", "left", distance=120)], "possible"),
            ([done("ankle.lunge", "left", distance=50)], "possible"),
        ):
            self.assertEqual(self.right(stiff, *extra)[TALUS], expected, extra)

    def test_a10_the_lunge_and_then_r2(self) -> None:
        for values, other, expected in (
            ({"distance": 59.9}, None, "possible"),
            ({"distance": 60}, None, None),
            ({"tibia_angle": 32.9}, None, "possible"),
            ({"tibia_angle": 33}, None, None),
            ({"distance": 50}, {"distance": 65}, "likely"),
            ({"distance": 50}, {"distance": 64}, "possible"),
            ({"distance": 95}, {"distance": 110}, "possible"),
            ({"tibia_angle": 36}, {"tibia_angle": 41}, "possible"),
        ):
            entries = [done("ankle.lunge", **values)]
            entries += [done("ankle.lunge", "left", **other)] if other else []
            self.assertEqual(self.right(*entries).get(DORSIFLEXION), expected, (values, other))

    def test_r2_counts_once_however_many_measures_differ(self) -> None:
        lunges = [done("ankle.lunge", distance=50), done("ankle.lunge", "left", distance=80)]
        ranges = [done(BENT, passive=18), done(BENT, "left", passive=30)]
        self.assertEqual(self.right(*lunges, *ranges)[DORSIFLEXION], "likely")

    def test_r2_compares_what_was_taken_in_the_same_way(self) -> None:
        mixed = [done(BENT, passive=18), done(BENT, "left", active=30)]
        self.assertEqual(self.right(*mixed), {})

    def test_a10_gastrocnemius_and_soleus(self) -> None:
        for straight, bent, expected in (
            (4.9, 15, "possible"),
            (5, 16, None),
            (4, 13.9, None),
            (4, 14, "possible"),
            (-1, 12, "likely"),
            (0, 12, "possible"),
        ):
            found = self.right(done(STRAIGHT, passive=straight), done(BENT, passive=bent))
            self.assertEqual(found.get(GASTROCNEMIUS), expected, (straight, bent))
        self.assertNotIn(GASTROCNEMIUS, self.right(done(STRAIGHT, passive=-1)))
        mixed = self.right(done(STRAIGHT, active=2), done(BENT, passive=14))
        self.assertNotIn(GASTROCNEMIUS, mixed)
        glide = done("ankle.play.posterior_glide", grade=3)
        self.assertEqual(self.right(done(BENT, passive=5), glide)[SOLEUS], "possible")
        for entries in (
            [done(BENT, passive=6), glide],
            [done(BENT, passive=5)],
            [done(BENT, passive=5), done("ankle.play.posterior_glide", grade=2)],
        ):
            self.assertNotIn(SOLEUS, self.right(*entries))

    def test_a10_pinched_by_place(self) -> None:
        down = "ankle.rom.plantarflexion"
        for entry, expected in (
            (done("ankle.lunge", distance=100, pain=pain("anterior")), {"impingement.anterior_ankle"}),
            (done("ankle.lunge", distance=100, pain=pain("calf")), set()),
            (done(down, passive=50, pain=pain("posterior")), {"impingement.posterior_ankle"}),
            (done(down, active=50, pain=pain("posterior")), set()),
            (done(down, passive=50, pain=pain("anterior")), set()),
        ):
            self.assertEqual(set(self.right(entry)), expected)

    def test_a10_other_play(self) -> None:
        for way in ("distraction", "anterior_glide", "compression", "fibula"):
            test = f"ankle.play.{way}"
            self.assertEqual(self.right(done(test, grade=2)), {"mobility.talocrural": "possible"})
            self.assertEqual(self.right(done(test, grade=3)), {})


class Rupture(CoreCase):
    """The agreed triad: Garras 2012; the squeeze: Maffulli 1998."""

    NONE = done(SQUEEZE, foot_moves="none", passive_range_checked=True)
    UNCHECKED = done(SQUEEZE, foot_moves="none")
    WEAK = done(SQUEEZE, foot_moves="weak", passive_range_checked=True)
    BRISK = done(SQUEEZE, foot_moves="brisk", passive_range_checked=True)
    SLACK = done("ankle.resting_tone", tone="less_plantarflexed")
    GAP = done("ankle.achilles_gap", gap=True)

    def rupture(self, *entries: dict[str, Any], **parts: Any) -> tuple[str, str] | None:
        flags = self.reading(*entries, **parts)["flags"]
        found = [(flag["strength"], flag["urgency"]) for flag in flags if flag["code"] == RUPTURE]
        return found[0] if found else None

    def test_a11_table(self) -> None:
        for entries, expected in (
            ([self.NONE], ("likely", "same_day")),
            ([self.NONE, self.SLACK], ("strong", "same_day")),
            ([self.NONE, self.GAP], ("strong", "same_day")),
            ([self.NONE, self.GAP, self.SLACK], ("strong", "same_day")),
            ([self.UNCHECKED], ("possible", "same_day")),
            ([self.UNCHECKED, self.GAP], ("possible", "same_day")),
            ([self.WEAK], ("possible", "refer")),
            ([self.BRISK], None),
            ([self.BRISK, self.SLACK], ("possible", "refer")),
            ([self.WEAK, self.GAP], ("possible", "refer")),
            ([self.GAP], ("possible", "refer")),
            ([self.SLACK], ("possible", "refer")),
            ([done("ankle.resting_tone", tone="same"), done("ankle.achilles_gap", gap=False)], None),
        ):
            self.assertEqual(self.rupture(*entries), expected)

    def test_a11_a_pop_lately_makes_partial_signs_urgent(self) -> None:
        acute, slow = ("likely", "same_day"), ("possible", "refer")
        for onset, symptom, expected in (
            ("2026-08-31", "heard_pop", acute),
            ("2026-08-30", "heard_pop", slow),
            (None, "cannot_push_off", acute),
            ("2026-09-10", "limp", slow),
        ):
            parts = hurt("leg", onset, symptoms=[symptom], sites=["achilles"])
            for entry in (self.WEAK, self.GAP, self.SLACK):
                sound = (tender(), steps("yes", "yes"))
                self.assertEqual(self.rupture(*sound, entry, **parts), expected, (onset, symptom))
        self.assertEqual(self.rupture(self.GAP, intake={"symptoms": ["heard_pop"]}), acute)
        brisk = self.rupture(self.BRISK, **hurt("leg", None, symptoms=["heard_pop"]))
        self.assertIsNone(brisk)

    def test_a11_as_weak_on_the_other_side_says_nothing(self) -> None:
        weak = done(SQUEEZE, "left", foot_moves="weak", passive_range_checked=True)
        self.assertIsNone(self.rupture(self.WEAK, weak))
        brisk = done(SQUEEZE, "left", foot_moves="brisk", passive_range_checked=True)
        self.assertEqual(self.rupture(self.WEAK, brisk), ("possible", "refer"))

    def test_a11_the_unchecked_squeeze_is_taken_again(self) -> None:
        again = self.reading(self.UNCHECKED)["retake"]
        expected = [{"test": SQUEEZE, "side": "right", "reason": "passive_range_unchecked"}]
        self.assertEqual(again, expected)
        for entry in (self.NONE, self.BRISK, done(SQUEEZE, foot_moves="weak")):
            self.assertEqual(self.reading(entry)["retake"], [])

    def test_a11_a_rupture_under_a_clot_gate_is_not_lost(self) -> None:
        clot = done("leg.clot", cancer=True, immobile=True)
        for entries in ([clot, self.NONE], [clot, self.NONE, self.GAP]):
            reading = self.reading(*entries)
            flag = next(flag for flag in reading["flags"] if flag["code"] == RUPTURE)
            self.assertEqual((flag["strength"], flag["urgency"]), ("likely", "same_day"))
            self.assertIn("recorded while held", flag["against"])
            held = [(item["test"], item["side"], item["gate"]) for item in reading["held"]]
            self.assertEqual(held, [(SQUEEZE, "right", "clot_doubt")])
        left = done(SQUEEZE, "left", foot_moves="none", passive_range_checked=True)
        free = next(f for f in self.reading(clot, left)["flags"] if f["code"] == RUPTURE)
        self.assertNotIn("recorded while held", free["against"])

    def test_a11_a_sore_tendon(self) -> None:
        sore_squeeze = done(SQUEEZE, foot_moves="brisk", pain=pain("achilles"))
        thick = done("ankle.look", achilles_thickening=True)
        for entries, expected in (
            ([sore_squeeze], "possible"),
            ([tender("achilles")], "possible"),
            ([done("ankle.achilles_gap", tender=True)], "possible"),
            ([thick], "possible"),
            ([sore_squeeze, tender("achilles")], "possible"),
            ([thick, tender("achilles")], "likely"),
            ([thick, done("ankle.achilles_gap", tender=True)], "likely"),
        ):
            self.assertEqual(self.right(*entries), {ACHILLES: expected})
        self.assertEqual(self.right(done(SQUEEZE, foot_moves="brisk", pain={"present": False})), {})


class Rise(CoreCase):
    FLAT = done("ankle.heel_rise", count=25, heel_turns_in=False)

    def test_a15_signs(self) -> None:
        for values, expected in (
            ({"heel_turns_in": False}, "possible"),
            ({"arch_forms": False}, "possible"),
            ({"count": 0}, "possible"),
            ({"count": 1}, None),
            ({"heel_turns_in": True, "arch_forms": True}, None),
        ):
            self.assertEqual(self.right(done("ankle.heel_rise", **values)).get(TIBIALIS), expected)

    def test_a15_what_makes_it_likely(self) -> None:
        standing = {"test": "foot.standing"}
        inversion = "ankle.resisted.inversion"
        for extra, expected in (
            ({**standing, "values": {"arch": {"right": "flat"}}}, "likely"),
            ({**standing, "values": {"arch": {"right": "low"}}}, "likely"),
            ({**standing, "values": {"arch": {"left": "flat"}}}, "possible"),
            ({**standing, "values": {"arch": {"right": "normal"}}}, "possible"),
            ({**standing, "values": {"hindfoot_angle": {"right": 8}}}, "likely"),
            ({**standing, "values": {"hindfoot_angle": {"right": 7}}}, "possible"),
            (tender("tibialis_posterior"), "likely"),
            (done(inversion, grade="4"), "likely"),
            (done(inversion, grade="4+"), "possible"),
            (done(inversion, grade="5", pain=pain("medial")), "likely"),
        ):
            self.assertEqual(self.right(self.FLAT, extra)[TIBIALIS], expected, extra)
        weak = [done(inversion, force=80), done(inversion, "left", force=100)]
        self.assertEqual(self.right(self.FLAT, *weak)[TIBIALIS], "likely")

    def test_a15_count_and_symmetry(self) -> None:
        for right, left, expected in (
            (19, None, "possible"),
            (20, None, None),
            (22, 25, "possible"),
            (23, 25, None),
            (0, 0, "possible"),
        ):
            entries = [done("ankle.heel_rise", count=right)]
            entries += [done("ankle.heel_rise", "left", count=left)] if left is not None else []
            self.assertEqual(self.right(*entries).get(CALF), expected, (right, left))
        # The weaker side, whichever is involved.
        involved = {"intake": {"complaint": {"region": "foot", "side": "left"}}}
        entries = [done("ankle.heel_rise", count=22), done("ankle.heel_rise", "left", count=25)]
        self.assertEqual(self.right(*entries, **involved), {CALF: "possible"})

    def test_a15_fewer_by_age(self) -> None:
        for born, least in (("1986-09-15", 20), ("1986-09-14", 15), ("1966-09-15", 15), ("1966-09-14", 10)):
            athlete = {"athlete": {"ref": "T-1", "birth_date": born}}
            for count, expected in ((least, None), (least - 1, "possible")):
                found = self.right(done("ankle.heel_rise", count=count), **athlete)
                self.assertEqual(found.get(CALF), expected, (born, count))
        unknown = self.right(done("ankle.heel_rise", count=19), athlete={"ref": "T-1"})
        self.assertEqual(unknown, {CALF: "possible"})

    def test_a15_names_no_tibialis_beside_what_stops_a_rise_by_itself(self) -> None:
        rise = done("ankle.heel_rise", count=0)
        self.assertIn(TIBIALIS, self.right(rise))
        for beside in (
            done("ankle.achilles_gap", gap=True),
            done("foot.midfoot_stress", laxity=0, pain=pain()),
            done("foot.midfoot_stress", laxity=1),
        ):
            self.assertNotIn(TIBIALIS, self.right(rise, beside), beside)


class PeronealAndControl(CoreCase):
    def test_a16_peroneal_and_insertion(self) -> None:
        behind = "behind_lateral_malleolus"
        for entry, expected in (
            (done("ankle.peroneal", subluxes=True), {"instability.peroneal_tendon": "likely"}),
            (done("ankle.peroneal", subluxes=False), {}),
            (done("ankle.peroneal", subluxes=False, pain=pain(behind)), {"tendon.peroneal": "possible"}),
            (done("ankle.resisted.eversion", grade="5", pain=pain(behind)), {"tendon.peroneal": "possible"}),
            (done("ankle.resisted.eversion", grade="5", pain=pain("medial")), {}),
            (tender("peroneal_tendons"), {"tendon.peroneal": "possible"}),
            (tender("retrocalcaneal"), {"tendon.achilles_insertion": "possible"}),
        ):
            self.assertEqual(self.right(entry), expected)

    def test_a16_control_on_the_worse_side(self) -> None:
        for test, measure, right, left, expected in (
            ("ankle.balance", "hold", 20, 26, True),
            ("ankle.balance", "hold", 20, 25, False),
            ("ankle.reach", "anterior", 600, 640, True),
            ("ankle.reach", "anterior", 600, 639, False),
            ("ankle.side_hop", "count", 89, 100, True),
            ("ankle.side_hop", "count", 90, 100, False),
        ):
            entries = [measured(test, {measure: right}), measured(test, {measure: left}, "left")]
            with self.subTest(test=test, right=right):
                self.assertEqual(self.right(*entries), {CONTROL: "possible"} if expected else {})
                self.assertEqual(self.left(*entries), {})
                self.assertEqual(self.right(entries[0]), {})

    def test_a_test_done_with_support_is_said(self) -> None:
        entries = [done("ankle.side_hop", count=50), done("ankle.side_hop", "left", count=100)]
        flag = self.flag(CONTROL, *entries, intake={"confounders": ["cannot_balance"]})
        self.assertTrue(any("support" in says for says in flag["against"]))
        self.assertFalse(self.flag(CONTROL, *entries)["against"])
