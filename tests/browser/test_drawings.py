"""Answers on drawings, and the figures that follow what is typed."""

from __future__ import annotations

from playwright.sync_api import expect

from tests.support.kinds import KindsCase
from tests.support.waiting import eventually


class Drawings(KindsCase):
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

        def larger() -> None:
            large = points.first.bounding_box()
            assert small is not None
            assert large is not None
            self.assertGreater(large["width"], small["width"])

        eventually(larger)

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

    def test_a_field_of_the_skin_is_answered_on_the_drawing_or_in_the_list(self) -> None:
        page = self.at("ankle.sensation")
        sural = page.get_by_role("button", name="Sural, right: not yet", exact=True)
        expect(sural).to_be_visible()
        page.keyboard.press("Alt+a")
        expect(page.get_by_role("button", name="Saphenous, left: same", exact=True)).to_be_visible()
        sural.click()
        page.get_by_role("button", name="List: Sural, right: same").click()
        expect(page.get_by_role("button", name="Sural, right: less", exact=True)).to_be_visible()
        page.get_by_role("button", name="Rest same, right").click()
        self.saved(page)
        values = self.values(page, "ankle.sensation")
        self.assertEqual(values["right"]["sural"], "less")
        self.assertEqual(len(values["left"]), 7)
        self.assertEqual({*values["left"].values()}, {"same"})

    def test_where_it_hurts_is_tapped_on_a_small_drawing(self) -> None:
        page = self.at("hip.fadir")
        page.get_by_role("button", name="Pain?, right").click()
        page.get_by_role("button", name="Hurts", exact=True).click()
        page.get_by_role("button", name="Groin, right: not here").click()
        expect(page.get_by_role("button", name="Groin, right: here")).to_be_visible()
        self.saved(page)
        pain = self.by_side(page, "hip.fadir")["right"]["pain"]
        self.assertEqual(pain, {"present": True, "site": "groin"})

    def test_the_figure_follows_what_is_typed_and_the_right_one_mirrors_the_left(self) -> None:
        page = self.at("hip.rom.flexion")
        figures = page.locator("[data-figures] svg.figure")
        expect(figures).to_have_count(2)
        expect(figures.first.locator(".figure-arc")).to_have_count(0)
        page.get_by_label("Passive, left").fill("95")
        expect(figures.first.locator(".figure-arc")).to_have_count(1)
        expect(figures.last.locator(".figure-arc")).to_have_count(0)
        expect(figures.first).to_have_attribute("aria-label", "All, left: 95")
        self.assertIsNone(figures.first.locator("> g").get_attribute("transform"))
        mirrored = figures.last.locator("> g").get_attribute("transform")
        self.assertEqual(mirrored, "translate(320 0) scale(-1 1)")
