"""Each kind of record in its own way: maps, clocks, counts, pain alone, the rest as expected, a gate."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from playwright.sync_api import Page, expect

from northstride.core.catalogue import default_catalogue
from tests.support.browser import BrowserCase

PLANNED = ("ankle.look", "ankle.palpation", "ankle.pulses", "ankle.squeeze", "ankle.toe_spread", "ankle.hop")


def record(**intake: Any) -> dict[str, Any]:
    return {
        "format": "north-stride/screen",
        "version": 1,
        "id": str(uuid4()),
        "date": "2026-11-20",
        "purpose": "ankle_injury",
        "athlete": {"ref": f"NS-{uuid4().hex[:8]}", "birth_date": "2001-04-09"},
        "intake": {"complaint": {"region": "ankle", "side": "right"}, **intake},
        "planned": list(PLANNED),
        "entries": [],
    }


# A device with a voice of its own and one that lives elsewhere; what is said is kept for the test.
VOICES = """
  window.said = [];
  const voices = [
    { name: 'far', lang: 'en-GB', localService: false },
    { name: 'near', lang: 'en-GB', localService: true },
  ];
  window.SpeechSynthesisUtterance = function (words) { this.text = words; };
  Object.defineProperty(window, 'speechSynthesis', { value: {
    getVoices: () => voices,
    cancel: () => undefined,
    speak: spoken => window.said.push(`${spoken.voice.name}: ${spoken.text}`),
  }});
"""


class Kinds(BrowserCase):
    def at(self, test: str, script: str = "", **options: Any) -> Page:
        """A new screen opened at one test."""
        page = self.page(**options)
        page.add_init_script(script)
        self.sign_in(page)
        self.import_record(page, record())
        page.goto(f"{self.app.address}/screens/{self.screen_id(page)}/bench/{test}")
        name = default_catalogue().tests[test].name
        expect(page.get_by_role("heading", name=name, exact=True)).to_be_visible()
        return page

    def test_a_point_is_pressed_then_tender_and_the_rest_is_one_key(self) -> None:
        page = self.at("ankle.palpation")
        point = page.get_by_role("button", name="ATFL, left: not pressed yet")
        point.click()
        page.get_by_role("button", name="ATFL, left: pressed, not tender").click()
        expect(page.get_by_role("button", name="ATFL, left: pressed, tender")).to_be_visible()
        self.saved(page)
        left = self.values(page, "ankle.palpation")["left"]
        self.assertEqual(left, {"tender": ["atfl"], "pressed": ["atfl"]})
        page.keyboard.press("Alt+a")
        expect(page.get_by_role("button", name="CFL, left: pressed, not tender")).to_be_visible()
        self.saved(page)
        left = self.values(page, "ankle.palpation")["left"]
        self.assertEqual(left["tender"], ["atfl"])
        self.assertIn("fifth_metatarsal_base", left["pressed"])
        # Another view was not looked at: nothing is said of it.
        self.assertNotIn("medial_malleolus_posterior", left["pressed"])
        self.assertNotIn("right", self.values(page, "ankle.palpation"))
        stop = page.get_by_label("Route").get_by_role("link", name="Ankle palpation")
        expect(stop.get_by_role("img")).to_have_attribute("aria-label", "left in part, right open")
        page.keyboard.press("Alt+s")
        expect(page.locator("[class*='ask-bar']")).to_contain_text("pressed, ATFL tender")

    def test_points_that_lie_close_are_each_reached_and_larger_in_the_larger_drawing(self) -> None:
        page = self.at("ankle.look")
        where = page.get_by_role("region", name="Where swollen")
        points = where.locator(".lane-left [class*='point']")
        small = points.first.bounding_box()
        for at in range(points.count()):
            points.nth(at).click()
        self.saved(page)
        self.assertEqual(len(self.values(page, "ankle.look")["left"]["swelling_site"]), points.count())
        where.get_by_role("button", name="Larger").click()
        expect(where.get_by_role("button", name="Larger")).to_have_attribute("aria-pressed", "true")
        page.wait_for_timeout(300)
        large = points.first.bounding_box()
        assert small is not None
        assert large is not None
        self.assertGreater(large["width"], small["width"])

    def test_the_lane_that_leans_on_a_phone_is_swapped_by_a_tap(self) -> None:
        page = self.at("ankle.palpation", has_touch=True)
        page.set_viewport_size({"width": 390, "height": 844})
        left, right = (
            page.locator("[class*='map-lanes'] > .lane-left"),
            page.locator("[class*='map-lanes'] > .lane-right"),
        )
        right.tap()
        expect(page.locator("[class*='ask-bar']")).to_contain_text("RIGHT")
        wide, narrow = right.bounding_box(), left.bounding_box()
        assert wide is not None
        assert narrow is not None
        self.assertGreater(wide["width"], 250)
        self.assertGreaterEqual(narrow["width"], 60)
        self.assertLess(narrow["x"], wide["x"])
        page.get_by_role("button", name="ATFL, right: not pressed yet").tap()
        self.saved(page)
        self.assertEqual(self.values(page, "ankle.palpation")["right"]["pressed"], ["atfl"])

    def test_a_hold_is_timed_by_one_key_and_page_down_stops_it(self) -> None:
        page = self.at("hip.single_leg_stance")
        page.keyboard.press("F2")
        running = page.get_by_role("button", name="Stop, left")
        expect(running).to_be_visible()
        page.wait_for_timeout(1200)
        page.keyboard.press("F4")
        page.wait_for_timeout(600)
        page.keyboard.press("PageDown")
        expect(running).to_have_count(0)
        self.saved(page)
        held = self.values(page, "hip.single_leg_stance")["left"]
        self.assertGreater(held["hold"], held["pain_onset"])
        self.assertGreater(held["pain_onset"], 0.9)

    def test_repeats_are_counted_as_they_happen(self) -> None:
        page = self.at("ankle.heel_rise")
        page.get_by_role("button", name="+1, one more, right").click()
        page.get_by_role("button", name="+1, one more, right").click()
        page.keyboard.press("F2")
        page.get_by_role("button", name="−1, one less, right").click()
        expect(page.get_by_label("Count, right", exact=True)).to_have_value("2")
        self.saved(page)
        self.assertEqual(self.values(page, "ankle.heel_rise")["right"]["count"], 2)

    def test_a_range_seen_to_its_end_is_an_answer_and_no_number(self) -> None:
        page = self.at("ankle.rom.plantarflexion")
        page.get_by_role("button", name="Looks full, left").click()
        self.saved(page)
        self.assertEqual(self.values(page, "ankle.rom.plantarflexion")["left"], {"active": "looks_full"})
        expect(page.get_by_label("Active, left")).to_have_attribute("placeholder", "looks full")
        page.get_by_label("Active, right").fill("48")
        page.keyboard.press("Enter")
        # What stands is not overwritten.
        expect(page.get_by_role("button", name="Both look full")).to_be_disabled()
        page.get_by_role("button", name="Looks full, left").click()
        page.get_by_role("button", name="Both look full").click()
        self.saved(page)
        found = self.values(page, "ankle.rom.plantarflexion")
        self.assertEqual((found["left"]["active"], found["right"]["active"]), ("looks_full", 48))

    def test_the_pad_of_a_phone_hides_neither_what_is_asked_nor_what_it_writes(self) -> None:
        page = self.at("hip.modified_thomas", has_touch=True)
        for height in (844, 664):
            page.set_viewport_size({"width": 390, "height": height})
            for side in ("left", "right"):
                field = page.get_by_label(f"Thigh, hanging, {side}")
                field.tap()
                pad = page.locator("[class*='_pad_']")
                expect(pad).to_be_visible()
                page.wait_for_timeout(200)
                bar = page.locator("[class*='ask-bar']").bounding_box()
                value, keys = field.bounding_box(), pad.bounding_box()
                assert bar is not None
                assert value is not None
                assert keys is not None
                self.assertGreaterEqual(value["y"], bar["y"] + bar["height"] - 1, (height, side))
                self.assertLessEqual(value["y"] + value["height"], keys["y"] + 1, (height, side))
                next_ = page.locator("#bench-next").bounding_box()
                assert next_ is not None
                self.assertGreaterEqual(next_["y"], keys["y"] + keys["height"] - 1, (height, side))

    def test_a_gait_is_said_of_both_or_of_the_side_where_it_is_seen(self) -> None:
        page = self.at("hip.gait")
        page.get_by_role("group", name="Pattern, both").get_by_role("button", name="Smooth").click()
        self.saved(page)
        (whole,) = self._entries(page, "hip.gait")
        self.assertEqual(whole["values"], {"pattern": ["smooth"]})
        left = page.get_by_role("group", name="Pattern, left")
        left.get_by_role("button", name="Pelvis drops").click()
        self.saved(page)
        (sided,) = self._entries(page, "hip.gait")
        self.assertEqual(sided["values"], {"pattern": {"left": ["drop"]}})
        reads = page.get_by_label("Reads as so far")
        expect(reads).to_contain_text("Pelvis not held")
        page.get_by_role("button", name="Undo").click()
        self.saved(page)
        (whole,) = self._entries(page, "hip.gait")
        self.assertEqual(whole["values"], {"pattern": ["smooth"]})

    def test_a_test_that_is_its_pain_alone_is_one_tap_a_side(self) -> None:
        page = self.at("ankle.squeeze")
        bar = page.locator("[class*='ask-bar']")
        expect(bar).to_contain_text("LEFT, does it hurt")
        page.get_by_role("group", name="Pain, left").get_by_role("button", name="No pain").click()
        expect(bar).to_contain_text("RIGHT, does it hurt")
        page.get_by_role("group", name="Pain, right").get_by_role("button", name="Hurts").click()
        self.saved(page)
        found = self.by_side(page, "ankle.squeeze")
        self.assertEqual(found["left"]["pain"], {"present": False})
        self.assertEqual(found["right"]["pain"], {"present": True})

    def test_the_rest_as_expected_is_named_before_it_is_written(self) -> None:
        page = self.at("ankle.toe_spread")
        page.keyboard.press("Alt+r")
        sheet = page.get_by_role("dialog", name="Rest as expected")
        expect(sheet.get_by_role("group", name="Ankle look")).to_contain_text("Deformity: No")
        # Fracture points and pulses: only at their own stop.
        expect(sheet.get_by_role("group", name="Ankle palpation")).to_have_count(0)
        expect(sheet.get_by_role("group", name="Pulses")).to_have_count(0)
        sheet.get_by_role("button", name="Ankle look, Swelling, right").click()
        write = sheet.get_by_role("button", name="Write")
        said = write.text_content() or ""
        write.focus()
        page.keyboard.press("Enter")
        expect(sheet).to_have_count(0)
        self.saved(page)
        look = self.by_side(page, "ankle.look")
        self.assertEqual(look["left"]["values"]["swelling"], 0)
        self.assertTrue(look["left"]["by_exception"])
        self.assertNotIn("swelling", look["right"]["values"])
        self.assertNotIn("girth", look["left"]["values"])
        written = [self.by_side(page, test) for test in ("ankle.look", "ankle.squeeze", "ankle.toe_spread")]
        values = [entry.get("values", {}) for sides in written for entry in sides.values()]
        pains = [entry for sides in written for entry in sides.values() if entry.get("pain")]
        self.assertEqual(said, f"Write {sum(map(len, values)) + len(pains)} values")
        page.get_by_role("button", name="Undo").click()
        self.saved(page)
        self.assertEqual(self.by_side(page, "ankle.look"), {})

    def test_what_is_asked_is_said_aloud_only_where_wanted_and_by_the_device(self) -> None:
        page = self.at("hip.modified_thomas", script=VOICES)
        self.assertEqual(page.evaluate("said"), [])
        page.get_by_role("button", name="Aloud").click()
        page.get_by_label("Thigh, hanging, left").fill("8")
        page.keyboard.press("Enter")
        expect(page.locator("[class*='ask-bar']")).to_contain_text("RIGHT")
        self.assertEqual(page.evaluate("said"), ["near: right, thigh to level"])
        page.get_by_role("button", name="Silent").click()
        page.keyboard.press("Alt+s")
        expect(page.locator("[class*='ask-bar']")).to_contain_text("LEFT")
        self.assertEqual(len(page.evaluate("said")), 1)

    def test_before_a_reading_nothing_is_offered_as_expected(self) -> None:
        page = self.at("ankle.toe_spread")
        page.route("**/preview", lambda route: route.abort())
        page.reload()
        expect(page.get_by_role("heading", name="Toe spread", exact=True)).to_be_visible()
        page.keyboard.press("Alt+r")
        sheet = page.get_by_role("dialog", name="Rest as expected")
        expect(sheet).to_contain_text("what must wait is not known")
        expect(sheet.get_by_role("button", name="Write")).to_be_disabled()

    def test_a_gate_says_why_and_is_opened_with_a_reason(self) -> None:
        page = self.at("ankle.hop")
        held = page.get_by_role("status").filter(has_text="Held right.")
        expect(held).to_contain_text("It opens when the bone questions are answered")
        expect(page.get_by_role("status").filter(has_text="Held left.")).to_have_count(0)
        page.get_by_role("button", name="Open it with a reason").click()
        reason = page.get_by_label("Why is it safe to open, right")
        expect(page.get_by_role("button", name="Open on the right")).to_be_disabled()
        reason.fill("Film of this morning is clear")
        page.reload()
        expect(reason).to_have_value("Film of this morning is clear")
        page.get_by_role("button", name="Open on the right").click()
        expect(held).to_have_count(0)
        address = f"/api/screens/{self.screen_id(page)}"
        screen = page.evaluate("at => fetch(at).then(r => r.json())", address)
        (override,) = screen["record"]["overrides"]
        self.assertEqual((override["gate"], override["side"]), ("fracture_doubt", "right"))
        self.assertEqual(override["reason"], "Film of this morning is clear")

    def test_an_assistant_cannot_open_a_gate(self) -> None:
        page = self.at("ankle.hop")
        address = page.url
        other = self.page()
        self.sign_in(other, "maren")
        other.goto(address)
        expect(other.get_by_role("button", name="A practitioner can open it")).to_be_disabled()
