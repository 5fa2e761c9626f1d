"""A real browser on the real app: Debian's Chromium, headless, one app a class."""

from __future__ import annotations

import json
import os
import unittest
from typing import Any, ClassVar
from uuid import UUID, uuid4

from argon2 import PasswordHasher
from playwright.sync_api import (
    Browser,
    ConsoleMessage,
    FilePayload,
    Page,
    Playwright,
    expect,
    sync_playwright,
)
from sqlalchemy import Engine

from northstride.store.access.passwords import Passwords
from northstride.store.access.users import add_user, create_clinic
from northstride.store.actor import Actor
from northstride.store.database import connect
from northstride.store.people.athletes import add_athlete
from tests.support.database import fresh_database
from tests.support.live import LiveApp

CHROMIUM = "/usr/bin/chromium"
HANGING = "hip.modified_thomas"
PASSWORD = "a long enough password"
SIZE: Any = {"width": 1280, "height": 800}
NAMES = ("Ilse Varga", "Oskar Bremer", "Tuva Lind")

# Shared machines are slow at times; a broken page still fails, only later. How many times slower this one
# was made is said by who made it so.
SLOWER = float(os.environ.get("NORTH_STRIDE_TEST_SLOWER", "1"))
PATIENCE_MS = 25_000 * SLOWER
expect.set_options(timeout=PATIENCE_MS)


def is_complaint(said: ConsoleMessage) -> bool:
    """The browser itself tells of every answer that is a refusal, and of a server that is away."""
    return said.type == "error" and not said.text.startswith("Failed to load resource")


def is_own(address: str) -> bool:
    return address.startswith(("http://127.0.0.1:", "blob:http://127.0.0.1:", "data:"))


class BrowserCase(unittest.TestCase):
    url: str
    engine: Engine
    app: LiveApp
    browser: Browser
    actor: Actor
    athletes: ClassVar[dict[str, UUID]] = {}
    factory: str | None = None
    _playwright: Playwright

    @classmethod
    def setUpClass(cls) -> None:
        cls.url = fresh_database()
        cls.engine = connect(cls.url, pool_size=2)
        cls.addClassCleanup(cls.engine.dispose)
        cls._people()
        cls.app = LiveApp(cls.url, factory=cls.factory)
        cls.app.start()
        cls.addClassCleanup(cls.app.kill)
        cls._playwright = sync_playwright().start()
        cls.addClassCleanup(cls._playwright.stop)
        cls.browser = cls._playwright.chromium.launch(executable_path=CHROMIUM)
        cls.addClassCleanup(cls.browser.close)

    @classmethod
    def _people(cls) -> None:
        passwords = Passwords(PasswordHasher(time_cost=1, memory_cost=8, parallelism=1))
        with cls.engine.begin() as db:
            clinic = create_clinic(db, "Tarnholt", "Europe/Helsinki")
            cls.actor = Actor(clinic, uuid4(), "K. Aalto", "owner", None, "Europe/Helsinki")
            for login, role, key in (
                ("aino", "owner", cls.actor.user_id),
                ("jonas", "practitioner", uuid4()),
                ("maren", "assistant", uuid4()),
            ):
                hashed = passwords.hash(PASSWORD)
                add_user(db, cls.actor, key, login, login.title(), role, hashed)  # type: ignore[arg-type]
            for number, name in enumerate(NAMES):
                cls.athletes[name] = uuid4()
                add_athlete(db, cls.actor, cls.athletes[name], {"ref": f"NS-{number}", "name": name})

    def page(self, **options: Any) -> Page:
        """A fresh device; what the page complains about fails the test."""
        context = self.browser.new_context(viewport=SIZE, accept_downloads=True, **options)
        self.addCleanup(context.close)
        context.set_default_timeout(PATIENCE_MS)
        page = context.new_page()
        self.watch(page)
        return page

    def watch(self, page: Page) -> None:
        """No error in the page or on its console, and no request that leaves this machine."""
        complaints: list[str] = []
        page.on("pageerror", lambda error: complaints.append(str(error)))
        page.on("console", lambda said: complaints.append(said.text) if is_complaint(said) else None)
        page.on("request", lambda asked: None if is_own(asked.url) else complaints.append(asked.url))
        self.addCleanup(lambda: self.assertEqual(complaints, []))

    def sign_in(self, page: Page, login: str = "jonas") -> None:
        """At People, where most begin; the door leads on to where one came from."""
        page.goto(f"{self.app.address}/people")
        page.get_by_label("Name you sign in with").fill(login)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_label("Athletes")).to_be_visible()

    @staticmethod
    def sign_out(page: Page) -> None:
        """In a screen it waits behind the mark."""
        leave = page.get_by_role("button", name="Sign out")
        if leave.count() == 0:
            page.get_by_role("button", name="Places and more").click()
        leave.click()

    def begin_screen(self, page: Page, name: str = "Ilse Varga") -> None:
        """From People to the hanging-leg test at the bench, signed in already."""
        page.get_by_role("button", name=name).click()
        page.get_by_role("button", name="Squad screen").click()
        page.get_by_role("button", name="No pain, nothing new: begin").click()
        page.wait_for_url("**/bench")
        self.open_stop(page, "Modified Thomas test")
        expect(page.get_by_label("Thigh, hanging, left")).to_be_focused()

    @staticmethod
    def open_stop(page: Page, name: str) -> None:
        route = page.get_by_label("Route")
        expect(route).to_be_visible()
        narrow = route.get_by_role("button", name="All stops")
        if narrow.is_visible() and narrow.get_attribute("aria-expanded") == "false":
            narrow.click()
        route.get_by_role("link", name=name).click()
        expect(page.get_by_role("heading", name=name)).to_be_visible()

    def examine_standing(self, page: Page) -> None:
        """What a squad screen plans beside the hanging-leg test: all of it without a finding."""
        self.open_stop(page, "Gait")
        page.get_by_role("group", name="Pattern, both").get_by_role("button", name="Smooth").click()
        self.open_stop(page, "Knee to wall")
        for side in ("left", "right"):
            page.get_by_label(f"Distance, {side}").fill("110")
            page.keyboard.press("Enter")
        self.open_stop(page, "Squat")
        page.get_by_role("button", name="Full").click()
        self.saved(page)

    @staticmethod
    def import_file(page: Page, file: Any, name: str = "Ilse Varga") -> None:
        """From People, confirmed: for the athlete who is shown, or a new one of this name."""
        page.get_by_label("Screen file").set_input_files(file)
        take = page.get_by_role("button", name="take it")
        expect(take).to_be_visible()
        new = page.get_by_label("Name of the new athlete")
        if new.count():
            new.fill(name)
        take.click()
        page.wait_for_url("**/reading")

    def import_record(self, page: Page, record: dict[str, Any]) -> None:
        content = json.dumps(record).encode()
        self.import_file(page, FilePayload(name="screen.json", mimeType="application/json", buffer=content))

    def at_bench(self, **options: Any) -> Page:
        page = self.page(**options)
        self.sign_in(page)
        self.begin_screen(page)
        return page

    @staticmethod
    def saved(page: Page) -> None:
        expect(page.get_by_role("status").filter(has_text="all saved")).to_be_visible()

    @staticmethod
    def screen_id(page: Page) -> str:
        return page.url.split("/screens/")[1].split("/")[0]

    def values(self, page: Page, test: str = HANGING) -> dict[str, dict[str, Any]]:
        """What the server has of a test, by side."""
        return {entry["side"]: entry["values"] for entry in self._entries(page, test)}

    def by_side(self, page: Page, test: str) -> dict[str | None, dict[str, Any]]:
        """What the server has of a test, by side, with pain, notes and marks."""
        return {entry.get("side"): entry for entry in self._entries(page, test)}

    def entry(self, page: Page, side: str) -> dict[str, Any]:
        return next(entry for entry in self._entries(page, HANGING) if entry["side"] == side)

    def _entries(self, page: Page, test: str) -> list[dict[str, Any]]:
        """Asked with the page's own session."""
        record = page.evaluate(
            "id => fetch(`/api/screens/${id}`).then(r => r.json()).then(s => s.record)", self.screen_id(page)
        )
        return [entry for entry in record["entries"] if entry["test"] == test]
