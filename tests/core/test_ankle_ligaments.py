"""A2 to A8: each rule firing, just short of it, missing input, its steps, its caps, what is against."""

from __future__ import annotations

from typing import Any

from tests.support.ankle import CoreCase, done, hurt, pain, steps, tender

ATFL, CFL, PTFL, DELTOID = "instability.atfl", "instability.cfl", "instability.ptfl", "instability.deltoid"
SYNDESMOSIS, CHRONIC = "instability.syndesmosis", "instability.chronic_ankle"
DRAWER, TILT, EXTERNAL = "ankle.anterior_drawer", "ankle.inversion_tilt", "ankle.external_rotation"
HIGH = "above_lateral_malleolus"
SOUND = (tender(), steps("yes", "yes"))


def drawer(laxity: int | None = None, side: str = "right", **more: Any) -> dict[str, Any]:
    return done(DRAWER, side, **({} if laxity is None else {"laxity": laxity}), **more)


def tilt(laxity: int, side: str = "right", **more: Any) -> dict[str, Any]:
    return done(TILT, side, laxity=laxity, **more)


class Laxity(CoreCase):
    def test_a3_a5_a7_by_grade(self) -> None:
        for code, tests in (
            (ATFL, (DRAWER, "ankle.stress_atfl")),
            (CFL, (TILT, "ankle.stress_cfl")),
            (PTFL, ("ankle.posterior_drawer", "ankle.stress_ptfl")),
        ):
            for test in tests:
                for laxity, expected in ((0, None), (1, "possible"), (2, "likely"), (3, "strong")):
                    with self.subTest(test=test, laxity=laxity):
                        self.assertEqual(self.right(done(test, laxity=laxity)).get(code), expected)

    def test_a3_pain_without_laxity_is_a_sprain_that_holds(self) -> None:
        for test, name in ((DRAWER, "atfl"), (TILT, "cfl"), ("ankle.posterior_drawer", "ptfl")):
            sore = pain("anterolateral")
            for entry in (done(test, pain=sore, laxity=0), done(test, pain=sore)):
                found = self.right(entry)
                self.assertEqual(found, {f"sprain.{name}": "possible"})
            self.assertEqual(self.right(done(test, laxity=0, pain={"present": False})), {})
            lax = self.right(done(test, laxity=1, pain=pain()))
            self.assertEqual(lax, {f"instability.{name}": "possible"})
        self.assertEqual(self.flag("sprain.atfl", drawer(0, pain=pain()))["urgency"], "train")

    def test_a3_a5_a_soft_stop_or_a_clunk_is_one_step_more(self) -> None:
        for code, test in ((ATFL, DRAWER), (CFL, TILT)):
            for extra, expected in (
                ({"end_feel": "firm"}, "possible"),
                ({"clunk": False}, "possible"),
                ({"end_feel": "soft"}, "likely"),
                ({"end_feel": "absent"}, "likely"),
                ({"clunk": True}, "likely"),
                ({"clunk": True, "end_feel": "soft"}, "likely"),
            ):
                with self.subTest(code=code, extra=extra):
                    self.assertEqual(self.right(done(test, laxity=1, **extra))[code], expected)
            self.assertNotIn(code, self.right(done(test, laxity=0, end_feel="soft")))
            self.assertNotIn(code, self.right(done(test, end_feel="soft")))
        behind = done("ankle.posterior_drawer", laxity=1, end_feel="soft")
        self.assertEqual(self.right(behind), {PTFL: "possible"})

    def test_a5_two_ligaments(self) -> None:
        for front, side, expected in (
            (2, 2, ("strong", "strong")),
            (2, 1, ("likely", "possible")),
            (1, 2, ("possible", "likely")),
        ):
            found = self.right(drawer(front), tilt(side))
            self.assertEqual((found[ATFL], found[CFL]), expected)
        soft = self.right(drawer(2), tilt(1, end_feel="soft"), drawer(2))
        self.assertEqual(soft[CFL], "likely")

    def test_a_possible_front_ligament_asks_for_the_one_beside_it(self) -> None:
        reading = self.reading(drawer(1))
        self.assertEqual(reading["flags"][0]["settle"], [TILT])
        self.assertEqual([(item["test"], item["side"]) for item in reading["next"]], [(TILT, "right")])


class OtherSide(CoreCase):
    def test_a3_the_same_or_more_on_the_other_side_leaves_it_possible(self) -> None:
        for code, test in (
            (ATFL, DRAWER),
            (ATFL, "ankle.stress_atfl"),
            (CFL, TILT),
            (PTFL, "ankle.posterior_drawer"),
            (DELTOID, "ankle.eversion_tilt"),
        ):
            for other, expected in ((0, "strong"), (2, "strong"), (3, "possible")):
                with self.subTest(test=test, other=other):
                    flag = self.flag(code, done(test, laxity=3), done(test, "left", laxity=other))
                    self.assertEqual(flag["strength"], expected)
                    said = [says for says in flag["against"] if "both sides" in says]
                    self.assertEqual(bool(said), expected == "possible")

    def test_a3_the_cap_comes_after_the_steps(self) -> None:
        both = [drawer(2, end_feel="soft"), drawer(2, "left")]
        self.assertEqual(self.right(*both)[ATFL], "possible")
        self.assertEqual(self.left(*both)[ATFL], "possible")

    def test_a3_another_test_that_differs_keeps_its_word(self) -> None:
        stress = done("ankle.stress_atfl", laxity=2)
        self.assertEqual(self.right(drawer(1), drawer(1, "left"), stress)[ATFL], "likely")

    def test_h14_loose_joints_are_called_constitutional(self) -> None:
        for born, least in (
            ("2010-09-15", 6),
            ("2010-09-14", 5),
            ("1975-09-15", 5),
            ("1976-09-14", 5),
            ("1975-09-14", 4),
            (None, 5),
        ):
            athlete = {"ref": "T-1", **({"birth_date": born} if born else {})}
            for score, expected in ((least, True), (least - 1, False)):
                loose = {"test": "general.hypermobility", "values": {"score": score}}
                flag = self.flag(ATFL, loose, drawer(2), drawer(2, "left"), athlete=athlete)
                said = any("constitutional" in says for says in flag["against"])
                self.assertEqual(said, expected, (born, score))

    def test_a8_both_ankles_sprained_before_turn_the_cap_off(self) -> None:
        for history, expected in (
            ([("left", 1), ("right", 1)], "likely"),
            ([("both", 1)], "likely"),
            ([(None, 1)], "likely"),
            ([("left", 2)], "possible"),
            ([], "possible"),
        ):
            told = [
                {"region": "ankle", "kind": "sprain", "count": count, **({"side": side} if side else {})}
                for side, count in history
            ]
            found = self.right(drawer(2), drawer(2, "left"), intake={"history": told})
            self.assertEqual(found[ATFL], expected, history)


class Early(CoreCase):
    """Delayed examination of the lateral ligaments, van Dijk 1996."""

    def test_a4_the_first_days_cap_at_likely_after_all_steps(self) -> None:
        for onset, expected in (
            ("2026-09-14", "likely"),
            ("2026-09-12", "likely"),
            ("2026-09-11", "strong"),
            ("2026-09-10", "strong"),
        ):
            flag = self.flag(ATFL, *SOUND, drawer(2, end_feel="soft"), **hurt(onset=onset))
            self.assertEqual(flag["strength"], expected, onset)
            early = any("guarding" in says for says in flag["against"])
            self.assertEqual(early, expected == "likely")
        gradual = self.right(*SOUND, drawer(3), **hurt(kind="gradual"))
        self.assertEqual(gradual[ATFL], "strong")
        undated = self.right(*SOUND, drawer(3), **hurt(onset=None))
        self.assertEqual(undated[ATFL], "strong")

    def test_a4_all_four_codes_and_the_injured_side_only(self) -> None:
        for code, test in (
            (CFL, TILT),
            (PTFL, "ankle.posterior_drawer"),
            (DELTOID, "ankle.eversion_tilt"),
        ):
            self.assertEqual(self.right(*SOUND, done(test, laxity=3), **hurt())[code], "likely")
        other = self.left(*SOUND, drawer(3, "left"), **hurt())
        self.assertEqual(other[ATFL], "strong")
        high = [done("ankle.squeeze", pain=pain(HIGH)), done("ankle.cotton", laxity=2)]
        found = self.right(tender("syndesmosis"), steps("yes", "yes"), *high, **hurt())
        self.assertEqual(found[SYNDESMOSIS], "strong")

    def test_a4_the_second_look_is_booked_by_the_dates(self) -> None:
        for onset, day, window in (
            ("2026-09-14", "2026-09-14", ("2026-09-18", "2026-09-21")),
            ("2026-09-12", "2026-09-14", ("2026-09-16", "2026-09-19")),
            ("2026-09-11", "2026-09-14", None),
            ("2026-08-29", "2026-08-30", ("2026-09-02", "2026-09-05")),
            ("2026-12-30", "2027-01-01", ("2027-01-03", "2027-01-06")),
            ("2028-02-27", "2028-02-28", ("2028-03-02", "2028-03-05")),
        ):
            reading = self.reading(*SOUND, drawer(0), **hurt(onset=onset), date=day)
            booked = [(item["from"], item["to"]) for item in reading["actions"] if "from" in item]
            self.assertEqual(booked, [window] if window else [], onset)

    def test_a4_is_booked_flagged_or_not_held_or_not(self) -> None:
        for entries in ([*SOUND, drawer(0)], [*SOUND, drawer(2)], [drawer(2)]):
            actions = self.reading(*entries, **hurt())["actions"]
            again = [item for item in actions if item["urgency"] == "recheck"]
            self.assertEqual([item["code"] for item in again], ["recheck.instability_atfl"])
            self.assertEqual(again[0]["because"], ["A4"])
        flag = self.flag(ATFL, *SOUND, drawer(2), **hurt())
        self.assertEqual(flag["urgency"], "recheck")
        self.assertEqual(self.reading(*SOUND, **hurt())["actions"], [])
        declined = {"test": DRAWER, "side": "right", "declined": "too sore"}
        self.assertEqual(self.reading(*SOUND, declined, **hurt())["actions"], [])
        other = self.reading(*SOUND, drawer(0, "left"), **hurt())["actions"]
        self.assertEqual(other, [])

    def test_a4_bruised_tender_and_lax_on_day_four_is_strong(self) -> None:
        bruise = done("ankle.look", bruising=["toes"])
        whole = (tender("atfl"), steps("yes", "yes"), bruise, drawer(1))
        for onset, expected in (("2026-09-10", "strong"), ("2026-09-11", "possible")):
            self.assertEqual(self.right(*whole, **hurt(onset=onset))[ATFL], expected)
        for missing in (
            (tender("atfl"), bruise, drawer(0)),
            (tender("cfl"), bruise, drawer(1)),
            (tender("atfl"), done("ankle.look", bruising=[]), drawer(1)),
            (tender("atfl"), drawer(1)),
        ):
            found = self.right(steps("yes", "yes"), *missing, **hurt(onset="2026-09-10"))
            self.assertNotEqual(found.get(ATFL), "strong")
        self.assertNotEqual(self.right(*whole, **hurt(onset=None)).get(ATFL), "strong")
        same = self.right(*whole, drawer(1, "left"), **hurt(onset="2026-09-10"))
        self.assertEqual(same[ATFL], "possible")


class Syndesmosis(CoreCase):
    """Counted signs; figures for each in Sman 2015."""

    SQUEEZE = done("ankle.squeeze", pain=pain(HIGH))
    TURN = done(EXTERNAL, laxity=0, ankle_position="dorsiflexed", pain=pain(HIGH))
    COTTON = done("ankle.cotton", laxity=1)
    GLIDE = done("ankle.fibular_glide", laxity=1)
    TENDER = tender("syndesmosis")
    HOP = done("ankle.hop", able=False)

    def test_a2_table(self) -> None:
        for signs, expected, urgency in (
            ([self.SQUEEZE], "possible", None),
            ([self.TURN], "possible", None),
            ([self.COTTON], "possible", None),
            ([self.GLIDE], "possible", None),
            ([self.TENDER], "possible", None),
            ([self.HOP], "possible", None),
            ([self.TENDER, self.HOP], "possible", None),
            ([self.SQUEEZE, self.TENDER], "likely", "refer"),
            ([self.COTTON, self.GLIDE], "likely", "refer"),
            ([self.COTTON, self.HOP], "likely", "refer"),
            ([self.TURN, self.TENDER, self.HOP], "strong", "same_day"),
            ([self.SQUEEZE, self.TURN, self.COTTON, self.GLIDE], "strong", "same_day"),
        ):
            flag = self.flag(SYNDESMOSIS, *signs)
            self.assertEqual((flag["strength"], flag["urgency"]), (expected, urgency))
            self.assertEqual(len(flag["because"]), len(signs))

    def test_a2_the_place_of_pain_decides(self) -> None:
        for site in ("under_hand", "anterolateral", "calf"):
            self.assertNotIn(SYNDESMOSIS, self.right(done("ankle.squeeze", pain=pain(site))))
        self.assertEqual(self.right(done(EXTERNAL, laxity=0, pain=pain("medial"))), {DELTOID: "possible"})
        self.assertIn(SYNDESMOSIS, self.right(done("ankle.cotton", laxity=0, pain=pain(HIGH))))
        self.assertNotIn(SYNDESMOSIS, self.right(done("ankle.cotton", laxity=0, pain=pain("medial"))))
        self.assertIn(SYNDESMOSIS, self.right(done("ankle.play.fibula", grade=4)))
        self.assertNotIn(SYNDESMOSIS, self.right(done("ankle.play.fibula", grade=3)))
        self.assertNotIn(SYNDESMOSIS, self.right(done("ankle.squeeze", pain={"present": False})))

    def test_a2_two_ankle_positions_are_one_sign(self) -> None:
        neutral = done(EXTERNAL, ankle_position="neutral", pain=pain(HIGH))
        self.assertEqual(self.right(self.TURN, neutral), {SYNDESMOSIS: "possible"})

    def test_a2_hop_counts_with_bone_clear_only(self) -> None:
        open_bone = done("ankle.tuning_fork", bone="fibula", result="positive")
        self.assertNotIn(SYNDESMOSIS, self.right(self.HOP, open_bone))
        self.assertNotIn(SYNDESMOSIS, self.right(self.HOP, **hurt()))
        self.assertNotIn(SYNDESMOSIS, self.right(done("ankle.hop", able=True)))

    def test_what_is_held_is_not_lost_where_it_is_urgent(self) -> None:
        signs = [self.COTTON, self.GLIDE, self.SQUEEZE]
        reading = self.reading(*signs, **hurt())
        flag = next(flag for flag in reading["flags"] if flag["code"] == SYNDESMOSIS)
        self.assertEqual((flag["strength"], flag["urgency"]), ("likely", "same_day"))
        self.assertIn("recorded while held", flag["against"])
        self.assertEqual({item["test"] for item in reading["held"]}, {"ankle.cotton", "ankle.fibular_glide"})


class Deltoid(CoreCase):
    def test_a6_laxity_pain_and_agreement(self) -> None:
        tilt_out = done("ankle.eversion_tilt", laxity=1)
        for entries, expected in (
            ([tilt_out], "possible"),
            ([done("ankle.eversion_tilt", laxity=0, pain=pain("medial"))], "possible"),
            ([done(EXTERNAL, pain=pain("medial"))], "possible"),
            ([done(EXTERNAL, laxity=2, pain=pain("medial"))], "likely"),
            ([tilt_out, done(EXTERNAL, pain=pain("medial"))], "likely"),
            ([tilt_out, done("ankle.stress_ptt", laxity=2)], "strong"),
            ([done("ankle.stress_att_tn", laxity=3)], "strong"),
        ):
            self.assertEqual(self.right(*entries)[DELTOID], expected)
        self.assertEqual(self.right(done(EXTERNAL, laxity=2)), {})
        self.assertEqual(self.right(done("ankle.eversion_tilt", laxity=0)), {})

    def test_a6_two_positions_of_one_test_do_not_agree(self) -> None:
        positions = [
            done(EXTERNAL, ankle_position=position, pain=pain("medial"))
            for position in ("neutral", "dorsiflexed")
        ]
        self.assertEqual(self.right(*positions), {DELTOID: "possible"})

    def test_a6_the_band_is_said(self) -> None:
        for entry, band in (
            (done(EXTERNAL, ankle_position="plantarflexed", pain=pain("medial")), "front"),
            (done(EXTERNAL, ankle_position="neutral", pain=pain("medial")), "middle"),
            (done(EXTERNAL, ankle_position="dorsiflexed", pain=pain("medial")), "back"),
            (done("ankle.stress_att_tn", laxity=1), "front"),
            (done("ankle.stress_tibiocalcaneal", laxity=1), "middle"),
            (done("ankle.stress_ptt", laxity=1), "back"),
        ):
            self.assertIn(band, self.flag(DELTOID, entry)["because"][0]["says"])


class Chronic(CoreCase):
    def told(
        self, count: int | None, side: str = "right", symptoms: tuple[str, ...] = ("giving_way",)
    ) -> Any:
        item = {"region": "ankle", "kind": "sprain", "side": side}
        return {"history": [{**item, **({"count": count} if count else {})}], "symptoms": list(symptoms)}

    def test_a8_sprains_giving_way_and_laxity(self) -> None:
        lax = tilt(1)
        self.assertEqual(self.right(lax, intake=self.told(2))[CHRONIC], "likely")
        self.assertEqual(self.right(lax, intake=self.told(2, "both"))[CHRONIC], "likely")
        for entry, intake in (
            (lax, self.told(1)),
            (lax, self.told(None)),
            (lax, self.told(2, "left")),
            (lax, self.told(2, symptoms=())),
            (tilt(0), self.told(2)),
            (done("ankle.eversion_tilt", laxity=2), self.told(2)),
        ):
            self.assertNotIn(CHRONIC, self.right(entry, intake=intake))

    def test_a8_points_at_the_history(self) -> None:
        flag = self.flag(CHRONIC, drawer(1), intake=self.told(3))
        self.assertEqual(flag["because"][0]["at"], "intake.history[0]")
        self.assertEqual(flag["urgency"], "train")
