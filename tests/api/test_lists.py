"""Lists show what is kept. They compute nothing, and no screen takes them down."""

from __future__ import annotations

import threading
from typing import Any
from unittest import mock

from sqlalchemy import text

from northstride.store.readings import readings, refreshing
from tests.support.api import ApiCase

FIELD = "values.thigh_angle"
COMPUTED = AssertionError("computed")
SET_VALUE = "UPDATE answers SET value = '999' WHERE screen_id = :id"


class ListCase(ApiCase):
    def setUp(self) -> None:
        self.me = self.person("owner", self.new_clinic())
        self.screens: dict[str, str] = {}
        for number in range(6):
            athlete = self.me.add_athlete(ref=f"NS-{number}", name=f"Athlete {number}")
            self.screens[athlete] = self.me.begin_screen(athlete)
            self.me.answer(self.screens[athlete], "left", FIELD, 8)

    def newest(self) -> list[dict[str, Any]]:
        return [athlete["last_screen"] for athlete in self.me.listed()]

    def spoil(self, screen: str) -> None:
        """What no path of the app can write any more: a value past every check."""
        with self.engine.begin() as db:
            db.execute(text("ALTER TABLE answers DISABLE TRIGGER answers_append_only"))
            db.execute(text(SET_VALUE), {"id": screen})
            db.execute(text("ALTER TABLE answers ENABLE TRIGGER answers_append_only"))
            db.execute(text("UPDATE screens SET revision = revision + 1 WHERE id = :id"), {"id": screen})


class Lists(ListCase):
    def test_nothing_is_computed_in_the_request(self) -> None:
        with mock.patch(
            "northstride.store.readings.readings.evaluate", side_effect=AssertionError("computed")
        ):
            self.assertEqual({screen["reading"] for screen in self.newest()}, {"waiting"})
            self.refresh_refused()
        self.refresh_all()
        with mock.patch(
            "northstride.store.readings.readings.evaluate", side_effect=AssertionError("computed")
        ):
            found = self.newest()
        self.assertEqual({screen["reading"] for screen in found}, {"current"})
        self.assertTrue(all(screen["flags"] for screen in found))

    def refresh_refused(self) -> None:
        """A rule that breaks on every screen takes nothing down either."""
        self.refresh()
        self.assertEqual({screen["reading"] for screen in self.newest()}, {"unreadable"})

    def refresh_all(self) -> None:
        with self.engine.begin() as db:
            db.execute(text("UPDATE readings SET shipped = 'older'"))
        self.refresh()

    def test_a_screen_that_cannot_be_read_shows_itself_alone(self) -> None:
        spoilt = list(self.screens.values())[2]
        self.refresh()
        self.spoil(spoilt)
        self.refresh()
        states = {screen["id"]: (screen["reading"], bool(screen["flags"])) for screen in self.newest()}
        self.assertEqual(states.pop(spoilt), ("unreadable", False))
        self.assertEqual(set(states.values()), {("current", True)})
        refused = self.me.call("GET", f"/api/screens/{spoilt}/reading")
        self.assertEqual(refused.status_code, 409)
        self.assertTrue(refused.json()["type"].endswith("unreadable"))
        opened = self.me.ok("GET", f"/api/screens/{spoilt}")["record"]
        self.assertEqual(opened["entries"][0]["values"], {"thigh_angle": 999})
        self.me.answer(spoilt, "left", FIELD, 8)
        self.refresh()
        self.assertEqual({screen["reading"] for screen in self.newest()}, {"current"})

    def test_answers_and_edits_of_the_athlete_make_a_screen_wait(self) -> None:
        first, second, *_ = self.screens
        self.refresh()
        self.me.edit(first, birth_date="2015-05-02")
        self.me.answer(self.screens[second], "left", FIELD, 3)
        waiting = {screen["id"] for screen in self.newest() if screen["reading"] == "waiting"}
        self.assertEqual(waiting, {self.screens[first], self.screens[second]})
        self.refresh()
        self.assertEqual({screen["reading"] for screen in self.newest()}, {"current"})

    def test_several_processes_read_each_screen_once(self) -> None:
        read: list[str] = []

        def counted(db: Any, actor: Any, catalogue: Any, basis: Any) -> Any:
            read.append(basis.record["id"])
            return readings.reading_from(db, actor, catalogue, basis)

        with mock.patch.object(refreshing, "reading_from", side_effect=counted):
            threads = [threading.Thread(target=self.refresh) for _ in range(4)]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
        own = [screen for screen in read if screen in self.screens.values()]
        self.assertEqual(sorted(own), sorted(self.screens.values()))
        self.assertEqual({screen["reading"] for screen in self.newest()}, {"current"})

    def test_a_reader_waits_for_no_writer(self) -> None:
        """A row somebody holds is left for the next round."""
        held, *others = self.screens.values()
        with self.engine.connect() as writer:
            writer.execute(text("SELECT 1 FROM screens WHERE id = :id FOR UPDATE"), {"id": held})
            self.refresh_once()
            states = {screen["id"]: screen["reading"] for screen in self.newest()}
            self.assertEqual(states, {held: "waiting", **dict.fromkeys(others, "current")})

    def refresh_once(self) -> None:
        refreshing.refresh(self.engine, self.app.state.services.catalogue)

    def test_pages_in_order_with_how_many_there_are(self) -> None:
        whole = self.me.ok("GET", "/api/athletes")
        self.assertEqual(whole["total"], 6)
        pages = [self.me.ok("GET", "/api/athletes", params={"skip": skip, "most": 4}) for skip in (0, 4, 8)]
        self.assertEqual([len(page["athletes"]) for page in pages], [4, 2, 0])
        self.assertEqual({page["total"] for page in pages}, {6})
        names = [athlete["name"] for page in pages for athlete in page["athletes"]]
        self.assertEqual(names, [f"Athlete {number}" for number in range(6)])
