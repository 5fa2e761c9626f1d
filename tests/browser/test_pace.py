"""How many inputs an examination takes at the bench: every key and every tap is one."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, Route, expect

from northstride.core.catalogue import default_catalogue
from tests.support.browser import BrowserCase
from tests.support.kinds import record

STANDING = ("ankle.weight_bearing", "foot.standing", "ankle.walk", "ankle.heel_rise")
TENDONS = tuple(
    f"ankle.resisted.{way}" for way in ("dorsiflexion", "plantarflexion", "inversion", "eversion")
)
LIGAMENTS = ("ankle.anterior_drawer", "ankle.inversion_tilt", "ankle.eversion_tilt", "ankle.squeeze")
OWN_STOPS = ("ankle.palpation", "ankle.pulses", "ankle.sensation")
RANGE = tuple(
    f"ankle.rom.{way}" for way in ("plantarflexion", "dorsiflexion_knee_bent", "inversion", "eversion")
)
ROTATION, CALF = "ankle.external_rotation", "ankle.calf_squeeze"
EXAMINATION = ("ankle.look", *OWN_STOPS, *STANDING, *RANGE, *TENDONS, *LIGAMENTS, ROTATION, CALF)
SIDES = ("left", "right")


class Counted:
    """A hand that counts what it does."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.inputs = 0

    def press(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)
            self.inputs += 1

    def tap(self, what: Locator) -> None:
        what.click()
        self.inputs += 1


class Pace(BrowserCase):
    def at(self, planned: tuple[str, ...], first: str) -> Counted:
        page = self.page()
        self.sign_in(page)
        long_ago = {"onset": {"kind": "sudden", "date": "2026-09-20"}}
        self.import_record(page, {**record(**long_ago), "planned": list(planned)})
        page.goto(f"{self.app.address}/screens/{self.screen_id(page)}/bench/{first}")
        expect(page.get_by_role("heading", level=1)).to_have_text(default_catalogue().tests[first].name)
        return Counted(page)

    def go(self, hand: Counted, test: str) -> None:
        """One tap on the route."""
        name = default_catalogue().tests[test].name
        hand.tap(hand.page.get_by_label("Route").locator(f"a[href$='/bench/{test}']"))
        expect(hand.page.get_by_role("heading", level=1)).to_have_text(name)

    def rest(self, hand: Counted, test: str) -> None:
        """Named, then written, once the reading has said that no gate holds it."""
        name = default_catalogue().tests[test].name
        hand.press("Alt+r")
        sheet = hand.page.get_by_role("dialog", name="Rest as expected")
        expect(sheet.get_by_role("group", name=name)).to_be_visible()
        expect(sheet.get_by_role("button", name="Write")).to_be_focused()
        hand.press("Enter")
        expect(sheet).to_have_count(0)

    def test_what_is_left_is_written_with_one_key_though_the_reading_came_late(self) -> None:
        page = self.at(EXAMINATION, "ankle.pulses").page
        held: list[Route] = []
        page.route("**/preview", lambda route: held.append(route))
        page.reload()
        page.get_by_role("button", name="Rest as expected").wait_for()
        page.keyboard.press("Alt+r")
        sheet = page.get_by_role("dialog", name="Rest as expected")
        expect(sheet).to_contain_text("The reading has not come yet")
        expect(sheet.get_by_role("button", name="Write")).to_be_disabled()
        for route in held:
            route.continue_()
        page.unroute("**/preview")
        expect(sheet.get_by_role("button", name="Write")).to_be_focused()

    def examine(self) -> Counted:
        """Nothing found on either side."""
        hand = self.at(EXAMINATION, "ankle.weight_bearing")
        self.rest(hand, "ankle.weight_bearing")
        self.go(hand, "ankle.heel_rise")
        hand.press("2", "5", "Enter", "2", "5", "Enter")
        for test in OWN_STOPS:
            self.go(hand, test)
            self.rest(hand, test)
        for test in RANGE:
            self.go(hand, test)
            hand.tap(hand.page.get_by_role("button", name="Both look full"))
        self.go(hand, ROTATION)
        hand.press("Enter", "Enter")
        self.go(hand, CALF)
        self.rest(hand, CALF)
        self.saved(hand.page)
        return hand

    def test_a_normal_ankle_and_foot_on_both_sides(self) -> None:
        hand = self.examine()
        self.assertLessEqual(hand.inputs, 40)
        for test in EXAMINATION:
            found = self.by_side(hand.page, test)
            sides = (None,) if default_catalogue().tests[test].sides == "both" else SIDES
            self.assertEqual(set(found), set(sides), test)
        for way in RANGE:
            values = self.values(hand.page, way)
            self.assertEqual({values[side]["active"] for side in SIDES}, {"looks_full"}, way)

    def test_a_finding_costs_three_more(self) -> None:
        hand = self.examine()
        before = hand.inputs
        self.go(hand, "ankle.palpation")
        hand.tap(hand.page.get_by_role("button", name="ATFL, right: pressed, not tender"))
        self.assertLessEqual(hand.inputs - before, 3)
        before = hand.inputs
        self.go(hand, "ankle.anterior_drawer")
        laxity = hand.page.get_by_role("group", name="Laxity, right")
        hand.tap(laxity.get_by_role("button", name="2 clearly more"))
        self.assertLessEqual(hand.inputs - before, 3)
        self.saved(hand.page)
        self.assertEqual(self.values(hand.page, "ankle.palpation")["right"]["tender"], ["atfl"])
        self.assertEqual(self.values(hand.page, "ankle.anterior_drawer")["right"]["laxity"], 2)

    def test_the_hanging_leg_takes_its_digits_and_one_key_a_value(self) -> None:
        """Thigh, knee, thigh with the knee straight, across: eight values, eight more than their digits."""
        hand = self.at(("hip.modified_thomas",), "hip.modified_thomas")
        typed = {
            "thigh_angle": ("8", "-6"),
            "knee_angle": ("84", "96"),
            "thigh_angle_knee_straight": ("4", "-12"),
            "abduction_drift": ("3", "5"),
            "rotation_drift": ("4", "2"),
            "adduction_available": ("18", "22"),
        }
        for pair in typed.values():
            for number in pair:
                hand.press(*number, "Enter")
        digits = sum(len(number) for pair in typed.values() for number in pair)
        drifts = 4
        self.assertLessEqual(hand.inputs - digits - drifts, 8)
        self.saved(hand.page)
        values = self.values(hand.page)
        for measure, (left, right) in typed.items():
            self.assertEqual((values["left"][measure], values["right"][measure]), (int(left), int(right)))
