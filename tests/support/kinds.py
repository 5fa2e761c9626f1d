"""A new screen opened at one test of the bench, for tests of how each kind is answered."""

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


class KindsCase(BrowserCase):
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
