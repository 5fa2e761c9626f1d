"""Tables of values coming in: mapped, tried, and taken whole or not at all."""

from __future__ import annotations

import json
import threading
from typing import Any
from unittest import mock

from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from northstride.interchange.values.table import table_of
from northstride.store.actor import Actor
from northstride.store.transfers import value_tables
from northstride.store.transfers.record_files import import_record
from tests.support.api import ApiCase, Person
from tests.support.taking import take_table

HEAD = "date,athlete,name,test,side,measure,value"
ROW = "2026-09-14,T-1,Ilse Varga,hip.modified_thomas,{side},thigh_angle,{value}"
ROLES = HEAD.split(",")
BORN = ("1990-05-02", "1991-05-02")


def table(*rows: str) -> str:
    return "\n".join([HEAD, *rows]) + "\n"


GOOD = table(ROW.format(side="left", value="8"), ROW.format(side="right", value="-6"))


class Tables(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())

    def count(self, name: str) -> int:
        with self.engine.begin() as db:
            found = db.execute(
                text(f"SELECT count(*) FROM {name} WHERE clinic_id = :clinic"),
                {"clinic": self.me.clinic_id},
            )
            return int(found.scalar_one())

    def steps(self, path: str, body: dict[str, Any], who: Person | None = None) -> list[dict[str, Any]]:
        response = (who or self.me).call("POST", path, body)
        self.assertEqual(response.status_code, 200, response.text)
        self.assertEqual(response.headers["content-type"], "application/x-ndjson")
        return [json.loads(line) for line in response.text.splitlines()]

    def check(self, text_: str, roles: list[str] | None = None) -> Any:
        last = self.steps("/api/values/check", {"text": text_, "roles": roles or ROLES})[-1]
        self.assertEqual(last["step"], "done")
        return last["checked"]

    def take(self, body: dict[str, Any]) -> Any:
        return self.steps("/api/values", body)[-1]["taken"]

    def refused(self, body: dict[str, Any]) -> list[str]:
        """The paths of the faults it was refused for."""
        last = self.steps("/api/values", body)[-1]
        self.assertEqual((last["step"], last["problem"]["status"]), ("refused", 422))
        return [str(fault["path"]) for fault in last["problem"]["faults"]]

    def test_what_each_column_becomes_is_shown(self) -> None:
        found = self.me.ok("POST", "/api/values/columns", {"text": GOOD})
        self.assertEqual([column["role"] for column in found["columns"]], ROLES)
        self.assertEqual((found["rows"], found["columns"][6]["shown"]), (2, ["8", "-6"]))
        self.assertIn("ignore", [role["role"] for role in found["roles"]])
        wide = self.me.ok(
            "POST", "/api/values/columns", {"text": "hip.modified_thomas/thigh_angle/left\n4\n"}
        )
        self.assertIn("left", wide["columns"][0]["says"])
        refused = self.me.call("POST", "/api/values/columns", {"text": '"open'})
        self.assertEqual((refused.status_code, refused.json()["faults"][0]["path"]), (422, "text"))

    def test_a_dry_run_makes_nothing(self) -> None:
        found = self.check(GOOD)
        self.assertEqual(found["faults"], [])
        (screen,) = found["screens"]
        self.assertEqual((screen["entries"], screen["name"], screen["athlete"]), (2, "Ilse Varga", None))
        self.assertEqual((self.count("screens"), self.count("athletes")), (0, 0))

    def test_taken_once_however_often_it_is_sent(self) -> None:
        body = {"text": GOOD, "roles": ROLES}
        self.assertEqual(self.take(body), {"screens": 1, "new_athletes": 1})
        self.assertTrue(self.check(GOOD)["screens"][0]["stands"])
        self.assertEqual(self.take(body), {"screens": 0, "new_athletes": 0})
        self.assertEqual((self.count("screens"), self.count("athletes")), (1, 1))
        screen = self.check(GOOD)["screens"][0]["id"]
        reading = self.me.ok("GET", f"/api/screens/{screen}/reading")["reading"]
        self.assertIn("tightness.hip_flexors", {flag["code"] for flag in reading["flags"]})

    def test_all_or_nothing(self) -> None:
        bad = table(ROW.format(side="left", value="8"), ROW.format(side="right", value="800"))
        fault = {"line": 3, "column": "value"}
        (found,) = self.check(bad)["faults"]
        self.assertEqual({name: found[name] for name in fault}, fault)
        self.assertEqual(self.refused({"text": bad, "roles": ROLES})[0], "line 3, value")
        second = table(ROW.format(side="left", value="8"), "2026-09-15,T-2,,hip.faber,left,pain,yes")
        self.assertEqual([each["line"] for each in self.check(second)["faults"]], [3])
        self.assertGreater(len(self.refused({"text": second, "roles": ROLES})), 0)
        self.assertEqual((self.count("screens"), self.count("athletes")), (0, 0))

    def test_a_known_athlete_is_met_and_an_archived_one_is_not_written_to(self) -> None:
        athlete = self.me.add_athlete(ref="T-1", name="Ilse Varga")
        self.assertEqual(self.check(GOOD)["screens"][0]["athlete"], athlete)
        self.me.edit(athlete, archived=True)
        self.assertGreater(len(self.refused({"text": GOOD, "roles": ROLES})), 0)
        self.assertEqual(self.count("screens"), 0)

    def test_a_value_never_goes_under_another_person(self) -> None:
        two_names = table(ROW.format(side="left", value="8"), GOOD.splitlines()[2].replace("Ilse", "Tuva"))
        (fault,) = self.check(two_names)["faults"]
        self.assertEqual((fault["line"], fault["column"]), (3, "name"))
        self.assertIn("line 2", fault["problem"])
        self.me.add_athlete(ref="T-1", name="Tuva Lind")
        (fault,) = self.check(GOOD)["faults"]
        self.assertEqual((fault["line"], fault["column"]), (2, "name"))
        self.assertIn("Tuva Lind", fault["problem"])
        self.assertEqual(self.refused({"text": GOOD, "roles": ROLES})[0], "line 2, name")
        self.assertEqual(self.count("screens"), 0)

    def test_a_day_of_birth_tells_people_apart(self) -> None:
        roles = [*ROLES, "birth_date"]
        lines = [f"{line},{day}" for line, day in zip(GOOD.splitlines(), ("birth_date", *BORN), strict=True)]
        (fault,) = self.check("\n".join(lines), roles)["faults"]
        self.assertEqual((fault["line"], fault["column"]), (3, "birth_date"))
        lines[2] = lines[2].replace(BORN[1], BORN[0])
        body = {"text": "\n".join(lines), "roles": roles}
        self.assertEqual(self.take(body)["new_athletes"], 1)
        self.assertEqual(self.me.listed()[0]["birth_date"], BORN[0])
        other = "\n".join(lines).replace(BORN[0], BORN[1]).replace(",8,", ",9,")
        (fault, *_) = self.check(other, roles)["faults"]
        self.assertIn(BORN[0], fault["problem"])

    def test_one_person_written_in_two_ways_is_one(self) -> None:
        rows = [
            line.replace("T-1", ref)
            for line, ref in zip(GOOD.splitlines()[1:], (" T-1", "t-1\u200b"), strict=True)
        ]
        self.assertEqual(len(self.check(table(*rows))["screens"]), 1)
        rows[1] = rows[1].replace("t-1", "Т-1")
        (fault,) = self.check(table(*rows))["faults"]
        self.assertEqual((fault["line"], fault["column"]), (3, "athlete"))

    def test_ten_thousand_rows_in_one_go(self) -> None:
        rows = [
            f"2026-09-14,T-{at // 100},A. Name,hip.modified_thomas,{('left', 'right')[at % 2]},thigh_angle,4"
            for at in range(10_000)
        ]
        found = self.check(table(*rows))
        self.assertEqual((len(found["screens"]), found["faults"]), (100, []))

    def test_how_far_it_is_stands_in_each_line(self) -> None:
        rows = [f"2026-09-14,T-{at},A. Name,hip.modified_thomas,left,thigh_angle,4" for at in range(600)]
        body = {"text": table(*rows), "roles": ROLES}
        told = [(each["step"], each["done"], each["of"]) for each in self.steps("/api/values/check", body)]
        self.assertEqual(told[0], ("reading", 0, 0))
        self.assertEqual(
            [each for each in told if each[0] == "checking"],
            [("checking", n, 600) for n in (0, 250, 500, 600)],
        )
        self.assertEqual(told[-1], ("done", 600, 600))

    def test_three_at_once_hold_nobody_up_and_none_fails(self) -> None:
        rows = [f"2026-09-14,T-{at},A. Name,hip.modified_thomas,left,thigh_angle,4" for at in range(1500)]
        body = {"text": table(*rows), "roles": ROLES}
        people = [self.person("owner", self.me.clinic_id) for _ in range(3)]
        found: list[dict[str, Any]] = []
        threads = [
            threading.Thread(
                target=lambda who=who: found.append(self.steps("/api/values/check", body, who)[-1])
            )
            for who in people
        ]
        for thread in threads:
            thread.start()
        screen = self.me.begin_screen()
        while any(thread.is_alive() for thread in threads):
            self.me.answer(screen, "left", "values.thigh_angle", 4)
        self.assertEqual([len(each["checked"]["screens"]) for each in found], [1500] * 3)

    def test_what_is_stopped_while_it_is_written_leaves_nothing(self) -> None:
        written: list[str] = []
        own = import_record
        taking = value_tables.TableImport([])

        def slow(*given: Any) -> Any:
            done = own(*given)
            written.append("one")
            taking.stop()
            return done

        raws = [(each, "Ilse Varga") for each in self.drafts(2)]
        taking = value_tables.TableImport(raws)
        actor = Actor(self.me.clinic_id, self.me.user_id, "A. Owner", "owner", None, "Europe/Helsinki")
        with (
            mock.patch.object(value_tables, "import_record", slow),
            self.assertRaises(value_tables.Stopped),
            self.engine.begin() as db,
        ):
            taking.run(db, actor, default_catalogue())
        self.assertEqual((written, self.count("screens")), (["one"], 0))

    def drafts(self, many: int) -> list[dict[str, Any]]:
        rows = [f"2026-09-14,T-{at},Ilse Varga,hip.modified_thomas,left,thigh_angle,4" for at in range(many)]
        found = take_table(default_catalogue(), table_of(table(*rows)), ROLES, "follow_up")
        return [draft.raw() for draft in found.screens]

    def test_what_is_no_table_is_refused_in_its_last_line(self) -> None:
        last = self.steps("/api/values/check", {"text": "", "roles": ROLES})[-1]
        self.assertEqual((last["step"], last["problem"]["faults"][0]["path"]), ("refused", "text"))
        student = self.person("student", self.me.clinic_id)
        body = {"text": GOOD, "roles": ROLES}
        self.assertEqual(student.call("POST", "/api/values/check", body).status_code, 403)
