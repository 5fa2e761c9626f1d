"""What leaves: bundles, tables, archives; named only where asked; each in the audit; nobody else's."""

from __future__ import annotations

import csv
import hashlib
import io
import json
import zipfile
from typing import Any
from unittest import mock
from uuid import uuid4

from fastapi import Response
from PIL import Image
from pypdf import PdfReader
from sqlalchemy import text

from northstride.api import exports as leaving
from northstride.interchange.fhir.to_record import record_of
from northstride.record.read import check_record
from tests.support.any_record import CATALOGUE
from tests.support.api import ApiCase

NAME = 'O\'Brien "Ö" דנה'


class LeavingCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        self.squad = str(uuid4())
        self.me.ok("POST", "/api/squads", {"id": self.squad, "name": "=Seniors / 1"})
        # A mark nobody sees is not kept.
        self.athlete = self.me.add_athlete(
            name=NAME.replace(" ד", " \u200fד"), squads=[self.squad], birth_date="2001-04-05"
        )
        self.screen = self.me.begin_screen(self.athlete)
        self.me.answer(self.screen, "left", "values.thigh_angle", 8)
        self.me.answer(self.screen, "right", "values.thigh_angle", -6)

    def went(self, noun: str, key: str) -> list[dict[str, Any]]:
        with self.engine.begin() as db:
            rows = db.execute(
                text("SELECT detail FROM audit WHERE verb = 'hand over' AND noun = :noun AND noun_id = :key"),
                {"noun": noun, "key": key},
            )
            return [row.detail for row in rows]


class OneScreen(LeavingCase):
    def bundle(self, **query: Any) -> dict[str, Any]:
        response = self.me.call("GET", f"/api/screens/{self.screen}/fhir", params=query)
        self.assertEqual(response.headers["content-type"], "application/fhir+json")
        return dict(response.json())

    def test_a_bundle_says_how_far_it_holds_and_whose_name_only_where_asked(self) -> None:
        plain, named = self.bundle(), self.bundle(version="R4B", named=True)
        self.assertNotIn(NAME, json.dumps(plain, ensure_ascii=False))
        self.assertIn(json.dumps(NAME, ensure_ascii=False), json.dumps(named, ensure_ascii=False))
        self.assertEqual(
            self.went("screen", self.screen),
            [
                {"form": "FHIR R5", "status": "draft", "named": False},
                {"form": "FHIR R4B", "status": "draft", "named": True},
            ],
        )
        self.assertEqual(self.me.sign(self.screen).status_code, 204)
        report = next(
            item["resource"]
            for item in self.bundle()["entry"]
            if item["resource"]["resourceType"] == "DiagnosticReport"
        )
        self.assertEqual(report["status"], "final")

    def test_a_bundle_comes_back_by_the_door_of_the_record_file(self) -> None:
        made = self.bundle()
        self.assertTrue(self.me.ok("POST", "/api/records/check", made)["stands"])
        stranger = self.person("owner", self.new_clinic())
        shown = stranger.ok("POST", "/api/records/check", made)
        self.assertEqual((shown["entries"], shown["athlete"]), (2, None))
        taken = stranger.ok("POST", "/api/records", made, params={"name": "Ilse Varga"})
        self.assertTrue(taken["new"])
        again = stranger.ok("GET", f"/api/screens/{taken['id']}/record")
        own = check_record(record_of(CATALOGUE, made), CATALOGUE).record
        back = check_record(again, CATALOGUE).record
        self.assertEqual([part.values for part in back.entries], [part.values for part in own.entries])
        made["entry"][3]["resource"]["status"] = 7
        refused = stranger.call("POST", "/api/records/check", made)
        self.assertEqual(refused.status_code, 422)
        self.assertTrue(refused.json()["faults"][0]["path"].startswith("entry.3"))

    def test_values_as_a_table(self) -> None:
        response = self.me.call("GET", f"/api/screens/{self.screen}/values", params={"named": True})
        rows = list(csv.DictReader(io.StringIO(response.text)))
        self.assertEqual([(row["side"], row["value"]) for row in rows], [("left", "8"), ("right", "-6")])
        self.assertEqual({row["name"] for row in rows}, {NAME})
        self.assertEqual(self.went("screen", self.screen)[0]["form"], "values, CSV")
        self.me.call("GET", f"/api/athletes/{self.athlete}/archive")
        told = self.me.ok("GET", f"/api/screens/{self.screen}/sheets")["went"]
        self.assertEqual(
            [(each["form"], each["status"], each["named"]) for each in told],
            [("archive", None, False), ("values, CSV", "draft", True)],
        )


class PeopleAndSquads(LeavingCase):
    def archive(self, path: str, **query: Any) -> zipfile.ZipFile:
        response = self.me.call("GET", path, params=query)
        self.assertEqual(response.status_code, 200)
        found = zipfile.ZipFile(io.BytesIO(response.content))
        self.assertIsNone(found.testzip())
        self.assertEqual(len(found.namelist()), int(response.headers[leaving.FILES_HEADER]))
        return found

    def test_a_person_as_one_archive_whose_manifest_names_every_file(self) -> None:
        second = self.me.begin_screen(self.athlete, date="2026-10-01")
        self.me.answer(second, "left", "values.thigh_angle", 4)
        found = self.archive(f"/api/athletes/{self.athlete}/archive")
        manifest = json.loads(found.read("manifest.json"))
        self.assertEqual(
            {file["name"]: file["sha256"] for file in manifest["files"]},
            {
                name: hashlib.sha256(found.read(name)).hexdigest()
                for name in found.namelist()
                if name != "manifest.json"
            },
        )
        self.assertIn("does not diagnose", manifest["notice"])
        records = [name for name in found.namelist() if name.endswith(".json") and name.count(".") == 1]
        for name in records[:-1]:
            check_record(json.loads(found.read(name)), CATALOGUE)
        self.assertFalse([name for name in found.namelist() if NAME.encode() in found.read(name)])
        self.assertEqual([detail["form"] for detail in self.went("screen", second)], ["archive"])
        self.assertEqual(self.went("athlete", self.athlete)[0]["screens"], 2)

    def test_a_squad_as_archive_and_tables(self) -> None:
        other = self.me.begin_screen(self.me.add_athlete(name="Bram Holm", squads=[self.squad]))
        self.me.answer(other, "left", "values.knee_angle", 84)
        apart = self.me.begin_screen(self.me.add_athlete(name="Nobody's"))
        self.me.answer(apart, "left", "values.knee_angle", 80)
        found = self.archive(f"/api/squads/{self.squad}/archive", named=True)
        whole = b"".join(found.read(name) for name in found.namelist()).decode()
        self.assertNotIn(apart, whole)
        self.assertIn("Bram Holm", whole)
        wide = self.me.call("GET", f"/api/squads/{self.squad}/values", params={"form": "wide"})
        rows = list(csv.DictReader(io.StringIO(wide.text)))
        self.assertEqual({row["screen"] for row in rows}, {self.screen, other})
        self.assertIn("hip.modified_thomas/knee_angle/left", rows[0])
        long = self.me.call("GET", f"/api/squads/{self.squad}/values")
        self.assertEqual(len(list(csv.DictReader(io.StringIO(long.text)))), 3)
        own = self.me.call("GET", f"/api/athletes/{self.athlete}/values")
        self.assertEqual(len(list(csv.DictReader(io.StringIO(own.text)))), 2)
        forms = [detail["form"] for detail in self.went("squad", self.squad)]
        self.assertEqual(forms, ["archive", "values, wide CSV", "values, long CSV"])

    def test_a_change_line_by_itself_as_drawing_and_as_picture(self) -> None:
        where = f"/api/athletes/{self.athlete}/lines"
        of = {"test": "hip.modified_thomas", "measure": "thigh_angle"}
        self.assertEqual(self.me.call("GET", where, params=of).status_code, 404)
        second = self.me.begin_screen(self.athlete, date="2026-10-01")
        self.me.answer(second, "left", "values.thigh_angle", 20)
        drawing = self.me.call("GET", where, params=of)
        self.assertEqual(drawing.headers["content-type"], "image/svg+xml")
        self.assertNotIn("var(", drawing.text)
        self.assertNotIn(NAME, drawing.text)
        title = drawing.text.partition("<title>")[2].partition("</title>")[0]
        self.assertIn("left: 12° more since 14 Sept 2026", title)
        picture = self.me.call("GET", where, params={**of, "form": "png"})
        with Image.open(io.BytesIO(picture.content)) as image:
            self.assertEqual(image.format, "PNG")
            self.assertGreater(image.width, 1000)
            self.assertGreater(len(image.convert("L").getcolors(256) or []), 20)
        forms = [detail["form"] for detail in self.went("athlete", self.athlete)]
        self.assertEqual(forms, ["change line, SVG", "change line, PNG"])

    def test_change_lines_stand_in_report_and_athletes_sheet_up_to_their_day(self) -> None:
        second = self.me.begin_screen(self.athlete, date="2026-10-01")
        self.me.answer(second, "left", "values.thigh_angle", 20)
        for screen, kind, there in (
            (second, "report", True),
            (second, "athlete", True),
            (second, "letter", False),
            (self.screen, "report", False),
        ):
            page = self.me.call("GET", f"/api/screens/{screen}/sheets/{kind}/pdf")
            pages = PdfReader(io.BytesIO(page.content)).pages
            text_ = " ".join(each.extract_text() for each in pages)
            self.assertEqual("Over time" in text_ or "How it has changed" in text_, there, (screen, kind))

    def test_an_empty_squad_is_an_archive_with_a_manifest(self) -> None:
        empty = str(uuid4())
        self.me.ok("POST", "/api/squads", {"id": empty, "name": "Nobody yet"})
        found = self.archive(f"/api/squads/{empty}/archive")
        self.assertEqual(json.loads(found.read("manifest.json"))["files"], [])

    def test_what_nobody_waits_for_any_more_is_read_no_further(self) -> None:
        for day in ("2026-10-01", "2026-10-02"):
            self.me.answer(self.me.begin_screen(self.athlete, date=day), "left", "values.thigh_angle", 4)
        held: list[Any] = []

        def keep(*given: Any, **_more: Any) -> Response:
            held.append(given[-1])
            return Response()

        with mock.patch.object(leaving, "ExportStream", keep):
            self.me.call("GET", f"/api/athletes/{self.athlete}/archive")
        next(held[0])
        held[0].close()
        screens = [each["id"] for each in self.me.ok("GET", "/api/screens", params={"athlete": self.athlete})]
        self.assertEqual([len(self.went("screen", screen)) for screen in screens], [0, 0, 1])
