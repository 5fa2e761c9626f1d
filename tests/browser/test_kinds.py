"""Each kind of record in its own way: clocks, counts, scores, lengths, pain alone, the rest, a gate."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, Page, expect

from tests.support.kinds import KindsCase
from tests.support.waiting import eventually

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


class Kinds(KindsCase):
    def test_a_hold_is_timed_by_one_key_and_page_down_stops_it(self) -> None:
        page = self.at("hip.single_leg_stance")
        page.keyboard.press("F2")
        running = page.get_by_role("button", name="Stop, left")
        expect(running).to_be_visible()
        clock = page.locator("output[class*='running']")
        expect(clock).to_have_text(re.compile(r"^([1-9]|\d\d)"))
        page.keyboard.press("F4")
        hurt = clock.inner_text()
        expect(clock).not_to_have_text(hurt)
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
                eventually(lambda field=field, pad=pad: self.assert_free(page, field, pad))  # type: ignore[misc]

    def assert_free(self, page: Page, field: Locator, pad: Locator) -> None:
        """Under what is asked stands the value, under it the pad, under it the way on."""
        bar = page.locator("[class*='ask-bar']").bounding_box()
        value, keys, on = field.bounding_box(), pad.bounding_box(), page.locator("#bench-next").bounding_box()
        assert bar is not None
        assert value is not None
        assert keys is not None
        assert on is not None
        self.assertGreaterEqual(value["y"], bar["y"] + bar["height"] - 1)
        self.assertLessEqual(value["y"] + value["height"], keys["y"] + 1)
        self.assertGreaterEqual(on["y"], keys["y"] + keys["height"] - 1)

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
        page.get_by_role("button", name="Places and more").click()
        page.get_by_role("button", name="Aloud").click()
        page.get_by_role("button", name="Places and more").click()
        page.get_by_label("Thigh, hanging, left").fill("8")
        page.keyboard.press("Enter")
        expect(page.locator("[class*='ask-bar']")).to_contain_text("RIGHT")
        self.assertEqual(page.evaluate("said"), ["near: right, thigh to level"])
        page.get_by_role("button", name="Places and more").click()
        page.get_by_role("button", name="Silent").click()
        page.get_by_role("button", name="Places and more").click()
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

    def test_a_length_is_typed_in_the_unit_of_the_hand_and_kept_in_millimetres(self) -> None:
        page = self.at("ankle.lunge")
        page.get_by_label("Distance, left").fill("92")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="mm, unit of lengths").first.click()
        expect(page.get_by_label("Distance, left")).to_have_value("9.2")
        page.get_by_label("Distance, right").fill("10.4")
        page.keyboard.press("Enter")
        self.saved(page)
        page.reload()
        expect(page.get_by_label("Distance, right")).to_have_value("10.4")
        values = self.values(page, "ankle.lunge")
        self.assertEqual((values["left"]["distance"], values["right"]["distance"]), (92, 104))
        # Either will do: the other is offered in the same row.
        page.get_by_role("button", name="Tibia").click()
        expect(page.get_by_label("Tibia, left")).to_be_visible()
        expect(page.get_by_label("Distance, left")).to_have_count(0)

    def test_a_score_adds_up_and_says_where_it_can_end(self) -> None:
        page = self.at("leg.clot")
        left = page.get_by_label("Clot score so far, left")
        lane = page.locator(".lane-left", has=left)
        expect(lane).to_contain_text("10 unanswered, can end −2 to 9")
        page.get_by_role("group", name="Active cancer, left").get_by_role("button", name="Yes").click()
        page.get_by_role("group", name="Pitting, this leg only, left").get_by_role(
            "button", name="No"
        ).click()
        expect(left).to_have_text("1")
        expect(lane).to_contain_text("8 unanswered, can end −1 to 8")
        # Asked of the person once: it stands for the other leg too, the leg's own sign does not.
        right = page.get_by_label("Clot score so far, right")
        expect(right).to_have_text("1")
        self.saved(page)
        self.assertEqual(self.values(page, "leg.clot")["right"], {"cancer": True})

    def test_points_of_nine_are_counted_and_written_when_all_are_answered(self) -> None:
        page = self.at("general.hypermobility")
        points = page.get_by_role("listitem").filter(has_text="°")
        page.get_by_role("button", name="Yes, Left thumb to the forearm").click()
        said = page.get_by_role("status").filter(has_text="so far")
        expect(said).to_have_text("1 so far, 8 unanswered: can end 1 to 9.")
        page.reload()
        expect(said).to_have_text("1 so far, 8 unanswered: can end 1 to 9.")
        self.assertEqual(self.by_side(page, "general.hypermobility"), {})
        for button in page.get_by_role("button", name="No, ").all():
            if "Left thumb" not in (button.get_attribute("aria-label") or ""):
                button.click()
        self.saved(page)
        (entry,) = self.by_side(page, "general.hypermobility").values()
        self.assertEqual(entry["values"], {"score": 1})
        # Taken back, a point is open: the grade that was counted from it no longer stands.
        page.get_by_role("button", name="Yes, Left thumb to the forearm").click()
        plate = page.get_by_role("group", name="Score, both").get_by_role("button", name="1", exact=True)
        expect(plate).to_have_attribute("aria-pressed", "false")
        expect(page.locator("[data-saved]")).to_contain_text("typing")
        left = self.by_side(page, "general.hypermobility").values()
        self.assertEqual([entry["values"] for entry in left if entry["values"]], [])
        self.assertGreater(points.count(), 0)

    def test_a_gate_is_known_before_anything_of_a_test_nobody_planned_is_written(self) -> None:
        page = self.at("ankle.posterior_drawer")
        expect(page.get_by_role("status").filter(has_text="Held right.")).to_be_visible()
        self.assertEqual(self.values(page, "ankle.posterior_drawer"), {})

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
