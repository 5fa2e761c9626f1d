"""Each worked story told in the story and examined at the bench reads as its file does."""

from __future__ import annotations

import datetime as dt
from typing import Any
from uuid import uuid4

from playwright.sync_api import Page, expect
from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from northstride.demo.stories import stories
from northstride.store.people.athletes import add_athlete
from northstride.store.readings.routes import keep_route
from northstride.store.screens.screens import begin_screen
from tests.support.entering import enter
from tests.support.records import read
from tests.support.story_case import StoryCase
from tests.support.telling import tell

CATALOGUE = default_catalogue()
Record = dict[str, Any]


def said(reading: Record, record: Record) -> Record:
    """All a reading says, by what it speaks of and not by the order in which hands wrote it."""

    def place(at: str) -> str:
        if not at.startswith("entries["):
            return at.partition("[")[0]
        entry = record["entries"][int(at.removeprefix("entries[").partition("]")[0])]
        return f"{entry['test']} {entry.get('side')}"

    def plain(part: Any) -> Any:
        if isinstance(part, dict):
            return {name: place(value) if name == "at" else plain(value) for name, value in part.items()}
        return sorted((plain(each) for each in part), key=str) if isinstance(part, list) else part

    told: Record = plain({**reading, "record": ""})
    return told


BEGUN = dt.date(2026, 9, 14)


class TwelveStories(StoryCase):
    def test_told_and_examined_it_reads_as_its_file(self) -> None:
        page = self.page()
        self.sign_in(page)
        walked = 0
        for story in stories():
            for screen in story.screens:
                with self.subTest(story=story.slug, screen=screen.name):
                    self.same(page, dict(screen.record))
                    walked += 1
        self.assertEqual(walked, 13)

    def same(self, page: Page, record: Record) -> None:
        screen = self.begun(record)
        page.goto(f"{self.app.address}/screens/{screen}/story/where")
        tell(page, CATALOGUE, record["intake"])
        if record["planned"]:
            self.plan(page, record)
        for entry in record["entries"]:
            enter(page, screen, CATALOGUE, entry)
        own = self.told(page)
        self.assertEqual(own.get("planned", []), record["planned"])
        mine, file = read(own), read(record)
        self.assertEqual(said(mine, own), said(file, record))

    def begun(self, record: Record) -> str:
        """As of its own day, of somebody with these facts; the days of the stories may be still to come."""
        athlete, screen = uuid4(), uuid4()
        part = {**record["athlete"], "ref": f"T-{athlete.hex[:8]}", "name": "Ilva Roe"}
        part["birth_date"] = dt.date.fromisoformat(part["birth_date"])
        day = dt.date.fromisoformat(record["date"])
        with self.engine.begin() as db:
            add_athlete(db, self.actor, athlete, part)
            begin_screen(db, self.actor, CATALOGUE, screen, athlete, BEGUN, record["purpose"], {})
            db.execute(
                text("UPDATE screens SET date = :day, revision = revision + 1 WHERE id = :screen"),
                {"day": day, "screen": screen},
            )
        return str(screen)

    def plan(self, page: Page, record: Record) -> None:
        with self.engine.begin() as db:
            keep_route(
                db,
                self.actor,
                CATALOGUE,
                uuid4(),
                purpose=record["purpose"],
                name="As in the file",
                tests=record["planned"],
                reasons_after=False,
            )
        page.get_by_label("Path of this screen").get_by_role("link", name="Route").click()
        page.get_by_role("button", name="Use: As in the file").click()
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        self.saved(page)
