"""Each kind of record through a dead server, a reload and an ended session in the middle of it."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect
from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from tests.support.browser import PASSWORD, BrowserCase
from tests.support.filling import Place, fill, kept_in
from tests.support.kinds import record

CATALOGUE = default_catalogue()
# Drawing, places on a drawing, row a key, clock, counter, tally, many, score, points, force, pain, angles.
KINDS = (
    "ankle.palpation",
    "ankle.sensation",
    "foot.mtp_grind",
    "hip.single_leg_stance",
    "ankle.heel_rise",
    "hip.step_down",
    "hip.gait",
    "leg.clot",
    "general.hypermobility",
    "hip.resisted.flexion",
    "ankle.squeeze",
    "hip.modified_thomas",
    "ankle.inversion_tilt",
)


class KindsSurvive(BrowserCase):
    def at_bench_of_all(self) -> tuple[Page, dict[str, Any]]:
        page = self.page()
        self.sign_in(page)
        self.import_record(page, {**record(), "planned": list(KINDS)})
        page.goto(f"{self.app.address}/screens/{self.screen_id(page)}/bench/{KINDS[0]}")
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        schools = page.evaluate("id => fetch(`/api/screens/${id}`).then(r => r.json())", self.screen_id(page))
        return page, schools["schools"]

    def go(self, page: Page, test: str) -> None:
        page.get_by_label("Route").locator(f"a[href$='/bench/{test}']").click()
        expect(page.get_by_role("heading", level=1)).to_have_text(CATALOGUE.tests[test].name)

    def kept(self, page: Page) -> dict[Place, Any]:
        self.saved(page)
        return kept_in(
            page.evaluate(
                "id => fetch(`/api/screens/${id}/record`).then(r => r.json())", self.screen_id(page)
            )
        )

    def test_server_dead_then_a_reload(self) -> None:
        page, schools = self.at_bench_of_all()
        self.app.kill()
        written: dict[Place, Any] = {}
        for test in KINDS:
            self.go(page, test)
            written |= dict(fill(page, CATALOGUE.tests[test], schools))
        expect(page.locator("[data-saved]")).to_contain_text("kept here, waiting for the server")
        page.reload()
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        self.app.start()
        expect(page.get_by_role("heading", level=1)).to_have_text(CATALOGUE.tests[KINDS[-1]].name)
        self.assertEqual(self.kept(page), written)

    def test_session_ended_in_each(self) -> None:
        page, schools = self.at_bench_of_all()
        written: dict[Place, Any] = {}
        for test in KINDS:
            self.go(page, test)
            filling = fill(page, CATALOGUE.tests[test], schools)
            place, value = next(filling)
            written[place] = value
            with self.engine.begin() as db:
                db.execute(text("UPDATE sessions SET ended_at = now() WHERE ended_at IS NULL"))
            self.sign_in_again(page)
            written |= dict(filling)
        self.assertEqual(self.kept(page), written)

    def sign_in_again(self, page: Page) -> None:
        overlay = page.get_by_role("heading", name="Sign in again")
        expect(overlay).to_be_visible()
        page.get_by_label("Name you sign in with").fill("jonas")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()
        expect(overlay).to_have_count(0)
