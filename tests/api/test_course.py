"""One athlete over time: lines from open, signed and amended screens, what happened, what is to be done."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from tests.support.api import ApiCase, Person, answer


class Course(ApiCase):
    me: Person

    def setUp(self) -> None:
        self.me = self.person(clinic_id=self.new_clinic())
        self.athlete = self.me.add_athlete()

    def screen(self, date: str, *answers: dict[str, Any], **fields: Any) -> str:
        key = self.me.begin_screen(self.athlete, date=date, **fields)
        self.me.ok("POST", f"/api/screens/{key}/answers", {"answers": list(answers)})
        return key

    def course(self) -> dict[str, Any]:
        return dict(self.me.ok("GET", f"/api/athletes/{self.athlete}/course"))

    def thigh(self) -> dict[str, Any]:
        (line,) = [line for line in self.course()["lines"] if line["measure"] == "thigh_angle"]
        return dict(line)

    def test_lines_over_open_and_signed_screens_each_by_its_school(self) -> None:
        first = self.screen("2026-03-02", answer("left", "values.thigh_angle", [1, 1, 7]))
        self.assertEqual(self.me.sign(first).status_code, 204)
        median = {"trial_value": "median"}
        self.screen("2026-06-02", answer("left", "values.thigh_angle", [9, 9, 30]), schools=median)
        line = self.thigh()
        self.assertEqual([point["value"] for point in line["points"]], [3, 9])
        self.assertEqual((line["first"], line["verdict"], line["worse"]), (3, "changed", True))

    def test_of_one_day_the_later_screen_is_the_later_value_amended_or_not(self) -> None:
        first = self.screen("2026-03-02", answer("left", "values.thigh_angle", 1))
        self.screen("2026-03-02", answer("left", "values.thigh_angle", 5))
        self.screen("2026-03-02", answer("left", "values.thigh_angle", 3))
        self.assertEqual([point["value"] for point in self.thigh()["points"]], [1, 5, 3])
        self.me.sign(first)
        body = self.me.amendment(first, answers=[answer("left", "values.thigh_angle", 2)])
        self.me.ok("POST", f"/api/screens/{first}/amendments", body)
        self.assertEqual([point["value"] for point in self.thigh()["points"]], [2, 5, 3])

    def test_what_follows_from_measures_has_its_own_line(self) -> None:
        """How far the navicular drops, not how high it stood."""
        for date, standing in (("2026-03-02", 40), ("2026-06-02", 33)):
            heights = {"height_neutral": 45, "height_standing": standing}
            told = [
                answer("left", f"values.{name}", mm, test="foot.navicular_drop")
                for name, mm in heights.items()
            ]
            self.screen(date, *told)
        (line,) = self.course()["lines"]
        self.assertEqual((line["measure"], [point["value"] for point in line["points"]]), ("drop", [5, 12]))
        self.assertEqual((line["verdict"], line["worse"]), ("changed", True))

    def test_a_corrected_number_stands_and_the_one_before_it_does_not(self) -> None:
        screen = self.screen("2026-03-02", answer("left", "values.thigh_angle", 8))
        self.me.answer(screen, "left", "values.thigh_angle", 4)
        self.assertEqual([point["value"] for point in self.thigh()["points"]], [4])

    def test_an_amended_number_stands_in_the_line(self) -> None:
        screen = self.screen("2026-03-02", answer("left", "values.thigh_angle", 18))
        self.me.sign(screen)
        change = [answer("left", "values.thigh_angle", 8)]
        body = self.me.amendment(screen, "read the dial again", answers=change)
        self.me.ok("POST", f"/api/screens/{screen}/amendments", body)
        self.assertEqual([point["value"] for point in self.thigh()["points"]], [8])

    def test_what_was_seen_takes_a_value_out_of_the_comparison(self) -> None:
        self.screen("2026-03-02", answer("left", "values.thigh_angle", 1))
        arched = answer("left", "seen", ["lumbar_arch"])
        self.screen("2026-06-02", answer("left", "values.thigh_angle", 12), arched)
        line = self.thigh()
        counts = [(point["validity"], point["beyond"]) for point in line["points"]]
        self.assertEqual(counts, [("valid", None), ("flattered", None)])
        self.assertEqual(line["verdict"], "not_comparable")

    def pelvis(self, date: str, *ways: str, seconds: float = 20) -> None:
        """One hold, and how it was done, said after the number was there."""
        test = "hip.trendelenburg"
        screen = self.screen(date, answer("left", "values.hold", seconds, test=test))
        for way in ways:
            self.me.ok(
                "POST",
                f"/api/screens/{screen}/answers",
                {"answers": [answer("left", "method", way, test=test)]},
            )

    def hold(self) -> dict[str, Any]:
        (line,) = [line for line in self.course()["lines"] if line["measure"] == "hold"]
        return dict(line)

    def test_how_it_was_done_parts_a_line_though_it_was_said_last(self) -> None:
        self.pelvis("2026-03-02", "folds")
        self.pelvis("2026-06-02", "palms")
        self.assertEqual(self.hold()["verdict"], "not_comparable")
        # A number typed after it is as much of that way.
        test = "hip.trendelenburg"
        way = answer("left", "method", "palms", test=test)
        screen = self.screen("2026-08-02", way)
        self.me.answer(screen, "left", "values.hold", 21, test=test)
        self.assertEqual([point["method"] for point in self.hold()["points"]], ["folds", "palms", "palms"])

    def test_injuries_stand_once_on_their_side_and_returns_too(self) -> None:
        told = [
            {**answer(None, field, value), "test": "story"}
            for field, value in (
                ("complaint.region", "ankle"),
                ("complaint.side", "right"),
                ("onset.kind", "sudden"),
                ("onset.date", "2026-03-01"),
            )
        ]
        self.screen("2026-03-02", *told, purpose="ankle_injury")
        again = [{**each, "id": str(uuid4())} for each in told]
        self.screen("2026-05-12", *again, purpose="return_to_sport")
        events = [(event["kind"], event["date"], event["side"]) for event in self.course()["events"]]
        self.assertEqual(
            sorted(events), [("injury", "2026-03-01", "right"), ("return", "2026-05-12", "right")]
        )

    def test_what_is_to_be_done_is_there_however_far_back_it_was_found(self) -> None:
        red = {**answer(None, "red_flags.breathless_or_chest_pain", True), "test": "story"}
        screen = self.screen("2021-03-02", red)
        self.refresh()
        (due,) = self.course()["actions"]
        self.assertEqual((due["screen"], due["urgency"], due["found"]), (screen, "emergency", "2021-03-02"))

    def test_nobody_elses_numbers(self) -> None:
        self.screen("2026-03-02", answer("left", "values.thigh_angle", 1))
        other = self.me.add_athlete()
        self.me.answer(self.me.begin_screen(other), "left", "values.thigh_angle", 50)
        self.assertEqual([point["value"] for point in self.thigh()["points"]], [1])
        stranger = self.person(clinic_id=self.new_clinic())
        self.assertEqual(stranger.call("GET", f"/api/athletes/{self.athlete}/course").status_code, 404)
