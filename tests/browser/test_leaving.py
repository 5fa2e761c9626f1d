"""What leaves and comes in through the browser: archives, bundles, tables, dates, the return board."""

from __future__ import annotations

import csv
import json
import re
import zipfile
from pathlib import Path
from typing import Any
from uuid import uuid4

import vobject
from playwright.sync_api import FilePayload, Page, expect

from northstride.cli.published import DOCS
from tests.support.ankle import done
from tests.support.browser import PASSWORD, BrowserCase
from tests.support.clean import STILL, CleanCase
from tests.support.records import record

HEAD = "Day,Reference,Name,Examination,side,measure,Result,Shoe"


def saved(page: Page, button: Any) -> Path:
    with page.expect_download() as download:
        button.click()
    return Path(download.value.path())


def table(*rows: str) -> FilePayload:
    text = "\n".join([HEAD, *rows]) + "\n"
    return FilePayload(name="values.csv", mimeType="text/csv", buffer=text.encode())


class Screens(BrowserCase):
    def test_a_screen_in_open_formats_and_what_went_out(self) -> None:
        page = self.at_bench()
        page.keyboard.type("9")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Sheet").click()
        away = page.get_by_role("region", name="Take it along")
        made = json.loads(saved(page, away.get_by_role("button", name="FHIR R5")).read_text())
        self.assertNotIn("Ilse Varga", json.dumps(made))
        away.get_by_label("With names").click()
        named = json.loads(saved(page, away.get_by_role("button", name="FHIR R4B")).read_text())
        self.assertIn("Ilse Varga", json.dumps(named))
        rows = list(csv.DictReader(saved(page, away.get_by_role("button", name="CSV", exact=True)).open()))
        self.assertEqual([row["value"] for row in rows], ["9"])
        for form in ("FHIR R5", "FHIR R4B", "values, CSV"):
            expect(away.get_by_role("listitem").filter(has_text=form)).to_be_visible()


class Letters(CleanCase):
    def test_a_template_is_kept_and_filled_in_by_one_tap(self) -> None:
        page = self.at_bench(**STILL)
        page.keyboard.type("9")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Sheet").click()
        page.get_by_role("button", name="Keep a template").click()
        page.get_by_label("Name of the template").fill("Ridgegate")
        page.get_by_label("Template: to").fill("Dr Farkas, Ridgegate Practice")
        page.get_by_label("Template: greeting").fill("About {shoe}")
        page.get_by_role("button", name="Keep", exact=True).click()
        expect(page.get_by_text("{shoe} is no field")).to_be_visible()
        self.assert_clean(page, "a template with a fault")
        page.get_by_label("Template: greeting").fill("About {athlete}, seen {day}.")
        page.get_by_label("Template: greeting").press("Enter")
        page.get_by_role("button", name="Ridgegate", exact=True).click()
        expect(page.get_by_label("To", exact=True)).to_have_value("Dr Farkas, Ridgegate Practice")
        expect(page.get_by_label("Greeting", exact=True)).to_have_value(re.compile("About Ilse Varga, seen"))
        page.get_by_role("button", name="remove template Ridgegate").click()
        expect(page.get_by_role("button", name="Ridgegate", exact=True)).to_have_count(0)


class PeopleAndSquads(CleanCase):
    def test_a_person_as_one_archive_by_touch_on_a_phone(self) -> None:
        page = self.page(has_touch=True, **STILL)
        page.set_viewport_size({"width": 390, "height": 844})
        self.sign_in(page)
        page.goto(f"{self.app.address}/athletes/{self.athletes['Oskar Bremer']}")
        page.get_by_role("button", name="Take along Oskar Bremer").tap()
        dialog = page.get_by_role("dialog", name="Oskar Bremer, taken along")
        switch = dialog.get_by_label("With names")
        switch.tap()
        expect(switch).to_be_checked()
        self.assert_clean(page, "taken along")
        found = zipfile.ZipFile(saved(page, dialog.get_by_role("button", name="one archive")))
        self.assertEqual(found.namelist(), ["manifest.json"])
        expect(dialog.get_by_text("The archive is there.")).to_be_visible()

    def test_an_archive_can_be_stopped_on_its_way(self) -> None:
        page = self.page()
        self.sign_in(page)
        page.goto(f"{self.app.address}/athletes/{self.athletes['Oskar Bremer']}")
        page.route("**/archive*", lambda _route: None)
        page.get_by_role("button", name="Take along Oskar Bremer").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="one archive").click()
        expect(dialog.get_by_role("status")).to_contain_text("0 of … files")
        dialog.get_by_role("button", name="Stop").click()
        expect(dialog.get_by_role("button", name="one archive")).to_be_enabled()
        expect(dialog.get_by_role("alert")).to_have_count(0)

    def test_a_table_is_mapped_tried_and_taken_whole(self) -> None:
        page = self.page(**STILL)
        self.sign_in(page)
        day, thigh = "2026-09-14", "hanging-leg length test"
        bad = f"{day},T-900,Aino Berg,{thigh},right,thigh_angle,999,42"
        good = f"{day},T-900,Aino Berg,{thigh},left,thigh_angle,8,42"
        page.get_by_label("Table of values").set_input_files(table(good, bad))
        dialog = page.get_by_role("dialog", name="A table of 2 rows")
        expect(dialog.get_by_label("What Shoe becomes")).to_have_value("ignore")
        expect(dialog.get_by_label("What Result becomes")).to_have_value("value")
        dialog.get_by_role("button", name="Try it").click()
        faults = dialog.get_by_label("Faults")
        expect(faults.get_by_role("row").nth(1)).to_contain_text("3")
        expect(faults.get_by_role("row").nth(1)).to_contain_text("Result")
        expect(dialog.get_by_role("button", name="Take")).to_have_count(0)
        self.assert_clean(page, "a table with a fault")
        dialog.get_by_role("button", name="Leave it").click()
        page.get_by_label("Table of values").set_input_files(table(good, bad.replace("999", "-6")))
        dialog.get_by_role("button", name="Try it").click()
        expect(dialog.get_by_label("Screens it makes")).to_contain_text("Aino Berg")
        expect(dialog.get_by_role("button", name="Take 1 screen")).to_be_focused()
        page.keyboard.press("Enter")
        expect(dialog.get_by_role("status")).to_have_text("1 screen taken, 1 athlete new here.")
        dialog.get_by_role("button", name="Close").click()
        expect(page.get_by_role("button", name="Aino Berg")).to_be_visible()

    def test_another_meaning_of_a_column_must_be_tried_again(self) -> None:
        page = self.page()
        self.sign_in(page)
        row = "2026-09-14,T-901,Mads Holt,ankle.lunge,left,distance,95,42"
        page.get_by_label("Table of values").set_input_files(table(row))
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="Try it").click()
        expect(dialog.get_by_role("button", name="Take 1 screen")).to_be_visible()
        dialog.get_by_label("What Result becomes").fill("nonsense")
        expect(dialog.get_by_text("nothing a column can become")).to_be_visible()
        expect(dialog.get_by_role("button", name="Take 1 screen")).to_have_count(0)


class Dates(CleanCase):
    def test_an_address_of_ones_own_is_shown_once_and_taken_back(self) -> None:
        page = self.page(**STILL)
        self.sign_in(page)
        page.goto(f"{self.app.address}/settings/calendar")
        page.get_by_role("button", name="Make an address").press("Enter")
        address = page.get_by_label("Your address, shown once").input_value()
        self.assertIn("BEGIN:VCALENDAR", self.asked(page, address)[1])
        self.assert_clean(page, "calendar")
        page.reload()
        expect(page.get_by_text("There is an address, without names")).to_be_visible()
        expect(page.get_by_label("Your address, shown once")).to_have_count(0)
        page.get_by_role("button", name="Take it back").click()
        expect(page.get_by_role("button", name="Make an address")).to_be_visible()
        self.assertEqual(self.asked(page, address)[0], 404)

    @staticmethod
    def asked(page: Page, address: str) -> tuple[int, str]:
        """As a calendar asks: without a session."""
        script = """address => fetch(address, { credentials: "omit" })
            .then(answer => answer.text().then(text => [answer.status, text]))"""
        status, text = page.evaluate(script, address)
        return int(status), str(text)

    def test_one_date_as_a_file(self) -> None:
        page = self.page()
        self.sign_in(page)
        sprain = json.loads((DOCS / "examples" / "lateral-sprain-day-2.json").read_text())
        self.import_record(page, {**sprain, "id": str(uuid4())})
        page.locator("header").first.get_by_role("link", name="Ilse Varga").click()
        made = saved(page, page.get_by_role("button", name="calendar file").first)
        (event,) = vobject.readOne(made.read_text()).contents["vevent"]
        self.assertLess(event.dtstart.value, event.dtend.value)
        self.assertNotIn("Ilse", made.read_text())


class ReturnBoard(CleanCase):
    def at_board(self, **options: Any) -> Page:
        page = self.page(**options)
        self.sign_in(page)
        told = {"complaint": {"region": "ankle", "side": "right"}, "pain": {"now": 1}}
        ref = {"ref": f"NS-{uuid4().hex[:4]}"}
        for date, right in (("2026-08-03", 19), ("2026-09-14", 27)):
            entries = [
                done("ankle.heel_rise", "left", count=28),
                done("ankle.heel_rise", "right", count=right),
            ]
            file = record(entries, id=str(uuid4()), date=date, purpose="return_to_sport", athlete=ref)
            page.goto(f"{self.app.address}/people")
            self.import_record(page, {**file, "intake": told})
        return page

    def test_criteria_over_time_by_how_much_and_the_rest_in_one_tap(self) -> None:
        page = self.at_board(**STILL)
        page.locator("header").first.get_by_role("link", name="Ilse Varga").click()
        board = page.get_by_role("region", name="Ready to return")
        rise = board.get_by_role("row").filter(has_text="Heel rise")
        expect(rise).to_contain_text("67.9 %")
        expect(rise).to_contain_text("96.4 %")
        expect(rise.get_by_role("cell").nth(2)).to_contain_text("27 against 28")
        expect(
            board.get_by_role("row").filter(has_text="Side hop").get_by_role("cell").first
        ).to_contain_text("Not tested")
        self.assert_clean(page, "return board")
        for size in ((820, 1180), (390, 844)):
            page.set_viewport_size({"width": size[0], "height": size[1]})
            wide = page.evaluate("document.documentElement.scrollWidth - innerWidth")
            self.assertEqual(wide, 0, size)

    def test_what_is_left_begins_as_a_route_of_its_own(self) -> None:
        page = self.at_board()
        signed = page.evaluate(
            """async ([screen, password]) => {
                const { session } = await (await fetch("/api/session")).json();
                const headers = { "X-North-Stride-Token": session.token, "Content-Type": "application/json" };
                const at = `/api/screens/${screen}`;
                const { identity } = await (await fetch(`${at}/reading`)).json();
                const body = JSON.stringify({ shown: identity, password });
                const answer = await fetch(`${at}/sign`, { method: "POST", headers, body });
                return [answer.status, await answer.text()];
            }""",
            [self.screen_id(page), PASSWORD],
        )
        self.assertEqual(signed[0], 204, signed)
        page.locator("header").first.get_by_role("link", name="Ilse Varga").click()
        left = page.get_by_role("region", name="Ready to return").get_by_role(
            "button", name="Test what is left"
        )
        expect(left).to_be_visible()
        left.press("Enter")
        page.wait_for_url("**/story**")
        begun = page.evaluate(
            "id => fetch(`/api/screens/${id}`).then(r => r.json()).then(s => s.record)", self.screen_id(page)
        )
        self.assertEqual(begun["purpose"], "return_to_sport")
        self.assertIn("ankle.hop", begun["planned"])
        self.assertNotIn("ankle.heel_rise", begun["planned"])
