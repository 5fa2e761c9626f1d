"""The app in process, with clinics, people of every role, and requests as the web part makes them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid4

import httpx2
from anyio.from_thread import BlockingPortal, start_blocking_portal
from fastapi import FastAPI
from fastapi.testclient import TestClient
from pydantic import SecretStr

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.api.unit_of_work import CSRF_HEADER
from northstride.core.catalogue import Catalogue
from northstride.store.access.users import add_user, create_clinic
from northstride.store.actor import Actor, Role
from northstride.store.readings.refreshing import refresh
from tests.support.database import DatabaseCase

PASSWORD = "a long enough password"
ROLES: tuple[Role, ...] = ("owner", "practitioner", "assistant", "student")


@dataclass
class Person:
    """A signed-in user with their own cookie jar."""

    client: TestClient
    token: str
    clinic_id: UUID
    user_id: UUID

    def call(self, method: str, path: str, body: Any = None, **options: Any) -> httpx2.Response:
        headers = {CSRF_HEADER: self.token, **options.pop("headers", {})}
        if body is not None:
            options["json"] = body
        return self.client.request(method, path, headers=headers, **options)

    def ok(self, method: str, path: str, body: Any = None, **options: Any) -> Any:
        response = self.call(method, path, body, **options)
        if not response.is_success:
            raise AssertionError(f"{method} {path}: {response.status_code} {response.text}")
        return response.json() if response.content else None

    def add_athlete(self, **fields: Any) -> str:
        key = str(uuid4())
        body = {"id": key, "ref": f"T-{key[:8]}", "name": "Ilse Varga", **fields}
        self.ok("POST", "/api/athletes", body)
        return key

    def begin_screen(self, athlete: str | None = None, **fields: Any) -> str:
        """Of a purpose that plans nothing, so that it can be signed as soon as anything was written."""
        key = str(uuid4())
        body = {
            "id": key,
            "athlete_id": athlete or self.add_athlete(),
            "date": "2026-09-14",
            "purpose": "follow_up",
            **fields,
        }
        self.ok("POST", "/api/screens", body)
        return key

    def listed(self, **filters: Any) -> list[dict[str, Any]]:
        """The athletes a list shows."""
        return list(self.ok("GET", "/api/athletes", params=filters)["athletes"])

    def edit(self, athlete: str, **fields: Any) -> Any:
        """An edit of the athlete as they stand now."""
        seen = self.ok("GET", f"/api/athletes/{athlete}")["revision"]
        return self.ok("PATCH", f"/api/athletes/{athlete}", {"seen": seen, **fields})

    def shown(self, screen: str) -> dict[str, str]:
        """The identity of the reading that stands in Reading."""
        return dict(self.ok("GET", f"/api/screens/{screen}/reading")["identity"])

    def sign(self, screen: str, password: str = PASSWORD) -> httpx2.Response:
        """Signs what Reading shows now."""
        body = {"shown": self.shown(screen), "password": password}
        return self.call("POST", f"/api/screens/{screen}/sign", body)

    def amendment(self, screen: str, reason: str = "second look", **fields: Any) -> dict[str, Any]:
        """A body that stands on the newest signature."""
        newest = self.ok("GET", f"/api/screens/{screen}")["signatures"][-1]["id"]
        return {"id": str(uuid4()), "stands_on": newest, "reason": reason, "password": PASSWORD, **fields}

    def import_file(self, file: dict[str, Any], name: str = "Ilse Varga") -> Any:
        """Takes a file for whom it is shown to be about."""
        shown = self.ok("POST", "/api/records/check", file)["athlete"]
        whose = {"athlete": shown["id"]} if shown else {"name": name}
        return self.ok("POST", "/api/records", file, params=whose)

    def answer(self, screen: str, side: str | None, field: str, value: Any, **fields: Any) -> Any:
        return self.ok(
            "POST", f"/api/screens/{screen}/answers", {"answers": [answer(side, field, value, **fields)]}
        )


def answer(side: str | None, field: str, value: Any, **fields: Any) -> dict[str, Any]:
    return {
        "id": str(uuid4()),
        "test": "hip.modified_thomas",
        "side": side,
        "field": field,
        "value": value,
        **fields,
    }


class ApiCase(DatabaseCase):
    """`person(role)` signs somebody in; `person(role, clinic)` in another clinic."""

    app: FastAPI
    catalogue: Catalogue | None = None
    clinic_id: UUID
    portal: BlockingPortal

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        settings = Settings(database_url=SecretStr(cls.url), hash_cost="test")
        cls.app = create_app(settings, cls.catalogue)
        cls.addClassCleanup(cls.app.state.services.close)
        # One loop for all clients, as one app process has: what requests wait for wakes no other loop.
        cls.portal = cls.enterClassContext(start_blocking_portal())
        cls.clinic_id = cls.new_clinic()

    def refresh(self) -> None:
        """What the app does behind the requests: lists are up to date afterwards."""
        while refresh(self.engine, self.app.state.services.catalogue):
            pass

    @classmethod
    def new_clinic(cls) -> UUID:
        with cls.engine.begin() as db:
            return create_clinic(db, "Tarnholt", "Europe/Helsinki")

    def client(self, address: str = "testclient") -> TestClient:
        """A device nobody has signed in on."""
        client = TestClient(self.app, client=(address, 50_000), raise_server_exceptions=False)
        client.portal = self.portal
        self.addCleanup(client.close)
        return client

    def person(self, role: Role = "practitioner", clinic_id: UUID | None = None) -> Person:
        clinic = clinic_id or self.clinic_id
        login = f"{role}-{uuid4().hex[:8]}"
        user_id = uuid4()
        with self.engine.begin() as db:
            actor = Actor(clinic, user_id, "set up", "owner", None, "Europe/Helsinki")
            passwords = self.app.state.services.passwords
            add_user(db, actor, user_id, login, f"A. {role.title()}", role, passwords.hash(PASSWORD))
        client = self.client()
        body = client.post("/api/session", json={"login": login, "password": PASSWORD}).json()
        return Person(client, body["token"], clinic, user_id)
