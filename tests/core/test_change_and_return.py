"""Change against earlier screens and the criteria for return: at their edges, and what keeps them apart."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.ankle import done, hurt, measured, pain
from tests.support.records import read, record

LUNGE, REACH, RISE, HOP, SIDE_HOP = (
    "ankle.lunge",
    "ankle.reach",
    "ankle.heel_rise",
    "ankle.hop",
    "ankle.side_hop",
)


def screen(day: str, *entries: dict[str, Any], number: int = 1, **parts: Any) -> dict[str, Any]:
    own = f"00000000-0000-4000-8000-{number:012d}"
    return record(list(entries), **{"date": day, "id": own, "purpose": "squad_screen", **parts})


def lunge(distance: Any, side: str = "right", **more: Any) -> dict[str, Any]:
    return {**done(LUNGE, side, distance=distance), **more}


NOW = "2026-09-14"


def changed(now: dict[str, Any], *earlier: dict[str, Any], **context: Any) -> list[dict[str, Any]]:
    found = read(now, {"earlier": list(earlier), **context})["changes"]
    return list(found)


class Change(unittest.TestCase):
    def test_of_one_day_the_screen_begun_last_is_the_one_before(self) -> None:
        """The third of a day is held against the second, not the first."""
        first, second = screen(NOW, lunge(60), number=2), screen(NOW, lunge(98), number=3)
        (found,) = changed(screen(NOW, lunge(100)), first, second)
        self.assertEqual((found["before"], found["baseline"]["record"]), (98, second["id"]))

    def test_nothing_earlier_says_nothing(self) -> None:
        self.assertEqual(changed(screen(NOW, lunge(100))), [])
        self.assertEqual(changed(screen(NOW, lunge(100)), screen("2026-03-01", number=2)), [])

    def test_within_error_changed_and_whether_it_matters(self) -> None:
        """Lunge: error 5 mm, smallest real change 13.86, threshold 15."""
        for now, verdict, matters, worse in (
            (100, "within_error", False, None),
            (86.2, "within_error", False, True),
            (86.1, "changed", False, True),
            (85, "changed", True, True),
            (113.8, "within_error", False, False),
            (114, "changed", False, False),
        ):
            (found,) = changed(screen(NOW, lunge(now)), screen("2026-03-01", lunge(100), number=2))
            with self.subTest(now=now):
                self.assertEqual(
                    (found["verdict"], found["matters"], found["worse"]), (verdict, matters, worse)
                )
                self.assertEqual((found["before"], found["side"]), (100, "right"))
                self.assertAlmostEqual(found["difference"], now - 100, places=6)
                self.assertEqual(found["mdc95"], 13.86)

    def test_the_clinics_own_error_figure_is_used_and_named(self) -> None:
        now, then = screen(NOW, lunge(90)), screen("2026-03-01", lunge(100), number=2)
        (found,) = changed(now, then, sem={"distance": 3})
        self.assertEqual((found["verdict"], found["source"]), ("changed", "the clinic's own study"))
        self.assertEqual(changed(now, then)[0]["source"], "Bennell 1998")

    def test_each_side_measure_and_hip_position_by_itself(self) -> None:
        now = screen(
            NOW,
            lunge(100),
            done("hip.rom.internal_rotation_90", passive=40),
            done("hip.rom.internal_rotation_0", passive=40),
        )
        then = screen(
            "2026-03-01", lunge(100, "left"), done("hip.rom.internal_rotation_0", passive=20), number=2
        )
        found = changed(now, then)
        self.assertEqual(
            [(c["test"], c["measure"], c["verdict"]) for c in found],
            [("hip.rom.internal_rotation_0", "passive", "changed")],
        )

    def test_what_cannot_be_compared_says_why(self) -> None:
        thomas, tilt = "hip.modified_thomas", "hip.trendelenburg"
        for now, then, schools, word in (
            (
                done(tilt, tilt_end=-2) | {"method": "sensor"},
                done(tilt, tilt_end=1) | {"method": "folds"},
                {},
                "folds then, by sensor now",
            ),
            (
                done(tilt, tilt_end=-2) | {"method": "palms"},
                done(tilt, tilt_end=1),
                {},
                "folds then, by palms now",
            ),
            (
                done(thomas, thigh_angle=2),
                done(thomas, thigh_angle=-9),
                {"back_control": "tilt_10"},
                "hug then, by tilt 10 now",
            ),
            (
                done(thomas, thigh_angle=2),
                done(thomas, thigh_angle=-9) | {"seen": ["lumbar_arch"]},
                {},
                "seen then",
            ),
            (
                done(thomas, thigh_angle=-9) | {"seen": ["lumbar_arch"]},
                done(thomas, thigh_angle=2),
                {},
                "seen now",
            ),
            (done(thomas, thigh_angle="looks_full"), done(thomas, thigh_angle=2), {}, "not measured, now"),
            (done("ankle.look", girth=300), done("ankle.look", girth=305), {}, ""),
        ):
            found = changed(screen(NOW, now, schools=schools), screen("2026-03-01", then, number=2))
            with self.subTest(word=word):
                self.assertEqual(len(found), 1)
                expected = "not_comparable" if word else "within_error"
                self.assertEqual(found[0]["verdict"], expected)
                self.assertIn(word, found[0]["why"] or "")

    def test_an_angle_by_the_same_way_twice_is_compared(self) -> None:
        tilt = "hip.trendelenburg"
        now, then = (done(tilt, tilt_end=value) | {"method": "sensor"} for value in (-2, 4))
        (found,) = changed(screen(NOW, now), screen("2026-03-01", then, number=2))
        self.assertEqual((found["verdict"], found["worse"]), ("changed", True))

    def test_the_examiner_and_growth_are_said(self) -> None:
        for now_by, then_by, expected in (
            ("K. Aalto", "K. Aalto", True),
            ("K. Aalto", "M. Rist", False),
            ("K. Aalto", None, None),
        ):
            now = screen(NOW, lunge(100), examiner=now_by)
            then = screen("2026-03-01", lunge(100), number=2, **({"examiner": then_by} if then_by else {}))
            self.assertEqual(changed(now, then)[0]["same_examiner"], expected)
        for born, growing in (("2010-09-15", True), ("2010-09-14", False)):
            athlete = {"ref": "T-1", "birth_date": born}
            now = screen(NOW, lunge(100), athlete=athlete)
            self.assertEqual(changed(now, screen("2026-03-01", lunge(99), number=2))[0]["growing"], growing)

    def test_the_last_screen_that_has_it_but_for_return_the_last_before_the_injury(self) -> None:
        before = screen("2026-02-01", lunge(110), number=2)
        without = screen("2026-08-20", done("hip.rom.flexion", passive=120), number=3)
        after = screen("2026-08-10", lunge(60), number=4, purpose="ankle_injury")
        later = screen("2026-12-01", lunge(10), number=5)
        earlier = (after, before, later, without)
        follow = changed(screen(NOW, lunge(100), purpose="follow_up"), *earlier)
        self.assertEqual((follow[0]["before"], follow[0]["baseline"]["date"]), (60, "2026-08-10"))
        back = screen(NOW, lunge(100), purpose="return_to_sport", **hurt(onset="2026-08-01"))
        self.assertEqual(
            (changed(back, *earlier)[0]["before"], changed(back, *earlier)[0]["baseline"]["record"]),
            (110, before["id"]),
        )
        self.assertIn("before the injury", changed(back, *earlier)[0]["baseline"]["why"])
        undated = screen(NOW, lunge(100), purpose="return_to_sport", **hurt(onset=None, kind="gradual"))
        self.assertEqual(changed(undated, *earlier)[0]["before"], 110)
        only_after = changed(back, after)
        self.assertEqual(only_after[0]["before"], 60)
        self.assertIn("No screen before", only_after[0]["baseline"]["why"])

    def test_derived_values_are_compared_too(self) -> None:
        def drop(standing: float) -> dict[str, Any]:
            return done("foot.navicular_drop", height_neutral=50, height_standing=standing)

        (found,) = changed(screen(NOW, drop(40)), screen("2026-03-01", drop(44), number=2))
        self.assertEqual((found["measure"], found["before"], found["now"]), ("drop", 6, 10))
        self.assertEqual((found["verdict"], found["worse"]), ("changed", True))
        sides = [drop(40), done("foot.navicular_drop", "left", height_neutral=50, height_standing=46)]
        (difference,) = read(screen(NOW, *sides))["differences"]
        self.assertEqual(
            (difference["measure"], difference["difference"], difference["verdict"]),
            ("drop", -6, "real_matters"),
        )

    def test_without_an_error_figure_nothing_is_judged(self) -> None:
        hop = [done(HOP, distance=value) for value in (900, 1000)]
        now, then = screen(NOW, hop[0]), screen("2026-03-01", hop[1], number=2)
        (found,) = changed(now, then)
        self.assertEqual((found["verdict"], found["why"]), ("not_comparable", "No error figure is known."))
        own = changed(now, then, sem={"ankle.hop.distance": 20})[0]
        self.assertEqual((own["verdict"], own["threshold"], own["matters"]), ("changed", None, False))

    def test_percent_errors_are_of_both_values(self) -> None:
        def press(force: float) -> dict[str, Any]:
            return done("hip.resisted.abduction", force=force)

        for now, verdict in ((115, "changed"), (114, "within_error")):
            (found,) = changed(screen(NOW, press(now)), screen("2026-03-01", press(100), number=2))
            self.assertEqual(found["verdict"], verdict)


class Return(unittest.TestCase):
    """The right ankle was hurt; everything is met unless a part says otherwise."""

    WHOLE = (
        done("ankle.rom.dorsiflexion_knee_bent", passive=18),
        done("ankle.rom.dorsiflexion_knee_bent", "left", passive=19),
        lunge(110),
        lunge(112, "left"),
        done("hip.modified_thomas", thigh_angle=-8),
        done("hip.modified_thomas", "left", thigh_angle=-7),
        done("ankle.resisted.eversion", force=95),
        done("ankle.resisted.eversion", "left", force=100),
        done(RISE, count=25, heel_turns_in=True, arch_forms=True),
        done(RISE, "left", count=26),
        done(HOP, able=True, distance=950, pain={"present": False}),
        done(HOP, "left", able=True, distance=1000, pain={"present": False}),
        done(SIDE_HOP, count=48, pain={"present": False}),
        done(SIDE_HOP, "left", count=50, pain={"present": False}),
        done(REACH, anterior=690),
        done(REACH, "left", anterior=700),
    )
    STORY = hurt(onset="2026-06-01", pain={"now": 1})

    def states(
        self, *entries: dict[str, Any], earlier: tuple[dict[str, Any], ...] = (), **parts: Any
    ) -> dict[str, str]:
        now = screen(NOW, *entries, **{"purpose": "return_to_sport", **self.STORY, **parts})
        return {
            item["criterion"]: item["state"] for item in read(now, {"earlier": list(earlier)})["criteria"]
        }

    def test_only_for_return(self) -> None:
        self.assertEqual(read(screen(NOW, *self.WHOLE))["criteria"], [])

    def test_all_met_and_where_each_stands(self) -> None:
        baseline = screen("2026-03-01", lunge(111), number=2)
        states = self.states(*self.WHOLE, earlier=(baseline,))
        self.assertEqual(set(states.values()), {"met"}, states)
        self.assertEqual(len(states), 11)
        now = screen(NOW, *self.WHOLE, purpose="return_to_sport", **self.STORY)
        for item in read(now)["criteria"]:
            self.assertEqual(item["at"] is None, item["state"] == "not_tested")

    def test_nothing_is_assumed(self) -> None:
        nothing = self.states(intake={"complaint": {"region": "ankle", "side": "right"}})
        self.assertEqual(set(nothing.values()), {"not_tested"})

    def test_each_part_can_fail_alone(self) -> None:
        press, ago = "ankle.resisted.eversion", "2026-06-01"
        for entry, criterion in (
            (done("ankle.rom.dorsiflexion_knee_bent", passive=10), "passive_ranges"),
            (lunge(96), "lunge"),
            (done("hip.modified_thomas", thigh_angle=0), "muscle_length"),
            (done(press, force=89), "resisted_strength"),
            (done(RISE, count=23), "heel_rise"),
            (done(HOP, able=True, distance=899, pain={"present": False}), "hop"),
            (done(HOP, able=True, distance=950, pain=pain("anterior")), "hop"),
            (done(HOP, able=False, pain={"present": False}), "hop"),
            (done(SIDE_HOP, count=44, pain={"present": False}), "side_hop"),
            (done(REACH, anterior=660), "reach_anterior"),
            (done("ankle.anterior_drawer", laxity=3), "no_urgent_flag"),
            (done("ankle.calf_squeeze", foot_moves="none"), "no_urgent_flag"),
        ):
            with self.subTest(criterion=criterion):
                states = self.states(*self.WHOLE, entry)
                self.assertEqual(states[criterion], "not_met")
        sore = self.states(*self.WHOLE, **hurt(onset=ago, pain={"now": 3}))
        self.assertEqual(sore["pain_now"], "not_met")
        self.assertEqual(self.states(*self.WHOLE, **hurt(onset=ago, pain={"now": 2}))["pain_now"], "met")

    def test_at_their_edges(self) -> None:
        for entry, criterion in (
            (done("ankle.resisted.eversion", force=90), "resisted_strength"),
            (done(RISE, count=27), "heel_rise"),
            (done(HOP, able=True, distance=900, pain={"present": False}), "hop"),
            (done(SIDE_HOP, count=45, pain={"present": False}), "side_hop"),
            (done(REACH, anterior=661), "reach_anterior"),
            (done("ankle.anterior_drawer", laxity=2), "no_urgent_flag"),
            (done("ankle.anterior_drawer", "left", laxity=3), "no_urgent_flag"),
        ):
            with self.subTest(criterion=criterion):
                self.assertEqual(self.states(*self.WHOLE, entry)[criterion], "met")

    def test_involved_against_uninvolved_even_where_the_involved_side_is_the_stronger(self) -> None:
        for right, left, expected in ((50, 40, "met"), (36, 40, "met"), (35, 40, "not_met")):
            entries = [measured(RISE, {"count": right}), measured(RISE, {"count": left}, "left")]
            self.assertEqual(self.states(*entries)["heel_rise"], expected)

    def test_no_urgent_flag_is_not_tested_while_something_is_in_doubt(self) -> None:
        """A gate that is shut on the involved side, or an urgent question, leaves it open."""
        surgery = {"region": "hip", "kind": "surgery", "weeks_ago": 3}
        replaced = {**surgery, "kind": "hip_replacement", "weeks_ago": 90}
        story = self.STORY["intake"]
        fresh = {**story, "onset": {"kind": "sudden", "date": NOW}}
        sideless = {**fresh, "complaint": {"region": "ankle"}}
        for intake, expected in (
            (story, "met"),
            ({**story, "history": [{**surgery, "side": "right"}]}, "not_tested"),
            ({**story, "history": [{**surgery, "side": "left"}]}, "met"),
            ({**story, "history": [{**replaced, "side": "right"}]}, "met"),
            (fresh, "not_tested"),
            (sideless, "not_tested"),
        ):
            states = self.states(*self.WHOLE, intake=intake)
            self.assertEqual(states["no_urgent_flag"], expected, intake)

    def test_without_an_involved_side_it_is_asked_for(self) -> None:
        for complaint, asked in (
            (None, True),
            ({"region": "ankle"}, True),
            ({"region": "ankle", "side": "both"}, False),
            ({"region": "ankle", "side": "left"}, False),
        ):
            intake = {"complaint": complaint} if complaint else {}
            items = {a["item"] for a in read(screen(NOW, purpose="return_to_sport", intake=intake))["ask"]}
            self.assertEqual("complaint.side" in items, asked, complaint)

    def test_grades_stand_in_for_force(self) -> None:
        for grade, expected in (("5", "met"), ("4+", "not_met")):
            states = self.states(done("ankle.resisted.eversion", grade=grade))
            self.assertEqual(states["resisted_strength"], expected)

    def test_pain_not_asked_in_a_hop_is_not_tested(self) -> None:
        quiet = [done(SIDE_HOP, count=50), done(SIDE_HOP, "left", count=50)]
        self.assertEqual(self.states(*quiet)["side_hop"], "not_tested")
        slow = [done(SIDE_HOP, count=30), done(SIDE_HOP, "left", count=50)]
        self.assertEqual(self.states(*slow)["side_hop"], "not_met")

    def test_against_the_own_baseline(self) -> None:
        for then, day, expected in (
            (111, "2026-03-01", "met"),
            (125, "2026-03-01", "not_met"),
            (90, "2026-03-01", "met"),
            (125, "2026-07-01", "not_tested"),
        ):
            earlier = screen(day, lunge(then), number=2, purpose="ankle_injury")
            states = self.states(lunge(110), earlier=(earlier,))
            self.assertEqual(states["own_baseline"], expected, (then, day))

    def test_both_sides_hurt_uses_the_weaker_against_the_stronger(self) -> None:
        story = {"complaint": {"region": "ankle", "side": "both"}}
        for right, left, expected in ((25, 25, "met"), (20, 25, "not_met"), (25, 20, "not_met")):
            entries = [measured(RISE, {"count": right}), measured(RISE, {"count": left}, "left")]
            self.assertEqual(self.states(*entries, intake=story)["heel_rise"], expected)
