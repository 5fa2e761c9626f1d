"""Which answer stands: the one seen later, by the server's clock, whenever it arrived."""

from __future__ import annotations

import datetime as dt
from typing import Any, ClassVar

from tests.support.api import PASSWORD, ApiCase, Person, answer

FIELD = "values.thigh_angle"


def ago(**how: float) -> dt.datetime:
    return dt.datetime.now(dt.UTC) - dt.timedelta(**how)


class OrderCase(ApiCase):
    def setUp(self) -> None:
        self.clinic = self.new_clinic()
        self.me = self.person("practitioner", self.clinic)
        self.other = self.person("assistant", self.clinic)
        self.screen = self.me.begin_screen(date=dt.datetime.now(dt.UTC).date().isoformat())

    def write(
        self,
        who: Person,
        value: Any,
        at: dt.datetime | None,
        *,
        side: str | None = "left",
        field: str = FIELD,
        **more: Any,
    ) -> Any:
        told: dict[str, Any] = {name: more.pop(name) for name in ("device", "clock") if name in more}
        seen: dict[str, Any] = {"at": at.isoformat()} if at else {}
        body: dict[str, Any] = {"answers": [answer(side, field, value, **seen, **more)], **told}
        return who.call("POST", f"/api/screens/{self.screen}/answers", body)

    def opened(self) -> Any:
        return self.me.ok("GET", f"/api/screens/{self.screen}")

    def stands(self) -> Any:
        (entry,) = self.opened()["record"]["entries"]
        return entry["values"]["thigh_angle"]

    def told(self) -> list[tuple[Any, Any]]:
        return [(each["holds"]["value"], each["beside"]["value"]) for each in self.opened()["clashes"]]


class Arrivals(OrderCase):
    def test_what_was_seen_earlier_and_arrives_later_stays_beside(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        written = self.write(self.other, 8, ago(minutes=20)).json()
        self.assertEqual(len(written["beside"]), 1)
        self.assertEqual(self.stands(), 12)
        self.assertEqual(self.told(), [(12, 8)])
        reading = self.me.ok("GET", f"/api/screens/{self.screen}/reading")["reading"]
        self.assertIn("12", str(reading["flags"]))
        with self.engine.connect() as db:
            current = db.exec_driver_sql(
                "SELECT mean FROM measurements WHERE current AND screen_id = %s", (self.screen,)
            ).all()
        self.assertEqual([row.mean for row in current], [12])

    def test_what_was_seen_later_takes_its_place(self) -> None:
        self.write(self.me, 12, ago(minutes=20))
        self.assertEqual(self.write(self.other, 8, ago(minutes=5)).json()["beside"], [])
        self.assertEqual((self.stands(), self.told()), (8, []))

    def test_those_who_agree_are_asked_nothing(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        self.write(self.other, 12, ago(minutes=20))
        self.assertEqual((self.stands(), self.told()), (12, []))

    def test_it_is_history_and_a_repeat_says_the_same(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        body = {"answers": [answer("left", FIELD, 8, at=ago(minutes=20).isoformat())]}
        path = f"/api/screens/{self.screen}"
        first, again = (self.other.ok("POST", f"{path}/answers", body) for _ in range(2))
        self.assertEqual(first["beside"], again["beside"])
        place = {"test": "hip.modified_thomas", "side": "left", "field": FIELD}
        history = self.me.ok("GET", f"{path}/history", params=place)
        self.assertEqual([each["value"] for each in history], [8, 12])

    def test_others_hear_of_both_and_take_neither_for_the_other(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        before = self.opened()["revision"]
        self.write(self.other, 8, ago(minutes=20))
        changes = self.me.ok("GET", f"/api/screens/{self.screen}/changes", params={"after": before})
        self.assertEqual((changes["answers"], changes["revision"]), ([], before + 1))
        self.assertEqual([each["beside"]["value"] for each in changes["clashes"]], [8])

    def test_an_answer_given_since_decides(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        self.write(self.other, 8, ago(minutes=20))
        self.write(self.me, 8, None)
        self.assertEqual((self.stands(), self.told()), (8, []))

    def test_a_value_somebody_took_back_does_not_come_back_unasked(self) -> None:
        self.write(self.me, 12, ago(minutes=9))
        self.write(self.me, None, ago(minutes=5))
        self.write(self.other, 8, ago(minutes=20))
        self.assertEqual(self.opened()["record"]["entries"], [])
        self.assertEqual(self.told(), [(None, 8)])

    def test_one_hand_sends_in_its_own_order_whatever_its_clock_says(self) -> None:
        self.write(self.me, 12, ago(minutes=5), device="tablet")
        self.write(self.me, 8, ago(hours=2), device="tablet")
        self.assertEqual((self.stands(), self.told()), (8, []))

    def test_what_is_typed_reads_by_the_same_order(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        draft = {"answers": [answer("left", FIELD, 1, at=ago(minutes=20).isoformat())]}
        shown = self.other.ok("POST", f"/api/screens/{self.screen}/preview", draft)["reading"]
        self.assertIn("12", str(shown["flags"]))

    def test_both_sides_at_once_and_one_side_go_by_the_same_order(self) -> None:
        gait: dict[str, Any] = {"test": "hip.gait", "field": "values.pattern"}
        self.write(self.me, ["antalgic"], ago(minutes=5), side=None, **gait)
        self.write(self.other, ["smooth"], ago(minutes=20), side="left", **gait)
        entry = self.opened()["record"]["entries"][0]
        self.assertEqual(entry["values"]["pattern"], ["antalgic"])

    def test_it_is_not_signed_before_somebody_decided(self) -> None:
        self.write(self.me, 12, ago(minutes=5))
        self.write(self.other, 8, ago(minutes=20))
        refused = self.me.sign(self.screen)
        self.assertEqual((refused.status_code, refused.json()["tests"]), (409, ["hip.modified_thomas"]))
        self.write(self.me, 12, None)
        self.assertEqual(self.me.sign(self.screen, PASSWORD).status_code, 204)


class Clocks(OrderCase):
    def test_a_clock_that_is_ahead_does_not_win_by_it(self) -> None:
        """Two hours ahead, it wrote at what was really twenty minutes ago."""
        self.write(self.me, 12, ago(minutes=5))
        ahead = dt.timedelta(hours=2)
        clock = (ago() + ahead).isoformat()
        said = self.write(self.other, 8, ago(minutes=20) + ahead, clock=clock).json()
        self.assertEqual((self.stands(), len(said["beside"])), (12, 1))
        self.assertAlmostEqual(said["skew_seconds"], -7200, delta=60)
        clash = self.opened()["clashes"][0]
        self.assertGreater(dt.datetime.fromisoformat(clash["beside"]["at"]), ago(minutes=1))

    def test_a_small_skew_is_no_word_worth(self) -> None:
        clock = ago(seconds=90).isoformat()
        self.assertIsNone(self.write(self.other, 8, ago(minutes=5), clock=clock).json()["skew_seconds"])

    def test_a_slow_line_is_no_slow_clock(self) -> None:
        self.write(self.me, 12, ago(seconds=11))
        self.write(self.other, 8, ago(seconds=12), clock=ago(seconds=3).isoformat())
        self.assertEqual(self.stands(), 12)

    def test_long_before_the_screen_and_still_to_come_are_refused(self) -> None:
        for at, status in (
            (ago(days=31), 422),
            (ago(days=29), 200),
            (ago(minutes=-11), 422),
            (ago(minutes=-9), 200),
        ):
            with self.subTest(at=at):
                response = self.write(self.me, 5, at, side="right")
                self.assertEqual(response.status_code, status, response.text)
                if status == 422:
                    self.assertEqual(response.json()["faults"][0]["path"], "answers[0].at")

    def test_bounds_go_by_the_corrected_time(self) -> None:
        a_year = dt.timedelta(days=365)
        clock = (ago() + a_year).isoformat()
        self.assertEqual(self.write(self.me, 5, ago() + a_year, clock=clock).status_code, 200)


class Dangers(OrderCase):
    """Of two answers about a danger the more careful one holds until somebody licensed decides."""

    RED: ClassVar[dict[str, Any]] = {
        "test": "story",
        "side": None,
        "field": "red_flags.breathless_or_chest_pain",
    }

    def emergency(self) -> bool:
        reading = self.me.ok("GET", f"/api/screens/{self.screen}/reading")["reading"]
        return any(flag["urgency"] == "emergency" for flag in reading["flags"])

    def test_a_late_yes_holds_over_a_no(self) -> None:
        self.write(self.me, False, ago(minutes=5), **self.RED)
        self.assertEqual(self.write(self.other, True, ago(minutes=20), **self.RED).json()["beside"], [])
        self.assertTrue(self.emergency())
        (clash,) = self.opened()["clashes"]
        self.assertEqual((clash["holds"]["value"], clash["danger"]), (True, True))

    def test_a_late_no_does_not_quieten_a_yes(self) -> None:
        self.write(self.me, True, ago(minutes=5), **self.RED)
        self.write(self.other, False, ago(minutes=20), **self.RED)
        self.assertTrue(self.emergency())

    def test_only_somebody_licensed_decides(self) -> None:
        self.write(self.me, False, ago(minutes=5), **self.RED)
        self.write(self.other, True, ago(minutes=20), **self.RED)
        refused = self.write(self.other, False, None, **self.RED)
        self.assertEqual(refused.status_code, 422)
        self.assertTrue(self.emergency())
        self.assertEqual(self.write(self.me, False, None, **self.RED).status_code, 200)
        self.assertFalse(self.emergency())
        self.assertEqual(self.told(), [])

    def test_sore_bone_holds_over_sound_bone(self) -> None:
        bone: dict[str, Any] = {"test": "ankle.palpation", "field": "values.tender"}
        self.write(self.me, ["atfl"], ago(minutes=5), **bone)
        self.write(self.other, ["atfl", "navicular"], ago(minutes=20), **bone)
        (clash,) = self.opened()["clashes"]
        self.assertEqual((clash["holds"]["value"], clash["danger"]), (["atfl", "navicular"], True))

    def test_fewer_points_pressed_clear_less(self) -> None:
        bone: dict[str, Any] = {"test": "ankle.palpation", "field": "values.pressed"}
        self.write(self.me, ["atfl", "navicular"], ago(minutes=5), **bone)
        self.write(self.other, ["atfl"], ago(minutes=20), **bone)
        (clash,) = self.opened()["clashes"]
        self.assertEqual(clash["holds"]["value"], ["atfl"])

    def test_pain_holds_over_none(self) -> None:
        pressed: dict[str, Any] = {"test": "ankle.palpation", "field": "pain"}
        self.write(self.me, {"present": False}, ago(minutes=5), **pressed)
        self.write(self.other, {"present": True}, ago(minutes=20), **pressed)
        (clash,) = self.opened()["clashes"]
        self.assertTrue(clash["danger"])
        self.assertEqual(clash["holds"]["value"], {"present": True})
