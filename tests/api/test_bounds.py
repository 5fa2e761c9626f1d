"""Nothing is stored that could not be read again: every moment, date, number and name has bounds."""

from __future__ import annotations

import datetime as dt
import json
import tracemalloc
from typing import Any
from uuid import uuid4
from zoneinfo import ZoneInfo

from northstride.store.answers.folding import AnswerRow, fold
from tests.support.api import ApiCase, answer
from tests.support.records import record, thomas

FIELD = "values.thigh_angle"


class Bounds(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner")

    def refused(self, response: Any, path: str) -> None:
        self.assertEqual(response.status_code, 422, response.text)
        self.assertEqual([fault["path"] for fault in response.json()["faults"]], [path])

    def test_moments(self) -> None:
        screen = self.me.begin_screen()
        for at in (
            "0001-01-01T00:00:00+14:00",
            "9999-12-31T23:59:59-12:00",
            "1899-12-31T23:59:59Z",
            "2026-09-14T09:00:00+23:59",
            "2026-09-14T09:00:00",
        ):
            with self.subTest(at=at):
                body = {"answers": [answer("left", FIELD, 8, at=at)]}
                self.refused(self.me.call("POST", f"/api/screens/{screen}/answers", body), "answers[0].at")
                file = record([{**thomas("left", thigh_angle=8), "at": at}], id=str(uuid4()))
                self.refused(self.me.call("POST", "/api/records/check", file), "entries[0].at")
        self.assertEqual(self.me.ok("GET", f"/api/screens/{screen}")["revision"], 0)
        body = {"answers": [answer("left", FIELD, 8, at="2026-09-14T09:00:00+05:45")]}
        self.me.ok("POST", f"/api/screens/{screen}/answers", body)
        (entry,) = self.me.ok("GET", f"/api/screens/{screen}")["record"]["entries"]
        self.assertEqual(entry["at"], "2026-09-14T09:00:00+05:45")

    def test_days(self) -> None:
        athlete = self.me.add_athlete()
        screen = {"athlete_id": athlete, "purpose": "squad_screen"}
        for day in ("0001-01-01", "9999-12-31", "1899-12-31", "2200-01-01", "٢٠٢٦-٠٩-١٤", "2026-02-30"):
            with self.subTest(day=day):
                self.refused(
                    self.me.call("POST", "/api/screens", {"id": str(uuid4()), "date": day, **screen}), "date"
                )
                born = {"seen": 1, "birth_date": day}
                self.refused(self.me.call("PATCH", f"/api/athletes/{athlete}", born), "birth_date")
                file = record(id=str(uuid4()), date=day)
                self.refused(self.me.call("POST", "/api/records/check", file), "date")

    def test_a_screen_is_of_today_or_tomorrow_at_the_latest(self) -> None:
        today = dt.datetime.now(ZoneInfo("Europe/Helsinki")).date()
        athlete = self.me.add_athlete()
        for days, status in ((0, 201), (1, 201), (2, 422), (400, 422)):
            day = (today + dt.timedelta(days=days)).isoformat()
            with self.subTest(days=days):
                body = {"id": str(uuid4()), "athlete_id": athlete, "date": day, "purpose": "follow_up"}
                self.assertEqual(self.me.call("POST", "/api/screens", body).status_code, status)
                file = record(id=str(uuid4()), date=day)
                checked = self.me.call("POST", "/api/records/check", file)
                self.assertEqual(checked.status_code, 200 if status == 201 else 422)

    def test_a_line_of_history_has_an_id_of_its_own(self) -> None:
        line = {"region": "ankle", "kind": "sprain"}
        for first, second in (("a", "a"), ("line2", None)):
            lines = [{**line, "id": first}, {**line, **({"id": second} if second else {})}]
            file = record(id=str(uuid4()), intake={"history": lines})
            self.refused(self.me.call("POST", "/api/records/check", file), "intake.history[1].id")
        file["intake"]["history"][1]["id"] = "b"
        self.me.ok("POST", "/api/records/check", file)

    def test_beginning_again_with_another_plan_is_another_screen(self) -> None:
        athlete = self.me.add_athlete()
        body = {"id": str(uuid4()), "athlete_id": athlete, "date": "2026-09-14", "purpose": "follow_up"}
        plans = {"planned": ["hip.gait"]}
        for _ in range(2):
            self.me.ok("POST", "/api/screens", {**body, **plans})
        other = self.me.call("POST", "/api/screens", {**body, "planned": ["hip.faber"]})
        self.assertEqual((other.status_code, other.json()["faults"][0]["path"]), (409, "planned"))
        told = {"answers": [answer(None, "planned.hip.faber", True, test="route")]}
        self.me.ok("POST", f"/api/screens/{body['id']}/answers", told)
        self.me.ok("POST", "/api/screens", {**body, **plans})

    def test_numbers(self) -> None:
        screen = self.me.begin_screen()
        at = f"/api/screens/{screen}/answers"
        for raw in ("1e400", "-1e308", "1" * 400, "-0.0e-400000", "99999999999999999999", "1e-320"):
            for field in (FIELD, "pain", "by_exception"):
                body = json.dumps({"answers": [answer("left", field, "NUMBER")]}).replace('"NUMBER"', raw)
                kind = {"Content-Type": "application/json"}
                response = self.me.call("POST", at, content=body, headers=kind)
                with self.subTest(raw=raw[:12], field=field):
                    self.assertIn(response.status_code, (200, 422), response.text)
        self.assertEqual(self.me.call("GET", f"/api/screens/{screen}/reading").status_code, 200)

    def test_names_need_a_visible_letter(self) -> None:
        for name in (" ", "\u200b\u200b", "\u00ad", "...", "🙂", "\u2800", "\u3164\u200d", "´"):
            key = str(uuid4())
            with self.subTest(name=ascii(name)):
                body = {"id": key, "ref": key[:8], "name": name}
                self.refused(self.me.call("POST", "/api/athletes", body), "name")
                self.refused(self.me.call("POST", "/api/athletes", {**body, "name": "B", "ref": name}), "ref")
                self.refused(self.me.call("POST", "/api/squads", {"id": key, "name": name}), "name")
        for name in ("Åse Þórunn", "王芳", "7", "O'Neill"):
            self.me.add_athlete(name=name)

    def test_nul_and_half_characters_are_never_a_500(self) -> None:
        screen = self.me.begin_screen()
        at = f"/api/screens/{screen}"
        asked: list[tuple[str, str, dict[str, Any]]] = [
            ("GET", "/api/athletes?search=%00", {}),
            ("GET", f"/api/screens?athlete={uuid4()}%00", {}),
            ("GET", f"{at}/history?test=a%00&field=note", {}),
            ("GET", f"{at}/history?test=hip.gait&field=note&key=%00", {}),
            ("GET", f"{at}/history?test=no.such.test&field=note", {}),
            ("POST", "/api/records?name=%00", {"content": json.dumps(record(id=str(uuid4())))}),
        ]
        for raw in ('"\\u0000"', '"a\\u0000b"', '"\\ud800"'):
            for path, body in (
                ("/api/session", {"login": "RAW", "password": "x"}),
                ("/api/session", {"login": "x", "password": "RAW"}),
                ("/api/squads", {"id": str(uuid4()), "name": "RAW"}),
                ("/api/athletes", {"id": str(uuid4()), "ref": "x", "name": "B", "sport": "RAW"}),
                (f"{at}/answers", {"answers": [answer("left", "note", "RAW")]}),
                (f"{at}/answers", {"answers": [answer("left", "seen", ["RAW"])]}),
                (f"{at}/answers", {"answers": [answer("left", "pain", {"RAW": 1})]}),
                (f"{at}/answers", {"answers": [answer("left", FIELD, "RAW")]}),
                (f"{at}/answers", {"answers": [], "device": "RAW"}),
                (f"{at}/overrides", {"gate": "clot_doubt", "side": "left", "reason": "RAW"}),
                ("/api/records", record(id=str(uuid4()), examiner="RAW")),
            ):
                asked.append(("POST", path, {"content": json.dumps(body).replace('"RAW"', raw)}))
        for method, path, options in asked:
            headers = {"Content-Type": "application/json"}
            response = self.me.call(method, path, headers=headers, **options)
            with self.subTest(path=path, body=str(options)[:60]):
                self.assertIn(response.status_code, (400, 401, 404, 422), response.text)

    def test_deep_json_is_refused_plainly(self) -> None:
        screen = self.me.begin_screen()
        for depth in (30, 60, 300, 900, 5000):
            for field in (FIELD, "note", "seen", "pain"):
                body = json.dumps({"answers": [answer("left", field, "DEEP")]})
                body = body.replace('"DEEP"', "[" * depth + "]" * depth)
                kind = {"Content-Type": "application/json"}
                response = self.me.call("POST", f"/api/screens/{screen}/answers", content=body, headers=kind)
                with self.subTest(depth=depth, field=field):
                    self.assertIn(response.status_code, (400, 422), response.text)

    def test_faults_are_capped_and_counted(self) -> None:
        file = record([thomas("left", thigh_angle=999) for _ in range(700)], id=str(uuid4()))
        said = self.me.call("POST", "/api/records/check", file).json()
        self.assertEqual(len(said["faults"]), 201)
        self.assertIn("700 faults in all", said["faults"][-1]["problem"])
        many = {"answers": [{"id": "x"} for _ in range(200)]}
        said = self.me.call("POST", f"/api/screens/{self.me.begin_screen()}/answers", many).json()
        self.assertLessEqual(len(said["faults"]), 201)
        self.assertGreater(said["fault_count"], 400)

    def test_junk_in_a_body_takes_little_memory(self) -> None:
        screen = self.me.begin_screen()
        kind = {"Content-Type": "application/json"}
        for junk in (
            '{"answers":[' + "{}," * 600_000 + "{}]}",
            '{"answers":[' + '{"a":1,"a":2},' * 130_000 + "{}]}",
        ):
            tracemalloc.start()
            response = self.me.call("POST", f"/api/screens/{screen}/answers", content=junk, headers=kind)
            _, peak = tracemalloc.get_traced_memory()
            tracemalloc.stop()
            self.assertIn(response.status_code, (413, 422))
            self.assertLess(peak, 80_000_000)

    def test_what_was_kept_before_there_were_bounds_still_shows(self) -> None:
        """A time at the calendar's edge, from a database older than the bounds."""
        import datetime as dt

        catalogue = self.app.state.services.catalogue
        first = dt.datetime(1, 1, 1, tzinfo=dt.UTC)
        row = AnswerRow(
            uuid4(), 1, "hip.modified_thomas", uuid4(), "left", "", "left", FIELD, 8, None, first, -600
        )
        (entry,) = fold([row], catalogue)
        self.assertEqual(entry.to_json()["at"], "0001-01-01T00:00:00+00:00")
