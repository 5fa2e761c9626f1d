"""Documents of every format there ever was are read for ever. A new format adds a file here."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

import orjson
from sqlalchemy import text

from northstride.api.signatures import SignedOut
from northstride.core.catalogue import default_catalogue
from northstride.core.rules import RULES_VERSION
from northstride.store.actor import Actor
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.papers.amending import amend
from northstride.store.signed.frozen import FORMAT, LATER, latest_signature
from tests.support.api import ApiCase, Person

KEPT = Path(__file__).parent / "frozen"
CATALOGUE = default_catalogue()


def without_grounds(reading: dict[str, Any]) -> list[dict[str, Any]]:
    """Actions as they come out of a format that did not keep what they rest on."""
    return [{**action, "says": None, "tests": None} for action in reading["actions"]]


JSON_COLUMNS = ("identity", "differences", "record", "context", "reading", "changes")
COLUMNS = ("number", "id", "reason", "revision", "format", *JSON_COLUMNS, "by_name", "at")
VALUES = [f"CAST(:{name} AS jsonb)" if name in JSON_COLUMNS else f":{name}" for name in COLUMNS]
INSERT = text(
    f"INSERT INTO signatures (clinic_id, screen_id, user_id, {', '.join(COLUMNS)})"
    f" VALUES (:clinic, :screen, :user, {', '.join(VALUES)})"
)
SIGNED_SCREEN = text(
    "INSERT INTO screens (clinic_id, id, athlete_id, date, purpose, schools, planned, overrides, created_by,"
    " revision, signed_at, signed_by) VALUES (:clinic, :screen, :athlete, :date, 'follow_up', '{}', '[]',"
    " '[]', :user, 9, now(), :user)"
)


class Frozen(ApiCase):
    me: Person

    def setUp(self) -> None:
        # Documents keep their ids, so each test has a clinic of its own for them.
        self.me = self.person(clinic_id=self.new_clinic())
        self.athlete = self.me.add_athlete()

    def put(self, signatures: list[dict[str, Any]]) -> str:
        """A signed screen with these signatures, as the database has kept them."""
        screen = signatures[0]["record"]["id"]
        with self.engine.begin() as db:
            dated = {"athlete": self.athlete, "date": signatures[0]["record"]["date"]}
            db.execute(SIGNED_SCREEN, {**self.whose(screen), **dated})
            for one in signatures:
                told = {
                    name: None if one[name] is None else orjson.dumps(one[name]).decode()
                    for name in JSON_COLUMNS
                }
                db.execute(INSERT, {**one, **told, **self.whose(screen)})
        return str(screen)

    def whose(self, screen: str) -> dict[str, Any]:
        return {"clinic": self.me.clinic_id, "screen": screen, "user": self.me.user_id}

    def read(self, screen: str, number: int) -> dict[str, Any]:
        response = self.me.call("GET", f"/api/screens/{screen}/signatures/{number}")
        SignedOut.model_validate_json(response.content, by_name=True, by_alias=True)
        return dict(response.json())

    def amend(self, screen: str) -> None:
        """Whatever the format, it can be built upon."""
        actor = Actor(self.me.clinic_id, self.me.user_id, "A. Practitioner", "practitioner", None, "UTC")
        added = NewAnswer(uuid4(), "hip.modified_thomas", "right", "values.knee_angle", 80)
        with self.engine.begin() as db:
            last = latest_signature(db, actor, UUID(screen))
            amend(db, actor, CATALOGUE, UUID(screen), uuid4(), last.id, "knee forgotten", [], [added])

    def test_every_format_has_its_file(self) -> None:
        self.assertEqual({file.stem for file in KEPT.iterdir()}, {f"format-{number}" for number in LATER})
        self.assertEqual(max(LATER), FORMAT)

    def test_format_1_holds_earlier_screens_whole_and_knows_no_identity(self) -> None:
        kept = json.loads((KEPT / "format-1.json").read_text())
        screen = self.put(kept)
        for one in kept:
            found = self.read(screen, one["number"])
            self.assertEqual(found["record"], one["record"])
            reading = one["reading"]
            covered = {**reading["coverage"], "unexamined": None}
            self.assertEqual(
                found["reading"],
                {
                    **reading,
                    "fingerprint": None,
                    "ask": None,
                    "shut": None,
                    "follows": None,
                    "coverage": covered,
                    "actions": without_grounds(reading),
                },
            )
            self.assertEqual((found["identity"], found["differences"]), (None, None))
        self.amend(screen)
        self.assertEqual(self.read(screen, len(kept))["reason"], "knee forgotten")

    def test_format_2_names_the_signatures_it_was_held_against(self) -> None:
        kept = json.loads((KEPT / "format-2.json").read_text())
        self.put(kept["earlier"])
        screen = self.put(kept["signatures"])
        for one in kept["signatures"]:
            found = self.read(screen, one["number"])
            for name in ("record", "identity", "differences"):
                self.assertEqual(found[name], one[name])
            # What it did not keep is not known, and no empty list.
            later = {
                "ask": None,
                "shut": None,
                "follows": None,
                "coverage": {**one["reading"]["coverage"], "unexamined": None},
                "actions": without_grounds(one["reading"]),
            }
            self.assertEqual(found["reading"], {**one["reading"], **later})
        self.amend(screen)
        baselines = {change["before"] for change in self.read(screen, 2)["reading"]["changes"]}
        self.assertEqual(baselines, {12})
        self.assertEqual(self.read(screen, 2)["record"]["entries"][1]["values"], {"tender": []})

    def test_format_3_keeps_what_was_asked_and_what_was_not_examined(self) -> None:
        kept = json.loads((KEPT / "format-3.json").read_text())
        screen = self.put(kept["signatures"])
        for one in kept["signatures"]:
            found = self.read(screen, one["number"])
            for name in ("record", "identity", "differences"):
                self.assertEqual(found[name], one[name])
            later = {"shut": None, "follows": None, "actions": without_grounds(one["reading"])}
            self.assertEqual(found["reading"], {**one["reading"], **later})
        self.assertEqual([item["item"] for item in found["reading"]["ask"]], ["onset.kind"])
        self.assertTrue(found["reading"]["coverage"]["unexamined"])

    def test_format_4_keeps_which_gates_were_shut(self) -> None:
        kept = json.loads((KEPT / "format-4.json").read_text())
        screen = self.put(kept["signatures"])
        for one in kept["signatures"]:
            found = self.read(screen, one["number"])
            for name in ("record", "identity", "differences"):
                self.assertEqual(found[name], one[name])
            later = {"follows": None, "actions": without_grounds(one["reading"])}
            self.assertEqual(found["reading"], {**one["reading"], **later})
        self.assertEqual([item["gate"] for item in found["reading"]["shut"]], ["fracture_doubt"])

    def test_format_5_keeps_what_an_action_rests_on(self) -> None:
        kept = json.loads((KEPT / "format-5.json").read_text())
        screen = self.put(kept["signatures"])
        found = self.read(screen, 0)
        self.assertEqual(found["reading"], {**kept["signatures"][0]["reading"], "follows": None})
        again = next(action for action in found["reading"]["actions"] if action["urgency"] == "recheck")
        self.assertEqual(again["tests"], ["ankle.anterior_drawer"])
        self.assertIn("swelling", again["says"])

    def test_format_6_keeps_what_follows_by_arithmetic(self) -> None:
        kept = json.loads((KEPT / "format-6.json").read_text())
        found = self.read(self.put(kept["signatures"]), 0)
        self.assertEqual(found["reading"], kept["signatures"][0]["reading"])
        arc = [(item["left"], item["right"]) for item in found["reading"]["follows"]]
        self.assertEqual(arc, [(89, 78)])

    def test_todays_rules_read_every_format_and_change_nothing(self) -> None:
        for name in ("format-1", "format-2", "format-3", "format-4", "format-5", "format-6"):
            kept = json.loads((KEPT / f"{name}.json").read_text())
            signatures = kept["signatures"] if isinstance(kept, dict) else kept
            if isinstance(kept, dict) and kept["earlier"]:
                self.put(kept["earlier"])
            screen = self.put(signatures)
            before = self.read(screen, 0)
            today = self.me.ok("GET", f"/api/screens/{screen}/signatures/0/today")
            self.assertEqual(today["rules"], RULES_VERSION)
            self.assertTrue(all(item["cause"] == "rules" for item in today["differences"]))
            self.assertEqual(self.read(screen, 0), before)
            self.assertEqual(before["reading"]["rules"], signatures[0]["reading"]["rules"])

    def test_what_todays_rules_would_add_is_named(self) -> None:
        kept = json.loads((KEPT / "format-3.json").read_text())["signatures"]
        # As an older edition read it: without the laxity, and with a flag that no rule gives any more.
        older = {**kept[0], "reading": {**kept[0]["reading"], "rules": "1", "flags": [], "actions": []}}
        screen = self.put([older])
        today = self.me.ok("GET", f"/api/screens/{screen}/signatures/0/today")
        added = {(d["what"], d["code"], d["side"]) for d in today["differences"] if d["before"] is None}
        self.assertIn(("flags", "instability.atfl", "right"), added)
        self.assertEqual(self.read(screen, 0)["reading"]["rules"], "1")
        stranger = self.person()
        path = f"/api/screens/{screen}/signatures/0/today"
        self.assertEqual(stranger.call("GET", path).status_code, 404)

    def test_an_unknown_format_is_not_guessed_at(self) -> None:
        kept = json.loads((KEPT / "format-1.json").read_text())[:1]
        record = {**kept[0]["record"], "id": str(uuid4())}
        screen = self.put([{**kept[0], "id": str(uuid4()), "record": record, "format": 99, "identity": {}}])
        self.assertEqual(self.me.call("GET", f"/api/screens/{screen}/signatures/0").status_code, 500)
        self.refresh()
        self.assertEqual(self.me.call("GET", "/api/athletes").status_code, 200)
