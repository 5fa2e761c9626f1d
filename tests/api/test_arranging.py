"""What is done about an action: step by step, taken back, asked for before signing, never lost."""

from __future__ import annotations

import datetime as dt
from typing import Any
from uuid import uuid4

from tests.api.test_screens import ScreenCase
from tests.support.api import answer

TRAIN = {"action": "train.tightness_hip_flexors", "side": "left"}
CHEST = {"action": "emergency.danger_chest", "side": None}


def told(item: str, value: Any) -> dict[str, Any]:
    return {**answer(None, f"red_flags.{item}", value), "test": "story"}


class Arranging(ScreenCase):
    def setUp(self) -> None:
        super().setUp()
        self.post(answer("left", "values.thigh_angle", 8))

    def step(self, **fields: Any) -> str:
        key = str(uuid4())
        body = {"id": key, **TRAIN, **fields}
        for _ in range(2):
            self.me.ok("POST", f"{self.at}/arrangements", body)
        return key

    def standing(self) -> dict[str, Any]:
        (found,) = self.me.ok("GET", self.at)["arrangements"]
        return dict(found)

    def undo(self, key: str) -> None:
        body = {"id": str(uuid4())}
        for _ in range(2):
            self.me.ok("POST", f"{self.at}/arrangements/{key}/undo", body)

    def refused(self, **fields: Any) -> list[str]:
        response = self.me.call("POST", f"{self.at}/arrangements", {"id": str(uuid4()), **TRAIN, **fields})
        self.assertEqual(response.status_code, 422)
        return [fault["path"] for fault in response.json()["faults"]]

    def test_a_step_says_who_sees_to_it_when_and_how(self) -> None:
        self.step(on="2026-09-20", at_time="10:15", whom="K. Aalto", note="plan given")
        found = self.standing()["arranged"]
        self.assertEqual(
            [found[name] for name in ("by", "on", "at_time", "whom", "note")],
            ["A. Practitioner", "2026-09-20", "10:15", "K. Aalto", "plan given"],
        )

    def test_only_an_action_of_the_reading_on_its_side_and_with_what_it_needs(self) -> None:
        self.assertEqual(self.refused(side="right", on="2026-09-20"), ["action"])
        self.assertEqual(self.refused(), ["on"])
        self.assertEqual(self.refused(does="again", on="2026-09-20"), ["until"])
        self.assertEqual(self.refused(does="again", on="2026-09-20", until="2026-09-19"), ["until"])
        self.assertEqual(self.refused(does="closed", note="  "), ["note"])
        self.assertEqual(self.refused(on="2026-09-20", at_time="24:00"), ["at_time"])
        self.assertEqual(self.me.ok("GET", self.at)["arrangements"], [])

    def test_taking_back_brings_back_what_stood_before(self) -> None:
        self.step(on="2026-09-20")
        second = self.step(on="2026-09-22")
        self.assertEqual(self.standing()["arranged"]["on"], "2026-09-22")
        self.undo(second)
        self.assertEqual(self.standing()["arranged"]["on"], "2026-09-20")
        unknown = f"{self.at}/arrangements/{uuid4()}/undo"
        self.assertEqual(self.me.call("POST", unknown, {"id": str(uuid4())}).status_code, 404)

    def test_closing_ends_it_until_it_is_arranged_again(self) -> None:
        self.step(does="again", on="2026-10-20", until="2026-10-27")
        self.step(does="closed", note="moved away")
        found = self.standing()
        self.assertEqual((found["closed"]["note"], found["again"]["until"]), ("moved away", "2026-10-27"))
        self.step(on="2026-10-21")
        self.assertIsNone(self.standing()["closed"])

    def test_a_date_lies_between_the_finding_and_a_year_ahead(self) -> None:
        far = (dt.datetime.now(dt.UTC).date() + dt.timedelta(days=370)).isoformat()
        for fields, path in (
            ({"on": "2026-09-13"}, "on"),
            ({"on": far}, "on"),
            ({"does": "again", "on": "2026-09-20", "until": far}, "until"),
            ({"does": "again", "on": "2025-09-20", "until": "2026-09-27"}, "on"),
        ):
            with self.subTest(fields=fields):
                body = {"id": str(uuid4()), **TRAIN, **fields}
                refused = self.me.call("POST", f"{self.at}/arrangements", body)
                self.assertEqual(refused.status_code, 422)
                self.assertEqual([fault["path"] for fault in refused.json()["faults"]], [path])
        self.step(on="2026-09-14")

    def test_the_same_id_never_says_two_things(self) -> None:
        key = self.step(on="2026-09-20")
        body = {"id": key, **TRAIN, "on": "2026-09-21"}
        self.assertEqual(self.me.call("POST", f"{self.at}/arrangements", body).status_code, 409)
        other = self.step(on="2026-09-22")
        undo = {"id": str(uuid4())}
        self.me.ok("POST", f"{self.at}/arrangements/{key}/undo", undo)
        twice = self.me.call("POST", f"{self.at}/arrangements/{other}/undo", undo)
        self.assertEqual(twice.status_code, 409)

    def test_it_is_in_the_audit_with_what_was_done(self) -> None:
        self.undo(self.step(on="2026-09-20"))
        self.assertEqual([verb for verb in self.audit(self.screen) if verb == "arrange"], ["arrange"] * 2)


class SigningWithSomethingUrgent(ScreenCase):
    def setUp(self) -> None:
        super().setUp()
        self.post(told("breathless_or_chest_pain", True))

    def try_to_sign(self) -> tuple[int, list[str]]:
        response = self.sign()
        return response.status_code, response.json()["actions"] if response.content else []

    def take(self, **fields: Any) -> str:
        key = str(uuid4())
        self.me.ok("POST", f"{self.at}/arrangements", {"id": key, **CHEST, **fields})
        return key

    def test_it_is_arranged_or_left_with_a_reason_before_signing(self) -> None:
        self.assertEqual(self.try_to_sign(), (409, ["emergency.danger_chest"]))
        key = self.take(on="2026-09-14", whom="ambulance")
        self.me.ok("POST", f"{self.at}/arrangements/{key}/undo", {"id": str(uuid4())})
        self.assertEqual(self.try_to_sign(), (409, ["emergency.danger_chest"]))
        self.take(does="left", note="went by herself before anybody could call")
        self.assertEqual(self.try_to_sign(), (204, []))

    def test_a_second_look_is_no_arrangement(self) -> None:
        self.take(does="again", on="2026-09-20", until="2026-09-27")
        self.assertEqual(self.try_to_sign()[0], 409)
        self.take(on="2026-09-14", whom="ambulance")
        self.assertEqual(self.try_to_sign()[0], 204)
