"""A browser on the story of a screen, and what the server has of it."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page

from tests.support.browser import BrowserCase
from tests.support.telling import begin


class StoryCase(BrowserCase):
    def told(self, page: Page) -> dict[str, Any]:
        """What the server has of the story."""
        self.saved(page)
        record: dict[str, Any] = page.evaluate(
            "id => fetch(`/api/screens/${id}`).then(r => r.json()).then(s => s.record)", self.screen_id(page)
        )
        return record

    def at_story(self, purpose: str = "Ankle, lower leg", **options: Any) -> Page:
        page = self.page(**options)
        self.sign_in(page)
        begin(page, "Ilse Varga", purpose)
        return page
