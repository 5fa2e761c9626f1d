"""The whole path, from the door to a signed flag and an open file: by keyboard alone, by touch alone."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from contextlib import suppress
from pathlib import Path

from playwright.sync_api import Error, Page, Route, expect

from northstride.cli.steps import ROOT
from tests.support.browser import PASSWORD, BrowserCase


def tab_to(page: Page, name: str, most: int = 40) -> None:
    """By Tab alone, as somebody without a mouse would, once it is there."""
    there = page.get_by_role("button", name=name).or_(page.get_by_role("link", name=name))
    expect(there.first).to_be_visible()
    for _ in range(most):
        page.keyboard.press("Tab")
        tag, *said = page.evaluate(
            "() => { const at = document.activeElement;"
            " return [at.tagName, at.getAttribute('aria-label'), at.textContent]; }"
        )
        if tag in ("BUTTON", "A") and any(name in (part or "") for part in said):
            return
    raise AssertionError(f"Tab does not reach {name}")


class KeyboardAlone(BrowserCase):
    def test_from_the_door_to_the_file(self) -> None:
        page = self.page()
        keys = page.keyboard
        page.goto(self.app.address)
        expect(page.get_by_label("Name you sign in with")).to_be_focused()
        keys.type("jonas")
        keys.press("Tab")
        keys.type(PASSWORD)
        keys.press("Enter")
        page.wait_for_url("**/day")
        tab_to(page, "People")
        keys.press("Enter")
        expect(page.get_by_label("Find by name")).to_be_focused()
        keys.type("ilse")
        expect(page.get_by_role("button", name="Oskar Bremer")).to_have_count(0)
        tab_to(page, "Ilse Varga")
        keys.press("Enter")
        tab_to(page, "Squad screen")
        keys.press("Enter")
        page.wait_for_url("**/story")
        tab_to(page, "No pain, nothing new: begin")
        keys.press("Enter")
        page.wait_for_url("**/bench")
        self.stand(page)
        self.examine(page)
        self.read_and_sign(page)
        self.take_the_file(page)

    def test_a_key_meets_what_it_was_meant_for_though_the_place_comes_meanwhile(self) -> None:
        """On a slow tablet the bar is there first; what fills in below must not take the focus away."""
        page = self.page()
        self.sign_in(page)
        held: list[Route] = []
        page.route("**/api/day", lambda route: held.append(route))
        page.goto(f"{self.app.address}/day")
        expect(page.get_by_role("heading", name="Opening")).to_be_visible()
        tab_to(page, "People")
        for each in held:
            # What was asked too long ago the page has given up.
            with suppress(Error):
                each.continue_()
        page.unroute("**/api/day")
        expect(page.get_by_text("Choose who comes")).to_be_visible()
        page.keyboard.press("Enter")
        expect(page.get_by_label("Find by name")).to_be_focused()

    def stand(self, page: Page) -> None:
        """Gait, knee to wall and squat; Alt PgDn goes on to the next test."""
        keys = page.keyboard
        expect(page.get_by_role("heading", name="Gait")).to_be_visible()
        expect(
            page.get_by_role("group", name="Pattern, both").get_by_role("button", name="Smooth")
        ).to_be_focused()
        keys.press("Space")
        keys.press("Alt+PageDown")
        expect(page.get_by_label("Distance, left")).to_be_focused()
        for value in ("108 110", "112"):
            keys.type(value)
            keys.press("Enter")
        keys.press("Alt+PageDown")
        expect(page.get_by_role("button", name="Full")).to_be_focused()
        keys.press("Space")
        keys.press("Alt+PageDown")

    def examine(self, page: Page) -> None:
        keys = page.keyboard
        expect(page.get_by_label("Thigh, hanging, left")).to_be_focused()
        reads = page.get_by_label("Reads as so far")
        keys.type("8 9 8")
        expect(reads).to_contain_text("Hip flexors short")
        keys.press("Enter")
        expect(page.get_by_label("Thigh, hanging, right")).to_be_focused()
        keys.type("-4")
        expect(reads).to_contain_text("12° tighter")
        expect(page.locator("[class*='ask-bar']")).to_contain_text("RIGHT, thigh to level")
        for value in ("", "84", "95", "-2", "-6", "17", "", "", "", "", ""):
            if value:
                keys.type(value)
            keys.press("Enter")
        expect(page.get_by_role("button", name="Next: Reading")).to_be_focused()
        expect(reads).to_contain_text("Rectus femoris short")
        self.saved(page)
        self.assertEqual(
            self.values(page),
            {
                "left": {
                    "thigh_angle": [8, 9, 8],
                    "knee_angle": 84,
                    "thigh_angle_knee_straight": -2,
                    "abduction_drift": 17,
                },
                "right": {"thigh_angle": -4, "knee_angle": 95, "thigh_angle_knee_straight": -6},
            },
        )
        keys.press("Enter")
        page.wait_for_url("**/reading")

    def read_and_sign(self, page: Page) -> None:
        reading = page.get_by_label("Reading", exact=True)
        expect(reading).to_contain_text("Rectus femoris short")
        expect(reading).to_contain_text("12° tighter than the other side")
        expect(reading).to_contain_text("Not compared with the other side.")
        expect(page.get_by_text("Not a diagnosis; local protocols come first.")).to_be_visible()
        tab_to(page, "Download the screen", most=60)
        page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Your password")).to_be_focused()
        page.keyboard.type("not my password")
        page.keyboard.press("Enter")
        expect(page.get_by_text("this is not your password")).to_be_visible()
        page.get_by_label("Your password").press("Control+a")
        page.keyboard.type(PASSWORD)
        page.keyboard.press("Enter")
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()

    def take_the_file(self, page: Page) -> None:
        tab_to(page, "Download the screen", most=60)
        with page.expect_download() as waiting:
            page.keyboard.press("Enter")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / waiting.value.suggested_filename
            waiting.value.save_as(file)
            command = [sys.executable, "-m", "northstride.cli", "evaluate", str(file)]
            done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=True)
            shown = page.evaluate(
                "id => fetch(`/api/screens/${id}/reading`).then(r => r.json())", self.screen_id(page)
            )
            self.assertEqual(json.loads(done.stdout), shown["reading"])
            page.goto(f"{self.app.address}/people")
            page.get_by_label("Screen file").set_input_files(file)
            expect(page.get_by_text("This screen is here already")).to_be_visible()
            changed = json.loads(file.read_text())
            next(e for e in changed["entries"] if "knee_angle" in e["values"])["values"]["knee_angle"] = 85
            page.get_by_role("button", name="Close").click()
            file.write_text(json.dumps(changed))
            page.get_by_label("Screen file").set_input_files(file)
            expect(page.get_by_role("alert")).to_contain_text("values.knee_angle: differs")


class TouchAlone(BrowserCase):
    def test_from_the_door_to_a_signature(self) -> None:
        page = self.page(has_touch=True)
        page.goto(self.app.address)
        page.get_by_label("Name you sign in with").fill("jonas")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").tap()
        page.get_by_label("Places", exact=True).get_by_role("link", name="People").tap()
        page.get_by_role("button", name="Oskar Bremer").tap()
        page.get_by_role("button", name="Squad screen").tap()
        page.get_by_role("button", name="No pain, nothing new: begin").tap()
        page.wait_for_url("**/bench")
        self.stand(page)
        page.get_by_label("Thigh, hanging, left").tap()
        self.assertEqual(page.get_by_label("Thigh, hanging, left").get_attribute("inputmode"), "none")
        self.press(page, "9", "accept left", "to left", "1", "2", "next trial", "1", "3", "accept left")
        page.get_by_role("button", name="below level").tap()
        self.press(page, "4", ".", "5", "back", "0", "accept right")
        self.saved(page)
        self.assertEqual(
            self.values(page), {"left": {"thigh_angle": [12, 13]}, "right": {"thigh_angle": -4.0}}
        )
        page.get_by_role("button", name="Low back arches").first.tap()
        page.get_by_role("button", name="Pain?, right").tap()
        page.get_by_role("button", name="No pain", exact=True).tap()
        page.get_by_role("button", name="Done", exact=True).tap()
        self.saved(page)
        self.assertEqual(self.entry(page, "left")["seen"], ["lumbar_arch"])
        self.assertEqual(self.entry(page, "right")["pain"], {"present": False})
        page.get_by_role("link", name="Reading").tap()
        expect(page.get_by_label("Reading", exact=True)).to_contain_text("The low back was not flat")
        page.get_by_role("button", name="Sign", exact=True).tap()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").tap()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()

    def stand(self, page: Page) -> None:
        page.get_by_role("group", name="Pattern, both").get_by_role("button", name="Smooth").tap()
        page.get_by_role("button", name="Next: Knee to wall").tap()
        page.get_by_label("Distance, left").tap()
        self.press(page, "1", "0", "8", "accept left", "1", "1", "2", "accept right")
        page.get_by_role("button", name="Next: Squat").tap()
        page.get_by_role("button", name="Full").tap()
        page.get_by_role("button", name="Next: Modified Thomas test").tap()

    @staticmethod
    def press(page: Page, *keys: str) -> None:
        for key in keys:
            page.locator("[class*='_pad_']").get_by_role("button", name=key, exact=True).tap()


class FirstVisitor(BrowserCase):
    """`serve` on an empty database: the first visitor makes the clinic and adds colleagues."""

    @classmethod
    def _people(cls) -> None:
        """Nobody yet."""

    def test_makes_the_clinic_and_a_colleague_who_can_sign_in(self) -> None:
        page = self.page()
        page.goto(self.app.address)
        page.get_by_label("Name of the clinic or club").fill("Tarnholt")
        page.get_by_label("Your name, as it signs").fill("Aino Vierimaa")
        page.get_by_label("Name you sign in with").fill("aino")
        page.get_by_label("Password, ten characters or more").fill("short")
        page.get_by_role("button", name="Make the clinic").click()
        expect(page.locator(".fault").first).to_contain_text("at least 10 characters")
        page.get_by_label("Password, ten characters or more").fill(PASSWORD)
        page.get_by_role("button", name="Make the clinic").click()
        page.get_by_label("Places", exact=True).get_by_role("link", name="Settings").click()
        page.get_by_role("link", name="People and roles").click()
        form = page.get_by_role("form", name="Add a colleague")
        form.get_by_label("Name, as it signs").fill("Maren Solli")
        form.get_by_label("Name they sign in with").fill("maren")
        form.get_by_label("First password").fill(PASSWORD)
        form.get_by_label("Role").select_option("student")
        form.get_by_role("button", name="Add").click()
        expect(page.get_by_text("maren · student")).to_be_visible()
        self.sign_out(page)
        page.get_by_label("Name you sign in with").fill("maren")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_label("Places", exact=True).get_by_role("link", name="People").click()
        expect(page.get_by_text("Nobody here yet.")).to_be_visible()
        expect(page.get_by_role("button", name="Add athlete")).to_have_count(0)


class NothingThere(BrowserCase):
    def test_one_page_says_so_wherever_it_was_looked_for(self) -> None:
        page = self.page()
        self.sign_in(page)
        nobody = "00000000-0000-4000-8000-000000000000"
        steps = [f"/screens/{nobody}/{step}" for step in ("story", "route", "bench", "reading", "sheet")]
        for path in ("/nowhere", f"/athletes/{nobody}", *steps):
            with self.subTest(path):
                page.goto(f"{self.app.address}{path}")
                expect(page.get_by_role("heading", name="Nothing is here")).to_be_visible()
