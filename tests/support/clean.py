"""Pages that axe looks at, in either theme."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page

from northstride.cli.steps import WEB
from tests.support.browser import BrowserCase

AXE = (WEB / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
# A colour in the middle of its change is no colour anybody reads.
STILL: Any = {"reduced_motion": "reduce"}


class CleanCase(BrowserCase):
    def assert_clean(self, page: Page, where: str) -> None:
        for theme in ("light", "dark"):
            page.evaluate("theme => { document.documentElement.dataset.bsTheme = theme; }", theme)
            page.evaluate(AXE)
            found: list[str] = page.evaluate(
                "() => axe.run(document).then(result => result.violations.map(v => "
                "v.id + ': ' + v.nodes.map(n => n.html + n.failureSummary).join(' | ')))"
            )
            self.assertEqual("\n".join(found), "", f"{where}, {theme}")
