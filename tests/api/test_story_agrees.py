"""Any story told fact by fact: record, route and reading are those of the same story in a file."""

from __future__ import annotations

import contextlib
import io
import json
import tempfile
from pathlib import Path
from typing import Any
from unittest import mock
from uuid import uuid4

from hypothesis import HealthCheck, given, settings

from northstride.cli.__main__ import main
from northstride.record.facts import facts_of
from tests.api.test_story import StoryCase, fact
from tests.support.any_record import records

SETTINGS = settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))


def by_command(*arguments: str) -> dict[str, Any]:
    """What a command prints, as JSON."""
    out = io.StringIO()
    with mock.patch("sys.argv", ["stride", *arguments]), contextlib.redirect_stdout(out):
        code = main()
    assert code == 0, out.getvalue()
    return dict(json.loads(out.getvalue()))


class AnyStory(StoryCase):
    @SETTINGS
    @given(records())
    def test_route_story_and_command_agree(self, raw: dict[str, Any]) -> None:
        raw |= {"planned": [], "entries": [], "id": str(uuid4())}
        me = self.me
        athlete = me.add_athlete(
            **{name: raw["athlete"][name] for name in ("birth_date", "sex") if name in raw["athlete"]}
        )
        screen = me.begin_screen(athlete, date=raw["date"], purpose=raw["purpose"])
        told = [fact(p.field, value, p.side, p.key, p.test) for p, value in facts_of(raw).items()]
        self.tell(screen, fact("purpose", raw["purpose"]), *told)
        exported = me.ok("GET", f"/api/screens/{screen}/record")
        exported["planned"] = []
        with tempfile.TemporaryDirectory() as folder:
            mine, theirs = Path(folder, "told.json"), Path(folder, "written.json")
            mine.write_text(json.dumps(exported))
            theirs.write_text(json.dumps(raw))
            self.same(by_command("evaluate", str(mine)), by_command("evaluate", str(theirs)))
            route = by_command("route", str(theirs))
            self.same(by_command("route", str(mine)), route)
        # What a purpose plans by itself is a plan from the start.
        if raw["purpose"] != "squad_screen":
            self.same(self.route(screen), route)
        shown = me.ok("GET", f"/api/screens/{screen}/reading")["reading"]
        if raw["purpose"] != "squad_screen":
            self.assertEqual(shown["ask"], route["ask"])

    def same(self, one: dict[str, Any], other: dict[str, Any]) -> None:
        """But for the name of the record."""
        self.assertEqual({**one, "record": ""}, {**other, "record": ""})
